using System.ComponentModel.DataAnnotations;
using System.IO.Compression;
using Bocca.Core;
using Bocca.Core.Instruments;
using Bocca.Core.Pieces;
using Bocca.Core.Score;
using Bocca.Core.Teaching;
using Bocca.Web.Pages.Pieces;
using Bocca.Web.Pages.Practice;
using Bocca.Web.Pages.Pupils;
using Bocca.Web.Record.Requests;
using Bocca.Web.Record.Shapes;
using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Record.Archive;

/// <summary>A pupil who was brought in.</summary>
/// <param name="Pupil">The pupil, new in this room.</param>
/// <param name="Entries">How many entries of the record came.</param>
/// <param name="LeftOut">What could not be read and did not come, a sentence each.</param>
public sealed record BroughtPupil(Pupil Pupil, int Entries, IReadOnlyList<string> LeftOut);

/// <summary>
/// Takes a pupil in from an archive: as a new pupil of this room, in one go or not at all. Every entry is read as its pages will read it
/// before it is kept; what cannot be read is left out and told.
/// </summary>
public sealed class PupilImport(Journal journal, PiecePlans plans)
{
    /// <summary>Bytes of an archive, and of its <c>pupil.json</c> unpacked (ours).</summary>
    public const int MostBytes = 64 << 20,
        MostUnpacked = 256 << 20;

    /// <summary>What is said of a larger one.</summary>
    public const string TooLarge = "A pupil's file has at most 64 MB.";

    /// <summary>Files, and rows of each kind, that an archive holds at most (ours).</summary>
    private const int MostFiles = 1000,
        MostRows = 100_000,
        LeftOutTold = 5;

    private static readonly DateTime Earliest = new(1970, 1, 2, 0, 0, 0, DateTimeKind.Utc);

    private readonly List<string> _leftOut = [];

    /// <summary>Takes the pupil in.</summary>
    /// <exception cref="InvalidDataException">It is no archive of a pupil; the message says why, and nothing was kept.</exception>
    public async Task<BroughtPupil> BringInAsync(byte[] file)
    {
        using var zip = Opened(file);
        var whole = ArchivedPupil.Read(Taken(zip, PupilArchive.Whole, MostUnpacked));
        if (whole.Entries.Count > MostRows || whole.Cards.Count > MostRows || whole.Changes.Count > MostRows)
            throw new InvalidDataException($"The file holds more than {MostRows} entries, cards or changes.");
        var (pupil, entries) = (
            PupilOf(whole.Pupil),
            whole.Entries.Select(told => (told.Id, Entry: Try(() => EntryOf(told), $"{told.Kind} of {told.At:d MMM yyyy}"))).ToList()
        );
        var db = journal.Db;
        await using var together = await db.Database.BeginTransactionAsync();
        db.Pupils.Add(pupil);
        await db.SaveChangesAsync();
        foreach (var (told, entry) in whole.Entries.Zip(entries, (told, read) => (told, read.Entry)))
            if (entry is not null)
            {
                entry.PupilId = pupil.Id;
                await journal.TakeInAsync(entry, told.Approach);
            }

        AddRows(whole, pupil.Id);
        await db.SaveChangesAsync();
        var ids = entries
            .Where(each => each.Entry is not null)
            .DistinctBy(each => each.Id)
            .ToDictionary(each => each.Id, each => each.Entry!.Id);
        foreach (var step in entries.Select(each => each.Entry).OfType<Entry>().Where(entry => entry.Kind == Steps.Kind.Id))
            Steps.Follow(step, ids);
        await db.SaveChangesAsync();
        foreach (var piece in whole.Pieces.Take(MostFiles))
            await BringPieceAsync(zip, piece, pupil.Id);
        await together.CommitAsync();
        IEnumerable<string> more = _leftOut.Count > LeftOutTold ? [$"and {_leftOut.Count - LeftOutTold} more"] : [];
        return new BroughtPupil(pupil, entries.Count(each => each.Entry is not null), [.. _leftOut.Take(LeftOutTold), .. more]);
    }

