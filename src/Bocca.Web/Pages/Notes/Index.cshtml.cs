using Bocca.Core;
using Bocca.Core.Fingering;
using Bocca.Core.Music;
using Bocca.Core.Score;
using Bocca.Core.Teaching;
using Bocca.Web.Frame;
using Bocca.Web.Record;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Pages.Notes;

/// <summary>The note on the stage, with the way shown and all others.</summary>
public sealed record NoteView(
    Pupil Pupil,
    Pitch Written,
    Core.Fingering.Fingering Way,
    int Place,
    IReadOnlyList<Core.Fingering.Fingering> Ways
)
{
    public Pitch Sounding => Pupil.Reading.ToSounding(Written);
}

/// <summary>The Notes stop: written notes, their fingerings, and why.</summary>
public sealed class IndexModel(Journal journal) : NotesPage(journal)
{
    private const int PastNotes = 12;

    [BindProperty(SupportsGet = true, Name = "note")]
    public string? Note { get; set; }

    [BindProperty(SupportsGet = true, Name = "way")]
    public string? Setting { get; set; }

    /// <summary>What the note is in a chord; empty for a note on its own.</summary>
    [BindProperty(SupportsGet = true, Name = "chord")]
    public string? Chord { get; set; }

    public ChordPlace Place => ChordPlace.All.FirstOrDefault(place => place.Id == (Chord ?? "")) ?? ChordPlace.All[0];

    public NoteView? View { get; private set; }

    /// <summary>The pupil's first notes, and the one asked for beside them.</summary>
    public IReadOnlyList<Pitch> Row { get; private set; } = [];

    /// <summary>Where this hand cannot play the note shown: the next first note that it can.</summary>
    public Pitch? Onward { get; private set; }

    public string RowXml => Pupil is null ? "" : MusicXmlWriter.Write(new NoteRow(Pupil.Reading, Row));

    public IReadOnlyList<Shown<NotePayload>> Past { get; private set; } = [];

    public string? Trouble { get; private set; }

    /// <summary>What the approach leaves to the teacher at this note.</summary>
    public string? Choice =>
        View is null ? null
        : TeacherChoice.EqualTo(View.Ways, Approach) is { } equal ? $"{equal} does as well as {View.Ways[0].Setting}."
        : TeacherChoice.Between(View.Ways, Approach);

    public async Task OnGetAsync()
    {
        if (Pupil is null)
            return;
        var first = FirstNotes.Of(Played!.Instrument, Pupil.Reading, Approach, Played.Hand, Played.Weights).ToList();
        var past = await Journal.Of(Pupil.Id, NotesStop.Notes).Include(note => note.Payload).Take(PastNotes).ToListAsync();
        Past = past.ConvertAll(note => new Shown<NotePayload>(note, NotesStop.Notes.Read(note)));
        var known = Past.Select(note => note.Entry.Subject).ToHashSet();
        var next = first.FirstOrDefault(note => !known.Contains(note.ToString()), first[0]);
        View = Show(Note is null ? next.ToString() : Note.Trim()) ?? Show(next.ToString());
        Row = View is null || first.Contains(View.Written) ? first : [.. first, View.Written];
        if (View is { Way.Barred: not null } barred)
            Onward = first
                .Where(note => note != barred.Written)
                .Cast<Pitch?>()
                .FirstOrDefault(note => !known.Contains($"{note}"), first[0]);
    }

    public async Task<IActionResult> OnPostSaveAsync(string note, string setting)
    {
        if (Pupil is null)
            return NotFound();
        Note = note;
        Setting = setting;
        if (Show(note) is not { } view || view.Way.Setting.ToString() != setting)
            return BadRequest();
        var (saved, payload) = NotesStop.Note(Pupil, view.Written, view.Way, Clock.Now);
        await Journal.WriteAsync(NotesStop.Notes, saved, payload, Approach.ToString());
        Tell($"{Wording.Pitch(view.Written)} is saved: " + $"{Wording.Setting(Pupil.Instrument, view.Way.Setting)}.", "Delete", saved.Id);
        return RedirectToPage(new { pupilId = Pupil!.Id, note = saved.Subject });
    }

