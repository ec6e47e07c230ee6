using Bocca.Core;
using Bocca.Core.Pieces;
using Bocca.Core.Score;
using Bocca.Web.Frame;
using Bocca.Web.Record;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Pages.Pieces;

/// <summary>A piece in the list of the library.</summary>
/// <param name="Piece">The piece.</param>
/// <param name="Versions">How many versions of it there are.</param>
/// <param name="Players">Who plays it, by name.</param>
/// <param name="IsOwn">Whether it is played by who is playing now.</param>
public sealed record ListedPiece(Piece Piece, int Versions, IReadOnlyList<string> Players, bool IsOwn);

/// <summary>What the teacher says of a piece.</summary>
public sealed record PieceForm(int Id, string? Title, string? Composer, int? Level, string? Tags);

/// <summary>The library: pieces found, brought in, named, taken out and brought back.</summary>
[UploadLimit(MusicXmlReader.MostBytes, MusicXmlReader.TooLarge)]
public sealed class IndexModel(Journal journal, PiecePlans plans) : StagePage(journal)
{
    private const int MostShown = 60;

    /// <summary>A letter or two of what is sought.</summary>
    [BindProperty(SupportsGet = true, Name = "find")]
    public string? Find { get; set; }

    /// <summary>The piece that is named anew; null for none.</summary>
    [BindProperty(SupportsGet = true, Name = "edit")]
    public int? Edit { get; set; }

    public IReadOnlyList<ListedPiece> Listed { get; private set; } = [];

    public Piece? Edited { get; private set; }

    /// <summary>The versions of the piece that is named anew, the newest first.</summary>
    public IReadOnlyList<PieceVersion> Versions { get; private set; } = [];

    public bool HasMore { get; private set; }

    /// <summary>What was wrong with a file; null for nothing.</summary>
    public string? Trouble { get; private set; }

    protected override bool IsDoneToPupil => false;

    /// <summary>Where the library is for who is playing.</summary>
    public string Own => Pupil is null ? "/pieces" : $"/pieces/{Pupil.Id}";

    public Task OnGetAsync() => LoadAsync();

    /// <summary>Brings a file in, and opens it.</summary>
    public async Task<IActionResult> OnPostAsync(IFormFile? score)
    {
        try
        {
            if (score is null)
                throw new InvalidDataException("Choose a MusicXML file first.");
            if (score.Length > MusicXmlReader.MostBytes)
                throw new InvalidDataException(MusicXmlReader.TooLarge);
            var bytes = new MemoryStream();
            await score.CopyToAsync(bytes, HttpContext.RequestAborted);
            var file = bytes.ToArray();
            var source = await plans.ReadAsync(file);
            var came = await Journal.BringInAsync(source, file, Path.GetFileName(score.FileName));
            // One line that fits as it stands: it is for who brought it in.
            if (
                Pupil is not null
                && await Db.PlayedByAsync(Pupil, came.Piece.Id) is null
                && PartOffer.Of(source.Score, Pupil.Instrument, Pupil.Reading) is [{ Fits: true, FromConcert: false } only]
            )
                await Journal.GiveAsync(Pupil, came.Piece.Id, only);
            TempData["Told"] = came switch
            {
                { IsKnown: true } => $"{came.Piece.Title} was in the library already, to the last letter.",
                { Version.Number: > 1 } => $"{came.Piece.Title} has a new version, its {came.Version.Number}th; the ones before it stay.",
                _ => $"{came.Piece.Title} is in the library.",
            };
            if (came is { IsKnown: false })
                TempData["UndoAt"] =
                    $"{Own}?handler={(came.Version.Number > 1 ? "DropVersion" : "Drop")}&id="
                    + $"{(came.Version.Number > 1 ? came.Version.Id : came.Piece.Id)}&back=false";
            return Redirect(Pupil is null ? "/pieces" : $"/pieces/{Pupil.Id}/{came.Piece.Id}");
        }
        catch (InvalidDataException problem)
        {
            Trouble = score is null ? OneLine.Of(problem) : $"{OneLine.Of(Path.GetFileName(score.FileName))}: {OneLine.Of(problem)}";
            await LoadAsync();
            return Page();
        }
    }

