using Bocca.Core.Counting;
using Bocca.Core.Tone.Notes;
using Bocca.Web.Record.Requests;

namespace Bocca.Web.Pages.Ear;

/// <summary>What a take of rhythm cards was asked to be.</summary>
/// <param name="Drill">How they are done, by the id of the drill.</param>
/// <param name="Cards">Each card as it is written: <c>q q e e q</c>.</param>
/// <param name="Metre">Their metre: <c>4/4</c>.</param>
/// <param name="Tempo">Beats of the metre a minute.</param>
/// <param name="Gap">Beats of rest between two.</param>
/// <param name="ToleranceMs">How far off a beginning may lie, milliseconds.</param>
/// <param name="On">What they are played on, where they are.</param>
/// <param name="Stage">How far the pupil had come: the name of the stage.</param>
/// <param name="Approach">The teacher's approach, as it is stored.</param>
public sealed record CardsRequest(
    string Drill,
    IReadOnlyList<string> Cards,
    string Metre,
    double Tempo,
    int Gap,
    double ToleranceMs,
    StoredInstrument On,
    string Stage,
    string Approach
) : AskedUnder(On, Stage, Approach)
{
    /// <summary>No teacher lets beginnings lie further off, milliseconds (ours).</summary>
    private const double MostToleranceMs = 1000;

    public static RequestKind<CardsRequest> Kind { get; } =
        new("cards")
        {
            Resolve = asked =>
            {
                _ = asked.On.Read();
                _ = asked.ReadStage();
                _ = asked.Asked();
            },
        };

    /// <summary>Cards as they are asked now.</summary>
    /// <param name="drill">The drill, by its id.</param>
    /// <param name="asked">The cards.</param>
    /// <param name="toleranceMs">How far off a beginning may lie, milliseconds.</param>
    /// <param name="player">Who plays them, where they are played.</param>
    /// <param name="terms">Under what they are asked.</param>
    public static CardsRequest Of(string drill, CountAsked asked, double toleranceMs, PlayerSituation player, TakeTerms terms) =>
        new(
            drill,
            [.. asked.Cards.Select(card => card.Text)],
            $"{asked.Metre}",
            asked.Tempo,
            asked.GapBeats,
            toleranceMs,
            StoredInstrument.Of(player),
            terms.StageName,
            terms.ApproachText
        )
        {
            Own = terms.OwnText,
        };

    /// <summary>The same as the core hears it.</summary>
    /// <exception cref="InvalidDataException">The tolerance is none.</exception>
    /// <exception cref="ArgumentException">The cards cannot be done so.</exception>
    public CountAsked Asked() =>
        ToleranceMs is > 0 and <= MostToleranceMs
            ? CountAsked.Of(Cards, Core.Score.Metre.Parse(Metre), Tempo, Gap, CountDrill.Get(Drill).Ways)
            : throw new InvalidDataException($"{ToleranceMs} ms is no tolerance.");
}
