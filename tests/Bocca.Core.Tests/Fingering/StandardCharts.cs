namespace Bocca.Core.Tests.Fingering;

/// <summary>
/// The fingering charts taught, as rows of one partial each: setting, then the written notes (common practice, from
/// memory; every entry agrees with the tube lengths). A dot is a note the chart plays on another partial.
/// </summary>
internal static class StandardCharts
{
    public const string Trumpet = """
        pt 0   2   1   1-2 2-3 1-3 1-2-3
        2  C4  B3  Bb3 A3  Ab3 G3  F#3
        3  G4  F#4 F4  E4  Eb4 D4  C#4
        4  C5  B4  Bb4 A4  Ab4 .   .
        5  E5  Eb5 D5  C#5 .   .   .
        6  G5  F#5 F5  .   .   .   .
        8  C6  B5  Bb5 A5  Ab5 .   .
        """;

    public const string HornF = """
        pt 0   2   1   1-2 2-3
        3  G3  F#3 F3  .   .
        4  C4  B3  Bb3 A3  Ab3
        5  E4  Eb4 D4  C#4 .
        6  G4  F#4 F4  .   .
        8  C5  B4  Bb4 A4  Ab4
        10 E5  Eb5 D5  C#5 .
        12 G5  F#5 F5  .   .
        """;

    public const string HornBb = """
        pt 0   2   1   1-2 2-3
        5  .   .   G4  .   .
        6  C5  B4  Bb4 A4  Ab4
        8  F5  E5  Eb5 D5  C#5
        9  G5  F#5 .   .   .
        12 C6  B5  Bb5 A5  Ab5
        """;

    public const string Trombone = """
        pt 1   2   3   4   5   6   7
        2  Bb2 A2  Ab2 G2  F#2 F2  E2
        3  F3  E3  Eb3 D3  C#3 C3  B2
        4  Bb3 A3  Ab3 G3  F#3 .   .
        5  D4  C#4 C4  B3  .   .   .
        6  F4  E4  Eb4 .   .   .   .
        7  .   G4  F#4 .   .   .   .
        8  Bb4 A4  Ab4 .   .   .   .
        """;

    public const string EuphoniumThreeValves = """
        pt 0   2   1   1-2 2-3 1-3 1-2-3
        2  Bb2 A2  Ab2 G2  F#2 F2  E2
        3  F3  E3  Eb3 D3  C#3 C3  B2
        4  Bb3 A3  Ab3 G3  F#3 .   .
        5  D4  C#4 C4  B3  .   .   .
        6  F4  E4  Eb4 .   .   .   .
        8  Bb4 A4  Ab4 G4  F#4 .   .
        """;

    public const string EuphoniumCompensating = """
        pt 0   2   1   1-2 2-3 4   2-4 1-4 1-2-4 2-3-4 1-3-4 1-2-3-4
        1  Bb1 .   .   .   .   .   .   .   .     .     .     .
        2  Bb2 A2  Ab2 G2  F#2 F2  E2  Eb2 D2    C#2   C2    B1
        3  F3  E3  Eb3 D3  C#3 C3  B2  .   .     .     .     .
        4  Bb3 A3  Ab3 G3  F#3 .   .   .   .     .     .     .
        5  D4  C#4 C4  B3  .   .   .   .   .     .     .     .
        6  F4  E4  Eb4 .   .   .   .   .   .     .     .     .
        8  Bb4 A4  Ab4 G4  F#4 .   .   .   .     .     .     .
        """;

    public const string TubaBb = """
        pt 0   2   1   1-2 2-3 1-3 1-2-3
        2  Bb1 A1  Ab1 G1  F#1 F1  E1
        3  F2  E2  Eb2 D2  C#2 C2  B1
        4  Bb2 A2  Ab2 G2  F#2 .   .
        5  D3  C#3 C3  B2  .   .   .
        6  F3  E3  Eb3 .   .   .   .
        """;

    public const string TubaBbFourValves = """
        pt 0   2   1   1-2 2-3 4   2-4 1-4 2-3-4 1-3-4 1-2-3-4
        2  Bb1 A1  Ab1 G1  F#1 F1  E1  Eb1 D1    C#1   C1
        3  F2  E2  Eb2 D2  C#2 C2  B1  .   .     .     .
        4  Bb2 A2  Ab2 G2  F#2 .   .   .   .     .     .
        5  D3  C#3 C3  B2  .   .   .   .   .     .     .
        6  F3  E3  Eb3 .   .   .   .   .   .     .     .
        """;

    public const string TubaBbCompensating = """
        pt 0   2   1   1-2 2-3 4   2-4 1-4 1-2-4 2-3-4 1-3-4 1-2-3-4
        2  Bb1 A1  Ab1 G1  F#1 F1  E1  Eb1 D1    C#1   C1    B0
        3  F2  E2  Eb2 D2  C#2 C2  B1  .   .     .     .     .
        4  Bb2 A2  Ab2 G2  F#2 .   .   .   .     .     .     .
        5  D3  C#3 C3  B2  .   .   .   .   .     .     .     .
        6  F3  E3  Eb3 .   .   .   .   .   .     .     .     .
        """;

