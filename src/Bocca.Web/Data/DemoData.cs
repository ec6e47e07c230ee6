using Bocca.Core.Buzz;
using Bocca.Core.Fingering;
using Bocca.Core.Music;
using Bocca.Core.Practice;
using Bocca.Core.Simulation;

namespace Bocca.Web.Data;

/// <summary>
/// The invented pupils of the Lantern Street Brass Room in Port Ellery, each with a history that has a story in it.
/// Their takes are played by the practice player and heard like any other.
/// </summary>
public static class DemoData
{
    private static readonly DemoPupil[] Pupils =
    [
        new("Tomas Oduya", "trumpet-bb", "treble", Approach.MouthpieceFirst, LearningStage.FirstNotes, 12, "Air before the tone, less each week.",
            [new(9, "air-first=900 wander=32"), new(7, "air-first=800@1,2,4 wander=28"), new(5, "air-first=700@2,3 wander=30"), new(2, "air-first=700@2,3 wander=18", Accepted: true)], []),
        new("Wren Halloran", "horn-f", "treble", Approach.AirFirst, LearningStage.FirstNotes, 40, "The high partials crowd; the tone drops to the one below.",
            [new(27, "wander=60"), new(20, "partial-below=0.5@1,3 wander=20"), new(13, "partial-below=0.7@2,4 wander=20"), new(6, "wander=30"), new(1, "partial-below=0.7@4 wander=20", Accepted: true)], ["C4", "D4"]),
        new("Ines Calloway", "trombone", "bass", Approach.MouthpieceFirst, LearningStage.FirstNotes, 60, "Short arms; the slide stops short of sixth.",
            [new(34, "wander=70"), new(21, "wander=55"), new(9, "wander=30 drift=-12"), new(3, "wander=20")], ["Bb2", "F3"]),
        new("Kofi Lindqvist", "euphonium-4v-comp", "bass", Approach.LipsFirst, LearningStage.Second, 190, "Comes from three valves; the fourth is new.",
            [new(31, "wander=22"), new(24, "wander=20 drift=-26"), new(15, "wander=14 fade=4"), new(4, "wander=10")], ["Bb2", "C3", "F3"]),
        new("Bea Okonjo", "tuba-bb-3v", "bass", Approach.AirFirst, LearningStage.FirstNotes, 75, "On a cushion. Asthma: no breath holding, easy breaths.",
            [new(36, "short=0.5 wander=40"), new(27, "short=0.5 wander=32"), new(18, "short=0.45 wander=36"), new(8, "short=0.3 wander=24", Accepted: true)], ["Bb1"]),
        new("Sunniva Achterberg", "horn-double", "treble", Approach.AirFirst, LearningStage.Pieces, 480, "Second year; an exam piece in spring.",
            [new(30, "wobble=45"), new(16, "wobble=35"), new(9, "wobble=20"), new(2, "wander=8")], ["C4", "G4", "C5"]),
        new("Rafi Delacroix-Menon", "trumpet-bb", "treble", Approach.LipsFirst, LearningStage.Second, 400, "Returning after a break through illness.",
            [new(90, "wander=8"), new(83, "wander=10"), new(11, "uneven=180 wander=45"), new(4, "uneven=150 wander=24", Accepted: true)], ["C4", "D4", "E4"]),
    ];

    /// <summary>Fills an empty record.</summary>
    public static async Task FillAsync(BoccaDb db, TimeProvider time)
    {
        var now = time.GetUtcNow().UtcDateTime;
        var pupils = Pupils.Select(demo => new Pupil
        {
            Name = demo.Name,
            InstrumentId = demo.Instrument,
            ReadingId = demo.Reading,
            Approach = demo.Approach,
            Stage = demo.Stage,
            Started = DateOnly.FromDateTime(now.AddDays(-demo.DaysPlaying)),
            Remark = demo.Remark,
        }).ToList();
        db.Pupils.AddRange(pupils);
        await db.SaveChangesAsync();
        var played = Pupils.Zip(pupils).SelectMany(pair => pair.First.Takes.Select((take, i) => (Pupil: pair.Second, Take: take, Seed: (pair.Second.Id * 100) + i))).ToList();
        var heard = played.AsParallel().AsOrdered().Select(item => (item.Take, Heard: Play(item.Pupil, item.Take, item.Seed, now))).ToList();
        db.Takes.AddRange(heard.Select(item => item.Heard));
        await db.SaveChangesAsync();
        db.Steps.AddRange(heard.Where(item => item.Take.Accepted).Select(item => Accepted(item.Heard)));
        foreach (var (demo, pupil) in Pupils.Zip(pupils))
            db.Notes.AddRange(demo.Notes.Select((note, i) => Note(pupil, Pitch.Parse(note), now.AddDays(-demo.Notes.Count + i))));
        await db.SaveChangesAsync();
    }

    private static Take Play(Pupil pupil, DemoTake take, int seed, DateTime now)
    {
        var drill = BuzzDrill.Get("sound4-rest4");
        var asked = new AskedTake(drill, drill.Plan.At(80), SoundStage.Mouthpiece, pupil.Stage);
        Fault[] faults = [.. take.Faults.Split(' ').Select(Fault.Parse)];
        var sound = SimulatedPlayer.Play(pupil.Instrument, asked.On, asked.Plan, faults, seed).Sound;
        var heard = TakeListener.Hear(sound, asked, new JudgedPupil(pupil.Approach, OwnSound.Unknown));
        var stored = Take.Of(pupil, asked, SoundSource.PracticePlayer, heard, now.AddDays(-take.DaysAgo));
        stored.Kept = true;
        return stored;
    }

    private static AcceptedStep Accepted(Take take)
    {
        var next = take.Verdict.Next;
        return new AcceptedStep { PupilId = take.PupilId, TakeId = take.Id, Place = next.Place, DrillId = next.DrillId, Cue = next.Cue, Reason = next.Reason, AcceptedAt = take.RecordedAt };
    }

    private static SavedNote Note(Pupil pupil, Pitch written, DateTime at)
    {
        var way = FingeringFinder.Find(pupil.Instrument, pupil.Reading, written)[0];
        return new SavedNote { PupilId = pupil.Id, Written = written.ToString(), ReadingId = pupil.ReadingId, Setting = way.Setting.ToString(), Partial = way.Partial, Cents = way.Cents, SavedAt = at };
    }

    private sealed record DemoPupil(
        string Name,
        string Instrument,
        string Reading,
        Approach Approach,
        LearningStage Stage,
        int DaysPlaying,
        string Remark,
        IReadOnlyList<DemoTake> Takes,
        IReadOnlyList<string> Notes);

    private sealed record DemoTake(int DaysAgo, string Faults, bool Accepted = false);
}
