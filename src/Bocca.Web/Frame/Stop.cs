using Bocca.Web.Record;
using Bocca.Web.Record.Requests;
using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Frame;

/// <summary>
/// A stop of the path, as it registers itself: where it stands, what it writes into the record, and what is due there. A new
/// stop is a folder with its pages and one of these; nothing else knows it by name.
/// </summary>
public sealed class Stop
{
    /// <summary>The key that jumps to it; the path goes from 1 to 9, then 0.</summary>
    public required char Key { get; init; }

    /// <summary>Its address, without the leading slash; empty for the Desk.</summary>
    public required string Path { get; init; }

    public required string Name { get; init; }

    /// <summary>What is there.</summary>
    public required string Promise { get; init; }

    /// <summary>The kinds of entries it writes.</summary>
    public IReadOnlyList<EntryKind> Kinds { get; init; } = [];

    /// <summary>The kinds of requests that its takes are asked by.</summary>
    public IReadOnlyList<RequestKind> Requests { get; init; } = [];

    /// <summary>The figures of it that the Record shows over weeks.</summary>
    public IReadOnlyList<Core.Judging.FigureKind> Followed { get; init; } = [];

    /// <summary>What of it wants doing, for the Desk.</summary>
    public IReadOnlyList<StopDue> Dues { get; init; } = [];

    /// <summary>The name of a drill of it; null for one it does not know.</summary>
    public Func<string, string?> DrillName { get; init; } = _ => null;

    /// <summary>Whether a drill of it is for a pupil under an approach on a day.</summary>
    public Func<string, Pupil, Core.Teaching.Approach, DateOnly, bool> OffersDrill { get; init; } = (_, _, _, _) => true;

    /// <summary>Where a step of it is done.</summary>
    public Func<int, string?, string>? Steps { get; init; }

    /// <summary>Stylesheets of its own.</summary>
    public IReadOnlyList<string> Styles { get; init; } = [];

    /// <summary>The places of the table of keys (<see cref="Keys"/>) that its pages have.</summary>
    public IReadOnlyList<string> KeyPlaces { get; init; } = [];

    /// <summary>Its name as the place of a step.</summary>
    public string Place => Path == "" ? "desk" : Path;

    /// <summary>Where it is for a pupil.</summary>
    public string Address(int? pupilId) =>
        Path == "" ? "/"
        : pupilId is { } id ? $"/{Path}/{id}"
        : $"/{Path}";

    /// <summary>Where a step of it is done.</summary>
    public string StepAddress(int pupilId, string? drillId) =>
        Steps?.Invoke(pupilId, drillId) ?? Address(pupilId) + (drillId is null ? "" : $"?drill={Uri.EscapeDataString(drillId)}");
}

/// <summary>Something of a stop that wants doing by its day.</summary>
/// <param name="Words">So many of it in words.</param>
/// <param name="Address">Where a pupil does it.</param>
/// <param name="Name">Its name for scripts and tests.</param>
public sealed record StopDue(Func<int, string> Words, Func<int, string> Address, string Name)
{
    /// <summary>The entries of which those are counted whose day has come; null where <see cref="CountAsync"/> counts.</summary>
    public EntryKind? Of { get; init; }

    /// <summary>
    /// The recall cards of which those are counted that are due: <see cref="RecallCard.Notes"/>, or what a stop calls its own.
    /// </summary>
    public string? Recalls { get; init; }

    /// <summary>How many of it each of some pupils has at a moment, by pupil.</summary>
    public Func<BoccaDb, IReadOnlyList<int>, DateTime, Task<Dictionary<int, int>>>? CountAsync { get; init; }

    /// <summary>The drill of it that a week may hold, as <c>stop:drill</c> or a stop alone; null for none.</summary>
    public string? Drill { get; init; }
}

/// <summary>All stops that are there, in the order of a lesson.</summary>
public sealed class Stops
{
    private readonly Dictionary<string, (Stop Stop, EntryKind Kind)> _kinds;

    public Stops(IEnumerable<Stop> registered)
    {
        All = [.. registered.OrderBy(stop => stop.Key == '0' ? ':' : stop.Key)];
        _kinds = All.SelectMany(stop => stop.Kinds.Select(kind => (stop, kind))).ToDictionary(each => each.kind.Id);
    }

