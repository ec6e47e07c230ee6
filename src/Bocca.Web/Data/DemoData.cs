using Bocca.Core.Breath;
using Bocca.Core.Buzz;
using Bocca.Core.Embouchure;
using Bocca.Core.Fingering;
using Bocca.Core.Music;
using Bocca.Core.Practice;
using Bocca.Core.Simulation;
using Bocca.Core.Slurs;
using Bocca.Core.Tone;

namespace Bocca.Web.Data;

/// <summary>
/// The invented pupils of the Lantern Street Brass Room in Port Ellery, each with a history that has a story in it.
/// Their takes are played by the practice player and heard like any other.
/// </summary>
public static class DemoData
{
    private static readonly DemoPupil[] Pupils =
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
            Tones = [new(9, "what-came", "C3", "slide-in"), new(3, "what-came", "C3", "slide-in")],
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

    /// <summary>Fills an empty record.</summary>
    public static async Task FillAsync(BoccaDb db, TimeProvider time)
    {
        var now = time.GetUtcNow().UtcDateTime;
        var pupils = Pupils
            .Select(demo => new Pupil
            {
                Name = demo.Name,
                InstrumentId = demo.Instrument,
                ReadingId = demo.Reading,
                Preset = demo.Preset,
                Points = demo.Points,
                BornIn = demo.Born,
                Health = demo.Health,
                ArmCm = demo.Arm,
                Stage = demo.Stage,
                Started = DateOnly.FromDateTime(now.AddDays(-demo.DaysPlaying)),
                Remark = demo.Remark,
            })
            .ToList();
        db.Pupils.AddRange(pupils);
        await db.SaveChangesAsync();
        var played = Pupils
            .Zip(pupils)
            .SelectMany(pair => pair.First.Takes.Select((take, i) => (Pupil: pair.Second, Take: take, Seed: (pair.Second.Id * 100) + i)))
            .ToList();
        var scales = Scales(played.ConvertAll(item => (item.Pupil, item.Take, item.Seed)), now);
        var heard = played
            .AsParallel()
            .AsOrdered()
            .Select(item => (item.Take, Heard: Play(item.Pupil, item.Take, item.Seed, now, scales.GetValueOrDefault(item.Pupil.Id))))
            .ToList();
        db.Takes.AddRange(heard.Select(item => item.Heard));
        db.Tones.AddRange(
            Pupils
                .Zip(pupils)
                .SelectMany(pair => pair.First.Tones.Select((tone, i) => (Pupil: pair.Second, tone, i)))
                .AsParallel()
                .AsOrdered()
                .Select(item => Play(item.Pupil, item.tone, (item.Pupil.Id * 10) + item.i, now))
                .ToList()
        );
        db.Breaths.AddRange(
            Pupils
                .Zip(pupils)
                .SelectMany(pair => pair.First.Breaths.Select((breath, i) => Breathe(pair.Second, breath, (pair.Second.Id * 50) + i, now)))
        );
        foreach (var (demo, pupil) in Pupils.Zip(pupils))
            AddPlacements(db, demo, pupil, now);
        foreach (var (demo, pupil) in Pupils.Zip(pupils))
            AddHands(db, demo, pupil, now);
        db.Slurs.AddRange(
            Pupils
                .Zip(pupils)
                .SelectMany(pair => pair.First.Slurs.Select((slur, i) => (Pupil: pair.Second, slur, i)))
                .AsParallel()
                .AsOrdered()
                .Select(item => Play(item.Pupil, item.slur, (item.Pupil.Id * 20) + item.i, now))
                .ToList()
        );
        await db.SaveChangesAsync();
        db.Steps.AddRange(heard.Where(item => item.Take.Accepted).Select(item => Accepted(item.Heard)));
        foreach (var (demo, pupil) in Pupils.Zip(pupils))
            db.Notes.AddRange(demo.Notes.Select((note, i) => Note(pupil, Pitch.Parse(note), now.AddDays(-demo.Notes.Count + i))));
        await db.SaveChangesAsync();
    }

    /// <summary>The own scales of those who made samples.</summary>
    private static Dictionary<int, OwnScale?> Scales(List<(Pupil Pupil, DemoTake Take, int Seed)> played, DateTime now) =>
        played
            .Where(item => BuzzDrill.Get(item.Take.Drill).Aim == DrillAim.Reference)
            .ToDictionary(item => item.Pupil.Id, item => OwnScale.From(Play(item.Pupil, item.Take, item.Seed, now, null).Measures));

