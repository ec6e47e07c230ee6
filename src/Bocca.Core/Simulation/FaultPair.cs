using Bocca.Core.Buzz;
using Bocca.Core.Buzz.Drills;
using Bocca.Core.Buzz.Measures;
using Bocca.Core.Judging;
using Bocca.Core.Sound;
using Bocca.Core.Teaching;
using Bocca.Core.Tone;
using Bocca.Core.Tone.Drills;
using Bocca.Core.Tone.Listening;
using Bocca.Core.Tone.Notes;

namespace Bocca.Core.Simulation;

/// <summary>
/// Two sounds by the practice player, one of them with a fault: whoever can tell them apart can hear it in their own playing.
/// </summary>
/// <param name="Id">Its name in records.</param>
/// <param name="Name">Its name for people.</param>
/// <param name="Ask">What is asked of the two.</param>
/// <param name="Faults">What is wrong with the one.</param>
/// <param name="Notes">How many notes are played, each of so many beats: <paramref name="Beats"/>.</param>
/// <param name="Beats">Beats of each.</param>
/// <param name="Share">How much of each sounds in the one with the fault.</param>
/// <param name="Symptoms">The symptoms that a take with it shows.</param>
public sealed record FaultPair(
    string Id,
    string Name,
    string Ask,
    IReadOnlyList<Fault> Faults,
    int Notes,
    double Beats,
    double Share,
    IReadOnlyList<string> Symptoms
)
{
    /// <summary>Whether it can be heard in somebody's own take: how open a mouth is tells only beside own samples.</summary>
    public bool HearsOwn => Symptoms.Count > 0;

    /// <summary>How much of a note sounds where nothing is wrong.</summary>
    private const double Whole = 0.92;

    /// <summary>Beats a minute.</summary>
    public const double Tempo = 72;

    /// <summary>All of them, the plainest first.</summary>
    public static IReadOnlyList<FaultPair> All { get; } =
    [
        Of("sagging", "Straight or sagging?", "Which one sags?", 1, 4, ["sags", "fell"], "drift=-30"),
        Of("cut", "Joined or cut?", "Which one is cut off?", 3, 1, ["cutOff"], "closed-end=1") with
        {
            Share = 0.55,
        },
        Of("air-start", "Tongue or air?", "Which one begins with air?", 1, 4, ["airFirst"], "air-first=450"),
        Of("gap", "Gap or no gap?", "Which one has a gap in it?", 1, 4, ["breaks", "slurHole"], "break=180"),
        Of("below", "On the note or from below?", "Which one slides up to the note?", 1, 4, ["scoop"], "scoop=320"),
        Of("swell", "At once or slowly?", "Which one begins slowly?", 1, 4, ["slowRise", "unclearStart", "late"], "slow-start=320"),
        Of("tight", "Open or closed mouth?", "Which one is closed and thin?", 1, 4, [], "pinched=0.9"),
    ];

    /// <summary>The pair of this name.</summary>
    /// <exception cref="ArgumentException">There is none.</exception>
    public static FaultPair Get(string id) =>
        All.FirstOrDefault(pair => pair.Id == id) ?? throw new ArgumentException($"There is no pair '{id}'.");

    /// <summary>What is played, with the fault or without.</summary>
    /// <param name="hertz">The pitch.</param>
    /// <param name="faulty">Whether the fault is in it.</param>
    public (IReadOnlyList<PlayedNote> Row, IReadOnlyList<Fault> Faults) Play(double hertz, bool faulty) =>
        (
            [.. Enumerable.Range(0, Notes).Select(_ => new PlayedNote(hertz, Beats, faulty ? Share : Whole, SlurredToNext: false))],
            faulty ? Faults : []
        );

    /// <summary>The row as somebody else plays it, on one note.</summary>
    public RowPlan Plan(MeantNote note) => RowPlan.Even([.. Enumerable.Range(0, Notes).Select(_ => note)], Tempo, Beats);

    /// <summary>Hears a take of somebody's own out for the fault.</summary>
    /// <param name="sound">The take.</param>
    /// <param name="firstCueSeconds">When its first note was due, seconds into it; null where nobody knows.</param>
    /// <param name="note">The note.</param>
    /// <param name="player">Who plays what.</param>
    /// <param name="stage">How far the pupil has come.</param>
    /// <param name="pupil">Who is judged.</param>
    /// <returns>What was heard, and the fault in a sentence where it is in it; null where it is not.</returns>
    public (Verdict Verdict, string? Found) Hear(
        MonoSound sound,
        double? firstCueSeconds,
        MeantNote note,
        PlayerSituation player,
        LearningStage stage,
        SoundingPupil pupil
    )
    {
        Verdict verdict;
        if (Notes > 1)
        {
            var row = new AskedRow(Plan(note), player, stage)
            {
                Drill = ToneDrill.Get("joined-repeats"),
                FirstCueSeconds = firstCueSeconds,
                UsesMarks = false,
            };
            verdict = RowTake.Hear(sound, row, pupil).Verdict;
        }
        else
        {
            var tries = new CuePlan(Tempo, (int)Beats, 1, 1);
            var take = new AskedTake(BuzzDrill.Get("long-buzz"), tries, SoundStage.Instrument, stage, firstCueSeconds);
            verdict = TakeListener.Hear(sound with { CueSeconds = null }, take, pupil).Verdict;
        }

        return (verdict, verdict.Findings.FirstOrDefault(finding => Symptoms.Contains(finding.Symptom.Id))?.Heard);
    }

    /// <summary>Whether the fault is in the first or the second of the two, by a seed.</summary>
    public static int Faulty(int seed) => new Random(seed).Next(2) + 1;

    private static FaultPair Of(string id, string name, string ask, int notes, double beats, string[] symptoms, params string[] faults) =>
        new(id, name, ask, [.. faults.Select(Fault.Parse)], notes, beats, Whole, symptoms);
}
