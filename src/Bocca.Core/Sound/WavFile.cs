using System.Buffers.Binary;

namespace Bocca.Core.Sound;

/// <summary>
/// Reads and writes RIFF WAVE files: PCM of 8, 16, 24 or 32 bits and 32-bit float, one or two channels,
/// 8 to 192 kHz, at most 60 MB and 10 minutes.
/// </summary>
public static class WavFile
{
    /// <summary>The largest file that is read, in bytes.</summary>
    public const long MaximumBytes = 60_000_000;

    /// <summary>What is said of a larger one.</summary>
    public const string TooLarge = "That recording is larger than 60 MB. Cut it into takes of at most 10 minutes.";

    /// <summary>The longest sound that is read, in seconds.</summary>
    public const double MaximumSeconds = 600;

    /// <summary>The longest take that is begun, seconds: its count-in and its end are recorded with it.</summary>
    public const double MaximumTakeSeconds = MaximumSeconds - 10;

    private const int MaximumCues = 200;

    /// <summary>How much of a file is decoded at a time, in bytes: whole samples of every format.</summary>
    private const int BlockBytes = 96_000;

    private const int LargestFormat = 64;
    private const int LargestCues = 4 + (24 * MaximumCues);
    private const int Pcm = 1;
    private const int Float = 3;
    private const int Extensible = 0xFFFE;

    /// <summary>
    /// Reads a WAV from a stream; two channels are averaged. Of a stream that can seek only the samples are held, beside one block of
    /// bytes.
    /// </summary>
    /// <param name="stream">The file.</param>
    /// <param name="name">What to call it in messages.</param>
    /// <exception cref="InvalidDataException">It is no such file, or outside the bounds; the message says which and how.</exception>
    public static MonoSound Read(Stream stream, string name)
    {
        using var held = stream.CanSeek ? null : Held(stream, name);
        var file = held ?? stream;
        if (file.Length - file.Position > MaximumBytes)
            throw Large(name);
        return ReadChunks(file, name);
    }

    /// <summary>Reads a WAV from memory; two channels are averaged.</summary>
    /// <inheritdoc cref="Read(Stream, string)" path="/exception"/>
    public static MonoSound Read(byte[] file, string name) => Read(new MemoryStream(file, writable: false), name);

    private static MemoryStream Held(Stream stream, string name)
    {
        var copy = new MemoryStream();
        var buffer = new byte[BlockBytes];
        int read;
        while ((read = stream.Read(buffer)) > 0)
        {
            copy.Write(buffer, 0, read);
            if (copy.Length > MaximumBytes)
                throw Large(name);
        }

        copy.Position = 0;
        return copy;
    }

    private static InvalidDataException Large(string name) => new($"{name}: larger than 60 MB. Cut it into takes of at most 10 minutes.");

    private static MonoSound ReadChunks(Stream file, string name)
    {
        if (file.Length == file.Position)
            throw new InvalidDataException($"{name}: the file is empty.");
        Span<byte> head = stackalloc byte[12];
        if (
            file.ReadAtLeast(head, 12, throwOnEndOfStream: false) < 12
            || !head[..4].SequenceEqual("RIFF"u8)
            || !head[8..].SequenceEqual("WAVE"u8)
        )
            throw new InvalidDataException($"{name}: not a WAV file.");
        Format? format = null;
        MonoSound? sound = null;
        List<uint> cues = [];
        while (file.ReadAtLeast(head[..8], 8, throwOnEndOfStream: false) == 8)
        {
            long size = BinaryPrimitives.ReadUInt32LittleEndian(head[4..]);
            var (left, next) = (file.Length - file.Position, file.Position + size + (size & 1));
            if (head[..4].SequenceEqual("data"u8))
            {
                if (format is null)
                    throw new InvalidDataException($"{name}: the sound comes before its description; the file is damaged.");
                if (size > left)
                    throw new InvalidDataException($"{name}: cut short: its header promises {size} bytes of sound, {left} are there.");
                sound = Decode(file, size, format.Value, name);
            }
            else if (size > left)
            {
                // What follows the sound is only about it, so a damaged end costs nothing but itself.
                if (sound is not null)
                    break;
                throw new InvalidDataException($"{name}: cut short: a part of it runs past the end of the file.");
            }
            else if (head[..4].SequenceEqual("fmt "u8))
            {
                format = ReadFormat(Body(file, size, LargestFormat), name);
            }
            else if (head[..4].SequenceEqual("cue "u8))
            {
                cues = ReadCues(Body(file, size, LargestCues));
            }

            file.Position = Math.Min(next, file.Length);
        }

        if (sound is null)
            throw new InvalidDataException($"{name}: a WAV file without any sound in it.");
        var inside = cues.Where(cue => cue < sound.Samples.Length).Order().Select(cue => (double)cue / sound.SampleRate).ToList();
        return inside.Count == 0 ? sound : sound with { CueSeconds = inside };
    }

