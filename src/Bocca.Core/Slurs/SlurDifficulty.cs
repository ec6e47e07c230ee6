using Bocca.Core.Instruments;

namespace Bocca.Core.Slurs;

/// <summary>A part of a slur's difficulty.</summary>
/// <param name="Points">Points, 0 or more.</param>
/// <param name="Words">What it is for.</param>
public readonly record struct DifficultyPart(double Points, string Words);

/// <summary>
/// How hard a slur is, in points that add up (all ours, editable): one for two semitones of its widest step, one for each note
/// past two, two for each partial skipped, one for two semitones above what is comfortable, one for starting the other way than
/// the approach goes first, one for twenty beats a minute over sixty, two where neighbours lie within three semitones; 0.6 for each
/// setting down from the open one, which lies lower and is met later. What one breath carries is a limit, not a difficulty.
/// </summary>
/// <param name="Parts">The parts that count.</param>
public sealed record SlurDifficulty(IReadOnlyList<DifficultyPart> Parts)
{
    private const double CrowdedSemitones = 3,
        EasyTempo = 60,
        PerSetting = 0.6;

    /// <summary>The sum.</summary>
    public double Points => Parts.Sum(part => part.Points);

    /// <summary>The difficulty of a slur for a player at a tempo.</summary>
    public static SlurDifficulty Of(Slur slur, SlurPlayer player, double tempo) => Of(slur, player, player.Tubes(), tempo);

    /// <summary>The same where the player's tubes are at hand.</summary>
    internal static SlurDifficulty Of(Slur slur, SlurPlayer player, IReadOnlyList<Instruments.Tube> tubes, double tempo)
    {
        var steps = slur.Notes.Zip(slur.Notes.Skip(1)).ToList();
        var widest = steps.Max(step => Math.Abs(step.Second.Sounding.Midi - step.First.Sounding.Midi));
        var skipped = slur.Shape.Neighbours ? 0 : steps.Max(step => Math.Abs(step.Second.Partial - step.First.Partial)) - 1;
        var above = slur.Notes.Max(note => note.Sounding.Midi) - player.Comfortable.Midi;
        var down = slur.Notes[1].Sounding.Midi < slur.Notes[0].Sounding.Midi;
        var crowded = slur.Notes.Any(note =>
            HarmonicSeries.ExactSemitones(note.Partial + 1) - HarmonicSeries.ExactSemitones(note.Partial) < CrowdedSemitones
        );
        // Where the valves change anyway, no setting is further down than another.
        var place = slur.Shape.Neighbours ? 0 : tubes.TakeWhile(tube => tube.Setting != slur.Setting).Count();
        return Of(widest, slur.Notes.Count, skipped, above, down != player.DownFirst, tempo, crowded, place);
    }

    /// <summary>
    /// The same from its numbers: semitones of the widest step, notes, partials skipped, semitones above what is comfortable, starting
    /// the other way, beats a minute, crowded neighbours, settings down from the open one.
    /// </summary>
    public static SlurDifficulty Of(
        double widest,
        int notes,
        int skipped,
        double above,
        bool otherWay,
        double tempo,
        bool crowded,
        int place
    )
    {
        DifficultyPart[] parts =
        [
            new(widest / 2, $"{widest:0} semitone{(widest == 1 ? "" : "s")} at its widest"),
            new(Math.Max(0, notes - 2), $"{notes} notes"),
            new(2 * Math.Max(0, skipped), $"{skipped} partial{(skipped == 1 ? "" : "s")} skipped"),
            new(Math.Max(0, above) / 2, $"{above:0} semitones above what is comfortable"),
            new(otherWay ? 1 : 0, "starts the other way"),
            new(Math.Max(0, tempo - EasyTempo) / 20, $"{tempo:0} a minute"),
            new(crowded ? 2 : 0, "neighbours within three semitones"),
            new(PerSetting * place, $"{place} setting{(place == 1 ? "" : "s")} down"),
        ];
        return new SlurDifficulty([.. parts.Where(part => part.Points > 0)]);
    }
}
