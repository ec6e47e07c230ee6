using Bocca.Core.Fingering.Passage;
using Bocca.Core.Judging;
using Bocca.Core.Pieces;
using Bocca.Core.Pieces.Breathing;
using Bocca.Core.Pieces.Study;
using Bocca.Web.Frame;
using Bocca.Web.Record;

namespace Bocca.Web.Pages.Pieces;

/// <summary>What to practise first in a piece.</summary>
/// <param name="From">The first bar, by its place.</param>
/// <param name="To">The last bar.</param>
/// <param name="Words">What, where and why.</param>
public sealed record FirstWork(int From, int To, string Words);

/// <summary>A piece worked out, as the page shows it.</summary>
/// <param name="Pupil">Who plays.</param>
/// <param name="Worked">The piece.</param>
/// <param name="Tuning">The room's A.</param>
public sealed record PieceView(Pupil Pupil, WorkedPiece Worked, Core.Music.Tuning Tuning)
{
    private const int MostFirst = 3;

    /// <summary>What was settled before the last change; null where nothing was changed just now.</summary>
    public string? Before { get; init; }

    /// <summary>Whether this pupil is asked to sing what is read.</summary>
    public bool Sings { get; init; }

    /// <summary>The tempo before the last change.</summary>
    public double? TempoBefore { get; init; }

    public PiecePlan Plan => Worked.Plan;

    /// <summary>What the line is called; empty where there is but one and the score does not name it.</summary>
    public string Part => Worked.Source.Score.Parts is [{ Name: "" }] ? "" : Plan.Line.Part;

    /// <summary>Whether the teacher has the whole piece by the chart.</summary>
    public bool AllByChart => PieceChoices.Parse(Worked.Played.Choices, Pupil.Instrument.Slide is not null).AllByChart;

    /// <summary>How far it goes, against the pupil's range.</summary>
    public string RangeWords => Plan.Use.Words(Plan.Line, Worked.Studied.Range);

    /// <summary>The values in it that the pupil has not met, by name.</summary>
    public IReadOnlyList<string> NewValues =>
        [
            .. NoteValues
                .Of(Plan.Line)
                .Where(each => Worked.Studied.Met?.Contains(each.Value.Id) == false)
                .Select(each => $"{each.Value.Name} (bar {Plan.Line.BarOf(each.First)})"),
        ];

    /// <summary>The page's own address.</summary>
    public string Address => $"/pieces/{Pupil.Id}/{Worked.Piece.Id}";

    /// <summary>What can be drawn upon the score, one at a time.</summary>
    public IReadOnlyList<(string Layer, string Name)> Layers =>
        [
            ("settings", Pupil.Instrument.Slide is null ? "Fingering" : "Slide"),
            ("breaths", "Breath"),
            ("phrases", "Phrases"),
            ("returns", "What comes again"),
            ("rows", "Tongue and slur"),
            ("hard", "Hard spots"),
            ("none", "Nothing"),
        ];

    /// <summary>What to practise first: the bars with the hardest spots, their reasons put together.</summary>
    public IReadOnlyList<FirstWork> First =>
        [
            .. Plan
                .Hard.GroupBy(spot => Plan.Line.Notes[spot.Note].Bar)
                .Select(bar =>
                    (Bar: bar.Key, Score: bar.Sum(spot => spot.Score), Spots: bar.OrderByDescending(spot => spot.Score).ToList())
                )
                .OrderByDescending(bar => bar.Score)
                .Take(MostFirst)
                .Select(bar => new FirstWork(
                    bar.Bar,
                    bar.Bar,
                    $"Bar {Plan.Line.Bars[bar.Bar].Number}, {Written(bar.Spots[0])}: {Reasons(bar.Spots[0])}"
                )),
        ];

    private string Written(HardSpot spot) => Wording.Pitch(Plan.Line.Notes[spot.Note].Written);

    private static string Reasons(HardSpot spot) => string.Join("; ", spot.Why.Take(2).Select(why => Wording.Spelled(why.TrimEnd('.'))));

    /// <summary>The fingering in a sentence: what leaving the chart gained, and whether anything is better.</summary>
    public string FingeringWords
    {
        get
        {
            var left = Plan.Fingered.Notes.Count(note => note.Fingering.Setting != note.Plain.Setting);
            if (left == 0)
                return Plan.Fingered.IsProven ? "Standard fingerings throughout: no easier way exists." : "Standard fingerings throughout.";
            var gain = Plan.Fingered.Gain;
            var gained = new List<string>();
            if (gain.Fingers > 0)
                gained.Add(gain.Fingers == 1 ? "one finger move fewer" : $"{gain.Fingers} finger moves fewer");
            if (gain.Cm >= 1)
                gained.Add($"{gain.Cm:0} cm less for the slide");
            if (gain.Cents >= 0.5)
                gained.Add($"{gain.Cents:0.#} cents better in tune on average");
            return $"{left} {(left == 1 ? "note uses" : "notes use")} another fingering"
                + (gained.Count > 0 ? $": {string.Join(", ", gained)}" : "")
                + (Plan.Fingered.IsProven ? ". No easier way exists." : ".");
        }
    }

    /// <summary>The breaths in a sentence.</summary>
    public string BreathWords
    {
        get
        {
            var plan = Plan.Breathed;
            if (plan.Why is { } why)
                return why;
            var taken = plan.Breaths.Where(breath => breath.Place.Kind != PlaceKind.Rest).ToList();
            if (taken.Count == 0)
                return plan.Breaths.Count == 0 ? "In one breath." : "The rests are enough.";
            var thinnest = plan.Spans.MinBy(span => span.Spare)!;
            return $"{Words.Opening(taken.Count)} {(taken.Count == 1 ? "breath" : "breaths")} as well as the rests; tightest before bar "
                + $"{Plan.Line.BarOf(thinnest.To)}, with {thinnest.Spare:0.0} s to spare.";
        }
    }

