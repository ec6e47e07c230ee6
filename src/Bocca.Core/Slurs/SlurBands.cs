using Bocca.Core.Teaching;

namespace Bocca.Core.Slurs;

/// <summary>What a change between two notes of a slur may cost at a stage (<c>slur-bands.json</c>; ours, editable).</summary>
/// <param name="GapMs">Silence between the notes, at most, milliseconds.</param>
/// <param name="DipDb">Drop below the softer note, at most, decibels.</param>
/// <param name="OvershootCents">Beyond the new note, at most, cents.</param>
/// <param name="PassageMs">From leaving one note to staying on the other, at most, milliseconds.</param>
/// <param name="Basis">Where the numbers come from.</param>
public sealed record SlurBands(double GapMs, double DipDb, double OvershootCents, double PassageMs, string Basis)
{
    /// <summary>The low note may be so much louder than the others (decibels).</summary>
    public const double LowNoteDb = 4;

    /// <summary>What is left of the old note hides the pitch of the new one until it has fallen by so much (dB).</summary>
    private const double MaskedDb = 8;

    /// <summary>The same bands in a room: a passage is seen to be over once the old note has died away in it.</summary>
    /// <param name="decaySeconds">Seconds in which the room falls by 60 dB; null where that is not known.</param>
    public SlurBands In(double? decaySeconds) => this with { PassageMs = PassageMs + (1000 * MaskedDb / 60 * (decaySeconds ?? 0)) };

    /// <summary>
    /// Whether a room hides what the bands ask: in a silence of the length allowed it falls by less than the drop allowed, so that a
    /// longer one may go unheard.
    /// </summary>
    /// <param name="decaySeconds">Seconds in which the room falls by 60 dB; null where that is not known.</param>
    public bool HiddenBy(double? decaySeconds) => 60 * GapMs / 1000 < DipDb * decaySeconds;
}

/// <summary>
/// What a change may cost at each stage: the bands that ship, or a teacher's own. It does not change: a slur asked under one is judged
/// under it.
/// </summary>
/// <param name="FirstNotes">While first notes are learnt.</param>
/// <param name="Second">Later.</param>
public sealed record SlurBandTable(SlurBands FirstNotes, SlurBands Second)
{
    private static readonly Lazy<SlurBandTable> Read = new(() => EmbeddedData.Read<SlurBandTable>("slur-bands.json"));

    /// <summary>The bands that ship.</summary>
    public static SlurBandTable Shipped => Read.Value;

    /// <summary>The same bands with a teacher's own numbers.</summary>
    public SlurBandTable With(OwnSettings own) => new(own.In(FirstNotes, OfFirstNotes), own.In(Second, OfSecond));

    private static readonly IReadOnlyList<NumberIn<SlurBands>> OfFirstNotes = SettingsOf(
            "firstNotes",
            "slurs, first notes",
            Shipped.FirstNotes
        ),
        OfSecond = SettingsOf("second", "slurs, later", Shipped.Second);

    /// <summary>What a teacher may set otherwise.</summary>
    public static IReadOnlyList<NumberSetting> Settings { get; } = [.. OfFirstNotes.Concat(OfSecond).Select(number => number.Setting)];

    private static IReadOnlyList<NumberIn<SlurBands>> SettingsOf(string stage, string group, SlurBands bands)
    {
        NumberIn<SlurBands> Of(string id, string name, string unit, string means, double shipped, Func<SlurBands, double, SlurBands> put) =>
            new(new NumberSetting($"slurs.{stage}.{id}", group, name, unit, means, shipped, shipped / 4, 4 * shipped), put);
        return
        [
            Of("gapMs", "gap", "ms", "silence between two notes, at most", bands.GapMs, (it, value) => it with { GapMs = value }),
            Of("dipDb", "dip", "dB", "drop below the softer note, at most", bands.DipDb, (it, value) => it with { DipDb = value }),
            Of(
                "overshootCents",
                "overshoot",
                "cents",
                "beyond the new note, at most",
                bands.OvershootCents,
                (it, value) => it with { OvershootCents = value }
            ),
            Of(
                "passageMs",
                "passage",
                "ms",
                "from leaving one note to staying on the other, at most",
                bands.PassageMs,
                (it, value) => it with { PassageMs = value }
            ),
        ];
    }

    /// <summary>The bands of a stage.</summary>
    public SlurBands For(LearningStage stage) => stage >= LearningStage.Second ? Second : FirstNotes;
}
