using Bocca.Core.Judging;
using Bocca.Core.Teaching;
using Bocca.Web.Frame;
using Bocca.Web.Record;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Pages.Practice;

/// <summary>A paper item as it was typed.</summary>
public sealed record PaperForm(
    int? Id,
    string? Book,
    int? Page,
    string? Number,
    string? Words,
    string? Symptom,
    LearningStage From,
    double On = 16,
    double Off = 8,
    int Times = 4,
    double Tempo = 72
);

/// <summary>What the teacher uses of books: where it stands and what it is good for, never what is in them.</summary>
public sealed class PaperModel(Journal journal) : StagePage(journal)
{
    private const int MostItems = 2000,
        MostShown = 60;

    /// <summary>A letter or two of what is sought.</summary>
    [BindProperty(SupportsGet = true, Name = "find")]
    public string? Find { get; set; }

    /// <summary>The item that is changed; null for a new one.</summary>
    [BindProperty(SupportsGet = true, Name = "edit")]
    public int? Edit { get; set; }

    public IReadOnlyList<PaperItem> Items { get; private set; } = [];

    public PaperItem? Edited { get; private set; }

    public bool HasMore { get; private set; }

    /// <summary>What an item may be against, by name.</summary>
    public IReadOnlyList<Symptom> Faults => [.. Symptoms.All.OrderBy(symptom => symptom.Name, StringComparer.CurrentCulture)];

    public async Task OnGetAsync()
    {
        var sought = (Find ?? "").Trim();
        var all = await Db
            .PaperItems.AsNoTracking()
            .OrderBy(item => item.Book)
            .ThenBy(item => item.Page)
            .ThenBy(item => item.Number)
            .ToListAsync();
        var found = all.Where(item =>
                sought
                    .Split(' ', StringSplitOptions.RemoveEmptyEntries)
                    .All(part =>
                        $"{item.Name} {item.Words} {Symptoms.Find(item.SymptomId)?.Name}".Contains(part, StringComparison.OrdinalIgnoreCase)
                    )
            )
            .ToList();
        (Items, HasMore) = ([.. found.Take(MostShown)], found.Count > MostShown);
        Edited = all.Find(item => item.Id == Edit);
    }

    /// <summary>Keeps an item, or what was changed of one.</summary>
    public async Task<IActionResult> OnPostAsync([FromForm] PaperForm? form) =>
        await RefusingAsync(async () =>
        {
            if (form is null)
                throw new ArgumentException("The form did not arrive whole. Send it once more.");
            var checkedForm = Checked(form);
            var item = form.Id is { } id ? await Db.PaperItems.FirstOrDefaultAsync(each => each.Id == id) : null;
            if (form.Id is not null && item is null)
                return NotFound();
            if (item is null)
            {
                if (await Db.PaperItems.CountAsync() >= MostItems)
                    throw new ArgumentException($"{MostItems} items are the most.");
                Db.PaperItems.Add(item = new PaperItem { Book = checkedForm.Book! });
            }

            (item.Book, item.Page, item.Number, item.Words) = (checkedForm.Book!, form.Page, checkedForm.Number!, checkedForm.Words!);
            (item.SymptomId, item.From) = (checkedForm.Symptom!, form.From);
            (item.On, item.Off, item.Times, item.Tempo) = (form.On, form.Off, form.Times, form.Tempo);
            await Db.SaveChangesAsync();
            TempData["Told"] = $"{item.Name} is kept.";
            return Redirect("/practice/paper");
        });

    /// <summary>Takes an item out, or brings it back.</summary>
    public async Task<IActionResult> OnPostDropAsync(int id, bool back)
    {
        DateTime? deleted = back ? null : Clock.Now;
        if (
            await Db
                .PaperItems.IgnoreQueryFilters()
                .Where(each => each.Id == id)
                .ExecuteUpdateAsync(to => to.SetProperty(each => each.DeletedAt, deleted)) == 0
        )
            return NotFound();
        TempData["Told"] = back ? "It is back." : "It is gone.";
        TempData["UndoAt"] = $"/practice/paper?handler=Drop&id={id}&back={!back}";
        return Redirect("/practice/paper");
    }

    private PaperForm Checked(PaperForm form)
    {
        string Text(string? text, int most, string what) =>
            (text ?? "").Trim() is var trimmed && trimmed.Length <= most && !trimmed.Any(char.IsControl)
                ? trimmed
                : throw new ArgumentException($"The {what} has at most {most} letters.");
        var book = Text(form.Book, PaperItem.LongestBook, "book");
        if (book == "")
            throw new ArgumentException("Say in which book it stands, as you call it.");
        if (form.Page is < 1 or > 9999)
            throw new ArgumentException("A page is 1 to 9999.");
        if (
            !(form.On is > 0 and <= 256)
            || !(form.Off is >= 0 and <= 256)
            || form.Times is < 1 or > 50
            || !(form.Tempo is >= 30 and <= 240)
        )
            throw new ArgumentException("Counts on are 1 to 256, off 0 to 256, 1 to 50 times, at 30 to 240 a minute.");
        if (!Enum.IsDefined(form.From))
            throw new ArgumentException("Choose a level.");
        var symptom = form.Symptom ?? "";
        if (symptom != "" && Symptoms.Find(symptom) is null)
            throw new ArgumentException($"'{symptom}' is no fault.");
        return form with
        {
            Book = book,
            Number = Text(form.Number, PaperItem.LongestNumber, "number"),
            Words = Text(form.Words, PaperItem.LongestWords, "remark"),
            Symptom = symptom,
        };
    }
}
