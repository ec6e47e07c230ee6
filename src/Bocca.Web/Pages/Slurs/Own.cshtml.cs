using Bocca.Core;
using Bocca.Core.Score;
using Bocca.Core.Slurs;
using Bocca.Web.Frame;
using Bocca.Web.Record;
using Microsoft.AspNetCore.Mvc;

namespace Bocca.Web.Pages.Slurs;

/// <summary>The teacher's own slurs, read from a score. Nothing of the file is kept: what is played is named by its notes.</summary>
[UploadLimit(MusicXmlReader.MostBytes, MusicXmlReader.TooLarge)]
public sealed class OwnModel(Journal journal) : StagePage(journal)
{
    private SlurSuccess _success = SlurSuccess.From([]);
    private SlurPlayer? _player;

    /// <summary>The slurs of the score; empty before one was read.</summary>
    public IReadOnlyList<OwnSlur> Slurs { get; private set; } = [];

    /// <summary>The name of the file read.</summary>
    public string? FileName { get; private set; }

    /// <summary>What was wrong with it; null for nothing.</summary>
    public string? Trouble { get; private set; }

    public double UsedTempo { get; private set; } = PupilSlurs.UsualTempo;

    public IActionResult OnGet() => Pupil is null ? NotFound() : Page();

    public async Task<IActionResult> OnPostAsync(IFormFile? score)
    {
        if (Pupil is null)
            return NotFound();
        if (score is null)
        {
            Trouble = "Choose a MusicXML file first.";
            return Page();
        }

        FileName = Path.GetFileName(score.FileName);
        try
        {
            if (score.Length > MusicXmlReader.MostBytes)
                throw new InvalidDataException(MusicXmlReader.TooLarge);
            var bytes = new MemoryStream();
            await score.CopyToAsync(bytes, HttpContext.RequestAborted);
            var read = MusicXmlReader.Read(bytes.ToArray());
            var slurs = await PupilSlurs.LoadAsync(Journal, Pupil, Approach, Room);
            _player = slurs.Player;
            Slurs = OwnSlur.Of(read, slurs.Player);
            UsedTempo = PupilSlurs.TempoOr(read.Tempo);
            _success = SlurSuccess.From([.. (await slurs.TriesAsync()).Select(take => take.Try)]);
        }
        catch (InvalidDataException problem)
        {
            Trouble = OneLine.Of(problem);
        }

        return Page();
    }

    /// <summary>How likely the pupil plays a slur clean, 0 to 1.</summary>
    public double LikelyOf(Slur slur) => _success.Likelihood(SlurDifficulty.Of(slur, _player!, UsedTempo).Points, [.. slur.Pairs]);
}
