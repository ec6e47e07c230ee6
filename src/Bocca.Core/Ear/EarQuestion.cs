using Bocca.Core.Music;
using Bocca.Core.Teaching;

namespace Bocca.Core.Ear;

/// <summary>What may be tapped for an answer.</summary>
/// <param name="Id">What is sent.</param>
/// <param name="Words">What it says.</param>
/// <param name="Written">The note that it shows, as it is read; null where it shows none.</param>
public sealed record EarChoice(string Id, string Words, Pitch? Written = null);

/// <summary>One question of a drill: what is heard, what is tapped, sung and played.</summary>
/// <param name="Drill">The drill.</param>
/// <param name="Level">How hard, on the drill's staircase.</param>
/// <param name="Seed">The same seed asks the same.</param>
public sealed record EarQuestion(EarDrill Drill, int Level, int Seed)
{
    /// <summary>What it asks: of two sounds, which is lower.</summary>
    public string Title => Drill.Kind == EarKind.Lowest && Choices.Count == 2 ? "Which is lower?" : Drill.Name;

    /// <summary>What is done, in a sentence.</summary>
    public string Ask => Drill.Kind == EarKind.Lowest && Choices.Count == 2 ? "Listen, then tap the lower." : Drill.Ask;

    /// <summary>What Bocca sounds before: notes with their beats, sounding pitches.</summary>
    public IReadOnlyList<(Pitch Sounding, double StartBeat, double Beats)> Heard { get; init; } = [];

    /// <summary>Which of them are accented, by their place.</summary>
    public IReadOnlyList<int> Accents { get; init; } = [];

    /// <summary>What may be tapped; empty where nothing is.</summary>
    public IReadOnlyList<EarChoice> Choices { get; init; } = [];

    /// <summary>What is right, in order.</summary>
    public IReadOnlyList<string> Answer { get; init; } = [];

    /// <summary>What is to be sung, as it is read.</summary>
    public IReadOnlyList<Pitch> Sung { get; init; } = [];

    /// <summary>What is to be played, as it is read.</summary>
    public IReadOnlyList<Pitch> Played { get; init; } = [];

    /// <summary>Cents that the notes lie from equal temperament where they are asked so, as in a chord; 0 otherwise.</summary>
    public double AsideCents { get; init; }

    /// <summary>Pitches of a chord that sounds with the first half of what is played, hertz; empty for none.</summary>
    public IReadOnlyList<double> Drone { get; init; } = [];

    /// <summary>Whether its notes are shown before they are played: read, not heard.</summary>
    public bool IsRead => Drill.Kind is EarKind.Line or EarKind.Sight or EarKind.Find or EarKind.Drone;

    /// <summary>What it is about, for the record and the recall schedule: <c>interval -4</c>, <c>2 of 3</c>.</summary>
    public string Item { get; init; } = "";

    /// <summary>Beats that a note to be sung or played lasts, where not each has its own.</summary>
    public double NoteBeats { get; init; } = 2;

    /// <summary>Beats of each note that is sung; empty where they are alike.</summary>
    public IReadOnlyList<double> SungLengths { get; init; } = [];

    /// <summary>Beats of a siren.</summary>
    public const double SirenBeats = 12;

    /// <summary>Whether it is answered by a tap alone.</summary>
    public bool TapOnly => Cues.Times == 0;

    /// <summary>Beats between what is sung and what is played.</summary>
    public const double BetweenBeats = 4;

    /// <summary>Beats from the first to be sung to the end of the last.</summary>
    public double SungBeats => SungFrom(Sung.Count);

    /// <summary>Beats that a note lasts that is sung.</summary>
    public double SungLength(int note) => SungLengths.Count > note ? SungLengths[note] : NoteBeats;

    /// <summary>When a note is to be sung, beats from the first.</summary>
    public double SungFrom(int note) => Enumerable.Range(0, note).Sum(SungLength);

    /// <summary>When what is played begins, beats from the first to be sung.</summary>
    public double PlayedFrom => Sung.Count == 0 ? 0 : SungBeats + BetweenBeats;

    /// <summary>What is sung and played, as cues that are counted.</summary>
    public CuePlan Cues
    {
        get
        {
            var cues = new List<Cue>();
            if (Drill.Kind == EarKind.Siren)
                cues.Add(new Cue(0, SirenBeats, 1, "slide", Cue.Level) { Voice = true });
            if (Sung.Count > 0)
                cues.Add(new Cue(0, SungBeats, Played.Count > 0 ? BetweenBeats : 1, "sing", Cue.Level) { Voice = true });
            if (Played.Count > 0)
                cues.Add(new Cue(PlayedFrom, Played.Count * NoteBeats, 1, "play", Cue.Level));
            return new CuePlan(Drill.Tempo, cues);
        }
    }
}