    /// <summary>The tempo from which one breath fewer is enough; null where there is none.</summary>
    public string? OtherWay =>
        Plan.Breathed.Breaths.Where(breath => breath.WithoutFrom is not null).MinBy(breath => breath.WithoutFrom) is not { } breath ? null
        : breath.WithoutFrom > Plan.Line.Tempo
            ? $"At {breath.WithoutFrom:0} or faster, leave out the breath in bar {Plan.Line.BarOf(breath.Place.After)}."
        : $"The breath in bar {Plan.Line.BarOf(breath.Place.After)} can be left out: that is tight.";

    /// <summary>What the page draws upon the score and asks of it.</summary>
    public object Data =>
        new
        {
            tempo = Plan.Line.Tempo,
            beats = Plan.Line.Bars[0].Metre.Beats,
            beat = Plan.Line.Bars[0].Metre.Beat.Value,
            slide = Pupil.Instrument.Slide is not null,
            bars = Plan.Line.Bars.Select(bar => bar.Number),
            cards = BarCard.Of(Plan.Line).Select(card => card is null ? null : new { own = card.Text, metre = $"{card.Metre}" }),
            notes = Plan.Line.Notes.Select(Note),
            ways = Plan.Line.Notes.Select(note => note.Sounding).DistinctBy(pitch => pitch.Midi).ToDictionary(pitch => pitch.Midi, Ways),
            breaths = Plan.Breathed.Breaths.Select(Breath),
            outOfAir = Plan.Breathed.OutOfAirAt,
            spans = Plan.Breathed.Spans.Select(span => new
            {
                from = span.From,
                to = span.To,
                spare = Math.Round(span.Spare, 1),
            }),
            phrases = Plan.Phrases.Select(phrase => new
            {
                from = phrase.From,
                to = phrase.To,
                level = phrase.Level,
                line = Sings ? SungPhrase.Of(Plan.Line, phrase)?.ToString() : null,
            }),
            returns = Plan.Returns.Select(Return),
            rows = Plan.Articulation.Select(row => new
            {
                bar = row.Bar,
                pattern = row.Pattern,
                like = row.Like is { } like ? Plan.Line.Bars[like].Number : null,
            }),
            runs = Plan.Runs.Select(run => new
            {
                from = run.From,
                to = run.To,
                kind = run.Kind switch
                {
                    RunKind.Chromatic => "chromatic",
                    RunKind.Scale => "scale",
                    _ => "chord",
                },
            }),
            hidden = Plan.Hidden.Select(hidden => new { to = hidden.To, words = $"{hidden.FromPartial} to {hidden.ToPartial}" }),
            hard = Plan.Hard.Select(spot => new
            {
                note = spot.Note,
                score = spot.Score,
                why = string.Join("; ", spot.Why),
            }),
        };

    private object Note(Core.Pieces.Lines.LineNote note)
    {
        var choice = Plan.Fingered.Notes[note.Index];
        return new
        {
            first = note.Source.First,
            last = note.Source.Last,
            bar = note.Bar,
            place = Plan.Line.PlaceOf(note.Index),
            written = note.Written.ToString(),
            at = Math.Round(note.Seconds, 4),
            held = Math.Round(note.Held, 4),
            bound = note.Slurred,
            hertz = Math.Round(Tuning.Frequency(note.Sounding), 3),
            setting = choice.Fingering.Setting.ToString(),
            plain = choice.Plain.Setting.ToString(),
            why = choice.Reason,
            pitch = note.Sounding.Midi,
            pinned = choice.IsPinned,
            barred = choice.Barred is not null,
            cm = choice.Fingering.Setting.Position > 0 ? Math.Round(choice.SlideCm, 1) : (double?)null,
            joined = choice.Slur switch
            {
                SlideSlur.Lip => "lip",
                SlideSlur.Doo => "doo",
                _ => null,
            },
        };
    }

    /// <summary>The ways to choose from at a note: all that the Notes stop shows of it, those out of this hand's reach with why.</summary>
    private IEnumerable<object> Ways(Core.Music.Pitch sounding) =>
        PassageWay
            .Every(Worked.Player, sounding)
            .DistinctBy(way => way.Setting)
            .Select(way => new
            {
                setting = way.Setting.ToString(),
                cents = Math.Round(way.Cents),
                barred = way.Barred,
            });

    private static object Breath(PlannedBreath breath) =>
        new
        {
            after = breath.Place.After,
            kind = breath.Place.Kind.ToString().ToLowerInvariant(),
            why = breath.Why,
            full = breath.IsFull,
            less = breath.Place.Mark,
            written = breath.WrittenAs,
            without = breath.WithoutFrom,
        };

    private object Return(Return each)
    {
        var differs = each.Differs.Select(difference =>
            difference switch
            {
                Difference.Level => "another level",
                Difference.Articulation => "tongued otherwise",
                Difference.Ending => "another ending",
                _ => each.Semitones > 0 ? $"{each.Semitones} semitones higher" : $"{-each.Semitones} semitones lower",
            }
        );
        return new
        {
            from = each.From,
            to = each.To,
            words = $"like bar {Plan.Line.BarOf(each.Like)}" + (each.Differs.Count > 0 ? $", {string.Join(", ", differs)}" : ""),
        };
    }
}