    /// <summary>The beginning of a chunk, as much of it as is ever looked at.</summary>
    private static byte[] Body(Stream file, long size, int most)
    {
        var body = new byte[Math.Min(size, most)];
        file.ReadExactly(body);
        return body;
    }

    /// <summary>
    /// Writes 16-bit PCM with one channel; samples beyond full scale are held at it. Cues go into a cue chunk, as
    /// sound editors write their markers.
    /// </summary>
    public static void Write(Stream stream, MonoSound sound)
    {
        var cues = sound.CueSeconds ?? [];
        var soundEnd = 44 + (2 * sound.Samples.Length);
        var data = new byte[soundEnd + (cues.Count == 0 ? 0 : 12 + (24 * cues.Count))];
        var span = data.AsSpan();
        "RIFF"u8.CopyTo(span);
        BinaryPrimitives.WriteInt32LittleEndian(span[4..], data.Length - 8);
        "WAVEfmt "u8.CopyTo(span[8..]);
        BinaryPrimitives.WriteInt32LittleEndian(span[16..], 16);
        BinaryPrimitives.WriteInt16LittleEndian(span[20..], Pcm);
        BinaryPrimitives.WriteInt16LittleEndian(span[22..], 1);
        BinaryPrimitives.WriteInt32LittleEndian(span[24..], sound.SampleRate);
        BinaryPrimitives.WriteInt32LittleEndian(span[28..], sound.SampleRate * 2);
        BinaryPrimitives.WriteInt16LittleEndian(span[32..], 2);
        BinaryPrimitives.WriteInt16LittleEndian(span[34..], 16);
        "data"u8.CopyTo(span[36..]);
        BinaryPrimitives.WriteInt32LittleEndian(span[40..], soundEnd - 44);
        for (var i = 0; i < sound.Samples.Length; i++)
            BinaryPrimitives.WriteInt16LittleEndian(
                span[(44 + (2 * i))..],
                (short)Math.Round(Math.Clamp(sound.Samples[i], -1f, 1f) * 32767)
            );
        if (cues.Count > 0)
            WriteCues(span[soundEnd..], cues, sound.SampleRate);
        stream.Write(data);
    }

    private static void WriteCues(Span<byte> chunk, IReadOnlyList<double> cues, int sampleRate)
    {
        "cue "u8.CopyTo(chunk);
        BinaryPrimitives.WriteInt32LittleEndian(chunk[4..], 4 + (24 * cues.Count));
        BinaryPrimitives.WriteInt32LittleEndian(chunk[8..], cues.Count);
        for (var i = 0; i < cues.Count; i++)
        {
            var point = chunk[(12 + (24 * i))..];
            var sample = (int)Math.Round(cues[i] * sampleRate);
            BinaryPrimitives.WriteInt32LittleEndian(point, i + 1);
            BinaryPrimitives.WriteInt32LittleEndian(point[4..], sample);
            "data"u8.CopyTo(point[8..]);
            BinaryPrimitives.WriteInt32LittleEndian(point[20..], sample);
        }
    }

    private static List<uint> ReadCues(ReadOnlySpan<byte> body)
    {
        var cues = new List<uint>();
        for (var at = 4; at + 24 <= body.Length && cues.Count < MaximumCues; at += 24)
            cues.Add(BinaryPrimitives.ReadUInt32LittleEndian(body[(at + 20)..]));
        return cues;
    }

