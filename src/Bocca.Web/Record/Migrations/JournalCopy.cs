namespace Bocca.Web.Record.Migrations;

/// <summary>
/// Carries what stood in a table for each kind into the one journal, row by row, payloads included. A new number is sixteen
/// times the old one and the kind's place, so that no two meet.
/// </summary>
internal static class JournalCopy
{
    private static readonly (string Table, string Kind)[] Order =
    [
        ("Takes", "buzz"),
        ("Tones", "tone"),
        ("Slurs", "slur"),
        ("Hands", "hand"),
        ("Breaths", "breath"),
        ("Balloons", "balloon"),
        ("Placements", "placement"),
        ("Noticed", "seen"),
        ("Ticks", "tick"),
        ("Advice", "advice"),
        ("Notes", "note"),
        ("Measured", "measured"),
        ("Steps", "step"),
    ];

    public static IEnumerable<string> OldTables => Order.Select(each => each.Table);

    /// <summary>The statements, in order.</summary>
    public static IEnumerable<string> Statements =>
        [
            .. Order
                .Where(each => HasApproach(each.Table))
                .Select(each =>
                    $"INSERT OR IGNORE INTO Approaches (Text) SELECT DISTINCT "
                    + $"ApproachText FROM {each.Table} WHERE ApproachText <> '';"
                ),
            Take(
                "Takes",
                "DrillId, '', NULL, \"On\", Source, Tempo, NULL, NULL, NULL",
                "json_object('measures', json(MeasuresJson), " + "'verdict', json(VerdictJson), 'threads', json(ThreadsJson))"
            ),
            Take(
                "Tones",
                "DrillId, Notes, json_extract(TraceJson, '$.instrumentId'), 'Instrument', Source, Tempo, NULL, Came, " + "Asked",
                "json_object('settings', Settings, 'trace', json(TraceJson), 'verdict', json(VerdictJson))"
            ),
            Take(
                "Slurs",
                "SlurId, Text, InstrumentId, 'Instrument', Source, Tempo, Difficulty, Clean, " + "Changes",
                "json_object('times', Times, 'trace', json(TraceJson), 'changes', json(ChangesJson), 'verdict', " + "json(VerdictJson))"
            ),
            Entry(
                "Hands",
                "DrillId, '', InstrumentId, NULL, NULL, NULL, MedianSeconds, Right, Asked",
                "At",
                "CASE Passed WHEN 1 THEN " + "'Passed' ELSE 'Repeat' END",
                "Summary"
            ),
            Payload("Hands", $"json_object('marks', json(MarksJson), 'medianSeconds', {Number("MedianSeconds")})"),
            Entry(
                "Breaths",
                "DrillId, '', NULL, NULL, CASE Measured WHEN 1 THEN 'Microphone' END, Tempo, Rung, NULL, " + "NULL",
                "At",
                "CASE WHEN Even = 1 THEN 'Passed' WHEN Stopped = 1 THEN 'StepBack' ELSE 'Repeat' " + "END",
                "Summary",
                key: "\"Key\"",
                sounded: "COALESCE(HeardSeconds, AskedSeconds)",
                elapsed: "DrilledSeconds"
            ),
            Payload(
                "Breaths",
                $"json_object('askedCounts', {Number("AskedCounts")}, 'askedSeconds', {Number("AskedSeconds")}, "
                    + $"'heardSeconds', {Number("HeardSeconds")}, 'variationPercent', {Number("VariationPercent")}, 'stopped', "
                    + $"{Truth("Stopped")})"
            ),
            Entry("Balloons", "NULL, '', NULL, NULL, NULL, NULL, Litres, NULL, NULL", "At", "NULL", "printf('%.1f l.', Litres)"),
            Payload("Balloons", $"json_object('circumferenceCm', {Number("CircumferenceCm")})"),
            Entry("Placements", "NULL, Signals, NULL, NULL, Source, NULL, ShareAbove, NULL, NULL", "At", "NULL", "Sentences"),
            Payload("Placements", $"json_object('rimMm', {Number("RimMm")}, 'marks', json(MarksJson), 'measures', json(MeasuresJson))"),
            Entry("Noticed", "NULL, Signal, NULL, NULL, NULL, NULL, NULL, NULL, NULL", "At", "NULL", "''"),
            Entry("Ticks", "CheckId, '', NULL, NULL, NULL, NULL, NULL, NULL, NULL", "At", "NULL", "''"),
            Entry("Advice", "NULL, SymptomId, NULL, NULL, NULL, NULL, NULL, NULL, NULL", "At", "NULL", "Cue", deleted: "NULL"),
            Payload("Advice", "json_object('suggestedId', SuggestedId, 'why', Why)"),
            Entry(
                "Notes",
                "ReadingId, Written, NULL, NULL, NULL, NULL, NULL, NULL, NULL",
                "SavedAt",
                "NULL",
                "'setting ' || Setting " + "|| ', partial ' || Partial"
            ),
            Payload("Notes", $"json_object('setting', Setting, 'partial', Partial, 'cents', {Number("Cents")})"),
            Entry(
                "Measured",
                "NULL, '', InstrumentId, NULL, NULL, NULL, NULL, NULL, NULL",
                "At",
                "NULL",
                "CASE Remark WHEN '' THEN " + "'As measured.' ELSE Remark END"
            ),
            Payload(
                "Measured",
                $"json_object('slideTubeMetres', {Number("SlideTubeMetres")}, 'slideTravelCm', "
                    + $"{Number("SlideTravelCm")}, 'thirdForTwoThree', {Truth("ThirdForTwoThree")}, 'valveCents', json(ValveCentsJson))"
            ),
            Entry(
                "Steps",
                "DrillId, lower(Place), NULL, NULL, NULL, NULL, NULL, NULL, " + "NULL",
                "AcceptedAt",
                "NULL",
                "Cue",
                deleted: "NULL",
                done: Instant("DoneAt")
            ),
            Payload("Steps", "json_object('reason', Reason, 'because', 16 * TakeId)"),
            // A slur that was clean when it was last played wants to be played again after three days.
            "UPDATE Entries SET DueAt = At + 3 * 86400000 WHERE Kind = 'slur' AND Kept = 1 AND DeletedAt IS NULL AND Outcome = "
                + "'Passed' AND NOT EXISTS (SELECT 1 FROM Entries later WHERE later.PupilId = Entries.PupilId AND later.Kind = 'slur' "
                + "AND later.DrillId = Entries.DrillId AND later.InstrumentId = Entries.InstrumentId AND later.Kept = 1 AND "
                + "later.DeletedAt IS NULL AND (later.At > Entries.At OR (later.At = Entries.At AND later.Id > Entries.Id)));",
        ];

