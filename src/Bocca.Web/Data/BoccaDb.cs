using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Storage.ValueConversion;

namespace Bocca.Web.Data;

/// <summary>The record, in one SQLite file. What is deleted is hidden, so that it can be brought back.</summary>
public sealed class BoccaDb(DbContextOptions<BoccaDb> options) : DbContext(options)
{
    public DbSet<Pupil> Pupils => Set<Pupil>();

    public DbSet<Take> Takes => Set<Take>();

    public DbSet<AcceptedStep> Steps => Set<AcceptedStep>();

    public DbSet<SavedNote> Notes => Set<SavedNote>();

    protected override void OnModelCreating(ModelBuilder modelBuilder)
    {
        modelBuilder.Entity<Pupil>().HasQueryFilter(pupil => pupil.DeletedAt == null);
        modelBuilder.Entity<Take>().HasQueryFilter(take => take.DeletedAt == null);
        modelBuilder.Entity<SavedNote>().HasQueryFilter(note => note.DeletedAt == null);
        modelBuilder.Entity<Pupil>().Property(pupil => pupil.Approach).HasConversion<string>().HasMaxLength(30);
        modelBuilder.Entity<Pupil>().Property(pupil => pupil.Stage).HasConversion<string>().HasMaxLength(30);
        modelBuilder.Entity<Pupil>().Ignore(pupil => pupil.Instrument).Ignore(pupil => pupil.Reading);
        modelBuilder.Entity<Take>().Property(take => take.On).HasConversion<string>().HasMaxLength(30);
        modelBuilder.Entity<Take>().Property(take => take.Source).HasConversion<string>().HasMaxLength(30);
        modelBuilder.Entity<Take>().Property(take => take.Outcome).HasConversion<string>().HasMaxLength(30);
        modelBuilder.Entity<Take>().Ignore(take => take.Measures).Ignore(take => take.Verdict).Ignore(take => take.Threads);
        modelBuilder.Entity<Take>().HasIndex(take => new { take.PupilId, take.Kept, take.RecordedAt });
        modelBuilder.Entity<AcceptedStep>().Property(step => step.Place).HasConversion<string>().HasMaxLength(30);
        modelBuilder.Entity<AcceptedStep>().HasIndex(step => new { step.PupilId, step.DoneAt });
        modelBuilder.Entity<SavedNote>().HasIndex(note => new { note.PupilId, note.SavedAt });
        modelBuilder.Entity<Pupil>().HasMany(pupil => pupil.Steps).WithOne().HasForeignKey(step => step.PupilId);
        modelBuilder.Entity<Pupil>().HasMany(pupil => pupil.Notes).WithOne().HasForeignKey(note => note.PupilId);
    }

    // SQLite keeps no time zone; every moment in the record is UTC.
    protected override void ConfigureConventions(ModelConfigurationBuilder configurationBuilder) =>
        configurationBuilder.Properties<DateTime>().HaveConversion<UtcConverter>();

    private sealed class UtcConverter() : ValueConverter<DateTime, DateTime>(
        moment => moment.ToUniversalTime(),
        stored => DateTime.SpecifyKind(stored, DateTimeKind.Utc));
}
