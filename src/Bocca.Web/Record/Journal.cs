using System.Security.Cryptography;
using System.Text;
using Bocca.Core.Judging;
using Bocca.Web.Frame;
using Bocca.Web.Record.Requests;
using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Record;

/// <summary>
/// Writes, keeps, deletes and brings back what stands in the record, in one way for every kind. Lists come without payloads.
/// </summary>
public sealed class Journal(BoccaDb db, Stops stops, RoomClock clock)
{
    /// <summary>Deletes the requests that no entry was made by any more.</summary>
    internal const string ForgetRequests =
        "DELETE FROM Requests WHERE NOT EXISTS (SELECT 1 FROM Entries WHERE Entries.RequestId = Requests.Id)";

    public BoccaDb Db => db;

    public RoomClock Clock => clock;

    public Stops Stops => stops;

    /// <summary>What stands in a pupil's record, the newest first.</summary>
    public IQueryable<Entry> Of(int pupilId) =>
        db
            .Entries.AsNoTracking()
            .Where(entry => entry.PupilId == pupilId)
            .OrderByDescending(entry => entry.At)
            .ThenByDescending(entry => entry.Id);

    /// <summary>The same of one kind.</summary>
    public IQueryable<Entry> Of(int pupilId, EntryKind kind) => Of(pupilId).Where(entry => entry.Kind == kind.Id);

    /// <summary>The first entry of a query with its payload; null for none.</summary>
    public static async Task<Shown<T>?> ShowAsync<T>(EntryKind<T> kind, IQueryable<Entry> entries)
        where T : class =>
        await entries.Include(entry => entry.Payload).Include(entry => entry.Approach).FirstOrDefaultAsync() is { } entry
            ? new Shown<T>(entry, kind.Read(entry))
            : null;

    /// <summary>Figures of a pupil, the newest first.</summary>
    public IQueryable<EntryFigure> FiguresOf(int pupilId, FigureKind kind) =>
        db
            .Figures.AsNoTracking()
            .Where(figure => figure.PupilId == pupilId && figure.Name == kind.Name)
            .OrderByDescending(figure => figure.At);

    /// <summary>Writes an entry with its payload.</summary>
    public async Task<Shown<T>> WriteAsync<T>(EntryKind<T> kind, Entry entry, T payload, string approach)
        where T : class
    {
        entry.Payload = kind.Write(payload);
        kind.Complete(entry, payload);
        await WriteAsync(kind, entry, approach);
        return new Shown<T>(entry, payload);
    }

    /// <summary>Writes an entry: a take waits to be kept, everything else stands at once, unless it is to go with its day.</summary>
    public async Task WriteAsync(EntryKind kind, Entry entry, string approach, bool stands = true)
    {
        entry.Summary = Entry.Short(entry.Summary);
        entry.Approach = await ApproachAsync(approach);
        if (entry.Request is { } asked)
            entry.Request = await RequestAsync(asked);
        db.Entries.Add(entry);
        if ((!kind.IsTake && stands) || entry.Kept)
            await StandAsync(kind, entry);
        else
            // What a cue brought counts for the next one, whether the take is kept or not.
            AddFigures(kind, entry, figure => figure.Kind == CueHistory.Helped);
        await db.SaveChangesAsync();
    }

    /// <summary>Takes in an entry that stood in another record, with its figures, as it stood there; saving it is the caller's.</summary>
    public async Task TakeInAsync(Entry entry, string approach)
    {
        entry.Approach = await ApproachAsync(approach);
        entry.Request = entry.Request is { } asked ? await RequestAsync(asked) : null;
        foreach (var figure in entry.Figures)
            figure.PupilId = entry.PupilId;
        db.Entries.Add(entry);
    }

    /// <summary>
    /// Writes an entry of which there is one at most, however often it is sent: the same once more is the one that stands, or comes back
    /// where it was deleted; any other in its place gives way to it.
    /// </summary>
    /// <param name="kind">Its kind.</param>
    /// <param name="entry">The entry.</param>
    /// <param name="approach">The approach it is made under.</param>
    /// <param name="what">What tells it from every other of its pupil and kind: <c>2026-12-07</c> and what is in it.</param>
    /// <param name="others">The others in its place; null for none.</param>
    public async Task<Entry> WriteOneAsync(EntryKind kind, Entry entry, string approach, string what, IQueryable<Entry>? others = null)
    {
        var key = OneKey(entry.PupilId, kind, what);
        if (others is not null)
            foreach (var other in await others.Where(each => each.Key != key).Select(each => each.Id).ToListAsync())
                await MarkAsync(entry.PupilId, other, true);
        if (await OneAsync(key) is { } standing)
            return standing;
        entry.Key = key;
        try
        {
            await WriteAsync(kind, entry, approach);
            return entry;
        }
        catch (DbUpdateException)
        {
            // Somebody wrote it at the same moment.
            db.ChangeTracker.Clear();
            return await OneAsync(key) ?? throw new InvalidDataException("It could not be saved. Send it once more.");
        }
    }

    /// <summary>The key of what there is one of.</summary>
    internal static Guid OneKey(int pupilId, EntryKind kind, string what) =>
        new(SHA256.HashData(Encoding.UTF8.GetBytes($"{pupilId}\n{kind.Id}\n{what}")).AsSpan(0, 16));

    private async Task<Entry?> OneAsync(Guid key)
    {
        if (await db.Entries.IgnoreQueryFilters().FirstOrDefaultAsync(each => each.Key == key) is not { } standing)
            return null;
        if (standing.DeletedAt is null)
            return standing;
        standing.At = clock.Now;
        return await MarkAsync(standing.PupilId, standing.Id, false);
    }