    private static ZipArchive Opened(byte[] file)
    {
        try
        {
            var zip = new ZipArchive(new MemoryStream(file), ZipArchiveMode.Read);
            return zip.Entries.Count <= MostFiles && zip.GetEntry(PupilArchive.Whole) is not null
                ? zip
                : throw new InvalidDataException($"This is no pupil's file: it holds no {PupilArchive.Whole}, or too many others.");
        }
        catch (InvalidDataException problem) when (problem.Source == "System.IO.Compression")
        {
            throw new InvalidDataException("This is no pupil's file, or it is damaged.", problem);
        }
    }

    /// <summary>Unpacks a file byte by byte up to a bound, whatever it says of its own size.</summary>
    private static byte[] Taken(ZipArchive zip, string name, int most)
    {
        var entry = zip.GetEntry(name) ?? throw new InvalidDataException($"'{OneLine.Of(name)}' is not in the file.");
        if (entry.IsEncrypted)
            throw new InvalidDataException($"'{OneLine.Of(name)}' is encrypted: save the file without a password.");
        using var stream = entry.Open();
        using var taken = new MemoryStream();
        var block = new byte[1 << 16];
        for (int read; (read = stream.Read(block)) > 0; )
        {
            if (taken.Length + read > most)
                throw new InvalidDataException($"'{OneLine.Of(name)}' is larger than {most >> 20} MB unpacked.");
            taken.Write(block, 0, read);
        }

        return taken.ToArray();
    }

    /// <summary>What is read, or nothing and a sentence on why.</summary>
    private T? Try<T>(Func<T> read, string what)
        where T : class
    {
        try
        {
            return read();
        }
        // Whatever goes wrong in reading it here would go wrong on its page.
        catch (Exception problem)
            when (problem is not (OutOfMemoryException or Microsoft.Data.Sqlite.SqliteException or OperationCanceledException))
        {
            _leftOut.Add($"{OneLine.Of(what)}: {OneLine.Of(problem)}");
            return null;
        }
    }

    /// <summary>The pupil as the form for one would take it.</summary>
    private Pupil PupilOf(ArchivedFacts facts)
    {
        var today = journal.Clock.Today;
        var instrument =
            Catalogue.TryGet(facts.Instrument)
            ?? throw new InvalidDataException($"There is no instrument '{OneLine.Of(facts.Instrument)}' here.");
        var reading = instrument.Readings.FirstOrDefault(each => each.Id == facts.Reading) ?? instrument.Readings[0];
        var consent =
            facts.Health is { } told && told.ConsentBy.Trim() != "" && today >= told.ConsentOn && today <= told.ConsentUntil ? told : null;
        var form = new PupilForm
        {
            Name = facts.Name,
            Instrument = instrument.Id,
            Reading = reading.Id,
            Preset = facts.Preset,
            BornIn = facts.BornIn,
            EasyBreaths = facts.EasyBreaths || (facts.Health is { Reasons.Count: > 0 } && consent is null),
            Reasons = [.. consent?.Reasons ?? []],
            Mouth = [.. consent?.Mouth ?? []],
            ConsentBy = consent?.ConsentBy,
            ConsentOn = consent?.ConsentOn,
            ConsentUntil = consent?.ConsentUntil,
            ConsentFor = consent?.ConsentFor,
            ConsentSaysWhy = consent is not null,
            DoctorAgrees = facts.DoctorAgrees,
            ArmCm = facts.ArmCm,
            HighestValve = facts.HighestValve,
            FurthestPosition = facts.FurthestPosition,
            Stage = facts.Stage,
            Started = facts.Started,
            Remark = facts.Remark,
        };
        Fitting(form);
        foreach (var (_, why) in form.Problems(today))
            throw new InvalidDataException(why);
        Settled(() => Approach.Points(facts.Points), "points of the approach");
        Settled(() => StoredOwn.Read(facts.Own), "settings");
        var pupil = new Pupil
        {
            Name = form.Name!,
            InstrumentId = form.Instrument!,
            ReadingId = reading.Id,
            Points = facts.Points,
            Own = facts.Own,
            HasStand = facts.HasStand,
            Invented = facts.Invented,
        };
        form.WriteTo(pupil);
        return Fitting(pupil);
    }

