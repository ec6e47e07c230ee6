using System.ComponentModel.DataAnnotations;
using Bocca.Core.Breath;
using Bocca.Core.Health;
using Bocca.Core.Instruments;
using Bocca.Core.Music;
using Bocca.Core.Teaching;
using Bocca.Web.Record.Shapes;

namespace Bocca.Web.Record;

/// <summary>A pupil.</summary>
public sealed class Pupil
{
    public int Id { get; set; }

    [MaxLength(80)]
    public required string Name { get; set; }

    [MaxLength(40)]
    public required string InstrumentId { get; set; }

    [MaxLength(20)]
    public required string ReadingId { get; set; }

    /// <summary>The preset this pupil is taught by; null for the room's approach.</summary>
    public ApproachPreset? Preset { get; set; }

    /// <summary>The points settled for this pupil alone.</summary>
    [MaxLength(1500)]
    public string Points { get; set; } = "";

    /// <summary>What is set otherwise for this pupil alone, as <see cref="OwnSettings"/> writes it.</summary>
    public string Own { get; set; } = "";

    /// <summary>The year of birth: limits of breath drills go by age.</summary>
    public int? BornIn { get; set; }

    public BreathHealth Health { get; set; }

    /// <summary>Whether a guardian has said that the pupil's doctor agrees to breath drills.</summary>
    public bool DoctorAgrees { get; set; }

    /// <summary>What the teeth ask for.</summary>
    public MouthNote Mouth { get; set; }

    /// <summary>Who consented that something about health is kept; null for nobody.</summary>
    [MaxLength(80)]
    public string? ConsentBy { get; set; }

    public DateOnly? ConsentOn { get; set; }

    public DateOnly? ConsentUntil { get; set; }

    /// <summary>What the consent is for.</summary>
    [MaxLength(200)]
    public string ConsentFor { get; set; } = "";

    /// <summary>Whether teachers may see the reasons, and not only what follows from them.</summary>
    public bool ConsentSaysWhy { get; set; }

    /// <summary>Whether the instrument has a stand of its own to be put down on.</summary>
    public bool HasStand { get; set; }

    /// <summary>From the shoulder joint to the grip, for the reach along a slide.</summary>
    public double? ArmCm { get; set; }

    /// <summary>The highest valve in use, where the fourth waits; null for all.</summary>
    public int? HighestValve { get; set; }

    /// <summary>The furthest slide position taught; null for all.</summary>
    public int? FurthestPosition { get; set; }

    public LearningStage Stage { get; set; }

    /// <summary>The class the pupil plays in; empty for none.</summary>
    [MaxLength(40)]
    public string ClassName { get; set; } = "";

    /// <summary>The seat in the class, from 1; null for none yet.</summary>
    public int? Seat { get; set; }

    /// <summary>Whether the next week is planned and handed over by itself once the last is over.</summary>
    public bool WeekRuns { get; set; }

    /// <summary>Whether the pupil came with Bocca, to try it on: nobody of that name plays.</summary>
    public bool Invented { get; set; }

    public DateOnly Started { get; set; }

    [MaxLength(500)]
    public string Remark { get; set; } = "";

    /// <summary>A random name that stays the same in every copy of the record; it tells nothing of who it is.</summary>
    public Guid Key { get; set; } = Guid.NewGuid();

    /// <summary>Changes with every edit, so that a second tab notices.</summary>
    [ConcurrencyCheck]
    public Guid Version { get; set; } = Guid.NewGuid();

    public DateTime? DeletedAt { get; set; }

    /// <summary>The approach in force: the pupil's own on top of the room's.</summary>
    public Approach ApproachIn(RoomSettings room) =>
        (Preset is { } preset ? Approach.Of(preset) : room.Approach).With(Approach.Points(Points));

    /// <summary>The settings in force: the pupil's own on top of the room's.</summary>
    public OwnSettings SettingsIn(RoomSettings room) => StoredOwn.Read(Own).Over(StoredOwn.Read(room.Own));

    /// <summary>The pupil as breath drills see one: the age is the lower one that the year of birth allows.</summary>
    public BreathingPupil Breathing(DateOnly today, OwnSettings own) =>
        new(BornIn is { } year ? Math.Max(0, today.Year - year - 1) : null, Health, DoctorAgrees) { Most = BreathLimits.Of(own) };

    /// <summary>The consent that was noted; null for none.</summary>
    public HealthConsent? Consent =>
        ConsentBy is { Length: > 0 } by && ConsentOn is { } on && ConsentUntil is { } until
            ? new HealthConsent(by, on, until, ConsentFor, ConsentSaysWhy)
            : null;

    /// <summary>How long the pupil plays at a time today.</summary>
    public PlayingLimits Limits(DateOnly today, HealthDay health, OwnSettings own) =>
        PlayingLimits.For(Stage, today.DayNumber - Started.DayNumber).With(own) is var limits && health.Halves ? limits.Halved : limits;

    public Instrument Instrument => Catalogue.Get(InstrumentId);

    public Reading Reading => Instrument.ReadingOf(ReadingId);
}