    /// <summary>Keeps a take, with what it says for trends, and marks the steps that asked for it as tried.</summary>
    public async Task KeepAsync(Entry entry)
    {
        if (entry.Kept)
            return;
        await db.Figures.Where(figure => figure.EntryId == entry.Id).ExecuteDeleteAsync();
        await StandAsync(stops.Kind(entry.Kind), entry);
        await db.SaveChangesAsync();
    }

    /// <summary>Takes an entry from the record, or brings it back.</summary>
    /// <returns>The entry; null where the pupil has none such.</returns>
    public async Task<Entry?> MarkAsync(int pupilId, long id, bool deleted)
    {
        var entry = await db
            .Entries.IgnoreQueryFilters()
            .Include(each => each.Payload)
            .Include(each => each.Figures)
            .FirstOrDefaultAsync(each => each.Id == id && each.PupilId == pupilId);
        if (entry is null)
            return null;
        entry.DeletedAt = deleted ? clock.Now : null;
        entry.Figures.Clear();
        var kind = stops.Kind(entry.Kind);
        if (!deleted && entry.Kept)
            AddFigures(kind, entry);
        await db.SaveChangesAsync();
        if (kind.DueAfterDays(entry) is { } days)
            await SetDueAsync(entry.PupilId, entry.Kind, entry.DrillId, entry.InstrumentId, days);
        return entry;
    }

    /// <summary>Accepts the step that an entry leads to: whatever was open before it is done with.</summary>
    public async Task AcceptAsync(Entry because, NextStep next, string approach)
    {
        foreach (
            var open in await db
                .Entries.Where(step => step.PupilId == because.PupilId && step.Kind == Steps.Kind.Id && step.DoneAt == null)
                .ToListAsync()
        )
            open.DoneAt = clock.Now;
        var entry = Steps.Entry(because.PupilId, next, clock.Now);
        await WriteAsync(Steps.Kind, entry, new StepPayload(next.Reason, because.Id), approach);
    }

    private async Task StandAsync(EntryKind kind, Entry entry)
    {
        entry.Kept = true;
        if (entry.Payload is null && entry.Id != 0)
            await db.Entry(entry).Reference(each => each.Payload).LoadAsync();
        AddFigures(kind, entry);
        await TryStepsAsync(kind, entry);
        if (kind.DueAfterDays(entry) is { } days)
        {
            foreach (
                var earlier in await db
                    .Entries.Where(each =>
                        each.PupilId == entry.PupilId
                        && each.Kind == entry.Kind
                        && each.DrillId == entry.DrillId
                        && each.InstrumentId == entry.InstrumentId
                        && each.DueAt != null
                    )
                    .ToListAsync()
            )
                earlier.DueAt = null;
            entry.DueAt = entry.Outcome == Outcome.Passed ? entry.At.AddDays(days) : null;
        }
    }

    private async Task TryStepsAsync(EntryKind kind, Entry entry)
    {
        if (kind == Steps.Kind)
            return;
        var (place, drill) = (stops.OfKind(entry.Kind).Place, kind.StepDrill(entry));
        var open = db.Entries.Where(step => step.PupilId == entry.PupilId && step.Kind == Steps.Kind.Id && step.DoneAt == null);
        foreach (var step in await open.Where(step => step.Subject == place && step.DrillId == drill).ToListAsync())
            Steps.Try(step, entry, clock.Now);
    }

    private async Task SetDueAsync(int pupilId, string kind, string? drillId, string? instrumentId, double days)
    {
        var standing = await db
            .Entries.Where(each =>
                each.PupilId == pupilId && each.Kind == kind && each.DrillId == drillId && each.InstrumentId == instrumentId && each.Kept
            )
            .OrderByDescending(each => each.At)
            .Take(2)
            .ToListAsync();
        for (var i = 0; i < standing.Count; i++)
            standing[i].DueAt = i == 0 && standing[i].Outcome == Outcome.Passed ? standing[i].At.AddDays(days) : null;
        await db.SaveChangesAsync();
    }

    internal static void AddFigures(EntryKind kind, Entry entry, Func<Figure, bool>? only = null) =>
        entry.Figures.AddRange(
            kind.FiguresOf(entry)
                .Where(figure => only?.Invoke(figure) ?? true)
                .Select(figure => new EntryFigure
                {
                    Name = figure.Kind.Name,
                    Item = figure.Item,
                    PupilId = entry.PupilId,
                    InstrumentId = entry.InstrumentId,
                    Stage = entry.Stage,
                    At = entry.At,
                    Value = figure.Value,
                    Spread = figure.Spread,
                    Count = figure.Count,
                })
        );

    /// <summary>The request as it stands in the record: once, however many takes were asked the same.</summary>
    public async Task<TakeRequest> RequestAsync(TakeRequest request)
    {
        if (await db.Requests.FirstOrDefaultAsync(known => known.Hash == request.Hash) is { } known)
            return known;
        await db.Database.ExecuteSqlAsync(
            $"""
            INSERT OR IGNORE INTO Requests (Kind, Version, Body, Hash)
            VALUES ({request.Kind}, {request.Version}, {request.Body}, {request.Hash})
            """
        );
        return await db.Requests.FirstAsync(stored => stored.Hash == request.Hash);
    }

    private async Task<ApproachText?> ApproachAsync(string text)
    {
        if (text == "")
            return null;
        if (db.Approaches.Local.FirstOrDefault(known => known.Text == text) is { } local)
            return local;
        var known = await db.Approaches.FirstOrDefaultAsync(known => known.Text == text);
        if (known is not null)
            return known;
        // Two that write under it for the first time at the same moment: both find the one that came first.
        await db.Database.ExecuteSqlAsync($"INSERT OR IGNORE INTO Approaches (Text) VALUES ({text})");
        return await db.Approaches.FirstAsync(stored => stored.Text == text);
    }
}