    public const string TubaEbFourValves = """
        pt 0   2   1   1-2 2-3 4   2-4 1-4 2-3-4 1-3-4 1-2-3-4
        2  Eb2 D2  C#2 C2  B1  Bb1 A1  Ab1 G1    F#1   F1
        3  Bb2 A2  Ab2 G2  F#2 F2  E2  .   .     .     .
        4  Eb3 D3  C#3 C3  B2  .   .   .   .     .     .
        5  G3  F#3 F3  E3  .   .   .   .   .     .     .
        6  Bb3 A3  Ab3 .   .   .   .   .   .     .     .
        """;

    public const string TromboneF = """
        pt 1   2   3   4   5   T1  T2  T3  T4  T5  T6
        2  Bb2 A2  Ab2 G2  F#2 F2  E2  Eb2 D2  C#2 C2
        3  F3  E3  Eb3 D3  C#3 C3  B2  .   .   .   .
        4  Bb3 A3  Ab3 G3  F#3 .   .   .   .   .   .
        5  D4  C#4 C4  B3  .   .   .   .   .   .   .
        6  F4  E4  Eb4 .   .   .   .   .   .   .   .
        7  .   G4  F#4 .   .   .   .   .   .   .   .
        8  Bb4 A4  Ab4 .   .   .   .   .   .   .   .
        """;

    public const string TubaEb = """
        pt 0   2   1   1-2 2-3 1-3 1-2-3
        2  Eb2 D2  C#2 C2  B1  Bb1 A1
        3  Bb2 A2  Ab2 G2  F#2 F2  E2
        4  Eb3 D3  C#3 C3  B2  .   .
        5  G3  F#3 F3  E3  .   .   .
        6  Bb3 A3  Ab3 .   .   .   .
        """;

    public const string HornDouble = """
        pt 0   2   1   1-2 2-3 T-0 T-2 T-1 T-1-2 T-2-3
        3  G3  F#3 F3  .   .   .   .   .   .     .
        4  C4  B3  Bb3 A3  Ab3 .   .   .   .     .
        5  E4  Eb4 D4  C#4 .   .   .   .   .     .
        6  G4  F#4 F4  .   .   C5  B4  Bb4 A4    Ab4
        8  .   .   .   .   .   F5  E5  Eb5 D5    C#5
        9  .   .   .   .   .   G5  F#5 .   .     .
        12 .   .   .   .   .   C6  B5  Bb5 A5    Ab5
        """;

    public const string EuphoniumFourValves = """
        pt 0   2   1   1-2 2-3 4   2-4
        2  Bb2 A2  Ab2 G2  F#2 F2  E2
        3  F3  E3  Eb3 D3  C#3 C3  B2
        4  Bb3 A3  Ab3 G3  F#3 .   .
        5  D4  C#4 C4  B3  .   .   .
        6  F4  E4  Eb4 .   .   .   .
        8  Bb4 A4  Ab4 G4  F#4 .   .
        """;

    public const string TubaC = """
        pt 0   2   1   1-2 2-3 4   2-4
        2  C2  B1  Bb1 A1  Ab1 G1  F#1
        3  G2  F#2 F2  E2  Eb2 D2  C#2
        4  C3  B2  Bb2 A2  Ab2 .   .
        5  E3  Eb3 D3  C#3 .   .   .
        6  G3  F#3 F3  .   .   .   .
        """;

    public const string TubaF = """
        pt 0   2   1   1-2 2-3 4   2-4
        2  F2  E2  Eb2 D2  C#2 C2  B1
        3  C3  B2  Bb2 A2  Ab2 G2  F#2
        4  F3  E3  Eb3 D3  C#3 .   .
        5  A3  Ab3 G3  F#3 .   .   .
        6  C4  B3  Bb3 .   .   .   .
        """;

    public const string TubaEbCompensating = """
        pt 0   2   1   1-2 2-3 4   2-4 1-4 1-2-4 2-3-4 1-3-4 1-2-3-4
        2  Eb2 D2  C#2 C2  B1  Bb1 A1  Ab1 G1    F#1   F1    E1
        3  Bb2 A2  Ab2 G2  F#2 F2  E2  .   .     .     .     .
        4  Eb3 D3  C#3 C3  B2  .   .   .   .     .     .     .
        5  G3  F#3 F3  E3  .   .   .   .   .     .     .     .
        6  Bb3 A3  Ab3 .   .   .   .   .   .     .     .     .
        """;

    public static IEnumerable<(string Written, string Setting, int Partial)> Read(string chart)
    {
        var rows = chart
            .Split('\n', StringSplitOptions.RemoveEmptyEntries)
            .Select(row => row.Split(' ', StringSplitOptions.RemoveEmptyEntries))
            .ToList();
        return rows.Skip(1)
            .SelectMany(row =>
                row.Skip(1).Select((note, column) => (note, rows[0][column + 1], int.Parse(row[0]))).Where(entry => entry.note != ".")
            );
    }
}
