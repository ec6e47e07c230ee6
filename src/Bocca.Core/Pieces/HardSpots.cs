using Bocca.Core.Fingering.Passage;
using Bocca.Core.Instruments;
using Bocca.Core.Judging;
using Bocca.Core.Pieces.Breathing;
using Bocca.Core.Pieces.Lines;
using Bocca.Core.Pieces.Study;

namespace Bocca.Core.Pieces;

/// <summary>
/// Finds where a line is likely to go wrong: crossings of partials, the hand's slow changes, far moves of the slide, first notes after
/// breaths, high notes late in a phrase, values not yet met, and what this pupil missed before. Points ours, editable.
/// </summary>
internal sealed class HardSpots(PieceLine line, PassagePlayer player, PassagePlan fingered, AirPlan breathed, StudyPupil pupil)
{
    /// <summary>What is not worth a mark, points.</summary>
    private const double Least = 3;

    /// <summary>A change in less than this is quick, s.</summary>
    private const double QuickSeconds = 0.25;

    /// <summary>Partials that lie a whole tone apart or less are crowded: the eighth and above (computed).</summary>
    private const int CrowdedFrom = 8;

    private const int LeapUp = 5;

    /// <summary>Misses from this share on are a reason.</summary>
    private const double MissedOften = 0.25;

    private readonly HashSet<int> _afterBreath = [.. breathed.Spans.Skip(1).Select(span => span.From)];
    private readonly Dictionary<int, string> _new = NoteValues
        .Of(line)
        .Where(each => pupil.Met?.Contains(each.Value.Id) == false)
        .GroupBy(each => each.First)
        .ToDictionary(group => group.Key, group => string.Join(", ", group.Select(each => each.Value.Name)));

    public IReadOnlyList<HardSpot> Find()
    {
        var pitches = line.Notes.Select(note => note.Sounding.Midi).ToList();
        var high = pitches.Min() + (0.7 * (pitches.Max() - pitches.Min()));
        var spots = new List<HardSpot>();
        for (var i = 0; i < line.Notes.Count; i++)
        {
            var reasons = Lips(i)
                .Concat(Hand(i))
                .Concat(Reading(i))
                .Concat(Late(i, high))
                .OrderByDescending(reason => reason.Points)
                .ToList();
            var score = reasons.Sum(reason => reason.Points);
            if (score >= Least)
                spots.Add(new HardSpot(i, Math.Round(score, 1), [.. reasons.Select(reason => reason.Words)]));
        }

        return spots;
    }

    private IEnumerable<(double Points, string Words)> Lips(int i)
    {
        var note = line.Notes[i];
        if (_afterBreath.Contains(i))
            yield return (1, "the first note after a breath");
        if (pupil.Missed.TryGetValue(note.Sounding.Midi, out var missed) && missed >= MissedOften)
            yield return (4 * missed, $"missed {100 * missed:0} % lately");
        if (pupil.Range is { } range && note.Sounding.Midi > range.Highest.Midi)
            yield return (2, "above the range so far");
        if (i == 0)
            yield break;
        var (from, to) = (fingered.Notes[i - 1].Fingering.Partial, fingered.Notes[i].Fingering.Partial);
        var crossed = Math.Abs(to - from);
        if (crossed > 1)
            yield return (Math.Min(3, crossed), $"a wide {(to > from ? "leap" : "drop")}, {Words.Of(crossed)} partials");
        else if (crossed == 1 && Math.Max(from, to) > CrowdedFrom)
            yield return (2, "close partials: easy to overshoot");
        else if (crossed == 1 && note.Slurred)
            yield return (1, "a slur to the next partial");
        if (_afterBreath.Contains(i) && note.Sounding.Midi - line.Notes[i - 1].Sounding.Midi >= LeapUp)
            yield return (2, "up after a breath");
    }

    private IEnumerable<(double Points, string Words)> Hand(int i)
    {
        if (i == 0)
            yield break;
        var (before, here) = (fingered.Notes[i - 1], fingered.Notes[i]);
        var seconds = Math.Max(0.01, line.Notes[i].Seconds - line.Notes[i - 1].Seconds);
        if (here.Barred is { } barred)
            yield return (6, barred);
        if (player.SlowChanges.TryGetValue((before.Fingering.Setting, here.Fingering.Setting), out var slower) && slower > 0)
            yield return (
                Math.Min(4, 2 + (2 * slower)),
                $"{before.Fingering.Setting} to {here.Fingering.Setting} is slow in this pupil's hand, {slower:0.0} s over the usual"
            );
        if (player.Instrument.Slide is not null)
        {
            var speed = Math.Abs(here.SlideCm - before.SlideCm) / (player.Costs.SlideShareOfTime * seconds);
            if (speed > player.Costs.SlideLimitCmPerSecond)
                yield return (
                    Math.Min(4, 2 * speed / player.Costs.SlideLimitCmPerSecond),
                    $"the slide goes {Math.Abs(here.SlideCm - before.SlideCm):0} cm in {seconds:0.0} s"
                );
        }
        else if (seconds < QuickSeconds && FingersMoved(before.Fingering.Setting, here.Fingering.Setting) is var moved && moved > 1)
        {
            yield return (moved * QuickSeconds / seconds * 0.75, $"{Words.Of(moved)} fingers move in {seconds:0.0} s");
        }
    }

    private IEnumerable<(double Points, string Words)> Reading(int i)
    {
        if (_new.TryGetValue(i, out var values))
            yield return (3, $"not met yet: {values}");
        if (line.Notes[i].HasGrace)
            yield return (1, "a grace note before it");
    }

    /// <summary>A high note in the last third of what is played in one breath.</summary>
    private IEnumerable<(double Points, string Words)> Late(int i, double high)
    {
        if (line.Notes[i].Sounding.Midi < high || breathed.Spans.FirstOrDefault(span => span.From <= i && i <= span.To) is not { } span)
            yield break;
        var spent = (line.Notes[i].Seconds - line.Notes[span.From].Seconds) / Math.Max(0.01, span.Capacity);
        if (spent > 2 / 3.0)
            yield return (2, $"high when {100 * Math.Min(1, spent):0} % of the breath is spent");
    }

    private static int FingersMoved(Setting from, Setting to) =>
        Enumerable.Range(1, 4).Count(valve => from.Presses(valve) != to.Presses(valve)) + (from.Attachment == to.Attachment ? 0 : 1);
}
