using System.Text;
using Bocca.Core;
using Bocca.Core.Ear;
using Bocca.Core.Instruments;
using Bocca.Core.Pieces;
using Bocca.Core.Pieces.Lines;
using Bocca.Core.Score;
using Bocca.Web.Frame;
using Bocca.Web.Record;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Pages.Pieces;

/// <summary>What the teacher settles at one place of a piece.</summary>
/// <param name="What"><c>pin</c>, <c>breath</c>, <c>phrase</c>, <c>chart</c>, <c>tempo</c> or <c>all</c>.</param>
/// <param name="At">The note, or the bar for the chart.</param>
/// <param name="Value">A setting; <c>yes</c>, <c>no</c> or nothing; beats a minute; what was settled before, for all of it.</param>
public sealed record Settled(string? What, int At, string? Value);

/// <summary>A way to give the piece, as it is chosen in the form.</summary>
public sealed record GivenPart(string? Line, bool FromConcert, int Octaves);

/// <summary>A piece for a pupil: the score with the study upon it.</summary>
public sealed class PieceModel(Journal journal, PiecePlans plans) : StagePage(journal)
{
    [BindProperty(SupportsGet = true)]
    [FromRoute]
    public int PieceId { get; set; }

    /// <summary>Whether the lines of the score are shown to choose from.</summary>
    [BindProperty(SupportsGet = true, Name = "part")]
    public string? ChoosePart { get; set; }

    public Piece Piece { get; private set; } = null!;

    /// <summary>The piece worked out; null while a line is to be chosen, or where something stands against it.</summary>
    public PieceView? View { get; private set; }

    /// <summary>What stands against it; null for nothing.</summary>
    public string? Trouble { get; private set; }

    /// <summary>The lines of the score as they suit the pupil.</summary>
    public IReadOnlyList<PartOffer> Offers { get; private set; } = [];

    private PieceVersion Version { get; set; } = null!;

    public async Task<IActionResult> OnGetAsync()
    {
        if (!await FindAsync())
            return NotFound();
        var source = await plans.SourceAsync(Version);
        var played = await Db.PlayedOrOnlyAsync(plans, Pupil!, Version);
        if (played is null || ChoosePart is not null || PieceLibrary.LineOf(source.Score, played.Line) is null)
        {
            Offers = await plans.OffersAsync(Version, Pupil!);
            return Page();
        }

        try
        {
            View = new PieceView(Pupil!, await WorkOutAsync(played), Room.Tuning) { Sings = Sings };
        }
        catch (Exception problem) when (problem is ArgumentException or InvalidDataException)
        {
            Trouble = OneLine.Of(problem);
            Offers = await plans.OffersAsync(Version, Pupil!);
        }

        return Page();
    }

    /// <summary>Gives a line of the score to the pupil.</summary>
    public async Task<IActionResult> OnPostGiveAsync([FromForm] GivenPart? given) =>
        await RefusingAsync(async () =>
        {
            if (given is null || !await FindAsync())
                return NotFound();
            var source = await plans.SourceAsync(Version);
            var choice = PieceLibrary.LineOf(source.Score, given.Line ?? "") ?? throw new ArgumentException("Choose a line of the score.");
            if (choice.Notes > PiecePlans.MostNotes)
                throw new ArgumentException(PiecePlans.TooLong(choice));
            if (given.Octaves is < -4 or > 4)
                throw new ArgumentException("A part is moved by four octaves at most.");
            await Journal.GiveAsync(Pupil!, PieceId, new PartOffer(choice, given.FromConcert, given.Octaves));
            return Redirect($"/pieces/{Pupil!.Id}/{PieceId}");
        });

    /// <summary>Settles something, and gives the plan back as it is then.</summary>
    public async Task<IActionResult> OnPostSettleAsync([FromForm] Settled? settled) =>
        await RefusingAsync(async () =>
        {
            if (settled is null || !await FindAsync())
                return NotFound();
            if (await Db.PlayedOrOnlyAsync(plans, Pupil!, Version) is not { } played)
                return NotFound();
            if (played.Id == 0)
                Db.PiecesFor.Add(played);
            var before = (played.Choices, played.Tempo);
            Settle(played, settled);
            // What cannot be is said, and nothing of it is kept.
            var worked = await WorkOutAsync(played);
            await Db.SaveChangesAsync();
            return Partial(
                "_Plan",
                new PieceView(Pupil!, worked, Room.Tuning)
                {
                    Sings = Sings,
                    Before = before.Choices,
                    TempoBefore = before.Tempo,
                }
            );
        });

