using System.Text;
using System.Text.Json;
using System.Text.Json.Serialization;
using Bocca.Core;
using Bocca.Core.Fingering;
using Bocca.Core.Fingering.Class;
using Bocca.Core.Instruments;
using Bocca.Core.Music;
using Bocca.Web.Record;
using Microsoft.AspNetCore.Mvc;

namespace Bocca.Web.Pages.Notes;

/// <summary>The chromatic chart of a pupil's instrument, with what is pinned, taught and within reach.</summary>
public sealed class ChartModel(Journal journal) : NotesPage(journal)
{
    private static readonly JsonSerializerOptions Json = new(JsonSerializerDefaults.Web)
    {
        Converters = { new JsonStringEnumConverter(JsonNamingPolicy.CamelCase) },
    };

    private const int NotesInLine = 11;

    [BindProperty(SupportsGet = true, Name = "from")]
    public string? From { get; set; }

    [BindProperty(SupportsGet = true, Name = "to")]
    public string? To { get; set; }

    /// <summary>Whether the whole chart is wanted, not only what belongs to the pupil's stage.</summary>
    [BindProperty(SupportsGet = true, Name = "whole")]
    public bool Whole { get; set; }

    /// <summary>Whether other ways are shown beside the one taught.</summary>
    [BindProperty(SupportsGet = true, Name = "others")]
    public bool Others { get; set; }

    public IReadOnlyList<ChartNote> Notes { get; private set; } = [];

    public string? Trouble { get; private set; }

    public string ScoreXml => ChartFile.MusicXml("", Pupil!.Reading, Notes, NotesInLine);

    /// <summary>The address of this chart as a file.</summary>
    public string File(string handler) =>
        $"/notes/{PupilId}/chart?handler={handler}&whole={(Whole ? "true" : "false")}"
        + $"&from={Uri.EscapeDataString(From ?? "")}&to={Uri.EscapeDataString(To ?? "")}";

    public IActionResult OnGet()
    {
        if (Pupil is null)
            return NotFound();
        Load();
        return Page();
    }

    public IActionResult OnGetCsv() => Sent("csv", "text/csv", () => ChartFile.Csv(Notes));

    public IActionResult OnGetJson() =>
        Sent("json", "application/json", () => JsonSerializer.Serialize(ChartFile.Shape(Played!.Instrument, Pupil!.Reading, Notes), Json));

    public IActionResult OnGetMusicXml() =>
        Sent(
            "musicxml",
            "application/vnd.recordare.musicxml+xml",
            () => ChartFile.MusicXml(Played!.Instrument.Name, Pupil!.Reading, Notes, NotesInLine)
        );

    private IActionResult Sent(string ending, string type, Func<string> make)
    {
        if (Pupil is null)
            return NotFound();
        Load();
        return Trouble is { } trouble
            ? Refuse(trouble)
            : File(Encoding.UTF8.GetBytes(make()), type, $"chart-{Pupil.InstrumentId}.{ending}");
    }

    private void Load()
    {
        var range = Whole ? PlayingRange.Whole(Played!.Instrument) : LearnersRange.Of(Played!.Instrument, Pupil!.Stage, Approach);
        var (lowest, highest) = (Pupil!.Reading.ToWritten(range.Lowest), Pupil.Reading.ToWritten(range.Highest));
        try
        {
            Notes = Of(Typed(From) ?? lowest, Typed(To) ?? highest);
        }
        catch (Exception problem) when (problem is FormatException or ArgumentException)
        {
            // What was typed stays in its fields; the stage's own range is shown.
            Trouble = OneLine.Of(problem);
            Notes = Of(lowest, highest);
        }
    }

    private IReadOnlyList<ChartNote> Of(Pitch from, Pitch to) =>
        FingeringChart.Of(Played!.Instrument, Pupil!.Reading, from, to, Played.Weights, Played.Hand, Played.Passport);

    private static Pitch? Typed(string? note) => string.IsNullOrWhiteSpace(note) ? null : Pitch.Parse(note.Trim());
}
