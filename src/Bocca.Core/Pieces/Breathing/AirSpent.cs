using Bocca.Core.Pieces.Lines;

namespace Bocca.Core.Pieces.Breathing;

/// <summary>What a note spends of a breath.</summary>
public static class AirSpent
{
    private static readonly string[] FromSoft = ["ppp", "pp", "p", "mp", "mf", "f", "ff", "fff"];

    /// <summary>What a note spends, seconds of a medium one: its length, times its level, times its register.</summary>
    public static double Seconds(LineNote note, PieceBreather breather) =>
        note.Held
        * breather.Costs.Levels.GetValueOrDefault(breather.Softer ? SofterThan(note.Level) : note.Level, 1)
        * (note.Sounding.Midi < breather.SecondPartialMidi ? breather.Costs.BelowSecondPartial : 1);

    /// <summary>One level softer; none written is medium.</summary>
    private static string SofterThan(string level) =>
        Array.IndexOf(FromSoft, level == "" ? "mf" : level) is var at and > 0 ? FromSoft[at - 1] : level;
}
