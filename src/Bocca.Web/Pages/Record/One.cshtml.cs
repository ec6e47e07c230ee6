using System.Text.Json.Nodes;
using Bocca.Web.Frame;
using Bocca.Web.Record;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Pages.Record;

/// <summary>One entry of a pupil by its number: opened at its stop, or given to a script.</summary>
public sealed class OneModel(Journal journal) : StagePage(journal)
{
    [BindProperty(SupportsGet = true, Name = "id")]
    [FromRoute]
    public long Id { get; set; }

    /// <summary>Leads to where the entry is opened, or to the record where its line says all.</summary>
    public async Task<IActionResult> OnGetAsync() =>
        await EntryAsync() is not { } entry
            ? NotFound()
            : LocalRedirect(Stops.Kind(entry.Kind).Opens?.Invoke(entry) ?? $"/record/{PupilId}");

    /// <summary>
    /// What was asked, what was heard, what it came to, for a script: <c>request</c> as it stood when Start was pressed (null where nothing
    /// is asked), <c>heard</c> and <c>verdict</c> as they are stored, <c>figures</c> by name, and whether the request is <c>rebuilt</c>.
    /// </summary>
    public async Task<IActionResult> OnGetJsonAsync()
    {
        if (await EntryAsync() is not { } entry)
            return NotFound();
        var kind = Stops.Kind(entry.Kind);
        var heard = kind.BodyOf(entry)?.AsObject();
        JsonNode? verdict = null;
        if (heard?.Remove("verdict", out verdict) == true)
            verdict = verdict?.DeepClone();
        return new JsonResult(
            new
            {
                entry.Id,
                entry.Kind,
                entry.At,
                entry.Kept,
                entry.DrillId,
                entry.Tempo,
                Request = entry.Request is { } request
                    ? new
                    {
                        request.Kind,
                        request.Version,
                        Asked = JsonNode.Parse(request.Body),
                    }
                    : null,
                Heard = heard,
                Verdict = verdict,
                Figures = kind.FiguresOf(entry)
                    .Select(figure => new
                    {
                        figure.Kind.Name,
                        figure.Item,
                        figure.Value,
                        figure.Spread,
                        figure.Count,
                    }),
                entry.Rebuilt,
            }
        );
    }

    private Task<Entry?> EntryAsync() =>
        Db
            .Entries.AsNoTracking()
            .Include(entry => entry.Payload)
            .Include(entry => entry.Request)
            .FirstOrDefaultAsync(entry => entry.Id == Id && entry.PupilId == PupilId);
}
