using System.Buffers.Binary;
using Bocca.Core.Sound;
using CsCheck;

namespace Bocca.Core.Tests.Sound;

public sealed class WavFileTests
{
    [Fact]
    public void Reads_what_it_writes_with_its_marks()
    {
        var sound = new MonoSound([0, 0.5f, -0.5f, 0.25f, -1, 1, 0, 0], 8000, [0.0005]);
        using var file = new MemoryStream();
        WavFile.Write(file, sound);
        var read = WavFile.Read(file.ToArray(), "a.wav");
        Assert.Equal(sound.Samples, read.Samples, (a, b) => Math.Abs(a - b) < 1e-4);
        Assert.Equal([0.0005], read.CueSeconds!);
    }

    // The layout of every coding is published: Multimedia Programming Interface and Data Specifications 1.0 (1991).
    [Theory]
    [InlineData(1, 8)]
    [InlineData(1, 16)]
    [InlineData(1, 24)]
    [InlineData(1, 32)]
    [InlineData(3, 32)]
    public void Reads_every_coding_and_averages_two_channels(int coding, int bits)
    {
        byte[] Half(int sign) =>
            (coding, bits) switch
            {
                (3, _) => BitConverter.GetBytes(sign * 0.5f),
                (_, 8) => [(byte)(128 + (sign * 64))],
                (_, 16) => BitConverter.GetBytes((short)(sign * 16384)),
                (_, 24) => BitConverter.GetBytes(sign * 4194304)[..3],
                _ => BitConverter.GetBytes(sign * 1073741824),
            };
        var read = WavFile.Read(Wav(coding, 2, 44100, bits, [.. Half(1), .. Half(1), .. Half(-1), .. Half(1)]), "b.wav");
        Assert.Equal([0.5f, 0f], read.Samples, (a, b) => Math.Abs(a - b) < 1e-6);
    }

    public static TheoryData<string, byte[]> Bad =>
        new()
        {
            { "empty", [] },
            { "not a WAV", "This is no sound at all, however long it goes on."u8.ToArray() },
            { "96 channels", Wav(1, 96, 44100, 16, new byte[192]) },
            { "samples a second", Wav(1, 1, 4000, 16, new byte[200]) },
            { "coding 2", Wav(2, 1, 44100, 16, new byte[200]) },
            { "without any sound", Wav(1, 1, 44100, 16, []) },
            { "cut short", Wav(1, 1, 44100, 16, new byte[200])[..100] },
            { "contradicts itself", Patched(32, 7) },
            { "minutes long", Wav(1, 1, 8000, 8, new byte[8000 * 660]) },
        };

    [Theory]
    [MemberData(nameof(Bad), DisableDiscoveryEnumeration = true)]
    public void Refuses_in_one_sentence_that_names_the_file(string expected, byte[] file)
    {
        var refused = Assert.Throws<InvalidDataException>(() => WavFile.Read(file, "take.wav"));
        Assert.StartsWith("take.wav: ", refused.Message);
        Assert.DoesNotContain('\n', refused.Message);
        Assert.Contains(expected, refused.Message);
    }

    [Fact]
    public void Refuses_a_file_that_never_ends_without_reading_it_all()
    {
        using var endless = new EndlessStream();
        Assert.Contains("60 MB", Assert.Throws<InvalidDataException>(() => WavFile.Read(endless, "long.wav")).Message);
        Assert.InRange(endless.Given, WavFile.MaximumBytes, WavFile.MaximumBytes + 1_000_000);
    }

    [Fact]
    public void No_damage_does_more_than_be_refused()
    {
        var whole = Wav(1, 1, 44100, 16, new byte[400]);
        Gen.Select(Gen.Int[0, whole.Length - 1], Gen.Byte, Gen.Int[0, whole.Length])
            .Sample(
                (at, value, length) =>
                {
                    var damaged = whole[..length];
                    if (at < length)
                        damaged[at] = value;
                    try
                    {
                        Assert.NotEmpty(WavFile.Read(damaged, "x.wav").Samples);
                    }
                    catch (InvalidDataException refused)
                    {
                        Assert.StartsWith("x.wav: ", refused.Message);
                    }
                }
            );
    }

    [Fact]
    public void Knows_what_was_cut_off()
    {
        var tone = Enumerable.Range(0, 4410).Select(i => (float)Math.Sin(i * 0.05)).ToArray();
        Assert.Equal(0, new MonoSound([.. tone.Select(sample => sample * 0.9f)], 44100).ClippedShare());
        Assert.InRange(new MonoSound([.. tone.Select(sample => Math.Clamp(sample * 3, -1, 1))], 44100).ClippedShare(), 0.7, 0.85);
    }

    private static byte[] Patched(int at, short value)
    {
        var file = Wav(1, 1, 44100, 16, new byte[200]);
        BinaryPrimitives.WriteInt16LittleEndian(file.AsSpan(at), value);
        return file;
    }

    private static byte[] Wav(int coding, int channels, int rate, int bits, byte[] data)
    {
        using var file = new MemoryStream();
        using var writer = new BinaryWriter(file);
        writer.Write("RIFF"u8);
        writer.Write(36 + data.Length);
        writer.Write("WAVEfmt "u8);
        writer.Write(16);
        writer.Write((short)coding);
        writer.Write((short)channels);
        writer.Write(rate);
        writer.Write(rate * channels * bits / 8);
        writer.Write((short)(channels * bits / 8));
        writer.Write((short)bits);
        writer.Write("data"u8);
        writer.Write(data.Length);
        writer.Write(data);
        return file.ToArray();
    }

    private sealed class EndlessStream : Stream
    {
        public long Given { get; private set; }

        public override bool CanRead => true;

        public override bool CanSeek => false;

        public override bool CanWrite => false;

        public override long Length => throw new NotSupportedException();

        public override long Position
        {
            get => Given;
            set => throw new NotSupportedException();
        }

        public override int Read(byte[] buffer, int offset, int count)
        {
            Given += count;
            return count;
        }

        public override void Flush() { }

        public override long Seek(long offset, SeekOrigin origin) => throw new NotSupportedException();

        public override void SetLength(long value) => throw new NotSupportedException();

        public override void Write(byte[] buffer, int offset, int count) => throw new NotSupportedException();
    }
}
