using Bocca.Core.Simulation;
using Bocca.Core.Tone.Notes;
using Bocca.Web.Record.Requests;

namespace Bocca.Web.Pages.Ear;

/// <summary>What an own take was asked to be that is then held against two others.</summary>
/// <param name="Pair">The two, by their id.</param>
/// <param name="Note">The note that it is played on.</param>
/// <param name="On">What it is played on.</param>
/// <param name="Stage">How far the pupil had come: the name of the stage.</param>
/// <param name="Approach">The teacher's approach, as it is stored.</param>
public sealed record OwnTakeRequest(string Pair, StoredNote Note, StoredInstrument On, string Stage, string Approach)
    : AskedUnder(On, Stage, Approach)
{
    public static RequestKind<OwnTakeRequest> Kind { get; } = new("own-take") { Resolve = asked => _ = asked.Read() };

    /// <summary>An own take as it is asked now.</summary>
    public static OwnTakeRequest Of(string pair, StoredNote note, PlayerSituation player, TakeTerms terms) =>
        new(pair, note, StoredInstrument.Of(player), terms.StageName, terms.ApproachText) { Own = terms.OwnText };

    /// <summary>The pair, the note, and who plays it.</summary>
    /// <exception cref="InvalidDataException">The instrument has no such note.</exception>
    /// <exception cref="ArgumentException">There is no such pair or instrument any more.</exception>
    public (FaultPair Pair, MeantNote Note, PlayerSituation Player) Read()
    {
        var player = On.Read();
        _ = ReadStage();
        return (FaultPair.Get(Pair), Note.Read(player.Instrument).Meant, player);
    }
}