    private static string Take(string table, string columns, string payload) =>
        Entry(table, columns, "RecordedAt", "Outcome", "Summary", kept: "Kept") + "\n" + Payload(table, payload);

    // Columns: drill, subject, instrument, stage, source, tempo, level, came, asked.
    private static string Entry(
        string table,
        string columns,
        string at,
        string outcome,
        string summary,
        string kept = "1",
        string deleted = "",
        string done = "NULL",
        string key = "NULL",
        string sounded = "NULL",
        string elapsed = "NULL"
    )
    {
        var approach = HasApproach(table) ? $"(SELECT Id FROM Approaches WHERE Text = {table}.ApproachText)" : "NULL";
        return $"""
            INSERT INTO Entries (
              Id, PupilId, Kind,
              DrillId, Subject, InstrumentId, Stage, Source, Tempo, Level, Came, Asked,
              At, Kept, DeletedAt, DoneAt, "Key", ApproachId, Outcome, Summary, SoundedSeconds, ElapsedSeconds)
            SELECT
              {NewId(table)}, PupilId, '{Order.First(each => each.Table == table).Kind}',
              {columns},
              {Instant(at)}, {kept}, {(deleted == "" ? Instant("DeletedAt") : deleted)},
              {done}, {key}, {approach}, {outcome}, {summary}, {sounded}, {elapsed}
            FROM {table};
            """;
    }

    private static string Payload(string table, string body) =>
        $"INSERT INTO Payloads (EntryId, Version, Body) SELECT {NewId(table)}, 1, {body} FROM {table};";

    private static string NewId(string table) => $"16 * {table}.Id + {Array.FindIndex(Order, each => each.Table == table)}";

    /// <summary>Only what a teacher's approach bears on was kept with it.</summary>
    private static bool HasApproach(string table) => table is not ("Balloons" or "Noticed" or "Hands" or "Measured" or "Steps");

    /// <summary>Text such as 2026-11-25 00:40:51.1432377 as milliseconds since 1970.</summary>
    private static string Instant(string column) =>
        $"CASE WHEN {column} IS NULL THEN NULL ELSE CAST(strftime('%s', substr({column}, 1, 19)) AS INTEGER) * 1000 + "
        + $"CAST(substr(substr({column}, 21) || '000', 1, 3) AS INTEGER) END";

    /// <summary>A number with all its digits, as JSON has them.</summary>
    private static string Number(string column) => $"CASE WHEN {column} IS NULL THEN NULL ELSE json(printf('%!.17g', {column})) END";

    private static string Truth(string column) => $"json(CASE {column} WHEN 1 THEN 'true' ELSE 'false' END)";
}
