using System.Net;
using System.Text;
using Bocca.Core.Teaching;
using Bocca.Web.Pages.Buzz;
using Bocca.Web.Pages.Practice;
using Bocca.Web.Record;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.Time.Testing;

namespace Bocca.Web.Tests.Record;

/// <summary>A pupil who is erased is in no file of the data folder any more; who is only deleted comes back.</summary>
public sealed class ErasingTests : IAsyncDisposable
{
    private const string Name = "Quillon Vanterpool-Esk",
        Sentence = "dreams of a silver mute",
        ClassName = "Vanterpool siblings";

    private readonly FakeTimeProvider _time = new(DateTimeOffset.UtcNow);
    private readonly Room _room;

    // An application of its own: what lies beside the record would stay for the next test.
    public ErasingTests() => _room = new Room { Instead = services => services.AddSingleton<TimeProvider>(_time) };

    public ValueTask DisposeAsync() => _room.DisposeAsync();

    [Fact]
    public async Task Nothing_of_an_erased_pupil_is_in_any_file_of_the_data_folder()
    {
        var pupil = await FilledAsync();
        await _room.AddAsync("Ada");
        var copies = Copies();
        Assert.All(
            copies.Prepend(RecordFolder.RecordIn(_room.Folder)),
            file => Assert.True(Holds(file, Name) || Holds($"{file}-wal", Name), file)
        );
        var made = File.GetLastWriteTimeUtc(copies[0]);
        var tab = new Tab(_room.CreateClient());
        var (_, page) = await tab.OpenAsync($"/pupils/erase/{pupil.Id}");
        Assert.Contains("entries of the record", page.QuerySelector("[data-goes]")!.TextContent);
        Assert.Contains("2 copies", page.QuerySelector("[data-goes]")!.TextContent);

        var (refused, again) = await tab.SendAsync(page, "#stage form", ("name", "Ada"));
        Assert.Equal(HttpStatusCode.UnprocessableEntity, refused.StatusCode);
        Assert.Contains("Nothing is erased", again.QuerySelector("#erase-trouble")!.TextContent);
        var (_, desk) = await tab.SendAsync(again, "#stage form", ("name", Name.ToUpperInvariant()));

        Assert.Contains("erased", desk.QuerySelector(".told")!.TextContent);
        Assert.Equal($"{pupil.Id}", desk.QuerySelector("[data-erased]")!.GetAttribute("data-erased"));
        AssertForgotten();
        Assert.Equal(2, Copies().Count);
        Assert.All(Copies(), copy => Assert.Equal(0, RecordCopy.Look(copy)!.Pupils));
        Assert.Equal(made, File.GetLastWriteTimeUtc(copies[0]));
        Assert.Equal("Ada", (await _room.InRecordAsync(db => db.Pupils.IgnoreQueryFilters().SingleAsync())).Name);
        Assert.Contains($"{pupil.Key}", await File.ReadAllTextAsync(Path.Combine(_room.Folder, "bocca.erased"), Stop));
    }

    [Fact]
    public async Task A_copy_from_elsewhere_that_is_put_back_loses_whom_was_erased()
    {
        var pupil = await FilledAsync();
        await _room.AddAsync("Ada");
        var elsewhere = Path.Combine(Path.GetTempPath(), $"bocca-{Guid.NewGuid():N}.db");
        try
        {
            RecordFolder.Backup(_room.Folder, elsewhere);
            _room.Services.GetRequiredService<Erasing>().Erase(pupil);
            Assert.Equal(2, RecordCopy.Look(elsewhere)!.Pupils);
            File.Copy(elsewhere, Path.Combine(_room.Folder, "put-back.db"));
            using (var scope = _room.Services.CreateScope())
                await _room.Services.GetRequiredService<Erasing>().FinishAsync(scope.ServiceProvider.GetRequiredService<BoccaDb>());
            Assert.Equal(1, RecordCopy.Look(Path.Combine(_room.Folder, "put-back.db"))!.Pupils);
            AssertForgotten();
        }
        finally
        {
            File.Delete(elsewhere);
        }
    }

    [Fact]
    public async Task A_copy_from_before_pupils_had_keys_is_told_by_number_and_name_and_a_damaged_one_goes()
    {
        var pupil = await FilledAsync();
        var old = Path.Combine(_room.Folder, "bocca.db.before-old");
        RecordCopy.Make(RecordFolder.RecordIn(_room.Folder), old);
        await using (var opened = new SqliteConnection($"Data Source={old};Pooling=False"))
        {
            await opened.OpenAsync(Stop);
            await using var older = opened.CreateCommand();
            older.CommandText =
                "DROP INDEX IX_Pupils_Key; ALTER TABLE Pupils DROP COLUMN Key; "
                + "UPDATE Pupils SET Version = '8b2f6c1e-7d3a-4e5f-9a0b-1c2d3e4f5a6b'";
            await older.ExecuteNonQueryAsync(Stop);
        }

        var (damaged, foreign) = (Path.Combine(_room.Folder, "bocca.db.damaged-1"), Path.Combine(_room.Folder, "bocca.db.damaged-2"));
        var torn = Encoding.UTF8.GetBytes($"SQLite format 3\0{new string('x', 5000)}{Name}{new string('y', 5000)}");
        await File.WriteAllBytesAsync(damaged, torn, Stop);
        await File.WriteAllBytesAsync(foreign, torn.AsMemory(0, 4000), Stop);

        _room.Services.GetRequiredService<Erasing>().Erase(pupil);

        AssertForgotten();
        Assert.Equal(0, RecordCopy.Look(old)!.Pupils);
        Assert.False(File.Exists(damaged));
        Assert.True(File.Exists(foreign));
    }

