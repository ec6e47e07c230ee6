using Bocca.Core.Buzz.Measures;
using Bocca.Core.Teaching;
using Bocca.Web.Record.Shapes;

namespace Bocca.Web.Pages.Buzz;

/// <summary>What one try was asked to be.</summary>
/// <param name="StartBeat">Beats from the first cue.</param>
/// <param name="SoundBeats">Beats that sound.</param>
/// <param name="RestBeats">Beats of rest after it.</param>
/// <param name="Label">What it is called while it is counted; empty for nothing.</param>
/// <param name="Heights">Semitones from the drill's middle.</param>
public sealed record StoredAskedCue(double StartBeat, double SoundBeats, double RestBeats, string Label, IReadOnlyList<double> Heights)
    : StoredShape
{
    /// <summary>A name of <see cref="StoredNames.DrillParts"/>; null for none.</summary>
    public string? Part { get; init; }

    public bool? Glides { get; init; }

    public bool? AsLongAsItLasts { get; init; }

    public bool? Tongued { get; init; }

    public bool? Voice { get; init; }

    public bool? Silent { get; init; }

    /// <summary>A name of <see cref="StoredNames.SoundStages"/>; null for the same as the rest.</summary>
    public string? On { get; init; }

    public static StoredAskedCue Of(Cue cue) =>
        new(cue.StartBeat, cue.SoundBeats, cue.RestBeats, cue.Label, cue.Heights)
        {
            Part = StoredNames.PartName(cue.Part),
            Glides = cue.Glides,
            AsLongAsItLasts = cue.AsLongAsItLasts,
            Tongued = cue.Tongued,
            Voice = cue.Voice,
            Silent = cue.Silent,
            On = StoredNames.SoundStages.Of(cue.On),
        };

    public Cue Read() =>
        new(StartBeat, SoundBeats, RestBeats, Label, Heights, Glides ?? false)
        {
            Part = StoredNames.PartOf(Part, Label),
            AsLongAsItLasts = AsLongAsItLasts ?? false,
            Tongued = Tongued ?? false,
            Voice = Voice ?? false,
            Silent = Silent ?? false,
            On = StoredNames.SoundStages.ReadIf(On),
        };
}

/// <summary>What was measured of one try.</summary>
/// <param name="Number">From 1.</param>
/// <param name="Spoke">Whether a tone came.</param>
public sealed record StoredAttempt(int Number, bool Spoke) : StoredShape
{
    public StoredAskedCue? Asked { get; init; }

    public double? AskedSeconds { get; init; }

    public bool? AirOnly { get; init; }

    public double? StartSeconds { get; init; }

    public double? EndSeconds { get; init; }

    public double? SoundingSeconds { get; init; }

    public double? MedianHz { get; init; }

    public double? OnsetDelayMs { get; init; }

    public double? AirBeforeToneMs { get; init; }

    public double? RiseMs { get; init; }

    public double? ScoopCents { get; init; }

    public double? SteadinessCents { get; init; }

    public double? DriftCentsPerSecond { get; init; }

    public double? DriftDbPerSecond { get; init; }

    public double? WobbleHz { get; init; }

    public double? WobbleCents { get; init; }

    public double? WobbleDb { get; init; }

    public int? Breaks { get; init; }

    public IReadOnlyList<double>? BreakSeconds { get; init; }

    public double? EndCents { get; init; }

    /// <summary>A name of <see cref="StoredNames.Endings"/>.</summary>
    public string? Ending { get; init; }

    public double? LevelDb { get; init; }

    public double? HarmonicToNoiseDb { get; init; }

    public double? CentroidOverPitch { get; init; }

