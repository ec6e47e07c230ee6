using System.Security.Cryptography;
using System.Text;
using System.Text.Json;
using System.Text.Json.Serialization;
using Bocca.Core.Fingering.Passage;
using Bocca.Core.Pieces;
using Bocca.Core.Pieces.Breathing;
using Bocca.Core.Pieces.Lines;
using Bocca.Web.Live;
using Bocca.Web.Record;
using Microsoft.Extensions.Caching.Memory;
using Microsoft.Extensions.Primitives;

namespace Bocca.Web.Pages.Pieces;

/// <summary>A line planned for a player, with the part to be drawn.</summary>
/// <param name="Plan">The plan.</param>
/// <param name="Document">The document as the player reads it.</param>
/// <param name="Drawn">The part to be drawn, its notes named by their places.</param>
public sealed record PlannedLine(PiecePlan Plan, Core.Score.ScoreDocument Document, string Drawn);

/// <summary>
/// Scores read and lines planned lately, each once, by what they are made of: however many look at a piece, it is worked out once. What is
/// large waits its turn with the takes (<see cref="HeavyWork"/>), and goes when nobody has looked at it for a while.
/// </summary>
public sealed class PiecePlans(HeavyWork heavy) : IDisposable
{
    /// <summary>A page shows so many notes of one line (ours; measured: see METHODS).</summary>
    public const int MostNotes = 4000;

    /// <summary>Bytes of scores, and notes of planned lines, that are kept at once; for so long after somebody looked (ours).</summary>
    private const long ScoreBytes = 6_000_000,
        PlannedNotes = 24_000;

    private const long MostOffers = 400;

    private static readonly TimeSpan Kept = TimeSpan.FromMinutes(3);

    /// <summary>Work of less than this many seconds of sound is done at once; what a byte and a note take, in seconds of sound.</summary>
    private const double Small = 5,
        SecondsOfByte = 1.0 / 20_000,
        SecondsOfNote = 1.0 / 150;

    private static readonly JsonSerializerOptions Whole = new() { NumberHandling = JsonNumberHandling.AllowNamedFloatingPointLiterals };
    private readonly MemoryCache _scores = new(new MemoryCacheOptions { SizeLimit = ScoreBytes });
    private readonly MemoryCache _offers = new(new MemoryCacheOptions { SizeLimit = MostOffers });
    private readonly MemoryCache _lines = new(new MemoryCacheOptions { SizeLimit = PlannedNotes });

    /// <summary>What is said of a line that a page cannot show.</summary>
    public static string TooLong(LineChoice line) =>
        $"{line.Name} has {line.Notes} notes, and a page shows {MostNotes} at most. Divide the score, or plan it with the command line.";

    /// <summary>A version read.</summary>
    /// <exception cref="BusyException">Too much is waiting already.</exception>
    public Task<PieceSource> SourceAsync(PieceVersion version) => ReadAsync(version.File, version.Hash);

    /// <summary>A file read that may be brought in.</summary>
    /// <exception cref="InvalidDataException">It is no score, or a page can show none of its lines.</exception>
    /// <exception cref="BusyException">Too much is waiting already.</exception>
    public async Task<PieceSource> ReadAsync(byte[] file)
    {
        var source = await ReadAsync(file, PieceLibrary.HashOf(file));
        var lines = LineChoice.Of(source.Score);
        return lines.Count == 0 || lines.Any(line => line.Notes <= MostNotes) ? source : throw new InvalidDataException(TooLong(lines[0]));
    }

    private Task<PieceSource> ReadAsync(byte[] file, string hash) =>
        OnceAsync(_scores, hash, file.Length, file.Length * SecondsOfByte, () => PieceSource.OfFile(file));

    /// <summary>The lines of a score as they suit a pupil.</summary>
    /// <exception cref="BusyException">Too much is waiting already.</exception>
    public async Task<IReadOnlyList<PartOffer>> OffersAsync(PieceVersion version, Pupil pupil)
    {
        var source = await SourceAsync(version);
        return await OnceAsync(
            _offers,
            $"{version.Hash} {pupil.InstrumentId} {pupil.ReadingId}",
            1,
            version.File.Length * SecondsOfByte,
            () => PartOffer.Of(source.Score, pupil.Instrument, pupil.Reading)
        );
    }

