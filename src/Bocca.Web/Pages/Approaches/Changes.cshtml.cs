using Bocca.Core.Instruments;
using Bocca.Core.Judging;
using Bocca.Web.Record;
using Bocca.Web.Record.Shapes;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Pages.Approaches;

/// <summary>What was changed and when, and the way back from each change.</summary>
public sealed class ChangesModel(Journal journal) : OwnPage(journal)
{
    private const int MostShown = 100;

    /// <summary>The changes, the newest first.</summary>
    public IReadOnlyList<SettingChange> Changes { get; private set; } = [];

    public async Task OnGetAsync() =>
        Changes = await Db
            .SettingChanges.AsNoTracking()
            .Where(change => change.PupilId == PupilId)
            .OrderByDescending(change => change.At)
            .ThenByDescending(change => change.Id)
            .Take(MostShown)
            .ToListAsync();

    /// <summary>Sets what was there before a change.</summary>
    public async Task<IActionResult> OnPostBackAsync(int id)
    {
        if (
            await Db.SettingChanges.AsNoTracking().FirstOrDefaultAsync(change => change.Id == id && change.PupilId == PupilId)
            is not { } change
        )
            return NotFound();
        if (FirstNoteOrders.InstrumentOf(change) is { } instrument)
            await Db.OrderAsync(PupilId, instrument, change.Before ?? "", Clock.Now);
        else
            await Db.SetAsync(PupilId, new Dictionary<string, string?> { [change.Path] = change.Before }, Clock.Now);
        TempData["Told"] = "It is as it was before that change.";
        return LocalRedirect(Request.Path);
    }

    /// <summary>What a path is called: its number, or its symptom.</summary>
    public static string Name(string path)
    {
        if (path.StartsWith("cues.", StringComparison.Ordinal))
            return $"Cues: {SymptomTable.Shipped.Find(path["cues.".Length..])?.Name ?? path}";
        if (path.StartsWith("message.", StringComparison.Ordinal))
            return path.EndsWith("close", StringComparison.Ordinal) ? "Messages: the close" : "Messages: the greeting";
        if (path.StartsWith("first.", StringComparison.Ordinal))
            return $"First notes, sounding: {Catalogue.TryGet(path["first.".Length..])?.Name ?? path}";
        return NumbersModel.All.TryGetValue(path, out var number) ? $"{number.Group}: {number.Name}" : path;
    }

    /// <summary>A value for people.</summary>
    public static string Value(string path, string? value) =>
        value is null ? "same as the room"
        : path.StartsWith("cues.", StringComparison.Ordinal) ? string.Join(" / ", StoredOwn.ReadLadder(value).Select(rung => rung.Cue))
        : $"{value} {NumbersModel.All.GetValueOrDefault(path)?.Unit}".Trim();
}
