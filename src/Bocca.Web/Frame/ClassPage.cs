using Bocca.Web.Record;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Frame;

/// <summary>A page for several pupils at once: who of the room is in it stands in the address.</summary>
public abstract class ClassPage(Journal journal) : StagePage(journal)
{
    /// <summary>So many to choose from, and so many in it at most: more is no class for a page.</summary>
    private const int AtOnce = 30;

    /// <summary>Who plays; everybody who can be chosen by default.</summary>
    [BindProperty(SupportsGet = true, Name = "who")]
    public IReadOnlyList<int> Who { get; set; } = [];

    /// <summary>Somebody more, by a part of the name.</summary>
    [BindProperty(SupportsGet = true, Name = "more")]
    public string? More { get; set; }

    /// <summary>Who is in the class, by name.</summary>
    public IReadOnlyList<Pupil> Members { get; private set; } = [];

    /// <summary>Who can be chosen: the first of the room, and who was.</summary>
    public IReadOnlyList<Pupil> ToChoose { get; private set; } = [];

    /// <summary>Whether the room has more than can be chosen from.</summary>
    public bool HasMore { get; private set; }

    /// <summary>Who plays, for the address of a file.</summary>
    protected string WhoInAddress => string.Concat(Members.Select(pupil => $"&who={pupil.Id}"));

    /// <summary>Reads who is in the class.</summary>
    protected async Task LoadMembersAsync()
    {
        var all = await Db.Pupils.AsNoTracking().OrderBy(pupil => pupil.Name).ThenBy(pupil => pupil.Id).ToListAsync();
        var chosen = Who.Take(AtOnce).ToHashSet();
        if (!string.IsNullOrWhiteSpace(More) && all.Find(IsMeant) is { } meant)
            chosen.Add(meant.Id);
        ToChoose = [.. all.Where((pupil, at) => at < AtOnce || chosen.Contains(pupil.Id))];
        Members = chosen.Count == 0 ? ToChoose : [.. ToChoose.Where(pupil => chosen.Contains(pupil.Id))];
        HasMore = all.Count > ToChoose.Count;

        bool IsMeant(Pupil pupil) => !chosen.Contains(pupil.Id) && pupil.Name.Contains(More.Trim(), StringComparison.OrdinalIgnoreCase);
    }
}
