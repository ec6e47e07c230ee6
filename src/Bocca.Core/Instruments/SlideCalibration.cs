namespace Bocca.Core.Instruments;

/// <summary>How long a very slide is, from two notes tuned on it, so that its positions are where they are.</summary>
public static class SlideCalibration
{
    /// <summary>Tube lengths that a B flat trombone with its slide closed may have, metres (ours, editable).</summary>
    public static (double Least, double Most) TubeMetres { get; } = (2.4, 3.3);

    /// <summary>How far slides can be drawn, cm (ours, editable).</summary>
    public static (double Least, double Most) TravelCm { get; } = (40, 75);

    /// <summary>
    /// The slide on which two tuned positions lie so far apart: L = cm / (50 x (2^((q-1)/12) - 2^((p-1)/12))) (computed).
    /// </summary>
    /// <param name="nearer">The nearer position tuned, 1 to 6.</param>
    /// <param name="further">The further one, up to 7.</param>
    /// <param name="apartCm">Centimetres measured between them.</param>
    /// <param name="travelCm">How far the slide can be drawn, cm.</param>
    /// <exception cref="ArgumentException">No trombone has such a slide, or the positions are none; the message says which.</exception>
    public static Slide Of(int nearer, int further, double apartCm, double travelCm)
    {
        if (nearer is < 1 or > 6 || further <= nearer || further > 7)
            throw new ArgumentException($"Tune two positions, the nearer one first, from 1 to 7; {nearer} and {further} are not such two.");
        if (!(travelCm >= TravelCm.Least && travelCm <= TravelCm.Most))
            throw new ArgumentException(
                $"A slide that can be drawn {travelCm:0.#} cm is none Bocca knows: measure {TravelCm.Least:0} to {TravelCm.Most:0} cm."
            );
        var metres = apartCm / (50 * (Tubing.AddedShare(further - 1) - Tubing.AddedShare(nearer - 1)));
        return metres >= TubeMetres.Least && metres <= TubeMetres.Most
            ? new Slide(metres, travelCm)
            : throw new ArgumentException(
                $"{apartCm:0.#} cm from position {nearer} to {further} would make a tube of {metres:0.00} m; a trombone's is "
                    + $"{TubeMetres.Least:0.0} to {TubeMetres.Most:0.0} m. Measure again."
            );
    }
}