    private static void Settled(Func<object> read, string what)
    {
        try
        {
            read();
        }
        catch (Exception problem) when (problem is FormatException or ArgumentException or System.Text.Json.JsonException)
        {
            throw new InvalidDataException($"The pupil's {what} cannot be read: {problem.Message}", problem);
        }
    }

    /// <summary>An entry, read as lists and its page will read it.</summary>
    private Entry EntryOf(ArchivedEntry told)
    {
        var kind = journal.Stops.Kind(told.Kind);
        var payload = told.Body is { } body ? new EntryPayload { Version = told.BodyForm ?? 1, Body = body.ToJsonString() } : null;
        var entry = new Entry
        {
            Kind = told.Kind,
            At = Possible(told.At),
            Subject = told.Subject,
            Summary = told.Summary,
            DrillId = told.Drill,
            InstrumentId = told.Instrument,
            Stage = told.PlayedOn,
            Source = told.Source,
            Tempo = Possible(told.Tempo),
            Came = told.Came,
            Asked = told.Asked,
            // A lesson that was on there is none here.
            DoneAt =
                told.DoneAt is { } done ? Possible(done)
                : told.Kind == PracticeStop.Lessons.Id ? Possible(told.At)
                : null,
            DueAt = told.DueAt,
            Outcome = told.Outcome,
            LevelDb = Possible(told.LevelDb),
            SoundedSeconds = Possible(told.SoundedSeconds),
            ElapsedSeconds = Possible(told.ElapsedSeconds),
            PlayedSeconds = Possible(told.PlayedSeconds),
            HighSeconds = Possible(told.HighSeconds),
            Kept = true,
            Payload = kind.Checked(payload),
            Request = told.Request is { } asked ? RequestOf(asked) : null,
            Rebuilt = told.Rebuilt,
        };
        entry.Result =
            told.Result is { } result ? EntryResult.Parse(result.ToJsonString())
            : Possible(told.Level) is { } level && kind.OfOlderLevel is { } meant ? meant(level)
            : EntryResult.None;
        if (told.Approach != "")
            Approach.Parse(told.Approach);
        if (told.Instrument is { } id && Catalogue.TryGet(id) is null)
            throw new InvalidDataException($"There is no instrument '{OneLine.Of(id)}' here.");
        if (told.Source == EntrySource.PracticePlayer)
            throw new InvalidDataException("It was played by the practice player.");
        // What a list and its page ask of it.
        _ = $"{kind.Title(entry)}{kind.Opens?.Invoke(entry)}{kind.VerdictOf(entry)}";
        Journal.AddFigures(kind, entry);
        if (entry.Figures.Any(figure => !double.IsFinite(figure.Value) || !double.IsFinite(figure.Spread)))
            throw new InvalidDataException($"A figure of a {kind.Noun} is none.");
        entry.Figures.ForEach(figure => Fitting(figure));
        return Fitting(entry);
    }

    private TakeRequest RequestOf(ArchivedRequest told) =>
        (
            journal.Stops.All.SelectMany(stop => stop.Requests).FirstOrDefault(kind => kind.Id == told.Kind)
            ?? throw new InvalidDataException($"There is no request '{OneLine.Of(told.Kind)}' here.")
        ).Checked(TakeRequest.Of(told.Kind, told.Form, told.Body.ToJsonString()));

    private void AddRows(ArchivedPupil whole, int pupilId)
    {
        Add(whole.Cards.DistinctBy(card => (card.Of, card.Item)), told => CardOf(told, pupilId), "card");
        Add(whole.Pins.DistinctBy(pin => (pin.Instrument, pin.Midi)), told => PinOf(told, pupilId), "pinned fingering");
        Add(whole.FirstNotes.DistinctBy(order => order.Instrument), told => OrderOf(told, pupilId), "first notes");
        Add(whole.Changes, told => ChangeOf(told, pupilId), "setting");
    }

    private void Add<TTold, TRow>(IEnumerable<TTold> told, Func<TTold, TRow> read, string what)
        where TRow : class
    {
        foreach (var each in told)
            if (Try(() => Fitting(read(each)), what) is { } row)
                journal.Db.Add(row);
    }