    /// <summary>A line planned.</summary>
    /// <param name="version">The version that was read.</param>
    /// <param name="choice">Which line of it.</param>
    /// <param name="reading">How it is read.</param>
    /// <param name="played">How it is given, and what the teacher settled.</param>
    /// <param name="player">Who fingers it.</param>
    /// <param name="breather">Who breathes it.</param>
    /// <param name="pupil">What the record says of the pupil.</param>
    /// <exception cref="ArgumentException">It cannot be played so, or a choice not be kept, or it is too long for a page.</exception>
    /// <exception cref="BusyException">Too much is waiting already.</exception>
    public async Task<PlannedLine> PlannedAsync(
        PieceVersion version,
        LineChoice choice,
        Core.Music.Reading reading,
        PieceFor played,
        PassagePlayer player,
        PieceBreather breather,
        StudyPupil pupil
    )
    {
        if (choice.Notes > MostNotes)
            throw new ArgumentException(TooLong(choice));
        var source = await SourceAsync(version);
        return await OnceAsync(
            _lines,
            KeyOf(version.Hash, reading.Id, played, player, breather, pupil),
            choice.Notes,
            choice.Notes * SecondsOfNote,
            () => Plan(source, choice, reading, played, player, breather, pupil)
        );
    }

    public void Dispose()
    {
        _scores.Dispose();
        _offers.Dispose();
        _lines.Dispose();
    }

    private static PlannedLine Plan(
        PieceSource source,
        LineChoice choice,
        Core.Music.Reading reading,
        PieceFor played,
        PassagePlayer player,
        PieceBreather breather,
        StudyPupil pupil
    )
    {
        var line = PieceLine.Of(source.Score, choice, reading, played.Tempo, played.FromConcert, played.Octaves);
        var choices = PieceChoices.Parse(played.Choices, player.Instrument.Slide is not null);
        var plan = PiecePlan.Of(line, player, breather, choices, pupil);
        // The whole score, or the part alone where it is written anew.
        var document =
            played.FromConcert || played.Octaves != 0
                ? source.Document.Transposed(choice.Part, played.FromConcert ? line.Reading : null, played.Octaves)
                : source.Document;
        return new PlannedLine(plan, document, document.Drawn(choice.Part));
    }

    /// <summary>
    /// Everything that a plan follows from, as one short text. What the record gives of player and pupil is taken whole, so that nothing
    /// which comes to it later is forgotten here.
    /// </summary>
    public static string KeyOf(
        string score,
        string reading,
        PieceFor played,
        PassagePlayer player,
        PieceBreather breather,
        StudyPupil pupil
    )
    {
        var whole = new
        {
            score,
            reading,
            played.Line,
            played.Tempo,
            played.FromConcert,
            played.Octaves,
            played.Choices,
            player.Instrument.Id,
            player.Weights,
            player.Hand,
            Pins = player.Hand.Pins.Select(pin => $"{pin.Key} {pin.Value}"),
            player.Passport,
            player.Costs,
            player.ThirdIsEqual,
            Slow = player.SlowChanges.Select(change => $"{change.Key.From} {change.Key.To} {change.Value:R}"),
            breather,
            pupil,
        };
        return Convert.ToHexString(SHA256.HashData(Encoding.UTF8.GetBytes(JsonSerializer.Serialize(whole, Whole))));
    }

    /// <summary>What is kept under a key, or made: by the first who asks, in its turn where it is large; the others wait for it.</summary>
    private Task<T> OnceAsync<T>(MemoryCache kept, string key, long size, double seconds, Func<T> make)
    {
        lock (kept)
        {
            if (kept.TryGetValue(key, out Task<T>? known) && known is { IsFaulted: false, IsCanceled: false })
                return known;
            var made = seconds < Small ? Task.Run(make) : heavy.RunAsync(seconds, () => Task.Run(make), CancellationToken.None);
            // What is larger than all that may be kept is made for each who asks. It goes by a timer, not when somebody next looks.
            var time = new CancellationTokenSource(Kept);
            var options = new MemoryCacheEntryOptions { Size = size };
            options.AddExpirationToken(new CancellationChangeToken(time.Token));
            options.RegisterPostEvictionCallback(
                (_, _, _, _) =>
                {
                    time.Dispose();
                    if (seconds >= Small)
                        heavy.GiveBackSoon();
                }
            );
            return kept.Set(key, made, options);
        }
    }
}
