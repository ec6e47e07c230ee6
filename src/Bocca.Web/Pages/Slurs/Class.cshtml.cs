using System.Text;
using Bocca.Core;
using Bocca.Core.Fingering.Class;
using Bocca.Core.Score;
using Bocca.Core.Slurs;
using Bocca.Web.Frame;
using Bocca.Web.Record;
using Microsoft.AspNetCore.Mvc;

namespace Bocca.Web.Pages.Slurs;

/// <summary>The same slur at concert pitch for a mixed class, each in their own writing.</summary>
public sealed class ClassModel(Journal journal) : ClassPage(journal)
{
    [BindProperty(SupportsGet = true, Name = "shape")]
    public string? Shape { get; set; }

    [BindProperty(SupportsGet = true, Name = "partial")]
    public int? FirstPartial { get; set; }

    /// <summary>The slur whose concert notes everybody plays.</summary>
    public Slur? Asked { get; private set; }

    public IReadOnlyList<(ClassSlur Own, SlurPlayer Player)> Parts { get; private set; } = [];

    public string? Trouble { get; private set; }

    public string ScoreXml => MusicXmlWriter.Write(ScoreOf(Parts, "Slurs for the class"));

    /// <summary>One player's own sheet.</summary>
    public static string SheetXml((ClassSlur Own, SlurPlayer Player) part) => MusicXmlWriter.Write(ScoreOf([part], ""));

    private static MusicScore ScoreOf(IReadOnlyList<(ClassSlur Own, SlurPlayer Player)> parts, string title) =>
        new(
            title,
            ClassSlur.Tempo,
            [
                .. parts
                    .Where(part => (part.Own.Slur ?? part.Own.Instead) is not null)
                    .Select(part =>
                        SlurScore.PartOf(part.Player, [(part.Own.Slur ?? part.Own.Instead)!], part.Own.Member.Name.Split(' ')[0])
                    ),
            ]
        );

    public string File(string handler) =>
        $"/slurs/class?handler={handler}&shape={Uri.EscapeDataString(Asked!.Shape.Id)}"
        + $"&partial={Asked.Notes[0].Partial}{WhoInAddress}";

    public Task OnGetAsync() => LoadAsync();

    public async Task<IActionResult> OnGetMusicXmlAsync()
    {
        await LoadAsync();
        return Trouble is { } trouble
            ? Refuse(trouble)
            : File(Encoding.UTF8.GetBytes(ScoreXml), "application/vnd.recordare.musicxml+xml", "class-slurs.musicxml");
    }

    private async Task LoadAsync()
    {
        await LoadMembersAsync();
        var played = await PlayedAsync(Members);
        var members = SlurMember.Of(
            Members.Select(pupil =>
            {
                var (own, approach) = (played[pupil.Id], pupil.ApproachIn(Room));
                var player = SlurPlayer.Of(own.Instrument, pupil.Reading, pupil.Stage, approach);
                var member = new ClassMember(pupil.Name, own.Instrument, pupil.Reading, pupil.Stage) { Approach = approach };
                return (member, player with { Hand = own.Hand });
            })
        );

        Asked = ClassSlur.Offered(members, Room.Approach);
        try
        {
            if (Shape is not null || FirstPartial is not null)
                Asked = ClassSlur.Concert(Shape ?? Asked.Shape.Id, FirstPartial ?? Asked.Notes[0].Partial, Room.Approach);
        }
        catch (ArgumentException problem)
        {
            Trouble = OneLine.Of(problem);
        }

        Parts = [.. members.Select(member => (ClassSlur.Of(member, Asked), member.Player))];
        if (Trouble is null && !Parts.Any(part => (part.Own.Slur ?? part.Own.Instead) is not null))
            Trouble =
                Parts.Count == 0
                    ? "Nobody is in this class yet."
                    : "This slur fits nobody's range. Choose a lower partial or another shape.";
    }
}
