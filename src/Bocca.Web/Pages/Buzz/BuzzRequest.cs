using Bocca.Core.Buzz.Drills;
using Bocca.Core.Teaching;
using Bocca.Core.Tone.Notes;
using Bocca.Web.Record.Requests;
using Bocca.Web.Record.Shapes;

namespace Bocca.Web.Pages.Buzz;

/// <summary>What a take of buzzes was asked to be.</summary>
/// <param name="Drill">The drill, by its id.</param>
/// <param name="Cues">Its tries with their times.</param>
/// <param name="PlayedOn">What it is played on: lips, mouthpiece or instrument, by name.</param>
/// <param name="On">The instrument that the mouthpiece belongs to.</param>
/// <param name="Stage">How far the pupil had come: the name of the stage.</param>
/// <param name="Approach">The teacher's approach, as it is stored.</param>
public sealed record BuzzRequest(string Drill, StoredCues Cues, string PlayedOn, StoredInstrument On, string Stage, string Approach)
    : AskedUnder(On, Stage, Approach)
{
    public static RequestKind<BuzzRequest> Kind { get; } =
        new("buzz")
        {
            Resolve = asked =>
            {
                _ = asked.On.Read();
                _ = asked.Asked();
            },
        };

    /// <summary>A drill as it is asked now.</summary>
    /// <param name="drill">The drill as the teacher has it.</param>
    /// <param name="plan">Its tries.</param>
    /// <param name="on">What it is played on.</param>
    /// <param name="player">Who plays it.</param>
    /// <param name="startHz">The pitch that is given, hertz; null for none.</param>
    /// <param name="terms">Under what it is asked.</param>
    public static BuzzRequest Of(BuzzDrill drill, CuePlan plan, SoundStage on, PlayerSituation player, double? startHz, TakeTerms terms) =>
        new(drill.Id, StoredCues.Of(plan), StoredNames.SoundStages[on], StoredInstrument.Of(player), terms.StageName, terms.ApproachText)
        {
            StartHz = startHz,
            Own = terms.OwnText,
        };

    /// <summary>The pitch it starts from where Bocca gives one, hertz; null where it gives none.</summary>
    public double? StartHz { get; init; }

    /// <summary>The drill with the teacher's own numbers of then.</summary>
    /// <exception cref="ArgumentException">There is no such drill any more.</exception>
    public BuzzDrill ReadDrill() => BuzzDrill.Get(Drill).With(ReadOwn());

    /// <summary>The same as the core hears it.</summary>
    /// <exception cref="InvalidDataException">It is no take.</exception>
    public AskedTake Asked() => new(ReadDrill(), Cues.Read(), StoredNames.SoundStages.Read(PlayedOn), ReadStage());
}
