using System.Globalization;
using Bocca.Core.Instruments;
using Bocca.Core.Pieces;
using Bocca.Core.Pieces.Breathing;
using Bocca.Core.Pieces.Lines;

namespace Bocca.Cli;

/// <summary>The JSON of <c>bocca plan</c>.</summary>
internal static class PlanShape
{
    public static object Of(PiecePlan plan, Instrument instrument) =>
        new
        {
            plan.Line.Title,
            Instrument = instrument.Id,
            Reading = plan.Line.Reading.Id,
            plan.Line.Part,
            plan.Line.Tempo,
            Notes = plan.Line.Notes.Select(note => NoteOf(plan, note)),
            plan.Fingered.Cost,
            plan.Fingered.PlainCost,
            plan.Fingered.LowerBound,
            Proven = plan.Fingered.IsProven,
            Gain = new
            {
                plan.Fingered.Gain.Fingers,
                Cm = Math.Round(plan.Fingered.Gain.Cm, 1),
                Cents = Math.Round(plan.Fingered.Gain.Cents, 2),
            },
            plan.Deviating,
            Breaths = plan.Breathed.Breaths.Select(breath => BreathOf(plan, breath)),
            Spans = plan.Breathed.Spans.Select(span => new
            {
                span.From,
                span.To,
                Seconds = Math.Round(span.Seconds, 3),
                span.Needs,
                span.Capacity,
            }),
            BreathCost = plan.Breathed.Cost,
            BreathLowerBound = plan.Breathed.LowerBound,
            BreathProven = plan.Breathed.IsProven,
            Possible = plan.Breathed.IsPossible,
            plan.Breathed.Why,
            plan.Breathed.MendingTempo,
            plan.Breathed.MendingNotes,
            plan.Breathed.Remarks,
            Phrases = plan.Phrases.Select(phrase => new
            {
                phrase.From,
                phrase.To,
                phrase.Level,
            }),
            Repeats = plan.Returns.Select(each => new
            {
                each.From,
                each.To,
                each.Like,
                each.Differs,
                each.Semitones,
            }),
            Runs = plan.Runs.Select(run => new
            {
                run.From,
                run.To,
                run.Kind,
            }),
            Articulation = plan.Articulation.Select(bar => new { Measure = Number(plan.Line.Bars[bar.Bar].Number), bar.Pattern }),
            Hidden = plan.Hidden.Select(hidden => new
            {
                hidden.To,
                hidden.FromPartial,
                hidden.ToPartial,
            }),
            Use = new
            {
                Lowest = plan.Use.Lowest.ToString(),
                Highest = plan.Use.Highest.ToString(),
                Frequent = plan.Use.Frequent.Select(pitch => pitch.ToString()),
                Settings = plan.Use.Settings.Select(use => new { Setting = use.Setting.ToString(), use.Notes }),
            },
            Hard = plan.Hard.Select(spot => new
            {
                Index = spot.Note,
                spot.Score,
                Why = string.Join("; ", spot.Why),
            }),
        };

    private static object NoteOf(PiecePlan plan, LineNote note)
    {
        var choice = plan.Fingered.Notes[note.Index];
        return new
        {
            note.Index,
            Measure = Number(plan.Line.BarOf(note.Index)),
            Beat = Math.Round(note.Beat, 4),
            Seconds = Math.Round(note.Seconds, 4),
            Held = Math.Round(note.Held, 4),
            Written = note.Written.ToString(),
            Sounding = note.Sounding.ToString(),
            Setting = choice.Fingering.Setting.ToString(),
            choice.Fingering.Partial,
            Cents = Math.Round(choice.Fingering.Cents, 1),
            choice.Reason,
            Plain = choice.Plain.Setting.ToString(),
            Pinned = choice.IsPinned,
            Also = choice.Also.Select(way => new { Setting = way.Setting.ToString(), Cents = Math.Round(way.Cents, 1) }),
            Slur = note.Slurred ? choice.Slur.ToString().ToLowerInvariant() : null,
            SlideCm = choice.Fingering.Setting.Position > 0 ? Math.Round(choice.SlideCm, 1) : (double?)null,
        };
    }

    private static object BreathOf(PiecePlan plan, PlannedBreath breath) =>
        new
        {
            breath.Place.After,
            Measure = Number(plan.Line.BarOf(breath.Place.After)),
            Beat = Math.Round(plan.Line.Notes[breath.Place.After].Beat, 4),
            Kind = breath.Place.Kind.ToString().ToLowerInvariant(),
            Seconds = Math.Round(breath.Place.Seconds, 4),
            Shortens = breath.Place.Shortens is { } shortens
                ? new
                {
                    Index = shortens.Note,
                    ByBeats = (shortens.By / plan.Line.Bars[plan.Line.Notes[shortens.Note].Bar].Metre.Beat).Value,
                }
                : null,
            breath.Why,
            Full = breath.IsFull,
            breath.WithoutFrom,
            breath.WrittenAs,
        };

    /// <summary>A bar's number as one, where it is one.</summary>
    private static object Number(string printed) =>
        int.TryParse(printed, NumberStyles.None, CultureInfo.InvariantCulture, out var number) ? number : printed;
}
