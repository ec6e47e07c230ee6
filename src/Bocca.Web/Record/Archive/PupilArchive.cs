using System.Globalization;
using System.IO.Compression;
using System.Text;
using System.Text.Json.Nodes;
using Bocca.Core;
using Bocca.Core.Breath;
using Bocca.Core.Health;
using Bocca.Web.Pages.Pieces;
using Bocca.Web.Pages.Practice;
using Bocca.Web.Pages.Pupils;
using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Record.Archive;

/// <summary>
/// A pupil with the whole record as one ZIP file: <c>pupil.json</c> with everything, which another Bocca takes in; the same as tables for a
/// spreadsheet; the scores of the pupil's pieces; and a page that says what is what.
/// </summary>
public static class PupilArchive
{
    /// <summary>The names of its files.</summary>
    public const string Whole = "pupil.json",
        Readme = "README.txt",
        EntryTable = "record.csv",
        FigureTable = "figures.csv",
        Scores = "pieces/";

    /// <summary>Makes the archive.</summary>
    /// <param name="journal">The record.</param>
    /// <param name="pupil">Whose.</param>
    /// <param name="withPrivate">Whether remarks for the teacher alone come with it.</param>
    public static async Task<byte[]> MakeAsync(Journal journal, Pupil pupil, bool withPrivate)
    {
        var (entries, pieces) = (await EntriesAsync(journal, pupil, withPrivate), await PiecesAsync(journal.Db, pupil));
        var whole = new ArchivedPupil(
            ArchivedPupil.Today,
            journal.Clock.Now,
            Facts(pupil, journal.Clock.Today),
            [.. entries.Select(ArchivedOf)]
        )
        {
            Cards = await CardsAsync(journal.Db, pupil.Id),
            Pins =
            [
                .. (await journal.Db.Pins.AsNoTracking().Where(pin => pin.PupilId == pupil.Id).ToListAsync()).Select(pin => new ArchivedPin(
                    pin.InstrumentId,
                    pin.Midi,
                    pin.Setting,
                    pin.At
                )),
            ],
            FirstNotes =
            [
                .. (await journal.Db.FirstNoteOrders.AsNoTracking().Where(order => order.PupilId == pupil.Id).ToListAsync()).Select(
                    order => new ArchivedFirstNotes(order.InstrumentId, order.Notes)
                ),
            ],
            Changes =
            [
                .. (
                    await journal
                        .Db.SettingChanges.AsNoTracking()
                        .Where(change => change.PupilId == pupil.Id)
                        .OrderBy(change => change.Id)
                        .ToListAsync()
                ).Select(change => new ArchivedChange(change.Path, change.Before, change.After, change.At)),
            ],
            Pieces = [.. pieces.Select(piece => piece.Told)],
        };
        using var packed = new MemoryStream();
        using (var zip = new ZipArchive(packed, ZipArchiveMode.Create, leaveOpen: true))
        {
            Put(zip, Readme, Encoding.UTF8.GetBytes(Words(whole, withPrivate)));
            Put(zip, Whole, whole.Write());
            Put(zip, EntryTable, await TableAsync(entries.Select(entry => Row(journal, entry))));
            Put(zip, FigureTable, await TableAsync(await FiguresAsync(journal.Db, entries)));
            foreach (var (told, file) in pieces.DistinctBy(piece => piece.Told.File))
                Put(zip, told.File, file);
        }

        return packed.ToArray();
    }

