using Bocca.Core.Judging;

namespace Bocca.Core.Buzz.Aims;

/// <summary>A tune on the lips: only whether each note goes up, down or stays; nine in ten (ours, editable).</summary>
internal static class DirectionsAim
{
    private const double Share = 0.9;

    /// <summary>A step under this many semitones counts as staying (ours, editable).</summary>
    private const double StaysSemitones = 0.4;

    public static IReadOnlyList<AskedHeard> Of(AimedTake take)
    {
        int right = 0,
            asked = 0;
        var missed = new List<string>();
        foreach (var attempt in take.Measures.Asked.Where(attempt => attempt.Asked is { IsLevel: false }))
        {
            var wanted = attempt.Asked!.Heights;
            var heard = attempt.Spoke ? take.Plateaus(attempt) : [];
            for (var i = 1; i < wanted.Count; i++)
            {
                asked++;
                var step = i < heard.Count ? heard[i] - heard[i - 1] : null;
                var way =
                    step is not { } by ? 2
                    : Math.Abs(by) < StaysSemitones ? 0
                    : Math.Sign(by);
                if (way == Math.Sign(wanted[i] - wanted[i - 1]))
                    right++;
                else
                    missed.Add($"{attempt.Asked.Label}, note {i + 1}");
            }
        }

        var least = (int)Math.Ceiling(Share * asked);
        var told = missed.Count == 0 ? "" : $"; missed at {string.Join("; ", missed.Take(3))}";
        return
        [
            new AskedHeard(
                "directions",
                $"{least} of {asked}",
                $"{right} of {asked}{told}",
                right >= least,
                "Show the tune with the hand, high and low, then buzz it."
            ),
        ];
    }
}
