using Bocca.Core.Music;
using Bocca.Core.Teaching;

namespace Bocca.Core.Ear;

/// <summary>What Bocca sounds of a question before it is answered.</summary>
/// <param name="Notes">The notes, in hertz and beats.</param>
/// <param name="Octaves">
/// By how many octaves what is to be sung was moved to where the voice is; null where no octave lies within its reach: then it sounds as
/// it is written.
/// </param>
public sealed record EarModel(IReadOnlyList<ModelNote> Notes, int? Octaves)
{
    /// <summary>The share of a note's beats that sounds, so that the next begins anew; a chord rings to its end (ours).</summary>
    private const double Apart = 0.92,
        Whole = 1;

    /// <summary>What is heard twice is heard again after whole bars of so many beats.</summary>
    private const int BarBeats = 4;

    /// <summary>Beats that a drone begins before what is played to it.</summary>
    private const double DroneLead = 2;

    /// <summary>The model of a question.</summary>
    /// <param name="question">The question.</param>
    /// <param name="tuning">The room's.</param>
    /// <param name="voice">How far the pupil's voice reaches: a tuba's notes are sung where the voice is.</param>
    /// <param name="singing">Where it is sung with a voice, the model comes twice, the second time to sing along with.</param>
    public static EarModel Of(EarQuestion question, Tuning tuning, VoiceRange voice, Singing singing)
    {
        var share = question.Drill.Kind == EarKind.Lowest ? Whole : Apart;
        List<ModelNote> notes =
        [
            .. question.Heard.Select(note => new ModelNote(tuning.Frequency(note.Sounding), note.StartBeat, note.Beats * share)),
        ];
        if (notes.Count == 0 || question.Sung.Count == 0)
            return new EarModel(notes, 0);
        var octaves = voice.Octaves([.. notes.Select(note => note.Hertz)]);
        var by = Math.Pow(2, octaves ?? 0);
        notes = notes.ConvertAll(note => note with { Hertz = note.Hertz * by });
        if (singing != Singing.WithAVoice)
            return new EarModel(notes, octaves);
        var again = BarBeats * Math.Ceiling((notes[^1].StartBeat + notes[^1].Beats) / BarBeats);
        return new EarModel([.. notes, .. notes.Select(note => note with { StartBeat = note.StartBeat + again })], octaves);
    }

    /// <summary>What sounds along with the first note played: each pitch of the question's chord, from before it on.</summary>
    public static IReadOnlyList<IReadOnlyList<ModelNote>> Along(EarQuestion question) =>
        [.. question.Drone.Select(hertz => (IReadOnlyList<ModelNote>)[new ModelNote(hertz, -DroneLead, question.NoteBeats + DroneLead)])];
}