    private static Take Play(Pupil pupil, DemoTake take, int seed, DateTime now, OwnScale? scale)
    {
        var drill = BuzzDrill.Get(take.Drill);
        var asked = new AskedTake(drill, drill.Plan.At(80), SoundStage.Mouthpiece, pupil.Stage);
        Fault[] faults = [.. $"{drill.Played} {take.Faults}".Split(' ', StringSplitOptions.RemoveEmptyEntries).Select(Fault.Parse)];
        var sound = SimulatedPlayer.Play(pupil.Instrument, asked.On, asked.Plan, faults, seed).Sound;
        var heard = TakeListener.Hear(sound, asked, new JudgedPupil(pupil.ApproachIn(Room), OwnSound.Unknown) { Scale = scale });
        var stored = Take.Of(pupil, asked, SoundSource.PracticePlayer, heard, pupil.ApproachIn(Room), now.AddDays(-take.DaysAgo));
        stored.Kept = true;
        return stored;
    }

    private static ToneTake Play(Pupil pupil, DemoTone tone, int seed, DateTime now)
    {
        var (drill, player, approach) = (
            ToneDrill.Get(tone.Drill),
            new PlayerSituation(pupil.Instrument, pupil.Reading),
            pupil.ApproachIn(Room)
        );
        var asked = new AskedRow(
            drill.Plan(player, approach, 96, tone.Notes == "" ? null : MeantNote.Row(player.Instrument, player.Reading, tone.Notes)),
            player,
            pupil.Stage
        )
        {
            Drill = drill,
        };
        var how = RowCharacter.Get(tone.Character);
        var sound = SimulatedPlayer
            .PlayRow(pupil.Instrument, PlayedNote.Row(asked.Plan, player, how), asked.Plan.Tempo, how.Faults, seed)
            .Sound;
        asked = asked with { FirstCueSeconds = sound.CueSeconds![0] };
        var heard = RowListener.Hear(sound, asked);
        var take = ToneTake.Of(
            pupil,
            asked,
            tone.Notes,
            "",
            SoundSource.PracticePlayer,
            heard,
            RowJudge.Judge(heard, asked, new JudgedPupil(approach, OwnSound.Unknown)),
            approach,
            now.AddDays(-tone.DaysAgo)
        );
        take.Kept = true;
        return take;
    }

    private static SlurTake Play(Pupil pupil, DemoSlur slur, int seed, DateTime now)
    {
        var approach = pupil.ApproachIn(Room);
        var player = SlurPlayer.Of(pupil.Instrument, pupil.Reading, pupil.Stage, approach);
        var sheet = SlurWriter.Sheet(player, SlurShape.Get(slur.Shape), slur.FirstPartial).Slurs;
        var asked = new AskedSlur(sheet[slur.Tube], 80, 1, new PlayerSituation(pupil.Instrument, pupil.Reading), pupil.Stage);
        var sound = SimulatedPlayer.PlayRow(pupil.Instrument, SlurCharacter.Get(slur.Character).Play(asked), asked.Tempo, [], seed).Sound;
        var heard = HeardSlur.Hear(sound, asked, sound.CueSeconds![0]);
        var verdict = SlurJudge.Judge(heard, asked, new JudgedPupil(approach, OwnSound.Unknown), SlurWriter.Onward(player, asked.Slur));
        var take = SlurTake.Of(
            pupil,
            asked,
            player,
            SoundSource.PracticePlayer,
            sound.CueSeconds[0],
            heard,
            verdict,
            approach,
            now.AddDays(-slur.DaysAgo)
        );
        take.Kept = true;
        return take;
    }

    private static BreathEntry Breathe(Pupil pupil, DemoBreath breath, int seed, DateTime now)
    {
        var drill = BreathDrill.Get("even-stream");
        var plan =
            BreathPlan.Make(drill, drill.Rungs[breath.Rung], 80, pupil.Breathing(DateOnly.FromDateTime(now)), BreathDay.Fresh).Plan
            ?? throw new InvalidOperationException($"The demo asks too much of {pupil.Name}.");
        Fault[] faults = [.. breath.Faults.Split(' ', StringSplitOptions.RemoveEmptyEntries).Select(Fault.Parse)];
        var verdict = BreathJudge.Judge(plan, BreathJudge.Streams(plan, SimulatedBreath.Play(plan, faults, seed), 0));
        return BreathEntry.Of(
            pupil,
            plan,
            breath.Rung,
            verdict,
            measured: true,
            pupil.ApproachIn(Room),
            Guid.NewGuid(),
            now.AddDays(-breath.DaysAgo)
        );
    }

    private static void AddPlacements(BoccaDb db, DemoPupil demo, Pupil pupil, DateTime now)
    {
        var rim = Mouthpiece.Of(pupil.Instrument.Family).RimMm;
        var earlier = new List<Placement>();
        foreach (var placed in demo.Placements)
        {
            var entry = PlacementEntry.Of(
                pupil,
                PlacementSource.Drawing,
                new DrawnFace(placed.Share, placed.OffsetMm, placed.Tilt, rim).Marks(),
                rim,
                pupil.ApproachIn(Room),
                earlier,
                now.AddDays(-placed.DaysAgo)
            );
            earlier.Add(entry.Measures);
            db.Placements.Add(entry);
        }
    }