    /// <summary>
    /// What is told of a pupil. Reasons of health are told only while a consent is in force that lets them be seen; else the care stays
    /// that they ask for.
    /// </summary>
    public static ArchivedFacts Facts(Pupil pupil, DateOnly today) =>
        new(pupil.Name, pupil.InstrumentId, pupil.ReadingId, pupil.Stage, pupil.Started)
        {
            Preset = pupil.Preset,
            Points = pupil.Points,
            Own = pupil.Own,
            BornIn = pupil.BornIn,
            EasyBreaths = pupil.Health.HasFlag(BreathHealth.Unsaid) || (pupil.Health != BreathHealth.None && ShownBy(pupil, today) is null),
            DoctorAgrees = pupil.DoctorAgrees,
            Health = ShownBy(pupil, today) is { } consent
                ? new ArchivedHealth(
                    [.. PupilForm.AllReasons.Where(reason => pupil.Health.HasFlag(reason))],
                    [.. PupilForm.AllMouth.Where(note => pupil.Mouth.HasFlag(note))],
                    consent.By,
                    consent.On,
                    consent.Until,
                    consent.For
                )
                : null,
            HasStand = pupil.HasStand,
            ArmCm = pupil.ArmCm,
            HighestValve = pupil.HighestValve,
            FurthestPosition = pupil.FurthestPosition,
            ClassName = pupil.ClassName,
            Invented = pupil.Invented,
            Remark = pupil.Remark,
        };

    private static HealthConsent? ShownBy(Pupil pupil, DateOnly today) =>
        pupil.Consent is { SaysWhy: true } consent && consent.InForce(today) ? consent : null;

    private static async Task<List<Entry>> EntriesAsync(Journal journal, Pupil pupil, bool withPrivate)
    {
        var entries = await journal
            .Db.Entries.AsNoTracking()
            .Include(entry => entry.Payload)
            .Include(entry => entry.Approach)
            .Include(entry => entry.Request)
            .Where(entry => entry.PupilId == pupil.Id && entry.Kept)
            .OrderBy(entry => entry.At)
            .ThenBy(entry => entry.Id)
            .ToListAsync();
        var showsHealth = ShownBy(pupil, journal.Clock.Today) is not null;
        return entries.FindAll(entry =>
            entry.Source != EntrySource.PracticePlayer
            && (withPrivate || entry.Kind != PracticeStop.Remarks.Id || entry.Subject != PracticeStop.Private)
            && (showsHealth || HealthRecord.ComplaintOf(entry) is null)
        );
    }

    private static ArchivedEntry ArchivedOf(Entry entry) =>
        new(entry.Id, entry.Kind, entry.At, entry.Subject, entry.Summary)
        {
            Drill = entry.DrillId,
            Instrument = entry.InstrumentId,
            PlayedOn = entry.Stage,
            Source = entry.Source,
            Tempo = entry.Tempo,
            Result = entry.ResultText is { } result ? JsonNode.Parse(result)!.AsObject() : null,
            Came = entry.Came,
            Asked = entry.Asked,
            DoneAt = entry.DoneAt,
            DueAt = entry.DueAt,
            Approach = entry.Approach?.Text ?? "",
            Outcome = entry.Outcome,
            LevelDb = entry.LevelDb,
            SoundedSeconds = entry.SoundedSeconds,
            ElapsedSeconds = entry.ElapsedSeconds,
            PlayedSeconds = entry.PlayedSeconds,
            HighSeconds = entry.HighSeconds,
            BodyForm = entry.Payload?.Version,
            Body = entry.Payload is { } payload ? JsonNode.Parse(payload.Body) : null,
            Request = entry.Request is { } asked ? new ArchivedRequest(asked.Kind, asked.Version, JsonNode.Parse(asked.Body)!) : null,
            Rebuilt = entry.Rebuilt,
        };

    private static async Task<IReadOnlyList<ArchivedCard>> CardsAsync(BoccaDb db, int pupilId) =>
        [
            .. (await db.Recalls.AsNoTracking().Where(card => card.PupilId == pupilId).ToListAsync()).Select(card => new ArchivedCard(
                card.InstrumentId,
                card.Item,
                card.StabilityDays,
                card.Difficulty,
                card.SeenAt,
                card.DueAt,
                card.Times
            )),
        ];

