using System.ComponentModel.DataAnnotations;
using Bocca.Core.Music;
using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Record;

/// <summary>The first notes in a teacher's own order: for one pupil, or for all of the room who play an instrument.</summary>
public sealed class FirstNoteOrder
{
    /// <summary>The most notes that are first ones.</summary>
    public const int MostNotes = 12;

    public int Id { get; set; }

    /// <summary>The pupil; null for the room.</summary>
    public int? PupilId { get; set; }

    [MaxLength(40)]
    public required string InstrumentId { get; set; }

    /// <summary>The notes, sounding, apart by spaces.</summary>
    [MaxLength(100)]
    public required string Notes { get; set; }

    /// <summary>The notes, sounding, in order.</summary>
    public IReadOnlyList<Pitch> Sounding => [.. Notes.Split(' ', StringSplitOptions.RemoveEmptyEntries).Select(Pitch.Parse)];
}

/// <summary>First notes in the record.</summary>
public static class FirstNoteOrders
{
    private const string Prefix = "first.";

    /// <summary>Sets the order for a pupil, or for all of the room who play an instrument, and takes the change down.</summary>
    /// <param name="db">The record.</param>
    /// <param name="pupilId">Whose; null for the room's.</param>
    /// <param name="instrument">The instrument, by its id.</param>
    /// <param name="notes">The notes, sounding, apart by spaces; empty to follow the approach again.</param>
    /// <param name="at">The moment.</param>
    /// <returns>The order before; empty for none.</returns>
    public static async Task<string> OrderAsync(this BoccaDb db, int? pupilId, string instrument, string notes, DateTime at)
    {
        var before = "";
        await db.SavingAsync(async () =>
        {
            var order = await db.FirstNoteOrders.FirstOrDefaultAsync(each => each.PupilId == pupilId && each.InstrumentId == instrument);
            before = order?.Notes ?? "";
            if (before == notes)
                return;
            db.SettingChanges.Add(
                new SettingChange
                {
                    PupilId = pupilId,
                    Path = Prefix + instrument,
                    Before = before == "" ? null : before,
                    After = notes == "" ? null : notes,
                    At = at,
                }
            );
            if (notes == "")
                db.FirstNoteOrders.Remove(order!);
            else if (order is null)
                db.FirstNoteOrders.Add(
                    new FirstNoteOrder
                    {
                        PupilId = pupilId,
                        InstrumentId = instrument,
                        Notes = notes,
                    }
                );
            else
                order.Notes = notes;
        });
        return before;
    }

    /// <summary>The instrument whose first notes a change was about, by its id; null for any other change.</summary>
    public static string? InstrumentOf(SettingChange change) =>
        change.Path.StartsWith(Prefix, StringComparison.Ordinal) ? change.Path[Prefix.Length..] : null;
}
