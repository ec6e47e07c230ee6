using Bocca.Core.Teaching;

namespace Bocca.Web.Frame.Takes;

/// <summary>A drill as the page counts it.</summary>
public sealed record CountedDrill(
    double BeatSeconds,
    double TotalBeats,
    double SoundSeconds,
    double StartHertz,
    IReadOnlyList<ModelNote> Model,
    IReadOnlyList<ModelNote> Lead,
    IReadOnlyList<double> Ends,
    IReadOnlyList<CountedBeat> Beats
)
{
    /// <summary>What is asked, sealed: it comes back with the sound; null where the stop freezes nothing.</summary>
    public string? Request { get; init; }

    /// <summary>What sounds along with the take, each line by itself, as a drone under it.</summary>
    public IReadOnlyList<IReadOnlyList<ModelNote>> Along { get; init; } = [];

    /// <param name="plan">The drill.</param>
    /// <param name="model">What it sounds like; empty where nobody knows its pitch.</param>
    /// <param name="restWords">What to do in a rest.</param>
    /// <param name="startHertz">The pitch that is given before it; 0 for none.</param>
    public static CountedDrill Of(CuePlan plan, IReadOnlyList<ModelNote> model, string restWords = "", double startHertz = 0) =>
        new(
            plan.BeatSeconds,
            plan.TotalBeats,
            plan.SoundSeconds,
            startHertz,
            model,
            ModelLine.Lead(model),
            [.. plan.Tries.Select(cue => cue.StartBeat + cue.SoundBeats)],
            BeatSheet.Of(plan, restWords)
        );
}
