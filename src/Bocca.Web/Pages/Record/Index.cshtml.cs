using Bocca.Core.Judging;
using Bocca.Web.Frame;
using Bocca.Web.Record;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Pages.Record;

/// <summary>The last lesson in a line or two.</summary>
/// <param name="When">How long ago.</param>
/// <param name="What">What was kept on its day, by kind.</param>
/// <param name="Came">What came of the last of it.</param>
/// <param name="Step">The step that stands open since; null for none.</param>
public sealed record LastTime(string When, string What, string Came, DeskLink? Step);

/// <summary>Everything kept about a pupil, over all stops, the newest first; and what has changed over weeks.</summary>
public sealed class IndexModel(Journal journal) : EntriesPage(journal)
{
    private const int PageLength = 40;

    /// <summary>Only entries of one stop, by its place.</summary>
    [BindProperty(SupportsGet = true, Name = "stop")]
    public string? StopAsked { get; set; }

    /// <summary>Only entries of one kind.</summary>
    [BindProperty(SupportsGet = true, Name = "kind")]
    public string? KindAsked { get; set; }

    /// <summary>Entries before a moment (UTC, milliseconds since 1970), and at it those of a lower number.</summary>
    [BindProperty(SupportsGet = true, Name = "before")]
    public long? Before { get; set; }

    [BindProperty(SupportsGet = true, Name = "under")]
    public long? Under { get; set; }

    public IReadOnlyList<Entry> Entries { get; private set; } = [];

    /// <summary>The address of the entries after these; null where there are no more.</summary>
    public string? Onward { get; private set; }

    public IReadOnlyList<FigureHistory> Histories { get; private set; } = [];

    /// <summary>The last day on which something was kept, in words; null where nothing was, or older entries are read.</summary>
    public LastTime? Last { get; private set; }

    /// <summary>The kinds that the stop chosen writes.</summary>
    public IReadOnlyList<EntryKind> Kinds => Stops.All.FirstOrDefault(stop => stop.Place == StopAsked)?.Kinds ?? [];

    /// <summary>A line of the list, whatever kind it is of.</summary>
    public EntryKind KindOf(Entry entry) => Stops.Kind(entry.Kind);

    public async Task OnGetAsync()
    {
        var entries = await Chosen().Take(PageLength + 1).ToListAsync();
        Entries = [.. entries.Take(PageLength)];
        if (entries.Count > PageLength)
            Onward = Address($"before={new DateTimeOffset(Entries[^1].At).ToUnixTimeMilliseconds()}&under={Entries[^1].Id}");
        if (Before is not null || !string.IsNullOrEmpty(StopAsked))
            return;
        Histories = await Journal.HistoriesAsync(Pupil!.Id);
        Last = await LastTimeAsync();
    }

    /// <summary>Where an entry is deleted from, so that the reader is here again afterwards.</summary>
    public string Deleting(Entry entry) =>
        Address($"handler=Delete&id={entry.Id}" + (Before is null ? "" : $"&before={Before}&under={Under}"));

    private string Address(string query) =>
        $"/record/{PupilId}?{query}"
        + (string.IsNullOrEmpty(StopAsked) ? "" : $"&stop={Uri.EscapeDataString(StopAsked)}")
        + (string.IsNullOrEmpty(KindAsked) ? "" : $"&kind={Uri.EscapeDataString(KindAsked)}");

    private IQueryable<Entry> Chosen()
    {
        var entries = Journal.Of(Pupil!.Id).Where(entry => entry.Kept);
        if (!string.IsNullOrEmpty(StopAsked))
        {
            var kinds = Kinds.Select(kind => kind.Id).Where(kind => string.IsNullOrEmpty(KindAsked) || kind == KindAsked).ToList();
            entries = entries.Where(entry => kinds.Contains(entry.Kind));
        }

        if (Before is not { } before || before is < 0 or > 4_102_444_800_000)
            return entries;
        var (at, under) = (DateTimeOffset.FromUnixTimeMilliseconds(before).UtcDateTime, Under ?? 0);
        return entries.Where(entry => entry.At < at || (entry.At == at && entry.Id < under));
    }

    /// <summary>The last lesson: what was kept on its day, what came of the last of it, and the step that stands open since.</summary>
    private async Task<LastTime?> LastTimeAsync()
    {
        if (Entries.FirstOrDefault(entry => KindOf(entry) != Steps.Kind) is not { } last)
            return null;
        var day = Clock.StartOf(Clock.DayOf(last.At));
        var kinds = await Journal
            .Of(Pupil!.Id)
            .Where(entry => entry.Kept && entry.At >= day && entry.At <= last.At && entry.Kind != Steps.Kind.Id)
            .GroupBy(entry => entry.Kind)
            .Select(group => new { Kind = group.Key, Count = group.Count() })
            .ToListAsync();
        var step = await Journal.Of(Pupil.Id, Steps.Kind).Where(entry => entry.DoneAt == null).FirstOrDefaultAsync();
        return new LastTime(
            Clock.Ago(last.At),
            string.Join(
                ", ",
                kinds.Select(each => $"{each.Count} {(each.Count == 1 ? Stops.Kind(each.Kind).Noun : Stops.Kind(each.Kind).Plural)}")
            ),
            last.Summary,
            step is not null && Stops.At(step.Subject) is { } stop
                ? new DeskLink(step.Summary, stop.StepAddress(Pupil.Id, step.DrillId), "step")
                {
                    Tried = step.Asked > 0 ? Steps.Tries(step) : null,
                }
                : null
        );
    }
}
