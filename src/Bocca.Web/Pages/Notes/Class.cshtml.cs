using System.Text;
using Bocca.Core;
using Bocca.Core.Fingering.Class;
using Bocca.Core.Score;
using Bocca.Web.Frame;
using Bocca.Web.Record;
using Microsoft.AspNetCore.Mvc;

namespace Bocca.Web.Pages.Notes;

/// <summary>One concert instruction, and what each pupil of a mixed class reads and sets for it.</summary>
public sealed class ClassModel(Journal journal) : ClassPage(journal)
{
    /// <summary>The concert notes a line may start on, flats as brass reads them.</summary>
    public static IReadOnlyList<string> Starts { get; } = ["Bb", "F", "Eb", "Ab", "C", "G", "D", "A", "E", "B", "F#", "C#"];

    [BindProperty(SupportsGet = true, Name = "shape")]
    public ConcertShape Shape { get; set; }

    [BindProperty(SupportsGet = true, Name = "start")]
    public string? StartAsked { get; set; }

    /// <summary>The concert note it starts from; B flat where nothing was chosen.</summary>
    public string Start => string.IsNullOrEmpty(StartAsked) ? "Bb" : StartAsked;

    [BindProperty(SupportsGet = true, Name = "count")]
    public int Count { get; set; } = 7;

    [BindProperty(SupportsGet = true, Name = "own")]
    public string? Own { get; set; }

    public ConcertLine? Line { get; private set; }

    public IReadOnlyList<ClassPart> Parts { get; private set; } = [];

    public string? Trouble { get; private set; }

    public string ScoreXml => MusicXmlWriter.Write([.. Parts.Select(part => part.ToRow(part.Member.Name.Split(' ')[0], notesInLine: 8))]);

    /// <summary>One player's own sheet.</summary>
    public static string SheetXml(ClassPart part) => MusicXmlWriter.Write(part.ToRow("", notesInLine: 8));

    public string FileAddress =>
        $"/notes/class?handler=MusicXml&shape={Shape}&start={Uri.EscapeDataString(Start)}"
        + $"&count={Count}&own={Uri.EscapeDataString(Own ?? "")}{WhoInAddress}";

    /// <summary>A note in words, such as <c>G4, valves 1 and 3</c>.</summary>
    public static string Called(ClassPart part, ClassNote note) =>
        note.WhyNot is null ? $"{Wording.Pitch(note.Written)}, {Wording.Setting(part.Member.Instrument, note.Way!.Setting)}" : "rests";

    public Task OnGetAsync() => LoadAsync();

    public async Task<IActionResult> OnGetMusicXmlAsync()
    {
        await LoadAsync();
        return Trouble is { } trouble ? Refuse(trouble)
            : Parts.Count == 0 ? Refuse("Nobody is in this class yet.")
            : File(Encoding.UTF8.GetBytes(ScoreXml), "application/vnd.recordare.musicxml+xml", "class.musicxml");
    }

    private async Task LoadAsync()
    {
        await LoadMembersAsync();
        try
        {
            Line = Shape == ConcertShape.Own ? ConcertLine.Parse(Own ?? "") : ConcertLine.Of(Shape, Start, Count);
        }
        catch (ArgumentException problem)
        {
            Trouble = OneLine.Of(problem);
            Line = ConcertLine.Of(ConcertShape.LongNote, "Bb");
        }

        Parts = await PartsAsync(Members, Line);
    }
}
