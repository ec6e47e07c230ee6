using Bocca.Core.Buzz.Measures;
using Bocca.Core.Judging;
using MathNet.Numerics.Statistics;

namespace Bocca.Core.Buzz;

/// <summary>The numbers of a take with what they mean, those outside their bands first.</summary>
internal static class HeardNumbers
{
    public static IReadOnlyList<HeardNumber> In(TakeMeasures take, StageBands bands)
    {
        var heard = new List<HeardNumber>();
        if (take.Median(bands.Steadiness) is { } steady)
            heard.Add(
                new HeardNumber(
                    "steadiness",
                    $"{steady:0} cents",
                    steady <= bands.SteadyCents ? $"steady (aim {bands.SteadyCents:0})" : $"unsteady (aim {bands.SteadyCents:0})",
                    steady <= bands.SteadyCents
                )
            );
        if (Vibrato([.. take.Spoken], bands) is { } vibrato)
            heard.Add(vibrato);
        if (take.Median(attempt => attempt.DriftCentsPerSecond) is { } drift)
            heard.Add(
                new HeardNumber(
                    "drift",
                    $"{drift:+0;-0;0} cents a second",
                    Direction(drift, bands),
                    Math.Abs(drift) <= bands.DriftCentsPerSecond
                )
            );
        if (take.Median(attempt => attempt.OnsetDelayMs) is { } delay)
            heard.Add(
                new HeardNumber(
                    "start",
                    $"{delay:+0;-0;0} ms",
                    delay <= bands.OnsetDelayMs ? "with the beat" : "after the beat",
                    delay <= bands.OnsetDelayMs
                )
            );
        if (take.Median(attempt => attempt.AirBeforeToneMs) is { } air)
            heard.Add(
                new HeardNumber(
                    "air before tone",
                    $"{air:0} ms",
                    air <= bands.AirBeforeToneMs ? "speaks soon" : "air first",
                    air <= bands.AirBeforeToneMs
                )
            );
        if (take.Sameness is { } same)
            heard.Add(new HeardNumber("how alike", $"{same.Score:0} %", $"they differ most at the {same.Worst.Item}", same.Score >= 50));
        return [.. heard.OrderBy(number => number.InBand == false ? 0 : 1)];
    }

    /// <summary>Rate and width of a vibrato that was asked; null where none was, or none came.</summary>
    public static HeardNumber? Vibrato(IReadOnlyList<AttemptMeasures> tones, StageBands bands)
    {
        var swinging = tones.Where(bands.IsVibrato).ToList();
        return swinging.Count == 0
            ? null
            : new HeardNumber(
                "vibrato",
                $"{swinging.Select(tone => tone.WobbleHz!.Value).Median():0.0} a second",
                $"{swinging.Select(tone => tone.WobbleCents!.Value).Median():0} cents either way",
                null
            );
    }

    private static string Direction(double drift, StageBands bands) =>
        (Math.Abs(drift) / bands.DriftCentsPerSecond) switch
        {
            < 0.25 => "staying level",
            <= 1 => drift > 0 ? "rising slowly" : "sinking slowly",
            _ => drift > 0 ? "rising" : "sinking",
        };
}