    private static Format ReadFormat(ReadOnlySpan<byte> body, string name)
    {
        if (body.Length < 16)
            throw new InvalidDataException($"{name}: its description is too short; the file is damaged.");
        var format = new Format(
            BinaryPrimitives.ReadUInt16LittleEndian(body),
            BinaryPrimitives.ReadUInt16LittleEndian(body[2..]),
            BinaryPrimitives.ReadUInt32LittleEndian(body[4..]),
            BinaryPrimitives.ReadUInt16LittleEndian(body[12..]),
            BinaryPrimitives.ReadUInt16LittleEndian(body[14..])
        );
        if (format.Coding == Extensible && body.Length >= 26)
            format = format with { Coding = BinaryPrimitives.ReadUInt16LittleEndian(body[24..]) };
        if (format.Channels is not (1 or 2))
            throw new InvalidDataException($"{name}: {format.Channels} channels; Bocca reads one or two.");
        if (format.SampleRate is < 8000 or > 192_000)
            throw new InvalidDataException($"{name}: {format.SampleRate} samples a second; Bocca reads 8000 to 192000.");
        if (format is not ({ Coding: Pcm, Bits: 8 or 16 or 24 or 32 } or { Coding: Float, Bits: 32 }))
            throw new InvalidDataException(
                $"{name}: coding {format.Coding} with {format.Bits} bits; Bocca reads PCM of 8, 16, 24 or 32 bits and 32-bit float."
            );
        if (format.BlockBytes != format.Channels * format.Bits / 8)
            throw new InvalidDataException(
                $"{name}: its header contradicts itself: {format.Channels} channels of {format.Bits} bits are not {format.BlockBytes} "
                    + $"bytes."
            );
        return format;
    }

    private static MonoSound Decode(Stream data, long size, Format format, string name)
    {
        var count = (int)(size / format.BlockBytes);
        if (count == 0)
            throw new InvalidDataException($"{name}: a WAV file without any sound in it.");
        if (count > MaximumSeconds * format.SampleRate)
            throw new InvalidDataException(
                $"{name}: {count / (double)format.SampleRate / 60:0.#} minutes long; a take has at most 10 minutes."
            );
        var samples = new float[count];
        var (block, inBlock) = (new byte[BlockBytes], BlockBytes / format.BlockBytes);
        for (var at = 0; at < count; at += inBlock)
        {
            var some = Math.Min(inBlock, count - at);
            data.ReadExactly(block, 0, some * format.BlockBytes);
            Decode(block, format, samples.AsSpan(at, some));
        }

        var broken = samples.AsSpan().IndexOfAnyExceptInRange(float.MinValue, float.MaxValue);
        if (broken >= 0)
            throw new InvalidDataException($"{name}: sample {broken} is not a number; the file is damaged.");
        return new MonoSound(samples, (int)format.SampleRate);
    }

    private static void Decode(ReadOnlySpan<byte> data, Format format, Span<float> samples)
    {
        var bytes = format.Bits / 8;
        for (var i = 0; i < samples.Length; i++)
        {
            var frame = data.Slice(i * format.BlockBytes, format.BlockBytes);
            var sum = 0f;
            for (var channel = 0; channel < format.Channels; channel++)
                sum += Sample(frame[(channel * bytes)..], format);
            samples[i] = sum / format.Channels;
        }
    }

    private static float Sample(ReadOnlySpan<byte> at, Format format) =>
        (format.Coding, format.Bits) switch
        {
            (Float, _) => BinaryPrimitives.ReadSingleLittleEndian(at),
            (_, 8) => (at[0] - 128) / 128f,
            (_, 16) => BinaryPrimitives.ReadInt16LittleEndian(at) / 32768f,
            (_, 24) => ((at[0] << 8 | at[1] << 16 | at[2] << 24) >> 8) / 8388608f,
            _ => BinaryPrimitives.ReadInt32LittleEndian(at) / 2147483648f,
        };

    private readonly record struct Format(int Coding, int Channels, uint SampleRate, int BlockBytes, int Bits);
}
