using Bocca.Core.Breath;
using Bocca.Core.Teaching;

namespace Bocca.Web.Record;

/// <summary>The invented pupils of the Lantern Street Brass Room in Port Ellery, each with a history that has a story in it.</summary>
public static class DemoPupils
{
    public static IReadOnlyList<DemoPupil> All { get; } =
    [
        new(
            "Tomas Oduya",
            "trumpet-bb",
            "treble",
            null,
            LearningStage.FirstNotes,
            12,
            "Air before the tone, less each week.",
            [
                new(11, "air-first=900 wander=110"),
                new(9, "air-first=900 wander=100"),
                new(8, "air-first=800 wander=90"),
                new(7, "air-first=800@1,2,4 wander=30"),
                new(5, "air-first=700@2,3 wander=22"),
                new(3, "wander=18"),
                new(2, "air-first=700@2,3 wander=16", Accepted: true),
            ],
            []
        )
        {
            Born = 2016,
            Tones = [new(6, "what-came", "D4", "one-low"), new(1, "what-came", "D4", "good")],
            Hands = [new(6, "in-order", 2.6, "1-2 2-3"), new(4, "called", 2.2, "1-2 2-3"), new(2, "called", 1.7, "1-2 2-3")],
            Breaths = [new(11, 0, "gusty=0.6"), new(9, 0, ""), new(7, 0, "gusty=0.1"), new(5, 1, "short=0.3"), new(2, 1, "gusty=0.1")],
            Placements =
            [
                new(11.5, 0.44, 1.5, 3),
                new(9.5, 0.45, 1, 2),
                new(8.5, 0.46, 0.5, 4),
                new(7.5, 0.51, 0.5, 1),
                new(5.5, 0.53, 0, 2),
                new(2.5, 0.52, 0.5, 1),
            ],
        },
        new(
            "Wren Halloran",
            "horn-f",
            "treble",
            ApproachPreset.AirFirst,
            LearningStage.FirstNotes,
            40,
            "The high partials crowd; the tone drops to the one below.",
            [
                new(27, "wander=60"),
                new(20, "partial-below=0.5@1,3 wander=20"),
                new(13, "partial-below=0.7@2,4 wander=20"),
                new(6, "wander=30"),
                new(1, "partial-below=0.7@4 wander=20", Accepted: true),
            ],
            ["C4", "D4"]
        )
        {
            Born = 2014,
            Tones = [new(6, "what-came", "G4", "one-low"), new(1, "what-came", "E4", "one-high")],
            Breaths = [new(20, 1, ""), new(13, 1, "gusty=0.15")],
            Placements = [new(20.5, 0.64, 0, 0), new(6.5, 0.66, -1, 2)],
        },
        new(
            "Ines Calloway",
            "trombone",
            "bass",
            null,
            LearningStage.FirstNotes,
            60,
            "Short arms; the slide stops short of sixth.",
            [new(34, "wander=70"), new(21, "wander=55"), new(9, "wander=30 drift=-12"), new(3, "wander=20")],
            ["Bb2", "F3"]
        )
        {
            Born = 2015,
            Arm = 45,
            Breaths = [new(9, 0, ""), new(3, 0, "")],
            Tones = [new(9, "what-came", "D3", "slide-in"), new(3, "what-came", "D3", "slide-in")],
        },
        new(
            "Kofi Lindqvist",
            "euphonium-4v-comp",
            "bass",
            ApproachPreset.LipsFirst,
            LearningStage.Second,
            190,
            "Comes from three valves; the fourth is new.",
            [new(31, "wander=22"), new(24, "wander=20 drift=-26"), new(15, "wander=14 fade=4"), new(4, "wander=10")],
            ["Bb2", "C3", "F3"]
        )
        {
            Born = 2011,
            Tones = [new(5, "open-tuning", "", "good"), new(4, "tongue-four", "", "closes")],
            Ears =
            [
                new(24, "sing-intervals", 0, "flat"),
                new(14, "sing-intervals", 1, "flat"),
                new(9, "sing-intervals", 1, "right"),
                new(3, "sing-intervals", 2, "right"),
                new(3, "tunes-by-ear", 1, "octave"),
            ],
            Cards =
            [
                new(24, "q q h", 72, "right"),
                new(14, "q. e q q", 72, "clap-missing"),
                new(9, "q. e q q", 72, "clap-late"),
                new(4, "q. e q q", 72, "right"),
            ],
            Slurs =
            [
                new(12, "pair", 3, 0, "good"),
                new(10, "five-note", 3, 0, "stays"),
                new(8, "five-note", 3, 0, "good"),
                new(5, "five-note", 3, 1, "tongues"),
                new(2, "pair", 4, 0, "over"),
            ],
            Hands = [new(9, "by-note", 2.4, "1 4"), new(3, "called", 1.6, "1-2 2-3")],
            Breaths =
            [
                new(31, 1, ""),
                new(24, 1, "gusty=0.1"),
                new(15, 2, "gusty=0.2"),
                new(14, 2, ""),
                new(4, 3, "short=0.1"),
                new(3, 3, "gusty=0.1"),
            ],
        },
        new(
            "Bea Okonjo",
            "tuba-bb-3v",
            "bass",
            ApproachPreset.AirFirst,
            LearningStage.FirstNotes,
            75,
            "On a cushion. Asthma: no breath holding, easy breaths.",
            [
                new(36, "short=0.5 wander=40"),
                new(27, "short=0.5 wander=32"),
                new(18, "short=0.45 wander=36"),
                new(8, "short=0.3 wander=24", Accepted: true),
            ],
            ["Bb1"]
        )
        {
            Born = 2014,
            Health = BreathHealth.Breathing,
            Breaths = [new(27, 0, "gusty=0.3"), new(18, 0, ""), new(8, 0, "")],
        },
        new(
            "Sunniva Achterberg",
            "horn-double",
            "treble",
            ApproachPreset.AirFirst,
            LearningStage.Pieces,
            480,
            "Second year; an exam piece in spring.",
            [
                new(31, "", Drill: "three-samples"),
                new(30, "wobble=45"),
                new(16, "wobble=35 airy=5"),
                new(9, "wobble=20 airy=4"),
                new(2, "airy=10 wander=8"),
            ],
            ["C4", "G4", "C5"]
        )
        {
            Born = 2010,
            Slurs =
            [
                new(9, "pair", 4, 0, "good"),
                new(9, "pair", 5, 0, "over"),
                new(6, "pair", 5, 0, "over"),
                new(6, "three", 4, 0, "good"),
                new(3, "pair", 5, 0, "over"),
                new(3, "pair", 4, 2, "good"),
                new(1, "pair", 5, 0, "stays"),
            ],
        },
        new(
            "Rafi Delacroix-Menon",
            "trumpet-bb",
            "treble",
            ApproachPreset.LipsFirst,
            LearningStage.Second,
            400,
            "Returning after a break through illness.",
            [new(90, "wander=8"), new(83, "wander=10"), new(11, "uneven=180 wander=45"), new(4, "uneven=150 wander=24", Accepted: true)],
            ["C4", "D4", "E4"]
        )
        {
            Born = 2010,
            Points = "breath.hold=b",
        },
    ];
}

