using Bocca.Core.Fingering;
using Bocca.Core.Music;
using Bocca.Core.Tone.Notes;
using Bocca.Web.Record;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Pages.Notes;

/// <summary>The first notes in order: what the approach gives, and the teacher's own order for the pupil or the room.</summary>
public sealed class FirstModel(Journal journal) : NotesPage(journal)
{
    /// <summary>The notes in order with their settings, and where a step hides a change of partial.</summary>
    public FirstNotePath Way { get; private set; } = new([]);

    /// <summary>Notes of the order that this hand cannot play yet: they wait, and nothing asks for them.</summary>
    public IReadOnlyList<Pitch> Waiting { get; private set; } = [];

    /// <summary>The pupil's own order, the room's, and whichever holds; null where there is none.</summary>
    public FirstNoteOrder? Own { get; private set; }

    public FirstNoteOrder? OfRoom { get; private set; }

    /// <summary>The order in force as written notes, what waits included.</summary>
    public string Order { get; private set; } = "";

    /// <summary>What the form is shown from.</summary>
    public string Seen => $"{Own?.Sounding.Count} {OfRoom?.Sounding.Count} {Order}";

    public string? Trouble { get; private set; }

    public async Task<IActionResult> OnGetAsync()
    {
        await LoadAsync();
        return Page();
    }

    /// <summary>Keeps an order for the pupil, or for everybody in the room who plays this instrument; an empty one goes back.</summary>
    public async Task<IActionResult> OnPostAsync(string? notes, bool room)
    {
        var (sounding, wrong) = Read(notes ?? "");
        if (wrong is not null)
        {
            Trouble = wrong;
            await LoadAsync();
            Order = notes ?? "";
            return Page();
        }

        await LoadAsync();
        if (ChangedSince("The order", Seen, _ => $"it is {Order} now") is { } clash)
            return clash;
        var before = await Db.OrderAsync(room ? null : Pupil!.Id, Pupil!.InstrumentId, string.Join(' ', sounding), Clock.Now);
        TempData["Told"] =
            sounding.Count == 0
                ? "First notes follow the approach again."
                : $"First notes {(room ? $"of every {Pupil!.Instrument.Name} in the room" : $"of {Pupil!.Name}")}: {Words(sounding)}.";
        TempData["UndoAt"] =
            $"/notes/{Pupil!.Id}/first?room={(room ? "true" : "false")}&notes={Uri.EscapeDataString(Words(Pitches(before)))}";
        return RedirectToPage(new { pupilId = Pupil.Id });
    }

    private string Words(IEnumerable<Pitch> sounding) => string.Join(' ', sounding.Select(Reading.ToWritten));

    private static IEnumerable<Pitch> Pitches(string notes) => notes.Split(' ', StringSplitOptions.RemoveEmptyEntries).Select(Pitch.Parse);

    private (List<Pitch> Sounding, string? Wrong) Read(string notes)
    {
        var written = notes.Split(' ', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries).Distinct().ToList();
        if (written.Count > FirstNoteOrder.MostNotes)
            return ([], $"First notes are {FirstNoteOrder.MostNotes} at most, not {written.Count}.");
        var sounding = new List<Pitch>();
        foreach (var text in written)
        {
            if (!Pitch.TryParse(text, out var note))
                return (
                    [],
                    $"'{(text.Length > 12 ? text[..12] : text)}' is not a note: write a letter, # or b, and the octave, such as F#4."
                );
            var pitch = Reading.ToSounding(note);
            if (pitch.Midi is < 0 or > 127 || FingeringFinder.FindSounding(Played!.Instrument, pitch).Count == 0)
                return ([], $"{note} is out of range on this instrument.");
            sounding.Add(pitch);
        }

        return (sounding, null);
    }

    private async Task LoadAsync()
    {
        var orders = await Db
            .FirstNoteOrders.AsNoTracking()
            .Where(each => each.InstrumentId == Pupil!.InstrumentId && (each.PupilId == Pupil.Id || each.PupilId == null))
            .ToListAsync();
        (Own, OfRoom) = (orders.Find(each => each.PupilId is not null), orders.Find(each => each.PupilId is null));
        var player = new PlayerSituation(Played!.Instrument, Reading, Room.Conditions.Tuning)
        {
            Passport = Played.Passport,
            Weights = Played.Weights,
            Hand = Played.Hand,
        };
        Way = FirstNotePath.Of(player, Approach, []);
        var all = (Played.Hand.FirstNotes ?? FirstNotes.Taught(Played.Instrument, Approach)).Select(Reading.ToWritten).ToList();
        Waiting = [.. all.Where(note => Way.Notes.All(each => each.Note.Written != note))];
        Order = string.Join(' ', all);
    }
}