    private void Settle(PieceFor played, Settled settled)
    {
        var slide = Pupil!.Instrument.Slide is not null;
        var choices = PieceChoices.Parse(played.Choices, slide);
        bool? wanted = settled.Value switch
        {
            "yes" => true,
            "no" => false,
            _ => null,
        };
        if (settled is { What: "breath" or "phrase", Value: not (null or "" or "yes" or "no") })
            throw new ArgumentException($"'{settled.Value}' is neither yes nor no.");
        if (settled.At is < 0 or > 20_000)
            throw new ArgumentException("There is no such place in the piece.");
        switch (settled.What)
        {
            case "pin":
                Setting? pin =
                    string.IsNullOrEmpty(settled.Value) ? null
                    : Setting.TryParse(settled.Value, slide, out var setting) ? setting
                    : throw new ArgumentException($"'{settled.Value}' is no setting.");
                choices = choices.Pin(settled.At, pin);
                break;
            case "breath":
                choices = choices.Breath(settled.At, wanted);
                break;
            case "phrase":
                choices = choices.PhraseEnd(settled.At, wanted);
                break;
            case "chart":
                choices = settled.Value is "all" or "none"
                    ? choices with
                    {
                        AllByChart = settled.Value == "all",
                    }
                    : choices.Chart(settled.At, wanted == true);
                break;
            case "tempo":
                played.Tempo =
                    string.IsNullOrEmpty(settled.Value) ? null
                    : double.TryParse(settled.Value, out var beats) && beats is >= PieceLine.SlowestTempo and <= PieceLine.FastestTempo
                        ? beats
                    : throw new ArgumentException($"A piece goes at {PieceLine.SlowestTempo} to {PieceLine.FastestTempo} beats a minute.");
                break;
            case "all":
                choices = PieceChoices.Parse(settled.Value ?? "", slide);
                break;
            default:
                throw new ArgumentException($"'{settled.What}' is nothing that is settled of a piece.");
        }

        if (choices.ToString() is var text && text.Length > PieceChoices.MostLetters)
            throw new ArgumentException("So much is settled by hand in this piece already: let something go first.");
        (played.Choices, played.At) = (text, Clock.Now);
    }

    /// <summary>The score with the plan written into it: the whole of it, or the part alone.</summary>
    public Task<IActionResult> OnGetFileAsync(bool alone, bool packed) =>
        WithPlanAsync(worked =>
        {
            var part = worked.Plan.Line.Choice.Part;
            var document = worked.Planned.Document.Annotated(part, PieceMarks.Of(worked.Plan));
            document = alone ? document.PartAlone(part) : document;
            return packed
                ? File(document.WritePacked(), "application/vnd.recordare.musicxml", $"{NameOf(worked)}.mxl")
                : File(document.Write(), "application/vnd.recordare.musicxml+xml", $"{NameOf(worked)}.musicxml");
        });

    /// <summary>The file as it came.</summary>
    public async Task<IActionResult> OnGetOriginalAsync() =>
        await FindAsync()
            ? File(Version.File, "application/octet-stream", Version.FileName == "" ? $"{Piece.Title}.musicxml" : Version.FileName)
            : NotFound();

    /// <summary>The plan as a table.</summary>
    public Task<IActionResult> OnGetCsvAsync() =>
        WithPlanAsync(worked => File(Encoding.UTF8.GetBytes(PieceMarks.Csv(worked.Plan)), "text/csv", $"{NameOf(worked)}.csv"));

    /// <summary>The score to be listened to elsewhere.</summary>
    public Task<IActionResult> OnGetMidiAsync() =>
        WithPlanAsync(worked => File(MidiWriter.Write(worked.Source.Score), "audio/midi", $"{NameOf(worked)}.mid"));

    /// <summary>The other parts of the score, as they sound.</summary>
    public Task<IActionResult> OnGetOthersAsync() => WithPlanAsync(worked => new JsonResult(HeardPiece.Others(worked, Room.Tuning)));

    private static string NameOf(WorkedPiece worked) =>
        string.Concat(worked.Piece.Title.Where(letter => char.IsLetterOrDigit(letter) || letter is ' ' or '-')).Trim();

    private async Task<IActionResult> WithPlanAsync(Func<WorkedPiece, IActionResult> give) =>
        await RefusingAsync(async () =>
            await FindAsync() && await Db.PlayedOrOnlyAsync(plans, Pupil!, Version) is { } played
                ? give(await WorkOutAsync(played))
                : NotFound()
        );

    private bool Sings => EarDrill.For(Pupil!.Stage, Approach).Any(drill => drill.Kind == EarKind.Line);

    private Task<WorkedPiece> WorkOutAsync(PieceFor played) =>
        Journal.WorkOutAsync(plans, Pupil!, Approach, Room.Conditions.Tuning, Piece, Version, played);

    private async Task<bool> FindAsync()
    {
        if (Pupil is null || await Db.Pieces.AsNoTracking().FirstOrDefaultAsync(each => each.Id == PieceId) is not { } piece)
            return false;
        if (await Db.NewestAsync(PieceId) is not { } version)
            return false;
        (Piece, Version) = (piece, version);
        return true;
    }
}
