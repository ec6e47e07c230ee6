using Bocca.Web.Record.Requests;
using Bocca.Web.Record.Shapes;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Storage.ValueConversion;

namespace Bocca.Web.Record;

/// <summary>The record, in one SQLite file. What is deleted is hidden, so that it can be brought back.</summary>
public sealed class BoccaDb(DbContextOptions<BoccaDb> options) : DbContext(options)
{
    public DbSet<Pupil> Pupils => Set<Pupil>();

    public DbSet<Entry> Entries => Set<Entry>();

    public DbSet<EntryPayload> Payloads => Set<EntryPayload>();

    public DbSet<EntryFigure> Figures => Set<EntryFigure>();

    public DbSet<TakeRequest> Requests => Set<TakeRequest>();

    public DbSet<ApproachText> Approaches => Set<ApproachText>();

    public DbSet<RecallCard> Recalls => Set<RecallCard>();

    public DbSet<NotePin> Pins => Set<NotePin>();

    public DbSet<FirstNoteOrder> FirstNoteOrders => Set<FirstNoteOrder>();

    public DbSet<SettingChange> SettingChanges => Set<SettingChange>();

    public DbSet<TimetableSlot> TimetableSlots => Set<TimetableSlot>();

    public DbSet<TimetableHoliday> TimetableHolidays => Set<TimetableHoliday>();

    public DbSet<PaperItem> PaperItems => Set<PaperItem>();

    public DbSet<Piece> Pieces => Set<Piece>();

    public DbSet<PieceVersion> PieceVersions => Set<PieceVersion>();

    public DbSet<PieceFor> PiecesFor => Set<PieceFor>();

    public DbSet<RoomSettings> Rooms => Set<RoomSettings>();

    private static string[] Instants { get; } = ["At", "DeletedAt", "DoneAt", "DueAt"];

    /// <summary>What holds for the room; the shipped settings until somebody changes them.</summary>
    public async Task<RoomSettings> RoomAsync() => await Rooms.AsNoTracking().SingleOrDefaultAsync() ?? new RoomSettings();

    /// <summary>The classes that somebody plays in, by name.</summary>
    public async Task<IReadOnlyList<string>> ClassNamesAsync() =>
        await Pupils.Where(pupil => pupil.ClassName != "").Select(pupil => pupil.ClassName).Distinct().OrderBy(name => name).ToListAsync();

    /// <summary>Changes something and saves it; where somebody saved the same at the same moment, once more upon what they left.</summary>
    /// <param name="change">Reads what is there, and changes it.</param>
    public async Task SavingAsync(Func<Task> change)
    {
        for (var left = 4; ; left--)
        {
            await change();
            try
            {
                await SaveChangesAsync();
                return;
            }
            catch (DbUpdateException) when (left > 0)
            {
                ChangeTracker.Clear();
            }
        }
    }

    protected override void OnModelCreating(ModelBuilder modelBuilder)
    {
        modelBuilder.Entity<Pupil>(pupil =>
        {
            pupil.HasQueryFilter(each => each.DeletedAt == null);
            pupil.Property(each => each.Preset).HasConversion(Named(StoredNames.Presets)).HasMaxLength(30);
            pupil.Property(each => each.Stage).HasConversion(Named(StoredNames.LearningStages)).HasMaxLength(30);
            pupil.HasIndex(each => each.Key).IsUnique();
            pupil.Ignore(each => each.Instrument).Ignore(each => each.Reading).Ignore(each => each.Consent);
            pupil.HasMany<Entry>().WithOne().HasForeignKey(entry => entry.PupilId);
            pupil.HasMany<RecallCard>().WithOne().HasForeignKey(card => card.PupilId);
            pupil.HasMany<NotePin>().WithOne().HasForeignKey(pin => pin.PupilId);
        });
        modelBuilder.Entity<RoomSettings>(room =>
        {
            room.Property(each => each.Preset).HasConversion(Named(StoredNames.Presets)).HasMaxLength(30);
            room.Property(each => each.Id).ValueGeneratedNever();
            room.Ignore(each => each.Approach).Ignore(each => each.Conditions).Ignore(each => each.Tuning);
        });
        modelBuilder.Entity<RecallCard>(card =>
        {
            card.Ignore(each => each.Recall);
            card.HasIndex(each => new
                {
                    each.PupilId,
                    each.InstrumentId,
                    each.Item,
                })
                .IsUnique();
            card.HasIndex(each => new { each.PupilId, each.DueAt });
        });
        modelBuilder
            .Entity<NotePin>()
            .HasIndex(pin => new
            {
                pin.PupilId,
                pin.InstrumentId,
                pin.Midi,
            })
            .IsUnique();
        modelBuilder.Entity<FirstNoteOrder>(order =>
        {
            order.Ignore(each => each.Sounding);
            order.HasOne<Pupil>().WithMany().HasForeignKey(each => each.PupilId);
            order.HasIndex(each => new { each.PupilId, each.InstrumentId }).IsUnique();
            // No two of the room's: to the database nobody is not the same as nobody.
            order.HasIndex(each => each.InstrumentId).IsUnique().HasFilter("PupilId IS NULL");
        });
        modelBuilder.Entity<SettingChange>(change =>
        {
            change.HasOne<Pupil>().WithMany().HasForeignKey(each => each.PupilId);
            change.HasIndex(each => new { each.PupilId, each.At });
        });
        CreateJournal(modelBuilder);
        CreatePractice(modelBuilder);
        CreatePieces(modelBuilder);
    }

