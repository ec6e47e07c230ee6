using Bocca.Core;
using Bocca.Core.Music;
using Bocca.Core.Pieces;
using Bocca.Web.Frame;
using Bocca.Web.Record;
using Microsoft.AspNetCore.Mvc;

namespace Bocca.Web.Pages.Pieces;

/// <summary>A scale as it is asked for.</summary>
public sealed record AskedScale(
    string? Tonic,
    ScalePattern Pattern,
    int Octaves = 1,
    double Tempo = 72,
    bool Eighths = false,
    bool Slurred = false
);

/// <summary>Scales and arpeggios in any key, written as pieces.</summary>
public sealed class ScaleModel(Journal journal) : StagePage(journal)
{
    /// <summary>What was wrong with what was asked; null for nothing.</summary>
    public string? Trouble { get; private set; }

    public AskedScale Asked { get; private set; } = new(null, ScalePattern.Major);

    public static IReadOnlyList<(ScalePattern Pattern, string Name)> Patterns { get; } =
    [
        (ScalePattern.Major, "major scale"),
        (ScalePattern.NaturalMinor, "natural minor scale"),
        (ScalePattern.HarmonicMinor, "harmonic minor scale"),
        (ScalePattern.MelodicMinor, "melodic minor scale"),
        (ScalePattern.Chromatic, "chromatic scale"),
        (ScalePattern.MajorArpeggio, "major arpeggio"),
        (ScalePattern.MinorArpeggio, "minor arpeggio"),
        (ScalePattern.DominantSeventh, "dominant seventh"),
    ];

    public IActionResult OnGet()
    {
        if (Pupil is null)
            return NotFound();
        Asked = Asked with { Tonic = Pupil.Reading.ToWritten(Pupil.Instrument.FirstNotes[^1]).ToString() };
        return Page();
    }

    /// <summary>Writes it, and opens it where it can be changed and kept.</summary>
    public IActionResult OnPost([FromForm] AskedScale? asked)
    {
        if (Pupil is null || asked is null)
            return NotFound();
        Asked = asked;
        try
        {
            if (!Pitch.TryParse(asked.Tonic, out var tonic))
                throw new ArgumentException("Write the lowest note with its octave, such as Bb3.");
            if (!(asked.Tempo is >= 30 and <= 240))
                throw new ArgumentException("Scales go at 30 to 240 a minute.");
            var text = ScaleText.Write(
                Pupil.Instrument,
                Pupil.Reading,
                tonic,
                asked.Pattern,
                asked.Octaves,
                asked.Tempo,
                asked.Eighths,
                asked.Slurred
            );
            var name = Patterns.First(each => each.Pattern == asked.Pattern).Name;
            var title =
                $"{$"{tonic with { Octave = 0 }}".TrimEnd('0')} {name}, {(asked.Octaves == 1 ? "one octave" : $"{asked.Octaves} octaves")}";
            return Redirect($"/pieces/{Pupil.Id}/write?title={Uri.EscapeDataString(title)}&text={Uri.EscapeDataString(text)}");
        }
        catch (ArgumentException problem)
        {
            Trouble = OneLine.Of(problem);
            return Page();
        }
    }
}
