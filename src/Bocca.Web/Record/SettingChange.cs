using System.ComponentModel.DataAnnotations;
using Bocca.Web.Record.Shapes;
using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Record;

/// <summary>A setting that a teacher changed: the log of what is judged, played and said otherwise than it ships.</summary>
public sealed class SettingChange
{
    public const int LongestPath = 100,
        LongestValue = 4000;

    public int Id { get; set; }

    /// <summary>For whom; null for the room.</summary>
    public int? PupilId { get; set; }

    /// <summary>Which setting.</summary>
    [MaxLength(LongestPath)]
    public required string Path { get; set; }

    /// <summary>What was set before; null for nothing, so that what ships held, or the room's.</summary>
    [MaxLength(LongestValue)]
    public string? Before { get; set; }

    /// <summary>What is set since; null for nothing.</summary>
    [MaxLength(LongestValue)]
    public string? After { get; set; }

    public DateTime At { get; set; }
}

/// <summary>A teacher's own settings in the record.</summary>
public static class OwnSettingsRecord
{
    /// <summary>Sets values for the room or for one pupil, and takes every change down.</summary>
    /// <param name="db">The record.</param>
    /// <param name="pupilId">For whom; null for the room.</param>
    /// <param name="values">By path; null takes a setting out.</param>
    /// <param name="at">The moment.</param>
    /// <returns>How many changed.</returns>
    public static async Task<int> SetAsync(this BoccaDb db, int? pupilId, IReadOnlyDictionary<string, string?> values, DateTime at)
    {
        var changed = 0;
        await db.SavingAsync(async () =>
        {
            changed = 0;
            var pupil = pupilId is null ? null : await db.Pupils.FirstAsync(each => each.Id == pupilId);
            var room = pupil is null ? await db.Rooms.SingleOrDefaultAsync() : null;
            if (pupil is null && room is null)
                db.Rooms.Add(room = new RoomSettings());
            var own = StoredOwn.Read(pupil?.Own ?? room!.Own);
            foreach (var (path, value) in values.Where(each => own[each.Key] != each.Value))
            {
                db.SettingChanges.Add(
                    new SettingChange
                    {
                        PupilId = pupilId,
                        Path = path,
                        Before = own[path],
                        After = value,
                        At = at,
                    }
                );
                own = own.With(path, value);
                changed++;
            }

            if (pupil is not null)
                (pupil.Own, pupil.Version) = (StoredOwn.Write(own), Guid.NewGuid());
            else
                room!.Own = StoredOwn.Write(own);
        });
        return changed;
    }
}
