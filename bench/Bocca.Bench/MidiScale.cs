using System.Buffers.Binary;
using System.Text;

namespace Bocca.Bench;

/// <summary>Writes a Standard MIDI File (format 0) with one program playing separate notes.</summary>
public static class MidiScale
{
    private const int TicksPerSecond = 1000;

    public static void Write(string path, int program, IEnumerable<(double Start, double Seconds, int Note, int Velocity)> notes)
    {
        var events = new List<(int Tick, byte[] Bytes)> { (0, [0xC0, (byte)program]) };
        foreach (var (start, seconds, note, velocity) in notes)
        {
            events.Add(((int)(start * TicksPerSecond), [0x90, (byte)note, (byte)velocity]));
            events.Add(((int)((start + seconds) * TicksPerSecond), [0x80, (byte)note, 0]));
        }

        using var track = new MemoryStream();
        // 500 ticks a quarter at 120 quarters a minute: a tick is a millisecond.
        track.Write([0, 0xFF, 0x51, 3, 0x07, 0xA1, 0x20]);
        var last = 0;
        foreach (var (tick, bytes) in events.OrderBy(item => item.Tick))
        {
            WriteVariable(track, tick - last);
            track.Write(bytes);
            last = tick;
        }

        track.Write([0, 0xFF, 0x2F, 0]);
        using var file = File.Create(path);
        file.Write(Encoding.ASCII.GetBytes("MThd"));
        file.Write([0, 0, 0, 6, 0, 0, 0, 1, 500 >> 8, 500 & 0xFF]);
        file.Write(Encoding.ASCII.GetBytes("MTrk"));
        Span<byte> length = stackalloc byte[4];
        BinaryPrimitives.WriteInt32BigEndian(length, (int)track.Length);
        file.Write(length);
        file.Write(track.ToArray());
    }

    private static void WriteVariable(Stream stream, int value)
    {
        var shift = 28;
        while (shift > 0 && value >> shift == 0)
            shift -= 7;
        for (; shift > 0; shift -= 7)
            stream.WriteByte((byte)(0x80 | ((value >> shift) & 0x7F)));
        stream.WriteByte((byte)(value & 0x7F));
    }
}
