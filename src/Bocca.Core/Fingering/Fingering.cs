using Bocca.Core.Instruments;
using Bocca.Core.Music;

namespace Bocca.Core.Fingering;

/// <summary>What brings a note in tune on its setting.</summary>
/// <param name="What">What to move, such as <c>third slide</c>, <c>slide</c>, <c>hand</c> or <c>lips</c>.</param>
/// <param name="Cm">Centimetres to move it outwards; negative inwards, 0 for the lips.</param>
/// <param name="Sentence">The same in words.</param>
public sealed record Correction(string What, double Cm, string Sentence);

/// <summary>
/// One way to play a note: a setting of the hand and a partial of the tube it leaves. Only <see cref="FingeringFinder"/>
/// makes one, so none exists that its instrument cannot do.
/// </summary>
public sealed record Fingering
{
    private readonly IReadOnlyList<Fingering>? _others;

    internal Fingering(Tube tube, int partial, Pitch sounding, double cents)
    {
        Tube = tube;
        Partial = partial;
        Sounding = sounding;
        Cents = cents;
    }

    /// <summary>The tube in use.</summary>
    public Tube Tube { get; }

    /// <summary>What the hand does.</summary>
    public Setting Setting => Tube.Setting;

    /// <summary>The partial that sounds, 1 the fundamental.</summary>
    public int Partial { get; }

    /// <summary>The concert pitch asked for.</summary>
    public Pitch Sounding { get; }

    /// <summary>
    /// Cents from that pitch in equal temperament, or from the pitch a chord wants, to what the tube gives by itself; positive is sharp
    /// (computed).
    /// </summary>
    public double Cents { get; }

    /// <summary>What brings it in tune, or null where it lies within 5 cents.</summary>
    public Correction? Correction { get; internal init; }

    /// <summary>The points it was ranked by, each with its reason; fewer in sum is better.</summary>
    public IReadOnlyList<RankingReason> Reasons { get; internal init; } = [];

    /// <summary>The sum of the points.</summary>
    public double Cost => Reasons.Sum(reason => reason.Points);

    /// <summary>Why this pupil does not play it yet, in words; null where nothing is in the way.</summary>
    public string? Barred { get; internal init; }

    /// <summary>Whether the teacher has pinned it.</summary>
    public bool IsPinned { get; internal init; }

    /// <summary>How safely the lips find it.</summary>
    public Reliability Reliability => Reliability.Of(Partial);

    /// <summary>One sentence on why it stands where it stands.</summary>
    public string Reason => field ??= RankingSentence.Of(this, _others ?? [this]);

    /// <summary>The same way among all ways of its note, best first.</summary>
    internal Fingering Among(IReadOnlyList<Fingering> ways) => new(this, ways);

    private Fingering(Fingering way, IReadOnlyList<Fingering> ways)
        : this(way.Tube, way.Partial, way.Sounding, way.Cents)
    {
        _others = ways;
        (Correction, Reasons, Barred, IsPinned) = (way.Correction, way.Reasons, way.Barred, way.IsPinned);
    }
}
