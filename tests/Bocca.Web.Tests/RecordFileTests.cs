using Bocca.Core.Buzz;
using Bocca.Core.Practice;
using Bocca.Web.Data;
using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Tests;

public sealed class RecordFileTests
{
    [Fact]
    public async Task The_record_outlives_the_application_and_is_written_ahead()
    {
        var first = new Room { KeepFolder = true };
        await first.AddAsync("Ada");
        Assert.Equal(
            "wal",
            await first.InRecordAsync(db =>
                db.Database.SqlQueryRaw<string>("SELECT journal_mode AS Value FROM pragma_journal_mode").SingleAsync()
            )
        );
        Assert.Equal(
            1,
            await first.InRecordAsync(db =>
                db.Database.SqlQueryRaw<int>("SELECT foreign_keys AS Value FROM pragma_foreign_keys").SingleAsync()
            )
        );
        // Full synchronisation: what was acknowledged is on disk even if the machine loses power.
        Assert.Equal(
            2,
            await first.InRecordAsync(db =>
                db.Database.SqlQueryRaw<int>("SELECT synchronous AS Value FROM pragma_synchronous").SingleAsync()
            )
        );
        await using var second = new Room { UseFolder = first.Folder };
        Assert.Equal("Ada", await second.InRecordAsync(db => db.Pupils.Select(pupil => pupil.Name).SingleAsync()));
        await first.DisposeAsync();
    }

    [Fact]
    public async Task Takes_nobody_saved_go_after_a_day_and_saved_ones_stay()
    {
        await using var room = new Room();
        var pupil = await room.AddAsync("Ada");
        var now = new DateTime(2026, 11, 24, 12, 0, 0, DateTimeKind.Utc);
        await room.InRecordAsync(async db =>
        {
            db.Takes.AddRange(
                TakeOf(pupil, now.AddDays(-2), kept: false),
                TakeOf(pupil, now.AddDays(-2), kept: true),
                TakeOf(pupil, now.AddHours(-1), kept: false)
            );
            await db.SaveChangesAsync();
            await RecordFile.PrepareAsync(db, now);
            return 0;
        });
        Assert.Equal(2, await room.InRecordAsync(db => db.Takes.CountAsync()));
        Assert.Equal(DateTimeKind.Utc, (await room.InRecordAsync(db => db.Takes.FirstAsync())).RecordedAt.Kind);
    }

    [Fact]
    public async Task The_demo_room_is_whole()
    {
        await using var room = new Room();
        await room.InRecordAsync(async db =>
        {
            await DemoData.FillAsync(db, TimeProvider.System);
            return 0;
        });
        var pupils = await room.InRecordAsync(db =>
            db.Pupils.Include(pupil => pupil.Takes).Include(pupil => pupil.Notes).AsSplitQuery().ToListAsync()
        );
        Assert.Equal(7, pupils.Count);
        Assert.All(pupils, pupil => Assert.InRange(pupil.Takes.Count(take => take.Kept), 4, 8));
        Assert.All(
            pupils.SelectMany(pupil => pupil.Takes),
            take =>
            {
                Assert.Equal(take.Outcome, take.Verdict.Outcome);
                Assert.Equal(take.Measures.Attempts.Count(attempt => attempt.Spoke), take.Threads.Threads.Count);
            }
        );
        Assert.Equal(TakeOutcome.Repeat, pupils.Single(pupil => pupil.Name == "Tomas Oduya").Takes.MaxBy(take => take.RecordedAt)!.Outcome);
    }

    private static Take TakeOf(Pupil pupil, DateTime at, bool kept) =>
        new()
        {
            PupilId = pupil.Id,
            DrillId = "sound4-rest4",
            Tempo = 60,
            On = SoundStage.Mouthpiece,
            RecordedAt = at,
            Kept = kept,
            Summary = "",
            MeasuresJson = "{}",
            VerdictJson = "{}",
            ThreadsJson = "{}",
        };
}
