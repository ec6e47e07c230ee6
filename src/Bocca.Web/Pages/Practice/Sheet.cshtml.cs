using Bocca.Core.Practice.Week;
using Bocca.Core.Score;
using Bocca.Core.Slurs;
using Bocca.Core.Tone.Drills;
using Bocca.Core.Tone.Notes;
using Bocca.Web.Frame;
using Bocca.Web.Record;
using Microsoft.AspNetCore.Mvc;

namespace Bocca.Web.Pages.Practice;

/// <summary>A line of the sheet: one item, the days it is on, and what it looks like on paper.</summary>
/// <param name="Item">The item.</param>
/// <param name="Days">The days, from 0.</param>
/// <param name="Xml">Its notes to be engraved; null for none.</param>
/// <param name="Settings">Each note with its combination or position, once.</param>
public sealed record SheetLine(WeekItem Item, IReadOnlyList<int> Days, string? Xml, string Settings);

/// <summary>The week as it is handed over on paper: one page.</summary>
public sealed class SheetModel(Journal journal) : EntriesPage(journal)
{
    /// <summary>So many notes of a line are engraved; the others are as the drill goes on.</summary>
    private const int MostNotes = 12;

    /// <summary>The first day of the week; empty for the last one handed over.</summary>
    [BindProperty(SupportsGet = true, Name = "from")]
    public string? From { get; set; }

    public WeekPayload? Week { get; private set; }

    public IReadOnlyList<SheetLine> Lines { get; private set; } = [];

    public async Task<IActionResult> OnGetAsync()
    {
        if (Pupil is null)
            return NotFound();
        var weeks = Journal.Of(Pupil.Id, PracticeStop.Weeks);
        Week = (
            await Journal.ShowAsync(PracticeStop.Weeks, From is { Length: > 0 } ? weeks.Where(week => week.Subject == From) : weeks)
        )?.Payload;
        if (Week is null)
            return Page();
        var player = await new PupilWeek(Journal, Pupil, Room, Health).PlayerAsync();
        Lines =
        [
            .. Week
                .Days.SelectMany((rounds, day) => rounds.Select(round => (round.Item, day)))
                .GroupBy(each => each.Item.Id)
                .Select(each => Line(player, each.First().Item, [.. each.Select(one => one.day)])),
        ];
        return Page();
    }

    private static SheetLine Line(WeekPupil pupil, WeekItem item, IReadOnlyList<int> days)
    {
        var (xml, notes) = item.Id.Split(':') switch
        {
            ["tone", var id]
                when ToneDrill.All.FirstOrDefault(each => each.Id == id) is { } drill && drill.IsFor(pupil.Player, pupil.Approach) => Row(
                pupil,
                [.. drill.Plan(pupil.Player, pupil.Approach, drill.Tempo).Notes.Take(MostNotes).Select(asked => asked.Meant)]
            ),
            ["note", var written] => Row(
                pupil,
                [
                    .. FirstNotePath
                        .Of(pupil.Player, pupil.Approach, [])
                        .Notes.Select(each => each.Note)
                        .Where(note => $"{note.Written}" == written),
                ]
            ),
            ["slurs"] when StandardWeek.FirstSlur(pupil) is { } slur => (
                MusicXmlWriter.Write(SlurScore.OnStage(StandardWeek.SlurPlayerOf(pupil), slur)),
                (IReadOnlyList<MeantNote>)[]
            ),
            _ => (null, []),
        };
        return new SheetLine(
            item,
            days,
            xml,
            string.Join("  ", notes.DistinctBy(note => note.Written).Select(note => $"{Wording.Pitch(note.Written)} {note.Setting}"))
        );
    }

    private static (string?, IReadOnlyList<MeantNote>) Row(WeekPupil pupil, IReadOnlyList<MeantNote> notes) =>
        notes.Count == 0
            ? (null, notes)
            : (MusicXmlWriter.Write(new NoteRow(pupil.Player.Reading.Clef, [.. notes.Select(note => note.Written)])), notes);
}