/// <summary>An invented pupil.</summary>
public sealed record DemoPupil(
    string Name,
    string Instrument,
    string Reading,
    ApproachPreset? Preset,
    LearningStage Stage,
    int DaysPlaying,
    string Remark,
    IReadOnlyList<DemoTake> Takes,
    IReadOnlyList<string> Notes
)
{
    public int Born { get; init; }

    /// <summary>Six beginners play together; who is further has lessons alone.</summary>
    public string Class => Stage == LearningStage.Pieces ? "" : "Thursday beginners";

    public BreathHealth Health { get; init; }

    public double? Arm { get; init; }

    public string Points { get; init; } = "";

    public IReadOnlyList<DemoTone> Tones { get; init; } = [];

    public IReadOnlyList<DemoSlur> Slurs { get; init; } = [];

    public IReadOnlyList<DemoEar> Ears { get; init; } = [];

    public IReadOnlyList<DemoCards> Cards { get; init; } = [];

    public IReadOnlyList<DemoHand> Hands { get; init; } = [];

    public IReadOnlyList<DemoBreath> Breaths { get; init; } = [];

    public IReadOnlyList<DemoPlacement> Placements { get; init; } = [];

    /// <summary>The pupil as the record has one.</summary>
    public Pupil AsPupil(DateTime now) =>
        new()
        {
            Name = Name,
            Invented = true,
            InstrumentId = Instrument,
            ReadingId = Reading,
            Preset = Preset,
            Points = Points,
            BornIn = Born,
            Health = Health,
            ConsentBy = Health == BreathHealth.None ? null : "her mother",
            ConsentOn = Health == BreathHealth.None ? null : DateOnly.FromDateTime(now.AddDays(-DaysPlaying)),
            ConsentUntil = Health == BreathHealth.None ? null : DateOnly.FromDateTime(now.AddDays(300)),
            ConsentFor = Health == BreathHealth.None ? "" : "so that breath drills fit",
            ConsentSaysWhy = Health != BreathHealth.None,
            ArmCm = Arm,
            Stage = Stage,
            ClassName = Class,
            Started = DateOnly.FromDateTime(now.AddDays(-DaysPlaying)),
            Remark = Remark,
        };
}

/// <summary>A take of buzzes so many days ago, with its faults.</summary>
public sealed record DemoTake(int DaysAgo, string Faults, bool Accepted = false, string Drill = "sound4-rest4");

/// <summary>A take of notes.</summary>
public sealed record DemoTone(int DaysAgo, string Drill, string Notes, string Character);

/// <summary>A take of a slur.</summary>
public sealed record DemoSlur(int DaysAgo, string Shape, int FirstPartial, int Tube, string Character);

/// <summary>A silent drill with one change that stays slow.</summary>
public sealed record DemoHand(int DaysAgo, string Drill, double Seconds, string SlowChange);

/// <summary>A breath drill.</summary>
public sealed record DemoBreath(int DaysAgo, int Rung, string Faults);

/// <summary>A placement.</summary>
public sealed record DemoPlacement(double DaysAgo, double Share, double OffsetMm, double Tilt);

/// <summary>An invented answer of the ear.</summary>
public sealed record DemoEar(int DaysAgo, string Drill, int Level, string Character);

/// <summary>An invented take of a rhythm card, said and clapped.</summary>
public sealed record DemoCards(int DaysAgo, string Card, double Tempo, string Character);
