using System.Globalization;
using Bocca.Core.Instruments;
using Bocca.Core.Music;
using Bocca.Core.Score;

namespace Bocca.Core.Fingering;

/// <summary>A fingering chart as a file that other programs read.</summary>
public static class ChartFile
{
    /// <summary>The chart as CSV (published: RFC 4180): written, sounding, setting, partial, cents, correction, alternates.</summary>
    public static string Csv(IReadOnlyList<ChartNote> chart)
    {
        using var text = new StringWriter(CultureInfo.InvariantCulture);
        using (var csv = new TableWriter(text))
        {
            csv.WriteRecords(
                chart
                    .Where(note => note.Ways.Count > 0)
                    .Select(note => new
                    {
                        written = note.Written.ToString(),
                        sounding = note.Sounding.ToString(),
                        setting = note.Ways[0].Setting.ToString(),
                        partial = note.Ways[0].Partial,
                        cents = Math.Round(note.Ways[0].Cents, 1),
                        correction = note.Ways[0].Correction?.Sentence ?? "",
                        alternates = string.Join(' ', note.Ways.Skip(1).Select(way => way.Setting)),
                    })
            );
        }

        return text.ToString();
    }

    /// <summary>The chart as one object, in the shape that files and commands have.</summary>
    public static object Shape(Instrument instrument, Reading reading, IReadOnlyList<ChartNote> chart) =>
        new
        {
            Instrument = instrument.Id,
            Reading = reading.Id,
            Notes = chart
                .Where(note => note.Ways.Count > 0)
                .Select(note => new
                {
                    Written = note.Written.ToString(),
                    Sounding = note.Sounding.ToString(),
                    Fingering = Shape(note.Ways[0]),
                    Alternates = note.Ways.Skip(1).Select(Shape),
                }),
        };

    /// <summary>The chart engraved: whole notes with their settings under them, transposed as the instrument is.</summary>
    /// <param name="part">The name of the part; empty for none.</param>
    /// <param name="reading">How it is read.</param>
    /// <param name="chart">The chart.</param>
    /// <param name="notesInLine">How many notes stand in a line; 0 for one line.</param>
    public static string MusicXml(string part, Reading reading, IReadOnlyList<ChartNote> chart, int notesInLine = 0)
    {
        var notes = chart.Where(note => note.Ways.Count > 0).ToList();
        return MusicXmlWriter.Write(
            new NoteRow(reading, [.. notes.Select(note => note.Written)])
            {
                Under = [.. notes.Select(note => note.Ways[0].Setting.ToString())],
                Part = part,
                NotesInLine = notesInLine,
            }
        );
    }

    /// <summary>A fingering in the shape that files and commands have.</summary>
    public static object Shape(Fingering way) =>
        new
        {
            Setting = way.Setting.ToString(),
            way.Partial,
            Cents = Math.Round(way.Cents, 1),
            way.Reason,
            Correction = way.Correction is { } correction
                ? new
                {
                    correction.What,
                    Cm = Math.Round(correction.Cm, 1),
                    correction.Sentence,
                }
                : null,
            Cost = Math.Round(way.Cost, 1),
            Reasons = way.Reasons.Select(reason => new
            {
                reason.Kind,
                Points = Math.Round(reason.Points, 1),
                reason.Words,
            }),
        };
}
