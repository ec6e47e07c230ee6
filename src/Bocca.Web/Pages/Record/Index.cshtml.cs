using Bocca.Core.Judging;
using Bocca.Web.Frame;
using Bocca.Web.Record;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Pages.Record;

/// <summary>Everything kept about a pupil, over all stops, the newest first; and what has changed over weeks.</summary>
public sealed class IndexModel(Journal journal) : EntriesPage(journal)
{
    private const int PageLength = 40,
        ValuesOfHistory = 60;

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

    /// <summary>The kinds that the stop chosen writes.</summary>
    public IReadOnlyList<EntryKind> Kinds => Stops.All.FirstOrDefault(stop => stop.Place == StopAsked)?.Kinds ?? [];

    /// <summary>A line of the list, whatever kind it is of.</summary>
    public EntryKind KindOf(Entry entry) => Stops.Kind(entry.Kind);

    public async Task OnGetAsync()
    {
        var entries = await Chosen().Take(PageLength + 1).ToListAsync();
        Entries = [.. entries.Take(PageLength)];
        if (entries.Count > PageLength)
            Onward = Address(new DateTimeOffset(Entries[^1].At).ToUnixTimeMilliseconds(), Entries[^1].Id);
        if (Before is null && string.IsNullOrEmpty(StopAsked))
            Histories = await HistoriesAsync();
    }

    private string Address(long before, long under) =>
        $"/record/{PupilId}?before={before}&under={under}"
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

    private async Task<IReadOnlyList<FigureHistory>> HistoriesAsync()
    {
        var histories = new List<FigureHistory>();
        foreach (var kind in Stops.All.SelectMany(stop => stop.Followed))
        {
            var figures = await Journal.FiguresOf(Pupil!.Id, kind).Take(ValuesOfHistory).ToListAsync();
            // What was played on something else is another matter than what was played last.
            var same = figures.Where(figure =>
                figure.Stage == figures[0].Stage && (figure.InstrumentId ?? figures[0].InstrumentId) == figures[0].InstrumentId
            );
            var points = same.Reverse()
                .Select(figure => new FigurePoint(Clock.Local(figure.At), figure.Value, figure.Spread, figure.Count));
            if (FigureHistory.Of(kind, [.. points]) is { } history)
                histories.Add(history);
        }

        return histories;
    }
}
