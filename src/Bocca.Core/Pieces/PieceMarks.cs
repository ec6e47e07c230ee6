using System.Globalization;
using Bocca.Core.Pieces.Breathing;
using Bocca.Core.Score;

namespace Bocca.Core.Pieces;

/// <summary>What of a plan is written into the score, or into a table.</summary>
public static class PieceMarks
{
    /// <summary>The marks of a plan: settings, breaths, and how a note is shortened for one.</summary>
    /// <param name="plan">The plan.</param>
    /// <param name="settings">Whether settings are written.</param>
    /// <param name="breaths">Whether breaths are.</param>
    public static IReadOnlyList<ScoreAnnotation> Of(PiecePlan plan, bool settings = true, bool breaths = true)
    {
        var marks = new SortedDictionary<int, ScoreAnnotation>();
        void Mark(int note, Func<ScoreAnnotation, ScoreAnnotation> change)
        {
            if (note >= 0)
                marks[note] = change(marks.GetValueOrDefault(note) ?? new ScoreAnnotation(note));
        }

        foreach (var note in settings ? plan.Line.Notes : [])
            Mark(note.Source.First, mark => mark with { Setting = plan.Fingered.Notes[note.Index].Fingering.Setting.ToString() });
        foreach (var breath in breaths ? plan.Breathed.Breaths.Where(breath => breath.Place.Kind != PlaceKind.Rest) : [])
        {
            var note = plan.Line.Notes[breath.Place.After];
            Mark(note.Source.Last, mark => mark with { Breath = true });
            if (breath.Place is { Kind: PlaceKind.Drop, Shortens: { } dropped })
                Mark(plan.Line.Notes[dropped.Note].Source.First, mark => mark with { Words = breath.Place.Mark });
            else if (breath.Place.Mark is { Length: > 0 } less)
                Mark(note.Source.First, mark => mark with { Words = less });
        }

        return [.. marks.Values];
    }

    /// <summary>A plan as a table: a row a note.</summary>
    public static string Csv(PiecePlan plan)
    {
        using var text = new StringWriter(CultureInfo.InvariantCulture);
        using var csv = new TableWriter(text);
        foreach (
            var heading in (string[])
                ["index", "bar", "beat", "seconds", "written", "sounding", "setting", "partial", "cents", "chart", "breath", "why"]
        )
            csv.WriteField(heading);
        csv.NextRecord();
        var breaths = plan.Breathed.Breaths.ToDictionary(breath => breath.Place.After);
        foreach (var note in plan.Line.Notes)
        {
            var choice = plan.Fingered.Notes[note.Index];
            csv.WriteField(note.Index);
            csv.WriteField(plan.Line.BarOf(note.Index));
            csv.WriteField(Math.Round(note.Beat, 4));
            csv.WriteField(Math.Round(note.Seconds, 3));
            csv.WriteField(note.Written.ToString());
            csv.WriteField(note.Sounding.ToString());
            csv.WriteField(choice.Fingering.Setting.ToString());
            csv.WriteField(choice.Fingering.Partial);
            csv.WriteField(Math.Round(choice.Fingering.Cents, 1));
            csv.WriteField(choice.Plain.Setting.ToString());
            csv.WriteField(breaths.TryGetValue(note.Index, out var breath) ? breath.Why : "");
            csv.WriteField(choice.Reason);
            csv.NextRecord();
        }

        csv.Flush();
        return text.ToString();
    }
}