    public IReadOnlyList<Stop> All { get; }

    public IEnumerable<EntryKind> Kinds => _kinds.Values.Select(each => each.Kind);

    /// <summary>The stop at an address of the site; the first where none fits.</summary>
    public Stop Of(PathString path) => All.FirstOrDefault(stop => stop.Path != "" && path.StartsWithSegments($"/{stop.Path}")) ?? All[0];

    /// <summary>The stop that is the place of a step; null where there is none such any more.</summary>
    public Stop? At(string place) => All.FirstOrDefault(stop => stop.Place == place);

    /// <summary>What a drill is called and where it is done; null for none, or one that is not for the pupil.</summary>
    /// <param name="drill">The drill, as <c>stop:drill</c>, or a stop alone.</param>
    /// <param name="pupil">For whom.</param>
    /// <param name="approach">Under what approach.</param>
    /// <param name="day">On what day.</param>
    public (string Name, string Address)? Mending(string? drill, Pupil pupil, Core.Teaching.Approach approach, DateOnly day) =>
        drill?.Split(':') switch
        {
            [var place] when At(place) is { } stop => (stop.Name, stop.StepAddress(pupil.Id, null)),
            [var place, var id] when At(place) is { } stop && stop.OffersDrill(id, pupil, approach, day) => (
                stop.DrillName(id) ?? stop.Name,
                stop.StepAddress(pupil.Id, id)
            ),
            _ => null,
        };

    /// <summary>What wants doing of each of some pupils at a moment: what is due among entries is asked once for all stops.</summary>
    public async Task<IReadOnlyList<(StopDue Due, Dictionary<int, int> Counts)>> DuesAsync(
        BoccaDb db,
        IReadOnlyList<int> pupils,
        DateTime now
    )
    {
        var kinds = All.SelectMany(stop => stop.Dues).Select(each => each.Of?.Id).OfType<string>().ToList();
        var due = await db
            .Entries.Where(entry =>
                kinds.Contains(entry.Kind)
                && entry.DueAt <= now
                && pupils.Contains(entry.PupilId)
                && (
                    entry.InstrumentId == null
                    || db.Pupils.Any(pupil => pupil.Id == entry.PupilId && pupil.InstrumentId == entry.InstrumentId)
                )
            )
            .GroupBy(entry => new { entry.Kind, entry.PupilId })
            .Select(entries => new
            {
                entries.Key.Kind,
                entries.Key.PupilId,
                Count = entries.Count(),
            })
            .ToListAsync();
        var recalls = await db
            .Recalls.Where(card => card.DueAt <= now && pupils.Contains(card.PupilId))
            .Join(
                db.Pupils,
                card => card.PupilId,
                pupil => pupil.Id,
                (card, pupil) =>
                    new
                    {
                        card.PupilId,
                        card.InstrumentId,
                        Own = pupil.InstrumentId,
                    }
            )
            .GroupBy(card => new { card.PupilId, Of = card.InstrumentId == card.Own ? RecallCard.Notes : card.InstrumentId })
            .Select(cards => new
            {
                cards.Key.PupilId,
                cards.Key.Of,
                Count = cards.Count(),
            })
            .ToListAsync();
        var all = new List<(StopDue, Dictionary<int, int>)>();
        foreach (var each in All.SelectMany(stop => stop.Dues))
            all.Add(
                (
                    each,
                    each.CountAsync is { } count ? await count(db, pupils, now)
                    : each.Recalls is { } recalled ? recalls.Where(of => of.Of == recalled).ToDictionary(of => of.PupilId, of => of.Count)
                    : due.Where(of => of.Kind == each.Of!.Id).ToDictionary(of => of.PupilId, of => of.Count)
                )
            );
        return all;
    }

    /// <summary>The stop whose entries are of a kind.</summary>
    public Stop OfKind(string id) => _kinds[id].Stop;

    /// <summary>The kind of this name.</summary>
    public EntryKind Kind(string id) =>
        _kinds.TryGetValue(id, out var known) ? known.Kind : throw new InvalidDataException($"No stop knows entries of the kind '{id}'.");
}
