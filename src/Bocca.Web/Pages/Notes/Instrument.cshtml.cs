using Bocca.Core.Instruments;
using Bocca.Core.Teaching;
using Bocca.Core.Tone.Drills;
using Bocca.Web.Record;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Pages.Notes;

/// <summary>What is known of the pupil's very instrument, since when, and the room it is played in.</summary>
public sealed class InstrumentModel(Journal journal) : NotesPage(journal)
{
    protected override bool ChecksItself => HttpMethods.IsPost(Request.Method);

    public IReadOnlyList<Entry> Past { get; private set; } = [];

    /// <summary>When the open notes were measured; null where they never were.</summary>
    public DateTime? OpenAt { get; private set; }

    /// <summary>The drill that measures them.</summary>
    public static string OpenDrill => ToneDrill.All.First(drill => drill.Aim == ToneAim.Tuning).Id;

    public string? Trouble { get; private set; }

    public async Task<IActionResult> OnGetAsync()
    {
        if (Pupil is null)
            return NotFound();
        await LoadAsync();
        return Page();
    }

    public async Task<IActionResult> OnPostAsync(double?[]? valve, bool third, string? remark)
    {
        if (Pupil is null)
            return NotFound();
        var cents = (valve ?? [])
            .Select((each, i) => (Valve: i + 1, Cents: each))
            .Where(each => each.Cents is not (null or 0))
            .ToDictionary(each => each.Valve, each => each.Cents!.Value);
        if (
            !ModelState.IsValid
            || cents.Count > 0 && cents.Keys.Max() > Pupil.Instrument.Valves.Count
            || cents.Values.Any(each => !(Math.Abs(each) <= Passport.MostValveCents))
        )
        {
            Trouble = $"A valve lies at most {Passport.MostValveCents:0} cents off its place, sharp or flat; more is another slide.";
            await LoadAsync();
            return Page();
        }

        var before = (await Journal.ShowAsync(NotesStop.Measured, Journal.MeasuredOf(Pupil)))?.Payload;
        var payload = new MeasuredPayload(before?.SlideTubeMetres, before?.SlideTravelCm, third, cents) { Marks = before?.Marks };
        var entry = NotesStop.Measurement(Pupil, payload, remark?.Trim() ?? "", Clock.Now);
        await Journal.WriteAsync(NotesStop.Measured, entry, payload, Approach.ToString());
        Tell("The instrument is noted; charts and judgements follow it.", "Delete", entry.Id);
        return RedirectToPage(new { pupilId = Pupil!.Id });
    }

    public async Task<IActionResult> OnPostRoomAsync(double a4, double celsius, string? zone)
    {
        var conditions = PlayingConditions.Of(a4, celsius);
        if (!ModelState.IsValid || conditions.A4Hz != a4 || conditions.Celsius != celsius)
        {
            Trouble =
                $"A room's A is {PlayingConditions.A4Range.Least:0} to {PlayingConditions.A4Range.Most:0} Hz, its warmth "
                + $"{PlayingConditions.CelsiusRange.Least:0} to {PlayingConditions.CelsiusRange.Most:0} °C.";
            await LoadAsync();
            return Page();
        }

        if (zone is not null && !RoomClock.Zones.Contains(zone))
        {
            Trouble = $"'{zone}' is not a time zone of the list.";
            await LoadAsync();
            return Page();
        }

        await Db.SavingAsync(async () =>
        {
            var room = await Db.Rooms.SingleOrDefaultAsync();
            if (room is null)
                Db.Rooms.Add(room = new RoomSettings());
            (room.A4Hz, room.Celsius, room.ZoneId) = (a4, celsius, zone);
        });
        TempData["Told"] = $"The room has A = {a4:0.#} Hz at {celsius:0.#} °C.";
        return RedirectToPage(new { pupilId = Pupil!.Id });
    }

    private async Task LoadAsync()
    {
        Past = await Journal.MeasuredOf(Pupil!).Take(12).ToListAsync();
        OpenAt = Played!.OpenAt;
    }
}
