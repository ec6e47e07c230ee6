using System.Text.Json;
using Bocca.Core;
using Bocca.Core.Teaching;
using Bocca.Web.Frame;
using Bocca.Web.Record;
using Bocca.Web.Record.Shapes;
using Microsoft.AspNetCore.Mvc;

namespace Bocca.Web.Pages.Approaches;

/// <summary>A page of what the teacher sets otherwise: for the room, or, with a pupil in the address, for that pupil alone.</summary>
public abstract class OwnPage(Journal journal) : StagePage(journal)
{
    /// <summary>Whether this is one pupil's page.</summary>
    public bool OfPupil => PupilId is not null;

    /// <summary>What is wrong with what was sent.</summary>
    public string? Trouble { get; private set; }

    /// <summary>What this page changes: the pupil's own settings, or the room's.</summary>
    public OwnSettings Changed => StoredOwn.Read(OfPupil ? Pupil!.Own : Room.Own);

    /// <summary>What holds where this page says nothing: the room's settings for a pupil, nothing for the room.</summary>
    public OwnSettings Under => OfPupil ? StoredOwn.Read(Room.Own) : OwnSettings.None;

    /// <summary>What holds with what this page says.</summary>
    public OwnSettings InForce => Changed.Over(Under);

    /// <summary>What the forms of this page are shown from.</summary>
    public string Seen => StoredOwn.Write(Changed);

    /// <summary>For whom, in words.</summary>
    public string Whom => OfPupil ? Pupil!.Name : "the room";

    protected override bool IsDoneToPupil => false;

    protected override bool ChecksItself => HttpMethods.IsPost(Request.Method);

    /// <summary>What was set otherwise since a form was shown.</summary>
    private string Since(string seen)
    {
        var then = Parsed(seen);
        return string.Join("; ", then.Paths.Union(Changed.Paths).Where(path => then[path] != Changed[path]).Select(Now).Distinct());
        string Now(string path) =>
            NumbersModel.All.TryGetValue(path, out var number) ? $"{number.Name} is {Changed[path] ?? "as before"}" : "cues";
    }

    private static OwnSettings Parsed(string text)
    {
        try
        {
            return StoredOwn.Read(text);
        }
        catch (JsonException)
        {
            return OwnSettings.None;
        }
    }

    /// <summary>Sets what was typed and says so; what was wrong is said on the page and nothing of it is set.</summary>
    /// <param name="read">Reads what was typed: values by path, null for what is taken out.</param>
    /// <param name="load">Loads the page where it is shown again.</param>
    protected async Task<IActionResult> SetAsync(Func<IReadOnlyDictionary<string, string?>> read, Func<Task> load)
    {
        if (ChangedSince("This", Seen, Since) is { } clash)
            return clash;
        try
        {
            var changed = await Db.SetAsync(PupilId, read(), Clock.Now);
            TempData["Told"] = changed switch
            {
                0 => "Nothing changed.",
                1 => $"One change for {Whom}. Earlier takes keep what they were judged by.",
                _ => $"{changed} changes for {Whom}. Earlier takes keep what they were judged by.",
            };
            return LocalRedirect(Request.Path + Request.QueryString.Value?.Replace("handler=Reset", "", StringComparison.Ordinal));
        }
        catch (ArgumentException problem) when (RefusedForms.IsForm(Request))
        {
            return Refuse(OneLine.Of(problem));
        }
        catch (ArgumentException problem)
        {
            Response.StatusCode = StatusCodes.Status422UnprocessableEntity;
            Trouble = OneLine.Of(problem);
            await load();
            return Page();
        }
    }
}
