namespace Bocca.Core.Teaching;

/// <summary>A note of a model, as it is played to the pupil.</summary>
/// <param name="Hertz">Its pitch, hertz.</param>
/// <param name="StartBeat">Beats from the first.</param>
/// <param name="Beats">How long it sounds, beats.</param>
/// <param name="Bound">Whether the tone goes on from the note before it, without a new start.</param>
/// <param name="Glides">Whether the pitch glides from the note before it to this one, which it reaches at its end.</param>
public sealed record ModelNote(double Hertz, double StartBeat, double Beats, bool Bound = false, bool Glides = false);

/// <summary>
/// What a drill sounds like where its pitch is known: Bocca leads with it before the pupil plays, or together with the pupil.
/// </summary>
public static class ModelLine
{
    /// <summary>The model of tries by height.</summary>
    /// <param name="plan">The tries.</param>
    /// <param name="middleHertz">Pitch of height 0, hertz; 0 where every pupil has a middle of their own, and so no model.</param>
    public static IReadOnlyList<ModelNote> Of(CuePlan plan, double middleHertz) =>
        middleHertz > 0 ? [.. plan.Tries.SelectMany(cue => Notes(cue, middleHertz))] : [];

    /// <summary>
    /// What is played before the pupil plays: the model up to where it says again what was heard, for nobody needs four tries alike
    /// played first.
    /// </summary>
    public static IReadOnlyList<ModelNote> Lead(IReadOnlyList<ModelNote> model)
    {
        var heard = new List<ModelNote[]>();
        foreach (var phrase in Phrases(model))
        {
            if (heard.Exists(earlier => Alike(earlier, phrase)))
                break;
            heard.Add(phrase);
        }

        return [.. heard.SelectMany(phrase => phrase)];
    }

    /// <summary>Notes between rests.</summary>
    private static IEnumerable<ModelNote[]> Phrases(IReadOnlyList<ModelNote> model)
    {
        const double Rest = 0.5;
        for (var (first, i) = (0, 0); i < model.Count; i++)
        {
            if (i + 1 < model.Count && model[i + 1].StartBeat - (model[i].StartBeat + model[i].Beats) < Rest)
                continue;
            yield return [.. model.Skip(first).Take(i + 1 - first)];
            first = i + 1;
        }
    }

    private static bool Alike(ModelNote[] one, ModelNote[] other) =>
        one.Length == other.Length && one.Zip(other).All(pair => pair.First with { StartBeat = 0 } == pair.Second with { StartBeat = 0 });

    private static IEnumerable<ModelNote> Notes(Cue cue, double middleHertz)
    {
        // Heights of a glide are the ends of its pieces, those of steps have each a piece of their own.
        var pieces = cue.Glides ? Math.Max(1, cue.Heights.Count - 1) : cue.Heights.Count;
        var beats = cue.SoundBeats / pieces;
        double Hertz(double height) => middleHertz * Math.Pow(2, height / 12);
        if (!cue.Glides)
            return cue.Heights.Select((height, i) => new ModelNote(Hertz(height), cue.StartBeat + (i * beats), beats, Bound: i > 0));
        var first = new ModelNote(Hertz(cue.Heights[0]), cue.StartBeat, 0);
        return cue
            .Heights.Skip(1)
            .Select((height, i) => new ModelNote(Hertz(height), cue.StartBeat + (i * beats), beats, Bound: true, Glides: true))
            .Prepend(first);
    }
}