    protected override IActionResult ReadOn(Entry entry) =>
        entry.Kind == NotesStop.Notes.Id ? RedirectToPage(new { pupilId = Pupil!.Id, note = entry.Subject }) : base.ReadOn(entry);

    /// <summary>What the valves pressed on the screen would give, in a sentence.</summary>
    public IActionResult OnGetTry(string note, string setting)
    {
        if (
            Pupil is null
            || !Pitch.TryParse(note, out var written)
            || !Core.Instruments.Setting.TryParse(setting, Pupil.Instrument.Slide is not null, out var pressed)
            || Played!.Instrument.TubeOf(pressed) is not { } tube
        )
            return NotFound();
        return Content(SettingTrial.Of(Played!.Instrument, Pupil.Reading, written, tube, Played.Weights).Sentence);
    }

    /// <summary>Pins a way as the teacher's own choice for this pupil, in place of the computed first.</summary>
    public async Task<IActionResult> OnPostPinAsync(string note, string setting)
    {
        if (Pupil is null)
            return NotFound();
        if (Show(note) is not { } view || view.Ways.FirstOrDefault(way => way.Setting.ToString() == setting) is not { } way)
            return BadRequest();
        await Db.SavingAsync(async () =>
        {
            var pin = await PinAsync(view.Sounding.Midi);
            if (pin is null)
                Db.Pins.Add(
                    pin = new NotePin
                    {
                        PupilId = Pupil.Id,
                        InstrumentId = Pupil.InstrumentId,
                        Midi = view.Sounding.Midi,
                        Setting = setting,
                    }
                );
            (pin.Setting, pin.At) = (setting, Clock.Now);
        });
        TempData["Told"] =
            $"{Wording.Pitch(view.Written)} is {Wording.Setting(Pupil.Instrument, way.Setting)} for {Pupil.Name}: your " + $"choice.";
        TempData["UndoAt"] = $"/notes/{PupilId}?handler=Unpin&note={Uri.EscapeDataString(note)}";
        return RedirectToPage(new { pupilId = Pupil!.Id, note });
    }

    public async Task<IActionResult> OnPostUnpinAsync(string note)
    {
        if (Pupil is null || Show(note) is not { } view)
            return NotFound();
        NotePin? pin = null;
        await Db.SavingAsync(async () =>
        {
            pin = await PinAsync(view.Sounding.Midi);
            if (pin is not null)
                Db.Pins.Remove(pin);
        });
        if (pin is not null)
        {
            TempData["Told"] = $"{Wording.Pitch(view.Written)} goes by the computed order again.";
            TempData["UndoAt"] =
                $"/notes/{PupilId}?handler=Pin&note={Uri.EscapeDataString(note)}&setting={Uri.EscapeDataString(pin.Setting)}";
        }

        return RedirectToPage(new { pupilId = Pupil!.Id, note });
    }

    private Task<NotePin?> PinAsync(int midi) =>
        Db.Pins.FirstOrDefaultAsync(pin => pin.PupilId == Pupil!.Id && pin.InstrumentId == Pupil.InstrumentId && pin.Midi == midi);

    private NoteView? Show(string note)
    {
        try
        {
            var written = Pitch.Parse(note);
            var ways = FingeringFinder.Find(
                Played!.Instrument,
                Pupil!.Reading,
                written,
                Played.Weights,
                Played.Hand,
                Played.Passport,
                Place.Cents
            );
            var place = Math.Max(0, ways.ToList().FindIndex(way => way.Setting.ToString() == Setting));
            return new NoteView(Pupil, written, ways[place], place, ways);
        }
        catch (Exception problem) when (problem is FormatException or ArgumentException)
        {
            Trouble ??= OneLine.Of(problem);
            return null;
        }
    }
}
