using Bocca.Core.Tone.Drills;
using Bocca.Core.Tone.Listening;
using Bocca.Core.Tone.Notes;
using Bocca.Web.Record.Requests;

namespace Bocca.Web.Pages.Tone;

/// <summary>What a take of notes was asked to be.</summary>
/// <param name="Drill">The drill, by its id.</param>
/// <param name="Notes">The notes chosen for it, as they were typed; empty where the drill has its own.</param>
/// <param name="Settings">The settings chosen for them; empty for those that come first.</param>
/// <param name="Row">The notes with their times.</param>
/// <param name="On">What it is played on.</param>
/// <param name="Stage">How far the pupil had come: the name of the stage.</param>
/// <param name="Approach">The teacher's approach, as it is stored.</param>
public sealed record ToneRequest(
    string Drill,
    string Notes,
    string Settings,
    StoredRow Row,
    StoredInstrument On,
    string Stage,
    string Approach
) : AskedUnder(On, Stage, Approach)
{
    public static RequestKind<ToneRequest> Kind { get; } =
        new("tone") { Resolve = asked => _ = asked.Asked(asked.On.Read(), ToneDrill.Get(asked.Drill)).Plan.Cues };

    /// <summary>A row of notes as it is asked now.</summary>
    /// <param name="drill">The drill, by its id.</param>
    /// <param name="chosen">The notes and settings chosen for it, as they were typed.</param>
    /// <param name="plan">The notes with their times.</param>
    /// <param name="player">Who plays it.</param>
    /// <param name="terms">Under what it is asked.</param>
    public static ToneRequest Of(
        string drill,
        (string? Notes, string? Settings) chosen,
        RowPlan plan,
        PlayerSituation player,
        TakeTerms terms
    ) =>
        new(
            drill,
            chosen.Notes?.Trim() ?? "",
            chosen.Settings?.Trim() ?? "",
            StoredRow.Of(plan),
            StoredInstrument.Of(player),
            terms.StageName,
            terms.ApproachText
        )
        {
            Learnt = player.Learnt,
            Clean = player.Clean == 0 ? null : player.Clean,
            Own = terms.OwnText,
        };

    /// <summary>How many of the first notes were learnt; null for all.</summary>
    public int? Learnt { get; init; }

    /// <summary>How many phrases of the drill had been played clean, where they come one by one; null for none.</summary>
    public int? Clean { get; init; }

    /// <summary>Whether only beginnings and ends count, whatever the pitch; null for no.</summary>
    public bool? RhythmOnly { get; init; }

    /// <summary>The room's temperature, degrees Celsius; null where nobody said.</summary>
    public double? Celsius { get; init; }

    /// <summary>Who plays it: the instrument as it was, with what is known of the pupil's misses today.</summary>
    public PlayerSituation Player(PlayerSituation today) => PlayerAs(today) with { Learnt = Learnt, Clean = Clean ?? 0 };

    /// <summary>The same as the core hears it.</summary>
    public AskedRow Asked(PlayerSituation today, ToneDrill drill)
    {
        var player = Player(today);
        return new AskedRow(Row.Read(player.Instrument), player, ReadStage())
        {
            Drill = drill,
            IgnoresPitch = RhythmOnly ?? false,
            RoomCelsius = Celsius,
            UsesMarks = false,
        };
    }
}
