using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Storage.ValueConversion;

namespace Bocca.Web.Data;

/// <summary>The record, in one SQLite file. What is deleted is hidden, so that it can be brought back.</summary>
public sealed class BoccaDb(DbContextOptions<BoccaDb> options) : DbContext(options)
{
    public DbSet<Pupil> Pupils => Set<Pupil>();

    public DbSet<Take> Takes => Set<Take>();

    public DbSet<ToneTake> Tones => Set<ToneTake>();

    public DbSet<AcceptedStep> Steps => Set<AcceptedStep>();

    public DbSet<SavedNote> Notes => Set<SavedNote>();

    public DbSet<SlurTake> Slurs => Set<SlurTake>();

    public DbSet<HandTake> Hands => Set<HandTake>();

    public DbSet<RecallCard> Recalls => Set<RecallCard>();

    public DbSet<MeasuredInstrument> Measured => Set<MeasuredInstrument>();

    public DbSet<NotePin> Pins => Set<NotePin>();

    public DbSet<RoomSettings> Rooms => Set<RoomSettings>();

    public DbSet<BreathEntry> Breaths => Set<BreathEntry>();

    public DbSet<BalloonEntry> Balloons => Set<BalloonEntry>();

    public DbSet<PlacementEntry> Placements => Set<PlacementEntry>();

    public DbSet<Noticed> Noticed => Set<Noticed>();

    public DbSet<CheckTick> Ticks => Set<CheckTick>();

    public DbSet<AdviceEntry> Advice => Set<AdviceEntry>();

    /// <summary>What holds for the room; the shipped settings until somebody changes them.</summary>
    public async Task<RoomSettings> RoomAsync() => await Rooms.AsNoTracking().SingleOrDefaultAsync() ?? new RoomSettings();

