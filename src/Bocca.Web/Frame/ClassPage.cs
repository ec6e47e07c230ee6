using Bocca.Core.Fingering.Class;
using Bocca.Web.Pages.Pupils;
using Bocca.Web.Record;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Frame;

/// <summary>Somebody who can be chosen to play in a class.</summary>
public sealed record Choice(int Id, string Name, string ClassName);

/// <summary>A page for several pupils at once: a class as the record has it, or who of the room is chosen in the address.</summary>
public abstract class ClassPage(Journal journal) : StagePage(journal)
{
    /// <summary>So many to choose from, and so many in it at most: more is no class for a page.</summary>
    private const int AtOnce = ClassRound.MostSeats;

    /// <summary>Who plays, where it is not a whole class.</summary>
    [BindProperty(SupportsGet = true, Name = "who")]
    public IReadOnlyList<int> Who { get; set; } = [];

    /// <summary>Somebody more, by a part of the name.</summary>
    [BindProperty(SupportsGet = true, Name = "more")]
    public string? More { get; set; }

    /// <summary>The class asked for.</summary>
    [BindProperty(SupportsGet = true, Name = "class")]
    public string? ClassAsked { get; set; }

    /// <summary>Whether each player's sheet is shown by itself, to be printed and handed out.</summary>
    [BindProperty(SupportsGet = true, Name = "sheets")]
    public bool Sheets { get; set; }

    /// <summary>The classes there are, by name.</summary>
    public IReadOnlyList<string> Classes { get; private set; } = [];

    /// <summary>The class shown; empty where it is none.</summary>
    public string ClassName { get; private set; } = "";

    /// <summary>Who is in the class, by name.</summary>
    public IReadOnlyList<Pupil> Members { get; private set; } = [];

    /// <summary>Who can be chosen: the first of the room, and who was.</summary>
    public IReadOnlyList<Choice> ToChoose { get; private set; } = [];

    /// <summary>Whether the room has more than can be chosen from.</summary>
    public bool HasMore { get; private set; }

    /// <summary>Who plays, for the address of a file.</summary>
    protected string WhoInAddress => string.Concat(Members.Select(pupil => $"&who={pupil.Id}"));

    /// <summary>The same page with every player's sheet by itself, or without them.</summary>
    public string OtherView =>
        Request.Path
        + QueryString.Create(
            Request
                .Query.Where(part => part.Key is not ("handler" or "sheets"))
                .SelectMany(part => part.Value, (part, value) => new KeyValuePair<string, string?>(part.Key, value))
                .Append(new("sheets", Sheets ? "false" : "true"))
        );

    /// <summary>Reads who is in the class: who is chosen, else the class asked for, the pupil's own, or the first there is.</summary>
    protected async Task LoadMembersAsync()
    {
        // Of everybody the name and the class alone: a large room is no reason to wait.
        var all = await Db
            .Pupils.OrderBy(pupil => pupil.Name)
            .ThenBy(pupil => pupil.Id)
            .Select(pupil => new Choice(pupil.Id, pupil.Name, pupil.ClassName))
            .ToListAsync();
        Classes = [.. all.Select(pupil => pupil.ClassName).Where(name => name != "").Distinct().Order(StringComparer.Ordinal)];
        var chosen = Who.Take(AtOnce).ToHashSet();
        if (chosen.Count == 0 || Classes.Contains(ClassAsked))
        {
            ClassName =
                Classes.FirstOrDefault(name => name == ClassAsked)
                ?? Classes.FirstOrDefault(name => name == Pupil?.ClassName)
                ?? (Classes.Count > 0 ? Classes[0] : null)
                ?? "";
            chosen = [.. all.Where(pupil => ClassName != "" && pupil.ClassName == ClassName).Take(AtOnce).Select(pupil => pupil.Id)];
        }

        if (
            !string.IsNullOrWhiteSpace(More)
            && all.Find(pupil => !chosen.Contains(pupil.Id) && pupil.Name.Contains(More.Trim(), StringComparison.OrdinalIgnoreCase))
                is { } meant
        )
            chosen.Add(meant.Id);
        ToChoose = [.. all.Where((pupil, at) => at < AtOnce || chosen.Contains(pupil.Id))];
        Members = await Db
            .Pupils.AsNoTracking()
            .Where(pupil => chosen.Contains(pupil.Id))
            .OrderBy(pupil => pupil.Name)
            .ThenBy(pupil => pupil.Id)
            .ToListAsync();
        HasMore = all.Count > ToChoose.Count;
    }

    /// <summary>The very instruments of some pupils in their very hands, by pupil.</summary>
    protected Task<IReadOnlyDictionary<int, PlayedInstrument>> PlayedAsync(IReadOnlyList<Pupil> pupils) =>
        Journal.PlayedAsync(pupils, pupil => pupil.ApproachIn(Room), Room.Conditions.Tuning);

    /// <summary>Each pupil's own part of a concert line, on the very instrument and with the very hand.</summary>
    protected async Task<IReadOnlyList<ClassPart>> PartsAsync(IReadOnlyList<Pupil> pupils, ConcertLine line)
    {
        var played = await PlayedAsync(pupils);
        return
        [
            .. pupils.Select(pupil =>
            {
                var own = played[pupil.Id];
                var member = new ClassMember(pupil.Name, own.Instrument, pupil.Reading, pupil.Stage)
                {
                    Approach = pupil.ApproachIn(Room),
                    Hand = own.Hand,
                    Weights = own.Weights,
                };
                return ClassPart.Of(member, line);
            }),
        ];
    }

    /// <summary>Keeps who is chosen as a class: whoever was in it and is not chosen leaves it.</summary>
    /// <param name="name">The name of the class.</param>
    /// <param name="who">Who is in it from now on.</param>
    public async Task<IActionResult> OnPostKeepClassAsync(string? name, IReadOnlyList<int> who)
    {
        name = name?.Trim() ?? "";
        if (name is { Length: 0 or > 40 } || !System.Text.RegularExpressions.Regex.IsMatch(name, $"^{PupilForm.NamePattern}$"))
            return Refuse("A class needs a name of at most 40 letters.");
        var ids = who.Take(AtOnce).ToList();
        if (ids.Count == 0)
            return Refuse("Tick who plays in the class first.");
        var play = await Db.Pupils.CountAsync(pupil => ids.Contains(pupil.Id));
        if (play == 0)
            return Refuse("Nobody who was ticked is in the room any more. Open the page once more.");
        await Db.SavingAsync(async () =>
        {
            foreach (var pupil in await Db.Pupils.Where(pupil => pupil.ClassName == name || ids.Contains(pupil.Id)).ToListAsync())
            {
                pupil.ClassName = ids.Contains(pupil.Id) ? name : "";
                pupil.Version = Guid.NewGuid();
            }
        });
        TempData["Told"] = $"{name} is kept: {play} {(play == 1 ? "plays" : "play")} in it.";
        return Redirect($"{Request.Path}?class={Uri.EscapeDataString(name)}");
    }
}
