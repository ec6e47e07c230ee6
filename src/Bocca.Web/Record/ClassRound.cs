using Bocca.Core.Practice.Class;
using Bocca.Web.Pages.Practice;
using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Record;

/// <summary>A seat in a round.</summary>
/// <param name="Pupil">Who sits there.</param>
/// <param name="Mark">The mark of this round; null for none yet.</param>
public sealed record RoundSeat(Pupil Pupil, Entry? Mark)
{
    /// <summary>What was marked; null for nothing.</summary>
    public RoundMark? Marked => Mark is null ? null : PracticeStop.MarkOf(Mark);
}

/// <summary>A round of a class: everybody in the order of their seats does the same, one after the other.</summary>
/// <param name="ClassName">The class.</param>
/// <param name="What">What is done; the marks of one day with the same words are one round.</param>
/// <param name="Seats">Everybody.</param>
/// <param name="Turn">Whose turn it is; null where everybody had one.</param>
public sealed record ClassRound(string ClassName, string What, IReadOnlyList<RoundSeat> Seats, Pupil? Turn)
{
    /// <summary>The cookie that a round which is on stands in, so that every stop knows whose turn it is.</summary>
    public const string Cookie = "bocca.round";

    /// <summary>The most letters of what is done, and the most pupils of a class.</summary>
    public const int MostLetters = 80,
        MostSeats = 30;

    /// <summary>Who comes after whose turn it is; null for nobody.</summary>
    public Pupil? Next => After(Turn);

    /// <summary>Reads a round of today.</summary>
    /// <param name="journal">The record.</param>
    /// <param name="className">The class.</param>
    /// <param name="what">What is done; null for what was done last today.</param>
    /// <param name="turn">Whose turn it is, by the teacher's choice; null for the first seat that has none yet.</param>
    public static async Task<ClassRound> ReadAsync(Journal journal, string className, string? what, int? turn = null) =>
        await OfAsync(
            journal,
            className,
            await journal
                .Db.Pupils.AsNoTracking()
                .Where(pupil => pupil.ClassName == className)
                .OrderBy(pupil => pupil.Name)
                .ThenBy(pupil => pupil.Id)
                .Take(MostSeats)
                .ToListAsync(),
            what,
            turn
        );

    /// <summary>The round of today of pupils who were read already.</summary>
    /// <inheritdoc cref="ReadAsync"/>
    public static async Task<ClassRound> OfAsync(Journal journal, string className, IReadOnlyList<Pupil> pupils, string? what, int? turn)
    {
        List<Pupil> seated =
        [
            .. pupils.OrderBy(pupil => pupil.Seat ?? int.MaxValue).ThenBy(pupil => pupil.Name, StringComparer.CurrentCulture),
        ];
        var (start, ids) = (journal.Clock.DayStart, seated.ConvertAll(pupil => pupil.Id));
        var marks = await journal
            .Db.Entries.AsNoTracking()
            .Where(entry => ids.Contains(entry.PupilId) && entry.Kind == PracticeStop.Rounds.Id && entry.At >= start)
            .OrderByDescending(entry => entry.At)
            .ThenByDescending(entry => entry.Id)
            .ToListAsync();
        what ??= marks is [var last, ..] ? last.Subject : "";
        List<RoundSeat> seats =
        [
            .. seated.Select(pupil => new RoundSeat(pupil, marks.Find(mark => mark.PupilId == pupil.Id && mark.Subject == what))),
        ];
        return new ClassRound(
            className,
            what,
            seats,
            seats.Find(seat => seat.Pupil.Id == turn)?.Pupil ?? seats.Find(seat => seat.Mark is null)?.Pupil
        );
    }

    /// <summary>The round that a cookie tells of; null where it tells of none.</summary>
    public static async Task<ClassRound?> OfCookieAsync(Journal journal, string? cookie) =>
        cookie?.Split('|') is [var name, var what]
        && await ReadAsync(journal, Uri.UnescapeDataString(name), Uri.UnescapeDataString(what)) is { Seats.Count: > 0 } round
            ? round
            : null;

    /// <summary>The round as a cookie.</summary>
    public string AsCookie => $"{Uri.EscapeDataString(ClassName)}|{Uri.EscapeDataString(What)}";

    /// <summary>The next after somebody who has no mark yet, in the order of the seats and round; null for nobody.</summary>
    public Pupil? After(Pupil? pupil)
    {
        var at = Seats.Select(seat => seat.Pupil.Id).ToList().IndexOf(pupil?.Id ?? 0);
        return Seats.Skip(at + 1).Concat(Seats.Take(Math.Max(0, at))).FirstOrDefault(seat => seat.Mark is null)?.Pupil;
    }
}