    [Fact]
    public async Task Who_is_deleted_can_be_brought_back_for_thirty_days_and_is_erased_then()
    {
        var pupil = await FilledAsync();
        var before = Path.Combine(_room.Folder, "bocca.db.before-older");
        RecordCopy.Make(RecordFolder.RecordIn(_room.Folder), before);
        var tab = new Tab(_room.CreateClient());
        var (_, page) = await tab.OpenAsync($"/pupils/{pupil.Id}");
        var (_, desk) = await tab.SendAsync(page, "form[action*=Delete]");
        var (_, deleted) = await tab.OpenAsync(desk.QuerySelector("a[href='/pupils/deleted']")!.GetAttribute("href")!);
        Assert.Contains(Name, deleted.QuerySelector("[data-deleted]")!.TextContent);

        _time.Advance(TimeSpan.FromDays(Erasing.Days) - TimeSpan.FromHours(2));
        await DueAsync();
        Assert.True(File.Exists(before));
        var (_, back) = await tab.SendAsync(deleted, "form[action*=restore]");
        Assert.Contains(Name, back.QuerySelector("#stage")!.TextContent);

        await tab.SendAsync(page, "form[action*=Delete]");
        _time.Advance(TimeSpan.FromDays(Erasing.Days) + TimeSpan.FromHours(2));
        await DueAsync();
        AssertForgotten();
        Assert.False(File.Exists(before));
        var (_, empty) = await tab.OpenAsync("/pupils/deleted");
        Assert.Contains("bring them back", empty.QuerySelector("#stage")!.TextContent);
    }

    private static CancellationToken Stop => TestContext.Current.CancellationToken;

    private async Task DueAsync()
    {
        using var scope = _room.Services.CreateScope();
        await _room
            .Services.GetRequiredService<Erasing>()
            .EraseDueAsync(scope.ServiceProvider.GetRequiredService<BoccaDb>(), scope.ServiceProvider.GetRequiredService<RoomClock>());
    }

    /// <summary>A pupil with something in every table, and two copies of the record: the day's and one made by hand.</summary>
    private async Task<Pupil> FilledAsync()
    {
        var pupil = await _room.AddAsync(Name);
        await _room.InRecordAsync(async db =>
        {
            var stored = await db.Pupils.FirstAsync(each => each.Id == pupil.Id);
            (stored.ClassName, stored.Remark) = (ClassName, Sentence);
            db.TimetableSlots.Add(new TimetableSlot { PupilId = pupil.Id, Minutes = 20 });
            db.TimetableSlots.Add(new TimetableSlot { ClassName = ClassName, Minutes = 20 });
            db.Pins.Add(
                new NotePin
                {
                    PupilId = pupil.Id,
                    InstrumentId = "trumpet-bb",
                    Midi = 60,
                    Setting = "0",
                }
            );
            db.SettingChanges.Add(
                new SettingChange
                {
                    PupilId = pupil.Id,
                    Path = "own",
                    After = Sentence,
                    At = DateTime.UtcNow,
                }
            );
            return await db.SaveChangesAsync();
        });
        await _room.WriteAsync(async journal =>
        {
            for (var i = 0; i < 30; i++)
            {
                var (entry, payload) = BuzzTakes.Of(pupil, DateTime.UtcNow.AddDays(-i), i);
                (entry.Kept, entry.Subject) = (i % 3 > 0, $"{Name} {Sentence}");
                await journal.WriteAsync(BuzzStop.Takes, entry, payload, $"{ApproachPreset.AirFirst}");
            }

            var said = new Entry
            {
                PupilId = pupil.Id,
                Kind = PracticeStop.Remarks.Id,
                At = DateTime.UtcNow,
                Summary = $"{Name}: {Sentence}.",
            };
            await journal.WriteAsync(PracticeStop.Remarks, said, "");
            await journal.MarkAsync(pupil.Id, said.Id, true);
        });
        _room.Services.GetRequiredService<Copies>().Make(DateOnly.FromDateTime(DateTime.UtcNow));
        RecordFolder.Backup(_room.Folder, Path.Combine(_room.Folder, "by hand"));
        return await _room.InRecordAsync(db => db.Pupils.AsNoTracking().FirstAsync(each => each.Id == pupil.Id));
    }

    private List<string> Copies() => [.. _room.Services.GetRequiredService<Erasing>().Copies];

    private void AssertForgotten() =>
        Assert.All(
            Directory.EnumerateFiles(_room.Folder, "*", SearchOption.AllDirectories).Where(file => new FileInfo(file).Length > 0),
            file => Assert.All((string[])[Name, Sentence, ClassName], text => Assert.False(Holds(file, text), $"{file}: {text}"))
        );

    private static bool Holds(string file, string text)
    {
        if (!File.Exists(file))
            return false;
        using var read = new FileStream(file, FileMode.Open, FileAccess.Read, FileShare.ReadWrite | FileShare.Delete);
        using var bytes = new MemoryStream();
        read.CopyTo(bytes);
        return bytes.GetBuffer().AsSpan(0, (int)bytes.Length).IndexOf(Encoding.UTF8.GetBytes(text)) >= 0;
    }
}
