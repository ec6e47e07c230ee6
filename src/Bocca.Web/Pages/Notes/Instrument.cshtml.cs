using Bocca.Core.Instruments;
using Bocca.Core.Judging;
using Bocca.Core.Teaching;
using Bocca.Core.Tone.Drills;
using Bocca.Web.Frame;
using Bocca.Web.Record;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Pages.Notes;

/// <summary>What is known of the pupil's very instrument, since when, and the room it is played in.</summary>
public sealed class InstrumentModel(Journal journal) : NotesPage(journal)
{
    protected override bool ChecksItself => HttpMethods.IsPost(Request.Method);

    public IReadOnlyList<Entry> Past { get; private set; } = [];

    /// <summary>Looks at the instrument, the newest first.</summary>
    public IReadOnlyList<Entry> Looks { get; private set; } = [];

    /// <summary>What waits: faults for a repairer or an adult, and what is missing.</summary>
    public IReadOnlyList<Entry> Waiting => [.. Looks.Where(look => look.DoneAt is null && Waits(look))];

    /// <summary>The newest oiling and the newest wash; null for none.</summary>
    public Entry? Oiled { get; private set; }

    public Entry? Washed { get; private set; }

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
            if (RefusedForms.IsForm(Request))
                return Refuse(Trouble);
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

    /// <summary>One look, one tap: a fault that was found, or none.</summary>
    public async Task<IActionResult> OnPostLookAsync(string found, string? missing)
    {
        if (Pupil is null)
            return NotFound();
        var fault = InstrumentFault.Of(Pupil.Instrument).FirstOrDefault(known => known.Id == found);
        var words = (missing ?? "").Trim();
        if (fault is null && found != NotesStop.AllWell && (found != NotesStop.Missing || words == "" || words.Length > 200))
            return Refuse("That is no look at an instrument: tap what was found, or say in a few words what is missing.");
        var entry = Entry(NotesStop.Looks, fault?.Mend ?? (found == NotesStop.Missing ? words : "Nothing found."));
        (entry.DrillId, entry.Subject) = (InstrumentFirst.Look, found);
        await Journal.WriteAsync(NotesStop.Looks, entry, Approach.ToString());
        Tell(
            fault is not null ? $"{fault.Mend} Then play it once more."
                : found == NotesStop.AllWell ? "Nothing found: then it is not the instrument. Play it once more."
                : "Noted as missing.",
            "Delete",
            entry.Id
        );
        return Back("look");
    }

    /// <summary>What waited is mended, or there again.</summary>
    public async Task<IActionResult> OnPostMendedAsync(long id)
    {
        var look = await Db.Entries.FirstOrDefaultAsync(entry =>
            entry.Id == id && entry.PupilId == PupilId && entry.Kind == NotesStop.Looks.Id
        );
        if (look is null)
            return NotFound();
        look.DoneAt = look.DoneAt is null ? Clock.Now : null;
        await Db.SaveChangesAsync();
        Tell(look.DoneAt is null ? "It waits again." : "It is done with.", "Mended", look.Id);
        return Back("look");
    }

    /// <summary>Oiled, or washed.</summary>
    public async Task<IActionResult> OnPostCareAsync(string done)
    {
        if (Pupil is null || done is not ("oiled" or "washed"))
            return NotFound();
        var kind = done == "oiled" ? NotesStop.Oiled : NotesStop.Washed;
        var words = done == "oiled" ? InstrumentCare.Oil(Pupil.Instrument) : "instrument and mouthpiece washed";
        var entry = Entry(kind, $"{char.ToUpperInvariant(words[0])}{words[1..]}.");
        entry.Outcome = Outcome.Passed;
        await Journal.WriteAsync(kind, entry, Approach.ToString());
        Tell(entry.Summary, "Delete", entry.Id);
        return Back("care");
    }

    /// <summary>Whether it has a stand.</summary>
    public async Task<IActionResult> OnPostStandAsync(bool stand)
    {
        if (Pupil is null)
            return NotFound();
        await Db
            .Pupils.Where(pupil => pupil.Id == PupilId)
            .ExecuteUpdateAsync(to => to.SetProperty(pupil => pupil.HasStand, stand).SetProperty(pupil => pupil.Version, Guid.NewGuid()));
        TempData["Told"] = InstrumentCare.PutDown(Pupil.Instrument, stand);
        return Back("care");
    }

    private static bool Waits(Entry look) =>
        look.Subject == NotesStop.Missing || InstrumentFault.Find(look.Subject) is { By: not Mender.Pupil };

    private Entry Entry(EntryKind kind, string summary) =>
        new()
        {
            PupilId = Pupil!.Id,
            Kind = kind.Id,
            InstrumentId = Pupil.InstrumentId,
            At = Clock.Now,
            Summary = summary,
        };

    private LocalRedirectResult Back(string part) => LocalRedirect($"/notes/{PupilId}/instrument#{part}");

    /// <summary>What the form of the room is shown from.</summary>
    public string RoomSeen => $"A = {Room.A4Hz:0.#} Hz, {Room.Celsius:0.#} °C, {Room.ZoneId ?? "this computer's clock"}";

    public async Task<IActionResult> OnPostRoomAsync(double a4, double celsius, string? zone)
    {
        var conditions = PlayingConditions.Of(a4, celsius);
        if (!ModelState.IsValid || conditions.A4Hz != a4 || conditions.Celsius != celsius)
        {
            Trouble =
                $"A room's A is {PlayingConditions.A4Range.Least:0} to {PlayingConditions.A4Range.Most:0} Hz, its warmth "
                + $"{PlayingConditions.CelsiusRange.Least:0} to {PlayingConditions.CelsiusRange.Most:0} °C.";
            if (RefusedForms.IsForm(Request))
                return Refuse(Trouble);
            await LoadAsync();
            return Page();
        }

        if (zone is not null && !RoomClock.Zones.Contains(zone))
        {
            Trouble = $"'{zone}' is not a time zone of the list.";
            if (RefusedForms.IsForm(Request))
                return Refuse(Trouble);
            await LoadAsync();
            return Page();
        }

        if (ChangedSince("The room", RoomSeen, _ => RoomSeen) is { } clash)
            return clash;
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
        Looks = await OfThis(NotesStop.Looks).Take(20).ToListAsync();
        Oiled = await OfThis(NotesStop.Oiled).FirstOrDefaultAsync();
        Washed = await OfThis(NotesStop.Washed).FirstOrDefaultAsync();
    }

    /// <summary>Entries of a kind about this very instrument, the newest first.</summary>
    private IQueryable<Entry> OfThis(EntryKind kind)
    {
        var instrument = Pupil!.InstrumentId;
        return Journal.Of(Pupil.Id, kind).Where(entry => entry.InstrumentId == instrument);
    }
}
