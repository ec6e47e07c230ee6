using Bocca.Core.Instruments;
using Bocca.Core.Music;
using Bocca.Core.Tone.Notes;
using Bocca.Web.Record.Shapes;

namespace Bocca.Web.Record.Requests;

/// <summary>An instrument as it was measured, how its player reads it, and what it is tuned to.</summary>
/// <param name="Instrument">Its id in the catalogue.</param>
/// <param name="Reading">The id of the way it is read.</param>
/// <param name="A4Hz">The reference A, hertz.</param>
public sealed record StoredInstrument(string Instrument, string Reading, double A4Hz) : StoredShape
{
    /// <summary>Cents of each measured open partial above its place; null for none.</summary>
    public IReadOnlyDictionary<int, double>? Partials { get; init; }

    /// <summary>Cents of each valve alone above its place; null for none.</summary>
    public IReadOnlyDictionary<int, double>? Valves { get; init; }

    /// <summary>Whether the third valve's slide is drawn for 2-3; null for no.</summary>
    public bool? ThirdDrawn { get; init; }

    /// <summary>The slide as it was calibrated: the tube closed, metres, and its travel, centimetres; null for the usual.</summary>
    public double? SlideMetres { get; init; }

    public double? SlideTravelCm { get; init; }

    /// <summary>What the eye finds third and fourth by, centimetres; null for the usual.</summary>
    public double? StayCm { get; init; }

    public double? EndCm { get; init; }

    public static StoredInstrument Of(PlayerSituation player)
    {
        var passport = player.Passport;
        return new StoredInstrument(player.Instrument.Id, player.Reading.Id, player.Tuning.A4Hz)
        {
            Partials = passport.PartialCents.Count == 0 ? null : passport.PartialCents,
            Valves = passport.ValveCents.Count == 0 ? null : passport.ValveCents,
            ThirdDrawn = passport.ThirdForTwoThree ? true : null,
            SlideMetres = passport.Slide?.TubeMetres,
            SlideTravelCm = passport.Slide?.TravelCm,
            StayCm = passport.Marks?.StayCm,
            EndCm = passport.Marks?.EndCm,
        };
    }

    /// <summary>The player of it, with nothing of the pupil.</summary>
    /// <exception cref="ArgumentException">The catalogue has no such instrument or reading any more.</exception>
    public PlayerSituation Read()
    {
        var passport = new Passport(Partials ?? new Dictionary<int, double>())
        {
            ValveCents = Valves ?? new Dictionary<int, double>(),
            ThirdForTwoThree = ThirdDrawn ?? false,
            Slide = SlideMetres is { } metres && SlideTravelCm is { } travel ? new Slide(metres, travel) : null,
            Marks = (StayCm ?? EndCm) is null ? null : new SlideMarks(StayCm, EndCm),
        };
        var instrument = Catalogue.Get(Instrument);
        return new PlayerSituation(passport.Applied(instrument), instrument.ReadingOf(Reading), new Tuning(A4Hz)) { Passport = passport };
    }
}
