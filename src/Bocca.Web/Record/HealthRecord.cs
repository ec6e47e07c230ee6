using Bocca.Core.Health;
using Bocca.Web.Pages.Setup;
using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Record;

/// <summary>What the record knows of how a pupil is, and how long the pupil has played today.</summary>
public static class HealthRecord
{
    private static readonly List<string> Subjects = [.. Complaint.All.Select(SubjectOf)];

    /// <summary>How a complaint stands in the record, and as evidence.</summary>
    public static string SubjectOf(Complaint complaint) => $"seen.{complaint.Id}";

    /// <summary>The complaint that an entry is about; null for anything else.</summary>
    public static Complaint? ComplaintOf(Entry entry) => ComplaintOf(entry.Kind, entry.Subject);

    /// <summary>The same for an entry of a kind with a subject.</summary>
    public static Complaint? ComplaintOf(string kind, string subject) =>
        kind == SetupStop.Seen.Id && subject.StartsWith("seen.", StringComparison.Ordinal)
            ? Complaint.Find(subject["seen.".Length..])
            : null;

    /// <summary>The complaints of a pupil's today, the newest first.</summary>
    public static async Task<IReadOnlyList<Entry>> ComplaintsAsync(this Journal journal, int pupilId, DateTime since) =>
        await journal.Of(pupilId, SetupStop.Seen).Where(entry => entry.At >= since && Subjects.Contains(entry.Subject)).ToListAsync();

    /// <summary>What the complaints of today and yesterday leave of the day.</summary>
    public static async Task<HealthDay> HealthDayAsync(this Journal journal, Pupil pupil)
    {
        var (start, before) = (journal.Clock.DayStart, journal.Clock.StartOf(journal.Clock.Today.AddDays(-1)));
        var told = await journal.ComplaintsAsync(pupil.Id, before);
        var taps = Enumerable.Reverse(told).Select(entry => new HealthTap(ComplaintOf(entry)!, entry.At)).ToLookup(tap => tap.At >= start);
        return new HealthDay([.. taps[true]], [.. taps[false]], pupil.Mouth);
    }

    /// <summary>
    /// Takes a complaint down. Where a guardian's consent is in force it stays in the record; else it holds for today and goes with the
    /// day.
    /// </summary>
    public static async Task<Entry> ComplainAsync(this Journal journal, Pupil pupil, Complaint complaint, string approach)
    {
        var entry = new Entry
        {
            PupilId = pupil.Id,
            Kind = SetupStop.Seen.Id,
            Subject = SubjectOf(complaint),
            At = journal.Clock.Now,
            // Who reads the record later sees the reason only where the consent says so.
            Summary = pupil.Consent is { SaysWhy: false } ? "Lips and health: told." : $"Told: {complaint.Name}.",
        };
        await journal.WriteAsync(SetupStop.Seen, entry, approach, stands: pupil.Consent?.InForce(journal.Clock.Today) == true);
        return entry;
    }

    /// <summary>The clock of a pupil's playing today, over all stops; what was deleted counts too, for it was played.</summary>
    public static async Task<PlayingClock> PlayingClockAsync(this Journal journal, Pupil pupil, PlayingLimits limits)
    {
        var start = journal.Clock.DayStart;
        var played = await journal
            .Db.Entries.IgnoreQueryFilters()
            .Where(entry => entry.PupilId == pupil.Id && entry.At >= start && entry.PlayedSeconds > 0)
            .Select(entry => new
            {
                entry.At,
                entry.ElapsedSeconds,
                entry.PlayedSeconds,
                entry.HighSeconds,
            })
            .ToListAsync();
        return PlayingClock.Of(
            played.Select(entry => new PlayedSpan(entry.At, entry.ElapsedSeconds ?? 0, entry.PlayedSeconds ?? 0, entry.HighSeconds ?? 0)),
            limits,
            journal.Clock.Now
        );
    }
}