    private static async Task<IReadOnlyList<(ArchivedPiece Told, byte[] File)>> PiecesAsync(BoccaDb db, Pupil pupil)
    {
        var pieces = new List<(ArchivedPiece, byte[])>();
        foreach (var played in await db.PiecesFor.AsNoTracking().Where(each => each.PupilId == pupil.Id).ToListAsync())
            if (await db.NewestAsync(played.PieceId) is { } version)
            {
                var title = await db.Pieces.Where(piece => piece.Id == played.PieceId).Select(piece => piece.Title).FirstAsync();
                var kind = version.File is [(byte)'P', (byte)'K', ..] ? "mxl" : "musicxml";
                pieces.Add(
                    (
                        new ArchivedPiece(title, $"{Scores}{played.PieceId}.{kind}", played.InstrumentId, played.Line)
                        {
                            FromConcert = played.FromConcert,
                            Octaves = played.Octaves,
                            Tempo = played.Tempo,
                            Choices = played.Choices,
                            Text = version.Text,
                        },
                        version.File
                    )
                );
            }

        return pieces;
    }

    private static object Row(Journal journal, Entry entry) =>
        new
        {
            Id = entry.Id,
            At = Moment(entry.At),
            Kind = journal.Stops.Kind(entry.Kind).Noun,
            What = journal.Stops.Kind(entry.Kind).Title(entry),
            Instrument = entry.InstrumentId,
            PlayedOn = entry.Stage,
            entry.Tempo,
            entry.Came,
            entry.Asked,
            entry.Outcome,
            entry.Summary,
            entry.SoundedSeconds,
            entry.PlayedSeconds,
        };

    private static async Task<IEnumerable<object>> FiguresAsync(BoccaDb db, List<Entry> entries)
    {
        var told = entries.Select(entry => entry.Id).ToHashSet();
        var pupil = entries.Count > 0 ? entries[0].PupilId : 0;
        return (await db.Figures.AsNoTracking().Where(figure => figure.PupilId == pupil).OrderBy(figure => figure.At).ToListAsync())
            .Where(figure => told.Contains(figure.EntryId))
            .Select(figure => new
            {
                Entry = figure.EntryId,
                At = Moment(figure.At),
                figure.Name,
                figure.Item,
                figure.Value,
                figure.Spread,
                Repeats = figure.Count,
            });
    }

    private static string Moment(DateTime at) => at.ToString("yyyy-MM-ddTHH:mm:ssZ", CultureInfo.InvariantCulture);

    private static async Task<byte[]> TableAsync(IEnumerable<object> rows)
    {
        await using var text = new StringWriter(CultureInfo.InvariantCulture);
        await using (var table = new TableWriter(text))
            await table.WriteRecordsAsync(rows);
        return Encoding.UTF8.GetBytes(text.ToString());
    }

    private static void Put(ZipArchive zip, string name, byte[] content)
    {
        using var entry = zip.CreateEntry(name).Open();
        entry.Write(content);
    }

    private static string Words(ArchivedPupil whole, bool withPrivate) =>
        $"""
            The record of {whole.Pupil.Name}, made by Bocca on {whole.Made:yyyy-MM-dd}.

            {Whole}     everything: the pupil, {whole.Entries.Count} entries of the record, cards, settings, choices in pieces.
                           JSON in UTF-8; all times are UTC.
            {EntryTable}     the entries as a table: when, what, how it went.
            {FigureTable}    the figures that were measured, by entry: what, of which note, value, spread, repeats.
            {Scores}        the scores of the pupil's pieces (MusicXML).

            The tables are comma-separated values in UTF-8 and open in any spreadsheet.
            {(whole.Pupil.Health is null
                ? "Reasons of health are not in it: no guardian's consent lets them be shown."
                : "Reasons of health are in it, under the guardian's consent that is noted.")}
            {(withPrivate ? "Remarks for the teacher alone are in it." : "Remarks for the teacher alone are not in it.")}
            No sound is in it: Bocca keeps none.

            To take the pupil into another Bocca: Desk, Add a pupil, "Bring a pupil in from a file", and choose this file as it is.
            The class and the lesson times stay behind; the pupil is a new one there.

            """.ReplaceLineEndings(
            "\r\n"
        );
}
