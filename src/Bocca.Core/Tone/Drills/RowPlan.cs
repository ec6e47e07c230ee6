using Bocca.Core.Music;
using Bocca.Core.Teaching;
using Bocca.Core.Tone.Notes;

namespace Bocca.Core.Tone.Drills;

/// <summary>A note of a drill, with its time.</summary>
/// <param name="Meant">The note.</param>
/// <param name="StartBeat">Beats from the first.</param>
/// <param name="Beats">Its written length.</param>
/// <param name="RestBeats">Beats of rest after it.</param>
/// <param name="Share">How much of its length is to sound: 1 joined to the next, less for short notes.</param>
/// <param name="Label">What it is called while it is counted; empty for nothing.</param>
/// <param name="AnyPartial">Whether any partial of the tube will do.</param>
public sealed record AskedNote(
    MeantNote Meant,
    double StartBeat,
    double Beats,
    double RestBeats,
    double Share = 1,
    string Label = "",
    bool AnyPartial = false
)
{
    /// <summary>What it is for, where the drill's aim holds parts against each other.</summary>
    public DrillPart Part { get; init; }

    /// <summary>Semitones from the note that the tone glides through; null where it keeps its height.</summary>
    public IReadOnlyList<double>? Heights { get; init; }

    /// <summary>Whether air is asked and no tone.</summary>
    public bool Air { get; init; }
}

/// <summary>A row of notes with its times.</summary>
/// <param name="Tempo">Beats a minute.</param>
/// <param name="Notes">The notes, in order; at least one.</param>
public sealed record RowPlan(double Tempo, IReadOnlyList<AskedNote> Notes)
{
    /// <summary>A phrase's sounds may begin so long before it was due (seconds).</summary>
    private const double EarlySeconds = 0.5;

    /// <summary>Seconds a beat lasts.</summary>
    public double BeatSeconds => 60 / Tempo;

    /// <summary>Beats from the first note to the end of the last rest.</summary>
    public double TotalBeats => Notes[^1].StartBeat + Notes[^1].Beats + Notes[^1].RestBeats;

    /// <summary>Seconds from the first note to the end of the last rest.</summary>
    public double TotalSeconds => TotalBeats * BeatSeconds;

    /// <summary>The moment of each note, seconds from the first.</summary>
    public IReadOnlyList<double> Starts => [.. Notes.Select(note => note.StartBeat * BeatSeconds)];

    /// <summary>The notes without their times.</summary>
    public IReadOnlyList<MeantNote> Meant => [.. Notes.Select(note => note.Meant)];

    /// <summary>Index of the first note of each phrase, and one past its last: phrases are what rests part.</summary>
    public IReadOnlyList<(int First, int End)> Phrases { get; } = Parted(Notes);

    /// <summary>Seconds of it that lie above a pitch.</summary>
    public double SecondsAbove(Pitch ceiling) =>
        BeatSeconds * Notes.Where(note => note.Meant.Sounding.Midi > ceiling.Midi).Sum(note => note.Beats);

    /// <summary>The plan as cues: one a phrase, for whoever counts it.</summary>
    public CuePlan Cues =>
        new(
            Tempo,
            [
                .. Phrases.Select(phrase => new Cue(
                    Notes[phrase.First].StartBeat,
                    Notes[phrase.End - 1].StartBeat + Notes[phrase.End - 1].Beats - Notes[phrase.First].StartBeat,
                    Notes[phrase.End - 1].RestBeats,
                    Notes[phrase.First].Label,
                    Cue.Level
                )),
            ]
        );

    /// <summary>As much of the row as was over when it was stopped: the phrases that had ended.</summary>
    /// <param name="beats">Beats from the first note.</param>
    /// <exception cref="ArgumentException">No phrase was over by then.</exception>
    public RowPlan UpTo(double beats)
    {
        var over = Phrases.TakeWhile(phrase => Notes[phrase.End - 1].StartBeat + Notes[phrase.End - 1].Beats <= beats).Count();
        return over > 0
            ? new RowPlan(Tempo, [.. Notes.Take(Phrases[over - 1].End)])
            : throw new ArgumentException("Nothing was finished yet: play at least one phrase to its end.");
    }

    /// <summary>
    /// The row as it should sound; no model where air is asked, or any partial will do.
    /// </summary>
    /// <param name="hertz">The pitch of a note, hertz.</param>
    public IReadOnlyList<ModelNote> Model(Func<MeantNote, double> hertz)
    {
        if (Notes.Any(note => note.Air || note.AnyPartial))
            return [];
        var model = new List<ModelNote>();
        foreach (var (i, note) in Notes.Index())
        {
            var slurred = i > 0 && Notes[i - 1].Meant.SlurredToNext && Notes[i - 1].RestBeats == 0;
            var sounding = note.Beats * (note.Meant.SlurredToNext ? 1 : note.Share);
            var cue = new Cue(note.StartBeat, sounding, 0, "", note.Heights ?? Cue.Level, Glides: note.Heights is not null);
            model.AddRange(
                ModelLine
                    .Of(new CuePlan(Tempo, [cue]), hertz(note.Meant))
                    .Select((part, at) => slurred && at == 0 ? part with { Bound = true } : part)
            );
        }

        return model;
    }

    /// <summary>
    /// When the sounds of a phrase may begin: from half a second before it is due, or half the rest before it, to the next one's.
    /// </summary>
    /// <param name="starts">When each note was due, seconds into the sound.</param>
    /// <param name="phrase">Index of the phrase.</param>
    internal (double From, double To) Opening(IReadOnlyList<double> starts, int phrase)
    {
        double At(int which) =>
            which == 0 ? double.NegativeInfinity
            : which >= Phrases.Count ? double.PositiveInfinity
            : starts[Phrases[which].First] - Math.Min(EarlySeconds, Notes[Phrases[which].First - 1].RestBeats * BeatSeconds / 2);
        return (At(phrase), At(phrase + 1));
    }

    private static List<(int First, int End)> Parted(IReadOnlyList<AskedNote> notes)
    {
        var phrases = new List<(int, int)>();
        for (var (first, i) = (0, 0); i < notes.Count; i++)
        {
            if (notes[i].RestBeats == 0 && i + 1 < notes.Count)
                continue;
            phrases.Add((first, i + 1));
            first = i + 1;
        }

        return phrases;
    }

    /// <summary>A row in one phrase, every note as long as the next, and a rest at its end.</summary>
    public static RowPlan Even(IReadOnlyList<MeantNote> meant, double tempo, double beats, double share = 1) =>
        new(
            tempo,
            [.. meant.Select((note, i) => new AskedNote(note, i * beats, beats, i + 1 < meant.Count ? 0 : Math.Max(1, beats), share))]
        );
}
