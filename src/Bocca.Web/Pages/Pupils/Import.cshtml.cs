using Bocca.Core;
using Bocca.Web.Frame;
using Bocca.Web.Pages.Pieces;
using Bocca.Web.Record;
using Bocca.Web.Record.Archive;
using Microsoft.AspNetCore.Mvc;

namespace Bocca.Web.Pages.Pupils;

/// <summary>Brings a pupil in from a file that a Bocca saved.</summary>
[UploadLimit(PupilImport.MostBytes, PupilImport.TooLarge)]
public sealed class ImportModel(Journal journal, PiecePlans plans) : StagePage(journal)
{
    /// <summary>Why nobody was brought in; null where nothing was asked yet.</summary>
    public string? Trouble { get; private set; }

    public void OnGet() { }

    public async Task<IActionResult> OnPostAsync(IFormFile? archive)
    {
        try
        {
            if (archive is null)
                throw new InvalidDataException("Choose a file first.");
            if (archive.Length > PupilImport.MostBytes)
                throw new InvalidDataException(PupilImport.TooLarge);
            using var bytes = new MemoryStream();
            await archive.CopyToAsync(bytes, HttpContext.RequestAborted);
            var came = await new PupilImport(Journal, plans).BringInAsync(bytes.ToArray());
            var missing = came.LeftOut.Count > 0 ? $" Left out: {string.Join("; ", came.LeftOut.Select(each => each.TrimEnd('.')))}." : "";
            TempData["Told"] =
                $"{came.Pupil.Name} is on the Desk, with {came.Entries} {(came.Entries == 1 ? "entry" : "entries")} of the record."
                + missing;
            return Redirect($"/record/{came.Pupil.Id}");
        }
        catch (InvalidDataException problem)
        {
            Trouble = OneLine.Of(problem);
            Response.StatusCode = StatusCodes.Status422UnprocessableEntity;
            return Page();
        }
    }
}
