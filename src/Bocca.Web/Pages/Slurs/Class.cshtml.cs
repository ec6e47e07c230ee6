using System.Text;
using Bocca.Core.Fingering.Class;
using Bocca.Core.Instruments;
using Bocca.Core.Score;
using Bocca.Core.Slurs;
using Bocca.Core.Teaching;
using Bocca.Web.Frame;
using Bocca.Web.Record;
using Microsoft.AspNetCore.Mvc;

namespace Bocca.Web.Pages.Slurs;

/// <summary>The same slur at concert pitch for a mixed class, each in their own writing.</summary>
public sealed class ClassModel(Journal journal) : StagePage(journal)
{
    private const double Tempo = 72;

    /// <summary>The instrument whose open tube gives the concert notes: B flat, as most beginners' tubes are.</summary>
    private const string ModelInstrument = "trumpet-bb";

    [BindProperty(SupportsGet = true, Name = "shape")]
    public string Shape { get; set; } = "pair";

    [BindProperty(SupportsGet = true, Name = "partial")]
    public int FirstPartial { get; set; } = 3;

    [BindProperty(SupportsGet = true, Name = "who")]
    public IReadOnlyList<int> Who { get; set; } = [];

    /// <summary>The slur whose concert notes everybody plays.</summary>
    public Slur? Asked { get; private set; }

    public IReadOnlyList<(ClassSlur Own, SlurPlayer Player)> Parts { get; private set; } = [];

    public string? Trouble { get; private set; }

    public static IReadOnlyList<SlurShape> Shapes => [.. SlurShape.All.Where(shape => !shape.Neighbours)];

    public string ScoreXml => MusicXmlWriter.Write(Score);

    private MusicScore Score =>
        new(
            "Slurs for the class",
            Tempo,
            [
                .. Parts
                    .Where(part => (part.Own.Slur ?? part.Own.Instead) is not null)
                    .Select(part =>
                        SlurScore.PartOf(part.Player, [(part.Own.Slur ?? part.Own.Instead)!], part.Own.Member.Name.Split(' ')[0])
                    ),
            ]
        );

    public string File(string handler) =>
        $"/slurs/class?handler={handler}&shape={Uri.EscapeDataString(Shape)}"
        + $"&partial={FirstPartial}{string.Concat(Who.Select(id => $"&who={id}"))}";

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
        var (trumpet, reading) = (Catalogue.Get(ModelInstrument), Catalogue.Get(ModelInstrument).Readings[0]);
        var model = SlurPlayer.Of(trumpet, reading, LearningStage.Pieces, Room.Approach);
        var shape = Shapes.FirstOrDefault(known => known.Id == Shape) ?? Shapes[0];
        Asked = SlurWriter.OnTube(model, shape, trumpet.Tubes[0]).FirstOrDefault(slur => slur.Notes[0].Partial == FirstPartial);
        if (Asked is null)
        {
            Trouble =
                $"{shape.Name} does not go from partial {FirstPartial}: {SlurWriter.Sheet(model, shape, FirstPartial).StoppedBecause}";
            Asked = SlurWriter.OnTube(model, SlurShape.Get("pair"), trumpet.Tubes[0]).First(slur => slur.Notes[0].Partial == 3);
        }

        var parts = new List<(ClassSlur, SlurPlayer)>();
        foreach (var pupil in Everybody.Where(pupil => Who.Count == 0 || Who.Contains(pupil.Id)))
        {
            var approach = pupil.ApproachIn(Room);
            var played = await Journal.PlayedAsync(pupil, approach, Room.Conditions.Tuning);
            var player = SlurPlayer.Of(played.Instrument, pupil.Reading, pupil.Stage, approach) with { Hand = played.Hand };
            parts.Add((ClassSlur.Of(new ClassMember(pupil.Name, played.Instrument, pupil.Reading, pupil.Stage), player, Asked), player));
        }

        Parts = parts;
        if (Trouble is null && !Parts.Any(part => (part.Own.Slur ?? part.Own.Instead) is not null))
            Trouble =
                Parts.Count == 0
                    ? "Nobody is in this class yet."
                    : "This slur fits nobody's range. Choose a lower partial or another shape.";
    }
}