    public static StoredAttempt Of(AttemptMeasures attempt) =>
        new(attempt.Number, attempt.Spoke)
        {
            Asked = attempt.Asked is { } asked ? StoredAskedCue.Of(asked) : null,
            AskedSeconds = attempt.AskedSeconds,
            AirOnly = attempt.AirOnly,
            StartSeconds = attempt.StartSeconds,
            EndSeconds = attempt.EndSeconds,
            SoundingSeconds = attempt.SoundingSeconds,
            MedianHz = attempt.MedianHz,
            OnsetDelayMs = attempt.OnsetDelayMs,
            AirBeforeToneMs = attempt.AirBeforeToneMs,
            RiseMs = attempt.RiseMs,
            ScoopCents = attempt.ScoopCents,
            SteadinessCents = attempt.SteadinessCents,
            DriftCentsPerSecond = attempt.DriftCentsPerSecond,
            DriftDbPerSecond = attempt.DriftDbPerSecond,
            WobbleHz = attempt.WobbleHz,
            WobbleCents = attempt.WobbleCents,
            WobbleDb = attempt.WobbleDb,
            Breaks = attempt.Breaks,
            BreakSeconds = attempt.BreakSeconds,
            EndCents = attempt.EndCents,
            Ending = StoredNames.Endings.Of(attempt.Ending),
            LevelDb = attempt.LevelDb,
            HarmonicToNoiseDb = attempt.HarmonicToNoiseDb,
            CentroidOverPitch = attempt.CentroidOverPitch,
        };

    public AttemptMeasures Read() =>
        new()
        {
            Number = Number,
            Spoke = Spoke,
            Asked = Asked?.Read(),
            AskedSeconds = AskedSeconds,
            AirOnly = AirOnly ?? false,
            StartSeconds = StartSeconds,
            EndSeconds = EndSeconds,
            SoundingSeconds = SoundingSeconds,
            MedianHz = MedianHz,
            OnsetDelayMs = OnsetDelayMs,
            AirBeforeToneMs = AirBeforeToneMs,
            RiseMs = RiseMs,
            ScoopCents = ScoopCents,
            SteadinessCents = SteadinessCents,
            DriftCentsPerSecond = DriftCentsPerSecond,
            DriftDbPerSecond = DriftDbPerSecond,
            WobbleHz = WobbleHz,
            WobbleCents = WobbleCents,
            WobbleDb = WobbleDb,
            Breaks = Breaks ?? 0,
            BreakSeconds = BreakSeconds ?? [],
            EndCents = EndCents,
            Ending = StoredNames.Endings.ReadIf(Ending),
            LevelDb = LevelDb,
            HarmonicToNoiseDb = HarmonicToNoiseDb,
            CentroidOverPitch = CentroidOverPitch,
        };
}

/// <summary>How far tries differed in one thing.</summary>
public sealed record StoredSamenessItem(string Item, double Spread, double Band, string Unit) : StoredShape;

/// <summary>How alike tries were.</summary>
/// <param name="Score">0 to 100.</param>
/// <param name="Items">In what, the furthest apart first.</param>
public sealed record StoredSameness(double Score, IReadOnlyList<StoredSamenessItem> Items) : StoredShape
{
    public static StoredSameness Of(Sameness sameness) =>
        new(sameness.Score, [.. sameness.Items.Select(item => new StoredSamenessItem(item.Item, item.Spread, item.Band, item.Unit))]);

    public Sameness Read() => new(Score, [.. Items.Select(item => new SamenessItem(item.Item, item.Spread, item.Band, item.Unit))]);
}

/// <summary>What was measured of a take of buzzes.</summary>
/// <param name="Attempts">Its tries.</param>
/// <param name="DurationSeconds">How long it lasted.</param>
/// <param name="RoomDb">Level of the room, decibels below full scale.</param>
/// <param name="PeakDb">The highest level.</param>
/// <param name="ClippedShare">Share of samples at the end of the scale, 0 to 1.</param>
public sealed record StoredMeasures(
    IReadOnlyList<StoredAttempt> Attempts,
    double DurationSeconds,
    double RoomDb,
    double PeakDb,
    double ClippedShare
) : StoredShape
{
    public double? MissingSeconds { get; init; }

    public StoredSameness? Sameness { get; init; }

    public static StoredMeasures Of(TakeMeasures take) =>
        new([.. take.Attempts.Select(StoredAttempt.Of)], take.DurationSeconds, take.RoomDb, take.PeakDb, take.ClippedShare)
        {
            MissingSeconds = take.MissingSeconds,
            Sameness = take.Sameness is { } sameness ? StoredSameness.Of(sameness) : null,
        };

    public TakeMeasures Read() =>
        new()
        {
            Attempts = [.. Attempts.Select(each => each.Read())],
            DurationSeconds = DurationSeconds,
            RoomDb = RoomDb,
            PeakDb = PeakDb,
            ClippedShare = ClippedShare,
            MissingSeconds = MissingSeconds ?? 0,
            Sameness = Sameness?.Read(),
        };
}