    protected override void OnModelCreating(ModelBuilder modelBuilder)
    {
        modelBuilder.Entity<Pupil>().HasQueryFilter(pupil => pupil.DeletedAt == null);
        modelBuilder.Entity<Take>().HasQueryFilter(take => take.DeletedAt == null);
        modelBuilder.Entity<SavedNote>().HasQueryFilter(note => note.DeletedAt == null);
        modelBuilder.Entity<Pupil>().Property(pupil => pupil.Preset).HasConversion<string>().HasMaxLength(30);
        modelBuilder.Entity<RoomSettings>().Property(room => room.Preset).HasConversion<string>().HasMaxLength(30);
        modelBuilder.Entity<RoomSettings>().Property(room => room.Id).ValueGeneratedNever();
        modelBuilder.Entity<RoomSettings>().Ignore(room => room.Approach).Ignore(room => room.Conditions);
        modelBuilder.Entity<BreathEntry>().HasQueryFilter(entry => entry.DeletedAt == null).Ignore(entry => entry.Pass);
        modelBuilder.Entity<BreathEntry>().HasIndex(entry => new { entry.PupilId, entry.At });
        modelBuilder.Entity<BreathEntry>().HasIndex(entry => entry.Key).IsUnique();
        modelBuilder
            .Entity<BalloonEntry>()
            .HasQueryFilter(entry => entry.DeletedAt == null)
            .HasIndex(entry => new { entry.PupilId, entry.At });
        modelBuilder
            .Entity<PlacementEntry>()
            .HasQueryFilter(entry => entry.DeletedAt == null)
            .Ignore(entry => entry.Marks)
            .Ignore(entry => entry.Measures);
        modelBuilder.Entity<PlacementEntry>().Property(entry => entry.Source).HasConversion<string>().HasMaxLength(30);
        modelBuilder.Entity<PlacementEntry>().HasIndex(entry => new { entry.PupilId, entry.At });
        modelBuilder.Entity<Noticed>().HasQueryFilter(entry => entry.DeletedAt == null).HasIndex(entry => new { entry.PupilId, entry.At });
        modelBuilder
            .Entity<CheckTick>()
            .HasQueryFilter(entry => entry.DeletedAt == null)
            .HasIndex(entry => new { entry.PupilId, entry.At });
        modelBuilder.Entity<AdviceEntry>().HasIndex(entry => new { entry.PupilId, entry.At });
        modelBuilder.Entity<Pupil>().Property(pupil => pupil.Stage).HasConversion<string>().HasMaxLength(30);
        modelBuilder.Entity<Pupil>().Ignore(pupil => pupil.Instrument).Ignore(pupil => pupil.Reading);
        modelBuilder.Entity<Take>().Property(take => take.On).HasConversion<string>().HasMaxLength(30);
        modelBuilder.Entity<Take>().Property(take => take.Source).HasConversion<string>().HasMaxLength(30);
        modelBuilder.Entity<Take>().Property(take => take.Outcome).HasConversion<string>().HasMaxLength(30);
        modelBuilder.Entity<Take>().Ignore(take => take.Measures).Ignore(take => take.Verdict).Ignore(take => take.Threads);
        modelBuilder
            .Entity<Take>()
            .HasIndex(take => new
            {
                take.PupilId,
                take.Kept,
                take.RecordedAt,
            });
        modelBuilder
            .Entity<ToneTake>()
            .HasQueryFilter(take => take.DeletedAt == null)
            .Ignore(take => take.Trace)
            .Ignore(take => take.Verdict);
        modelBuilder.Entity<ToneTake>().Property(take => take.Source).HasConversion<string>().HasMaxLength(30);
        modelBuilder.Entity<ToneTake>().Property(take => take.Outcome).HasConversion<string>().HasMaxLength(30);
        modelBuilder
            .Entity<ToneTake>()
            .HasIndex(take => new
            {
                take.PupilId,
                take.Kept,
                take.RecordedAt,
            });
        modelBuilder.Entity<Pupil>().HasMany<ToneTake>().WithOne().HasForeignKey(take => take.PupilId);
        modelBuilder
            .Entity<SlurTake>()
            .HasQueryFilter(take => take.DeletedAt == null)
            .Ignore(take => take.Trace)
            .Ignore(take => take.Heard)
            .Ignore(take => take.Verdict)
            .Ignore(take => take.Try);
        modelBuilder.Entity<SlurTake>().Property(take => take.Source).HasConversion<string>().HasMaxLength(30);
        modelBuilder.Entity<SlurTake>().Property(take => take.Outcome).HasConversion<string>().HasMaxLength(30);
        modelBuilder
            .Entity<SlurTake>()
            .HasIndex(take => new
            {
                take.PupilId,
                take.Kept,
                take.RecordedAt,
            });
        modelBuilder.Entity<Pupil>().HasMany<SlurTake>().WithOne().HasForeignKey(take => take.PupilId);
        modelBuilder
            .Entity<HandTake>()
            .HasQueryFilter(take => take.DeletedAt == null)
            .Ignore(take => take.Marks)
            .HasIndex(take => new { take.PupilId, take.At });
        modelBuilder
            .Entity<RecallCard>()
            .Ignore(card => card.Recall)
            .HasIndex(card => new
            {
                card.PupilId,
                card.InstrumentId,
                card.Item,
            })
            .IsUnique();
        modelBuilder.Entity<RecallCard>().HasIndex(card => new { card.PupilId, card.DueAt });
        modelBuilder
            .Entity<MeasuredInstrument>()
            .HasQueryFilter(entry => entry.DeletedAt == null)
            .Ignore(entry => entry.ValveCents)
            .Ignore(entry => entry.Slide);
        modelBuilder.Entity<MeasuredInstrument>().HasIndex(entry => new { entry.PupilId, entry.At });
        modelBuilder
            .Entity<NotePin>()
            .HasIndex(pin => new
            {
                pin.PupilId,
                pin.InstrumentId,
                pin.Midi,
            })
            .IsUnique();
        modelBuilder.Entity<Pupil>().HasMany<HandTake>().WithOne().HasForeignKey(take => take.PupilId);
        modelBuilder.Entity<Pupil>().HasMany<RecallCard>().WithOne().HasForeignKey(card => card.PupilId);
        modelBuilder.Entity<Pupil>().HasMany<MeasuredInstrument>().WithOne().HasForeignKey(entry => entry.PupilId);
        modelBuilder.Entity<Pupil>().HasMany<NotePin>().WithOne().HasForeignKey(pin => pin.PupilId);
        modelBuilder.Entity<AcceptedStep>().Property(step => step.Place).HasConversion<string>().HasMaxLength(30);
        modelBuilder.Entity<AcceptedStep>().HasIndex(step => new { step.PupilId, step.DoneAt });
        modelBuilder.Entity<SavedNote>().HasIndex(note => new { note.PupilId, note.SavedAt });
        modelBuilder.Entity<Pupil>().HasMany<BreathEntry>().WithOne().HasForeignKey(entry => entry.PupilId);
        modelBuilder.Entity<Pupil>().HasMany<BalloonEntry>().WithOne().HasForeignKey(entry => entry.PupilId);
        modelBuilder.Entity<Pupil>().HasMany<PlacementEntry>().WithOne().HasForeignKey(entry => entry.PupilId);
        modelBuilder.Entity<Pupil>().HasMany<Noticed>().WithOne().HasForeignKey(entry => entry.PupilId);
        modelBuilder.Entity<Pupil>().HasMany<CheckTick>().WithOne().HasForeignKey(entry => entry.PupilId);
        modelBuilder.Entity<Pupil>().HasMany<AdviceEntry>().WithOne().HasForeignKey(entry => entry.PupilId);
        modelBuilder.Entity<Pupil>().HasMany(pupil => pupil.Steps).WithOne().HasForeignKey(step => step.PupilId);
        modelBuilder.Entity<Pupil>().HasMany(pupil => pupil.Notes).WithOne().HasForeignKey(note => note.PupilId);
    }

    // SQLite keeps no time zone; every moment in the record is UTC.
    protected override void ConfigureConventions(ModelConfigurationBuilder configurationBuilder) =>
        configurationBuilder.Properties<DateTime>().HaveConversion<UtcConverter>();

    private sealed class UtcConverter()
        : ValueConverter<DateTime, DateTime>(moment => moment.ToUniversalTime(), stored => DateTime.SpecifyKind(stored, DateTimeKind.Utc));
}
