using Bocca.Core.Music;

namespace Bocca.Core.Instruments;

/// <summary>
/// Where the open partials of one very instrument lie, as measured in the pupil's hands: real tubes differ from the
/// harmonic series, and tuning slides from each other.
/// </summary>
/// <param name="PartialCents">Cents of each measured partial above its place in the series at the reference A; sharp positive.</param>
public sealed record Passport(IReadOnlyDictionary<int, double> PartialCents)
{
    /// <summary>
    /// How far a single valve's note may lie off by its slide, either way (cents; ours, editable): more is another slide.
    /// </summary>
    public const double MostValveCents = 60;

    /// <summary>Cents by which the note of a valve alone lies above its place; sharp positive; absent means none.</summary>
    public IReadOnlyDictionary<int, double> ValveCents { get; init; } = new Dictionary<int, double>();

    /// <summary>Whether the third valve's slide is drawn so that 2-3 is true.</summary>
    public bool ThirdForTwoThree { get; init; }

    /// <summary>The slide as it was calibrated; null for the instrument's usual one.</summary>
    public Slide? Slide { get; init; }

    /// <summary>What the eye finds the slide's positions by, as measured; null for the usual.</summary>
    public SlideMarks? Marks { get; init; }

    /// <summary>Nothing measured: the harmonic series itself.</summary>
    public static Passport Unmeasured { get; } = new(new Dictionary<int, double>());

    /// <summary>Cents the whole instrument lies sharp: the median of what was measured; 0 unmeasured.</summary>
    public double LiesCents { get; } = Middle([.. PartialCents.Values.Order()]);

    /// <summary>
    /// Frequency in hertz at which a partial of a tube really lies: added tube moves all partials of this instrument
    /// alike. A partial that was not measured lies as the instrument as a whole does.
    /// </summary>
    public double Frequency(Instrument instrument, Tube tube, int partial, Tuning tuning) =>
        instrument.Frequency(tube, partial, tuning) * Math.Pow(2, PartialCents.GetValueOrDefault(partial, LiesCents) / 1200);

    /// <summary>
    /// Cents of a partial above the rest of this instrument, which the main slide cannot mend: 0 where it was not measured.
    /// </summary>
    public double OwnCents(int partial) => PartialCents.TryGetValue(partial, out var cents) ? cents - LiesCents : 0;

    /// <summary>The instrument as this very one is built: its valve slides and its slide as measured.</summary>
    public Instrument Applied(Instrument instrument)
    {
        if (ValveCents.Count == 0 && !ThirdForTwoThree && Slide is null && Marks is null)
            return instrument;
        var valves = instrument.Valves.Select(valve => valve with { AddedShare = ShareOf(valve) }).ToList();
        return instrument.Built(valves, instrument.Slide is { } usual ? (Slide ?? usual) with { Marks = Marks ?? usual.Marks } : null);
    }

    private double ShareOf(Valve valve) =>
        ValveCents.TryGetValue(valve.Number, out var cents)
            ? Tubing.AddedShare(valve.Semitones - (Math.Clamp(cents, -MostValveCents, MostValveCents) / 100))
        : valve.Number == 3 && ThirdForTwoThree ? Tubing.ThirdForTwoThreeShare(valve.Semitones)
        : valve.AddedShare;

    /// <summary>
    /// Millimetres to draw the main tuning slide out (in, if negative) so that the instrument as a whole comes to the
    /// reference: half the length missing.
    /// </summary>
    public double MainSlideMm(Instrument instrument) => instrument.MainSlideMm(LiesCents);

    /// <summary>The passport that open notes played in a row give.</summary>
    /// <param name="instrument">The instrument.</param>
    /// <param name="tuning">The reference A.</param>
    /// <param name="openHertz">Pitches heard on the open tube, hertz; each counts for the partial nearest to it.</param>
    public static Passport Measured(Instrument instrument, Tuning tuning, IEnumerable<double> openHertz)
    {
        var offsets = openHertz.Select(hertz =>
        {
            var partial = Enumerable
                .Range(1, HarmonicSeries.Highest)
                .MinBy(candidate => Math.Abs(Tuning.Cents(instrument.Frequency(instrument.Tubes[0], candidate, tuning), hertz)));
            return (partial, Cents: Tuning.Cents(instrument.Frequency(instrument.Tubes[0], partial, tuning), hertz));
        });
        return new Passport(
            offsets
                .GroupBy(offset => offset.partial)
                .ToDictionary(group => group.Key, group => Middle([.. group.Select(offset => offset.Cents).Order()]))
        );
    }

    private static double Middle(List<double> sorted) =>
        sorted.Count switch
        {
            0 => 0,
            var count when count % 2 == 1 => sorted[count / 2],
            var count => (sorted[(count / 2) - 1] + sorted[count / 2]) / 2,
        };
}