    private static void CreatePieces(ModelBuilder modelBuilder)
    {
        modelBuilder.Entity<Piece>().HasQueryFilter(each => each.DeletedAt == null);
        modelBuilder.Entity<PieceVersion>(version =>
        {
            version.HasQueryFilter(each => each.DeletedAt == null);
            version.HasOne<Piece>().WithMany().HasForeignKey(each => each.PieceId);
            version.HasIndex(each => new { each.PieceId, each.Number }).IsUnique();
            version.HasIndex(each => each.Hash);
        });
        modelBuilder.Entity<PieceFor>(played =>
        {
            played.HasOne<Piece>().WithMany().HasForeignKey(each => each.PieceId);
            played.HasOne<Pupil>().WithMany().HasForeignKey(each => each.PupilId);
            played.HasIndex(each => new { each.PupilId, each.PieceId }).IsUnique();
        });
    }

    private static void CreatePractice(ModelBuilder modelBuilder)
    {
        modelBuilder.Entity<TimetableSlot>(slot =>
        {
            slot.HasQueryFilter(each => each.DeletedAt == null);
            slot.Ignore(each => each.Slot).Ignore(each => each.ExceptDays).Ignore(each => each.Who);
            slot.Property(each => each.Day).HasConversion(Named(StoredNames.Days)).HasMaxLength(10);
            slot.HasOne<Pupil>().WithMany().HasForeignKey(each => each.PupilId);
            // Nobody has the same lesson twice.
            slot.HasIndex(each => new
                {
                    each.PupilId,
                    each.Day,
                    each.Start,
                    each.From,
                })
                .IsUnique()
                .HasFilter("\"DeletedAt\" IS NULL AND \"PupilId\" IS NOT NULL");
            slot.HasIndex(each => new
                {
                    each.ClassName,
                    each.Day,
                    each.Start,
                    each.From,
                })
                .IsUnique()
                .HasFilter("\"DeletedAt\" IS NULL AND \"PupilId\" IS NULL");
        });
        modelBuilder.Entity<TimetableHoliday>(holiday =>
        {
            holiday.HasQueryFilter(each => each.DeletedAt == null);
            holiday.Ignore(each => each.Holiday);
        });
        modelBuilder.Entity<PaperItem>(paper =>
        {
            paper.HasQueryFilter(each => each.DeletedAt == null);
            paper.Ignore(each => each.Name).Ignore(each => each.ItemId);
            paper.Property(each => each.From).HasConversion(Named(StoredNames.LearningStages)).HasMaxLength(30);
        });
    }

