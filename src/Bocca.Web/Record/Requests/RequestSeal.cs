using System.IO.Compression;
using System.Security.Cryptography;
using Microsoft.AspNetCore.DataProtection;
using Microsoft.AspNetCore.WebUtilities;

namespace Bocca.Web.Record.Requests;

/// <summary>A request as it went out to a page.</summary>
/// <param name="Request">What is asked.</param>
/// <param name="PupilId">Who is asked; null for nobody yet.</param>
/// <param name="Made">When it was made.</param>
public sealed record IssuedRequest(TakeRequest Request, int? PupilId, DateTime Made);

/// <summary>
/// Gives a page its request as a sealed text, and reads it when it comes back with the sound. The page can keep it for days without the
/// network, over a restart and an update; nobody else can make or change one.
/// </summary>
public sealed class RequestSeal(IDataProtectionProvider protection)
{
    /// <summary>A request is good for so long (days; ours): a day's work that waited over a holiday without network.</summary>
    public const int GoodForDays = 14;

    /// <summary>The longest text of one, letters (ours).</summary>
    private const int MostLetters = 200_000;

    /// <summary>The most that one unpacks to, bytes (ours).</summary>
    private const int MostBytes = 1 << 20;

    private readonly IDataProtector _protector = protection.CreateProtector("take-request");

    public string Seal(IssuedRequest issued)
    {
        using var packed = new MemoryStream();
        using (var brotli = new BrotliStream(packed, CompressionLevel.Fastest, leaveOpen: true))
        using (var writer = new BinaryWriter(brotli))
        {
            writer.Write(issued.PupilId ?? 0);
            writer.Write(issued.Made.ToUniversalTime().Ticks);
            writer.Write(issued.Request.Kind);
            writer.Write(issued.Request.Version);
            writer.Write(issued.Request.Body);
        }

        return WebEncoders.Base64UrlEncode(_protector.Protect(packed.ToArray()));
    }

    /// <summary>Reads what a page sends back.</summary>
    /// <param name="text">The sealed text.</param>
    /// <param name="pupilId">Whose take it comes with.</param>
    /// <param name="now">The moment, for how long it is good.</param>
    /// <returns>The request; null where it is too old.</returns>
    /// <exception cref="ArgumentException">It is none of this room's, or somebody else's.</exception>
    public IssuedRequest? Open(string text, int pupilId, DateTime now)
    {
        var issued = Unpacked(text);
        if (issued.PupilId is { } whose && whose != pupilId)
            throw new ArgumentException("What this take was asked to be belongs to somebody else. Press Start once more.");
        return now - issued.Made > TimeSpan.FromDays(GoodForDays) ? null : issued;
    }

    private IssuedRequest Unpacked(string text)
    {
        try
        {
            if (text.Length > MostLetters)
                throw new FormatException();
            using var packed = new MemoryStream(_protector.Unprotect(WebEncoders.Base64UrlDecode(text)));
            using var brotli = new BrotliStream(packed, CompressionMode.Decompress);
            var bytes = new byte[MostBytes];
            var length = brotli.ReadAtLeast(bytes, MostBytes, throwOnEndOfStream: false);
            using var reader = new BinaryReader(new MemoryStream(bytes, 0, length));
            var (pupil, made) = (reader.ReadInt32(), new DateTime(reader.ReadInt64(), DateTimeKind.Utc));
            var request = TakeRequest.Of(reader.ReadString(), reader.ReadInt32(), reader.ReadString());
            return new IssuedRequest(request, pupil == 0 ? null : pupil, made);
        }
        catch (Exception problem) when (problem is FormatException or CryptographicException or IOException)
        {
            throw new ArgumentException("What this take was asked to be did not arrive whole. Press Start once more.");
        }
    }
}