    /// <summary>Names a piece anew.</summary>
    public async Task<IActionResult> OnPostNameAsync([FromForm] PieceForm? form) =>
        await RefusingAsync(async () =>
        {
            if (form is null || await Db.Pieces.FirstOrDefaultAsync(each => each.Id == form.Id) is not { } piece)
                return NotFound();
            string Text(string? text, int most, string what) =>
                (text ?? "").Trim() is var trimmed && trimmed.Length <= most && !trimmed.Any(char.IsControl)
                    ? trimmed
                    : throw new ArgumentException($"The {what} has at most {most} letters.");
            var title = Text(form.Title, Piece.LongestTitle, "title");
            if (title == "")
                throw new ArgumentException("A piece needs a title.");
            if (form.Level is < 1 or > Piece.HighestLevel)
                throw new ArgumentException($"A level is 1 to {Piece.HighestLevel}.");
            (piece.Title, piece.Composer) = (title, Text(form.Composer, Piece.LongestTitle, "composer's name"));
            (piece.Level, piece.Tags) = (form.Level, Text(form.Tags, Piece.LongestTags, "list of tags"));
            await Db.SaveChangesAsync();
            TempData["Told"] = $"{piece.Title} is kept.";
            return Redirect(Own);
        });

    /// <summary>Takes a piece out of the library, or brings it back.</summary>
    public async Task<IActionResult> OnPostDropAsync(int id, bool back)
    {
        DateTime? deleted = back ? null : Clock.Now;
        if (
            await Db
                .Pieces.IgnoreQueryFilters()
                .Where(each => each.Id == id)
                .ExecuteUpdateAsync(to => to.SetProperty(each => each.DeletedAt, deleted)) == 0
        )
            return NotFound();
        return Told(back ? "The piece is back." : "The piece is out of the library.", "Drop", id, !back);
    }

    /// <summary>Takes a version away, so that the one before it is in use again; or brings it back.</summary>
    public async Task<IActionResult> OnPostDropVersionAsync(int id, bool back)
    {
        DateTime? deleted = back ? null : Clock.Now;
        var version = await Db.PieceVersions.IgnoreQueryFilters().FirstOrDefaultAsync(each => each.Id == id);
        if (version is null)
            return NotFound();
        if (!back && !await Db.PieceVersions.AnyAsync(each => each.PieceId == version.PieceId && each.Id != id))
            return Refuse("It is the only version: take the piece out of the library instead.");
        version.DeletedAt = deleted;
        await Db.SaveChangesAsync();
        return Told(back ? "The version is back." : "The version is gone; the one before it is in use.", "DropVersion", id, !back);
    }

    private RedirectResult Told(string words, string handler, int id, bool back)
    {
        TempData["Told"] = words;
        TempData["UndoAt"] = $"{Own}?handler={handler}&id={id}&back={(back ? "true" : "false")}";
        return Redirect(Own);
    }

    private async Task LoadAsync()
    {
        var words = (Find ?? "").Trim().Split(' ', StringSplitOptions.RemoveEmptyEntries);
        var own = Pupil?.Id ?? 0;
        var pieces = await Db
            .Pieces.AsNoTracking()
            .OrderByDescending(piece => Db.PiecesFor.Any(each => each.PieceId == piece.Id && each.PupilId == own))
            .ThenBy(piece => piece.Title)
            .ThenBy(piece => piece.Id)
            .ToListAsync();
        var found = pieces
            .Where(piece =>
                words.All(word =>
                    $"{piece.Title} {piece.Composer} {piece.Tags} {piece.Level}".Contains(word, StringComparison.OrdinalIgnoreCase)
                )
            )
            .ToList();
        HasMore = found.Count > MostShown;
        found = [.. found.Take(MostShown)];
        var ids = found.ConvertAll(piece => piece.Id);
        var versions = await Db
            .PieceVersions.Where(version => ids.Contains(version.PieceId))
            .GroupBy(version => version.PieceId)
            .Select(group => new { group.Key, Count = group.Count() })
            .ToDictionaryAsync(group => group.Key, group => group.Count);
        var players = await Db
            .PiecesFor.Where(each => ids.Contains(each.PieceId))
            .Join(
                Db.Pupils,
                each => each.PupilId,
                pupil => pupil.Id,
                (each, pupil) =>
                    new
                    {
                        each.PieceId,
                        pupil.Id,
                        pupil.Name,
                    }
            )
            .ToListAsync();
        Listed =
        [
            .. found.Select(piece => new ListedPiece(
                piece,
                versions.GetValueOrDefault(piece.Id),
                [.. players.Where(each => each.PieceId == piece.Id).Select(each => each.Name).Order(StringComparer.CurrentCulture)],
                players.Exists(each => each.PieceId == piece.Id && each.Id == own)
            )),
        ];
        Edited = pieces.Find(piece => piece.Id == Edit);
        if (Edited is not null)
            Versions = await Db
                .PieceVersions.AsNoTracking()
                .Where(version => version.PieceId == Edited.Id)
                .OrderByDescending(version => version.Number)
                .Select(version => new PieceVersion
                {
                    Id = version.Id,
                    Number = version.Number,
                    FileName = version.FileName,
                    AddedAt = version.AddedAt,
                    File = Array.Empty<byte>(),
                    Hash = "",
                })
                .ToListAsync();
    }
}