    private static void CreateJournal(ModelBuilder modelBuilder)
    {
        modelBuilder.Entity<Entry>(entry =>
        {
            entry.HasQueryFilter(each => each.DeletedAt == null);
            entry.Property(each => each.Stage).HasConversion(Named(StoredNames.SoundStages)).HasMaxLength(20);
            entry.Property(each => each.Source).HasConversion(Named(StoredNames.Sources)).HasMaxLength(20);
            entry.Property(each => each.Outcome).HasConversion(Named(StoredNames.Outcomes)).HasMaxLength(20);
            foreach (var instant in Instants)
                entry.Property(instant).HasConversion<InstantConverter>();
            entry.HasOne(each => each.Payload).WithOne().HasForeignKey<EntryPayload>(payload => payload.EntryId);
            entry.HasMany(each => each.Figures).WithOne().HasForeignKey(figure => figure.EntryId);
            entry.HasOne(each => each.Approach).WithMany().HasForeignKey(each => each.ApproachId);
            entry.HasOne(each => each.Request).WithMany().HasForeignKey(each => each.RequestId).OnDelete(DeleteBehavior.NoAction);
            entry.HasIndex(each => each.RequestId).HasFilter("\"RequestId\" IS NOT NULL");
            // The newest of a pupil, of everybody, of a kind in a span of days; what is open, and what is due.
            entry.HasIndex(each => new
            {
                each.PupilId,
                each.At,
                each.Id,
            });
            entry.HasIndex(each => new { each.At, each.Id });
            entry.HasIndex(each => new
            {
                each.PupilId,
                each.Kind,
                each.At,
                each.Id,
            });
            entry
                .HasIndex(each => new { each.Kind, each.PupilId })
                .HasFilter("\"Kind\" = 'step' AND \"DoneAt\" IS NULL")
                .HasDatabaseName("IX_Entries_OpenSteps");
            entry
                .HasIndex(each => new
                {
                    each.Kind,
                    each.DueAt,
                    each.PupilId,
                })
                .HasFilter("\"DueAt\" IS NOT NULL");
            // What is told of pupils between lessons, for the Desk.
            entry.HasIndex(each => each.At).HasFilter("\"Kind\" IN ('seen', 'report', 'week')").HasDatabaseName("IX_Entries_Told");
            entry.HasIndex(each => each.Kept).HasFilter("\"Kept\" = 0");
            entry.HasIndex(each => each.Key).IsUnique();
        });
        modelBuilder.Entity<EntryPayload>(payload =>
        {
            payload.HasKey(each => each.EntryId);
            payload.Property(each => each.EntryId).ValueGeneratedNever();
        });
        modelBuilder.Entity<EntryFigure>(figure =>
        {
            figure.HasKey(each => new
            {
                each.EntryId,
                each.Name,
                each.Item,
            });
            figure.Property(each => each.Stage).HasConversion(Named(StoredNames.SoundStages)).HasMaxLength(20);
            figure.Property(each => each.At).HasConversion<InstantConverter>();
            figure.HasIndex(each => new
            {
                each.PupilId,
                each.Name,
                each.InstrumentId,
                each.At,
                each.Value,
            });
            figure.HasIndex(each => new
            {
                each.PupilId,
                each.Name,
                each.At,
                each.Value,
            });
        });
        modelBuilder.Entity<TakeRequest>(request =>
        {
            request.ToTable("Requests");
            request.HasIndex(each => each.Hash).IsUnique();
        });
        modelBuilder.Entity<ApproachText>().HasIndex(approach => approach.Text).IsUnique();
    }

    // SQLite keeps no time zone; every moment in the record is UTC.
    protected override void ConfigureConventions(ModelConfigurationBuilder configurationBuilder) =>
        configurationBuilder.Properties<DateTime>().HaveConversion<UtcConverter>();

    /// <summary>A choice under its name in the record.</summary>
    private static ValueConverter<T, string> Named<T>(Names<T> names)
        where T : struct, Enum => new(value => names[value], stored => names.Read(stored));

    private sealed class UtcConverter()
        : ValueConverter<DateTime, DateTime>(moment => moment.ToUniversalTime(), stored => DateTime.SpecifyKind(stored, DateTimeKind.Utc));

    /// <summary>Instants of the journal: whole milliseconds since 1970, so that they sort and subtract as numbers.</summary>
    private sealed class InstantConverter()
        : ValueConverter<DateTime, long>(
            moment => new DateTimeOffset(moment.ToUniversalTime()).ToUnixTimeMilliseconds(),
            stored => DateTimeOffset.FromUnixTimeMilliseconds(stored).UtcDateTime
        );
}
