using Bocca.Core.Judging;
using Bocca.Core.Teaching;
using Bocca.Core.Tone.Notes;

namespace Bocca.Core.Counting;

/// <summary>Judges a take of cards: voice and hands apart, at most one thing to try.</summary>
public static class CountTakeJudge
{
    /// <summary>Where cards are said and clapped.</summary>
    public static Place Place { get; } = new("ear");

    /// <summary>The name of the cards among drills.</summary>
    public const string DrillId = "cards";

    /// <summary>Judges.</summary>
    /// <param name="heard">What was heard.</param>
    /// <param name="pupil">Who is judged.</param>
    public static Verdict Judge(HeardCount heard, JudgedPupil pupil)
    {
        if (heard.Problem is { } problem)
            return new Verdict(Outcome.CannotTell, heard.Sentence, [], [], Again("The same cards once more.", problem));
        if (heard.Cards.All(card => IsSilent(card.Said) && IsSilent(card.Clapped)))
            return new Verdict(
                Outcome.CannotTell,
                $"Cannot tell: {Small(heard.Sentence)}",
                [],
                [],
                Again("Nearer to the microphone, once more.", heard.Sentence)
            );
        var findings = Findings(heard, pupil.Symptoms);
        return new Verdict(
            heard.Passed ? Outcome.Passed : Outcome.Repeat,
            heard.Sentence,
            Numbers(heard),
            findings,
            !heard.NotesPassed && findings.Count == 0
                    ? Again("The same cards once more: the rhythm stands, look at the notes.", heard.Sentence)
                : heard.Passed || findings.Count == 0 ? Again("Go on: the next cards.", heard.Sentence)
                : AdvisedStep.Of(pupil, findings, AdvisedStep.IsTense(pupil, findings), Place, DrillId)
        );
    }

    /// <summary>
    /// The verdict with another tempo to go on at, where two takes in a row at one tempo were all inside, or both were not
    /// (<see cref="TempoLadder"/>); else as it was.
    /// </summary>
    /// <param name="verdict">What came of this take.</param>
    /// <param name="tempo">Its beats a minute.</param>
    /// <param name="before">What came of the one before at this tempo; null for none.</param>
    public static Verdict Stepped(Verdict verdict, double tempo, Outcome? before)
    {
        var came = verdict.Outcome == Outcome.Passed;
        if (verdict.Outcome == Outcome.CannotTell || before is null or Outcome.CannotTell || (before == Outcome.Passed) != came)
            return verdict;
        var next = TempoLadder.Next(tempo, came);
        var cue = came ? $"Twice all inside: on to {next:0} a minute." : $"{verdict.Next.Cue.TrimEnd('.')}, at {next:0} a minute.";
        return verdict with { Next = verdict.Next with { Tempo = next, Cue = cue } };
    }

    private static bool IsSilent(CountedTrack? track) => track is null || track.Beats.All(beat => beat.ErrorMs is null);

    private static List<Finding> Findings(HeardCount heard, SymptomTable symptoms)
    {
        var findings = new List<Finding>();
        foreach (
            var (id, of) in new (string, Func<HeardCard, CountedTrack?>)[]
            {
                ("countLost", card => card.Said),
                ("clapLost", card => card.Clapped),
            }
        )
        {
            var off = heard
                .Cards.Select((card, i) => (Track: of(card), Number: i + 1))
                .Where(each => each.Track is { Passed: false })
                .ToList();
            if (off.Count == 0)
                continue;
            var (track, number) = off[0];
            var runs = off.TrueForAll(each => Runs(each.Track!));
            findings.Add(
                new Finding(
                    symptoms.Get(runs ? "rushes" : id),
                    [.. off.Select(each => each.Number)],
                    runs ? track!.DriftPercent!.Value : track!.Beats.Max(beat => Math.Abs(beat.ErrorMs ?? 0)),
                    0,
                    runs ? "per cent" : "ms",
                    track!.Sentence
                )
            );
        }

        return findings;
    }

    private static bool Runs(CountedTrack track) =>
        track.Drifts && track.ExtraSeconds.Count == 0 && track.Beats.All(beat => beat.ErrorMs is not null);

    private static List<HeardNumber> Numbers(HeardCount heard)
    {
        var numbers = new List<HeardNumber>();
        foreach (
            var (name, of) in new (string, Func<HeardCard, CountedTrack?>)[]
            {
                ("said", card => card.Said),
                ("hands", card => card.Clapped),
            }
        )
        {
            var tracks = heard.Cards.Select(of).OfType<CountedTrack>().ToList();
            if (tracks.Count == 0)
                continue;
            var (came, all) = (
                tracks.Sum(track => track.Beats.Count(beat => beat.ErrorMs is not null)),
                tracks.Sum(track => track.Beats.Count)
            );
            var uneven = tracks.Select(track => track.EvennessMs).OfType<double>().ToList();
            numbers.Add(
                new HeardNumber(
                    name,
                    $"{came} of {all}",
                    uneven.Count > 0 ? $"came; even within {uneven.Average():0} ms" : "came",
                    tracks.TrueForAll(track => track.Passed)
                )
            );
        }

        if (heard.Notes.OfType<JudgedNote>().ToList() is [_, ..] notes)
            numbers.Add(
                new HeardNumber(
                    "notes",
                    $"{notes.Count(note => note.Outcome == NoteOutcome.Right)} of {notes.Count}",
                    "were those of the card",
                    heard.NotesPassed
                )
            );
        return numbers;
    }

    private static string Small(string sentence) => char.ToLowerInvariant(sentence[0]) + sentence[1..];

    private static NextStep Again(string cue, string reason) => new(Place, DrillId, cue, reason);
}