    private RecallCard CardOf(ArchivedCard told, int pupilId) =>
        new()
        {
            PupilId = pupilId,
            InstrumentId = told.Of,
            Item = told.Item,
            StabilityDays = Possible(told.StabilityDays)!.Value,
            Difficulty = Possible(told.Difficulty)!.Value,
            SeenAt = Possible(told.SeenAt),
            DueAt = told.DueAt,
            Times = told.Times,
        };

    private SettingChange ChangeOf(ArchivedChange told, int pupilId) =>
        new()
        {
            PupilId = pupilId,
            Path = told.Path,
            Before = told.Before,
            After = told.After,
            At = Possible(told.At),
        };

    private NotePin PinOf(ArchivedPin told, int pupilId)
    {
        var instrument = Catalogue.Get(told.Instrument);
        if (instrument.Tubes.All(tube => $"{tube.Setting}" != told.Setting))
            throw new InvalidDataException($"The {instrument.Name} has no setting '{OneLine.Of(told.Setting)}'.");
        return new NotePin
        {
            PupilId = pupilId,
            InstrumentId = told.Instrument,
            Midi = told.Midi is >= 0 and <= 127 ? told.Midi : throw new InvalidDataException($"There is no note {told.Midi}."),
            Setting = told.Setting,
            At = Possible(told.At),
        };
    }

    private static FirstNoteOrder OrderOf(ArchivedFirstNotes told, int pupilId)
    {
        var order = new FirstNoteOrder
        {
            PupilId = pupilId,
            InstrumentId = Catalogue.Get(told.Instrument).Id,
            Notes = told.Notes,
        };
        return order.Sounding.Count is > 0 and <= FirstNoteOrder.MostNotes
            ? order
            : throw new InvalidDataException("An order of first notes has a few notes.");
    }

    /// <summary>Brings a piece's score into the library where it is not there, and settles it for the pupil.</summary>
    private async Task BringPieceAsync(ZipArchive zip, ArchivedPiece told, int pupilId)
    {
        try
        {
            var file = Taken(zip, told.File, MusicXmlReader.MostBytes);
            var came = await journal.BringInAsync(await plans.ReadAsync(file), file, Path.GetFileName(told.File), told.Text);
            if (await journal.Db.PiecesFor.AnyAsync(each => each.PupilId == pupilId && each.PieceId == came.Piece.Id))
                return;
            var played = new PieceFor
            {
                PupilId = pupilId,
                PieceId = came.Piece.Id,
                InstrumentId = Catalogue.Get(told.Instrument).Id,
                Line = told.Line,
                FromConcert = told.FromConcert,
                Octaves = told.Octaves is >= -3 and <= 3 ? told.Octaves : 0,
                Tempo = told.Tempo is >= 20 and <= 300 ? told.Tempo : null,
                Choices = $"{PieceChoices.Parse(told.Choices, Catalogue.Get(told.Instrument).Slide is not null)}",
                At = journal.Clock.Now,
            };
            journal.Db.PiecesFor.Add(Fitting(played));
            await journal.Db.SaveChangesAsync();
        }
        catch (Exception problem) when (problem is InvalidDataException or ArgumentException or FormatException or KeyNotFoundException)
        {
            _leftOut.Add($"{OneLine.Of(told.Title)}: {OneLine.Of(problem)}");
        }
    }

    /// <summary>A row whose texts fit their columns.</summary>
    private static T Fitting<T>(T row)
        where T : class
    {
        var wrong = new List<ValidationResult>();
        return Validator.TryValidateObject(row, new ValidationContext(row), wrong, validateAllProperties: true)
            ? row
            : throw new InvalidDataException($"{wrong[0].ErrorMessage}");
    }

    private DateTime Possible(DateTime at) =>
        at >= Earliest && at <= journal.Clock.Now.AddDays(1)
            ? at.ToUniversalTime()
            : throw new InvalidDataException($"Something is said to have been at {at:yyyy-MM-dd}.");

    private static double? Possible(double? number) =>
        number is null || (double.IsFinite(number.Value) && Math.Abs(number.Value) < 1e9)
            ? number
            : throw new InvalidDataException("A number is none.");
}