    /// <summary>Silent drills with one change that stays slow, and what they left to be recalled.</summary>
    private static void AddHands(BoccaDb db, DemoPupil demo, Pupil pupil, DateTime now)
    {
        var approach = pupil.ApproachIn(Room);
        var cards = new Dictionary<string, RecallCard>();
        foreach (var hand in demo.Hands)
        {
            var random = new Random((pupil.Id * 30) + hand.DaysAgo);
            var (drill, at) = (HandDrill.Get(hand.Drill), now.AddDays(-hand.DaysAgo));
            var prompts = HandTrainer.Prompts(
                drill,
                new TrainedHand(pupil.Instrument, pupil.Reading, FirstNotes.Of(pupil.Instrument, pupil.Reading, approach)),
                random
            );
            var marks = prompts
                .Select(
                    (prompt, i) =>
                    {
                        var from = i == 0 ? "" : prompts[i - 1].Answer;
                        var slow = $"{from} {prompt.Answer}" == hand.SlowChange;
                        var missed = slow && random.NextDouble() < 0.3;
                        return new HandMark(
                            prompt.Item,
                            prompt.Answer,
                            from,
                            missed ? from : prompt.Answer,
                            hand.Seconds * (slow ? 2.2 : 0.8 + (0.4 * random.NextDouble())),
                            !missed
                        );
                    }
                )
                .ToList();
            var outcome = HandOutcome.Of(drill, marks);
            db.Hands.Add(
                new HandTake
                {
                    PupilId = pupil.Id,
                    DrillId = drill.Id,
                    InstrumentId = pupil.InstrumentId,
                    At = at,
                    Right = outcome.Right,
                    Asked = outcome.Asked,
                    MedianSeconds = outcome.MedianSeconds,
                    Passed = outcome.Passed,
                    Summary = outcome.Summary,
                    MarksJson = Stored.Write(marks),
                }
            );
            foreach (var mark in marks.Where(_ => drill.IsRecalled).DistinctBy(mark => mark.Item))
            {
                if (!cards.TryGetValue(mark.Item, out var card))
                    db.Recalls.Add(
                        cards[mark.Item] = card =
                            new RecallCard
                            {
                                PupilId = pupil.Id,
                                InstrumentId = pupil.InstrumentId,
                                Item = mark.Item,
                            }
                    );
                card.Answer(HandOutcome.Grade(mark, outcome.MedianSeconds), at);
            }
        }
    }

    private static AcceptedStep Accepted(Take take)
    {
        var next = take.Verdict.Next;
        return new AcceptedStep
        {
            PupilId = take.PupilId,
            TakeId = take.Id,
            Place = next.Place,
            DrillId = next.DrillId,
            Cue = next.Cue,
            Reason = next.Reason,
            AcceptedAt = take.RecordedAt,
        };
    }

    private static SavedNote Note(Pupil pupil, Pitch written, DateTime at)
    {
        var way = FingeringFinder.Find(pupil.Instrument, pupil.Reading, written)[0];
        return new SavedNote
        {
            PupilId = pupil.Id,
            Written = written.ToString(),
            ReadingId = pupil.ReadingId,
            Setting = way.Setting.ToString(),
            Partial = way.Partial,
            Cents = way.Cents,
            SavedAt = at,
        };
    }

    private static RoomSettings Room { get; } = new();

    private sealed record DemoPupil(
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

        public BreathHealth Health { get; init; }

        public double? Arm { get; init; }

        public string Points { get; init; } = "";

        public IReadOnlyList<DemoTone> Tones { get; init; } = [];

        public IReadOnlyList<DemoSlur> Slurs { get; init; } = [];

        public IReadOnlyList<DemoHand> Hands { get; init; } = [];

        public IReadOnlyList<DemoBreath> Breaths { get; init; } = [];

        public IReadOnlyList<DemoPlacement> Placements { get; init; } = [];
    }

    private sealed record DemoTake(int DaysAgo, string Faults, bool Accepted = false, string Drill = "sound4-rest4");

    private sealed record DemoTone(int DaysAgo, string Drill, string Notes, string Character);

    private sealed record DemoSlur(int DaysAgo, string Shape, int FirstPartial, int Tube, string Character);

    private sealed record DemoHand(int DaysAgo, string Drill, double Seconds, string SlowChange);

    private sealed record DemoBreath(int DaysAgo, int Rung, string Faults);

    private sealed record DemoPlacement(double DaysAgo, double Share, double OffsetMm, double Tilt);
}
