using Bocca.Core.Score;

namespace Bocca.Core.Pieces.Lines;

/// <summary>A line of a score that one player can play: a voice of a staff of a part.</summary>
/// <param name="Part">The part, by its place from 0.</param>
/// <param name="Staff">The staff, from 1.</param>
/// <param name="Voice">The voice, as the score numbers it.</param>
/// <param name="Name">What it is called.</param>
/// <param name="Notes">How many notes sound in it.</param>
public sealed record LineChoice(int Part, int Staff, int Voice, string Name, int Notes)
{
    /// <summary>A second voice of a staff is a line of its own from this share of the first's notes on (ours, editable).</summary>
    private const double OwnLineShare = 0.25;

    /// <summary>Every line of a score, the parts from the top.</summary>
    public static IReadOnlyList<LineChoice> Of(MusicScore score)
    {
        var lines = new List<LineChoice>();
        for (var i = 0; i < score.Parts.Count; i++)
            lines.AddRange(OfPart(score.Parts[i], i));
        return lines;
    }

    /// <summary>The line that is meant by a number or a name.</summary>
    /// <param name="score">The score.</param>
    /// <param name="asked">
    /// A part's number from 1, <c>2.1</c> for the first line of the second part, or a name; null for the only line there is.
    /// </param>
    /// <exception cref="InvalidDataException">There is none, or it is left open which; the message lists them.</exception>
    public static LineChoice Choose(MusicScore score, string? asked)
    {
        var all = Of(score);
        if (all.Count == 0)
            throw new InvalidDataException(
                score.Parts.Any(part => part.Measures.Any(measure => measure.Notes.Any(note => note.IsUnpitched)))
                    ? "The score has percussion alone: no note in it has a pitch."
                    : "The score has no note: there are rests alone."
            );
        var list = string.Join(", ", all.Select(line => $"{NumberOf(all, line)} {line.Name}"));
        var fitting = asked is null
            ? all
            :
            [
                .. all.Where(line =>
                    NumberOf(all, line) == asked
                    || $"{line.Part + 1}" == asked
                    || line.Name.Equals(asked, StringComparison.OrdinalIgnoreCase)
                ),
            ];
        return fitting switch
        {
            [var one] => one,
            [] when asked is not null && int.TryParse(asked, out var part) && part >= 1 && part <= score.Parts.Count =>
                throw new InvalidDataException($"Part {part} has no note with a pitch; the score has {list}."),
            [] => throw new InvalidDataException($"'{asked}' is no part of this score; it has {list}."),
            _ => throw new InvalidDataException($"Choose a line with --part: {list}."),
        };
    }

    private static string NumberOf(IReadOnlyList<LineChoice> all, LineChoice line)
    {
        var beside = all.Where(each => each.Part == line.Part).ToList();
        return beside.Count == 1 ? $"{line.Part + 1}" : $"{line.Part + 1}.{beside.IndexOf(line) + 1}";
    }

    private static IEnumerable<LineChoice> OfPart(ScorePart part, int index)
    {
        var counts = new Dictionary<(int Staff, int Voice), int>();
        foreach (var note in part.Measures.SelectMany(measure => measure.Notes).Where(note => note is { Sounds: true, InChord: false }))
            counts[(note.Staff, note.Voice)] = counts.GetValueOrDefault((note.Staff, note.Voice)) + 1;
        var name = part.Name == "" ? $"Part {index + 1}" : part.Name;
        var staves = counts.Keys.Select(line => line.Staff).Distinct().Count();
        foreach (var staff in counts.GroupBy(line => line.Key.Staff).OrderBy(staff => staff.Key))
        {
            var most = staff.Max(line => line.Value);
            var own = staff.Where(line => line.Value >= OwnLineShare * most).OrderBy(line => line.Key.Voice).ToList();
            foreach (var (line, notes) in own)
                yield return new LineChoice(
                    index,
                    line.Staff,
                    line.Voice,
                    name
                        + (staves > 1 ? $", staff {line.Staff}" : "")
                        + (own.Count > 1 ? $", voice {own.FindIndex(each => each.Key == line) + 1}" : ""),
                    notes
                );
        }
    }
}
