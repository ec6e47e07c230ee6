using System.Buffers.Binary;
using System.Text;

namespace Bocca.Core.Score;

/// <summary>
/// Writes a standard MIDI file, format 1 (published: MIDI Association, Standard MIDI Files 1.0): a track for the tempo, then one a part.
/// </summary>
public static class MidiWriter
{
    private const byte Velocity = 80;

    /// <summary>The file.</summary>
    public static byte[] Write(MusicScore score)
    {
        var file = new List<byte>();
        var header = new byte[6];
        BinaryPrimitives.WriteInt16BigEndian(header, 1);
        BinaryPrimitives.WriteInt16BigEndian(header.AsSpan(2), (short)(score.Parts.Count + 1));
        BinaryPrimitives.WriteInt16BigEndian(header.AsSpan(4), MusicScore.TicksPerQuarter);
        Chunk(file, "MThd", header);
        Chunk(file, "MTrk", TempoTrack(score));
        for (var i = 0; i < score.Parts.Count; i++)
            Chunk(file, "MTrk", Track(score.Parts[i], i));
        return [.. file];
    }

    private static List<byte> TempoTrack(MusicScore score)
    {
        var microseconds = (int)Math.Round(60e6 / score.Tempo);
        return [0, 0xFF, 0x51, 3, (byte)(microseconds >> 16), (byte)(microseconds >> 8), (byte)microseconds, 0, 0xFF, 0x2F, 0];
    }

    private static List<byte> Track(ScorePart part, int index)
    {
        // The tenth channel is percussion.
        var channel = (byte)(index % 15 is var at && at >= 9 ? at + 1 : at);
        var name = Encoding.UTF8.GetBytes(part.Name);
        var track = new List<byte> { 0, 0xFF, 0x03 };
        Length(track, name.Length);
        track.AddRange(name);
        track.AddRange([0, (byte)(0xC0 | channel), (byte)part.Program]);
        var (wait, tied) = (0, false);
        foreach (var note in part.Measures.SelectMany(measure => measure.Notes))
        {
            if (note.Written is not { } written)
            {
                wait += note.Ticks;
                continue;
            }

            var key = (byte)(written.Midi + part.ToSounding.Semitones);
            if (!tied)
            {
                Length(track, wait);
                track.AddRange([(byte)(0x90 | channel), key, Velocity]);
                wait = 0;
            }

            wait += note.Ticks;
            tied = note.TiedToNext;
            if (tied)
                continue;
            Length(track, wait);
            track.AddRange([(byte)(0x80 | channel), key, 0]);
            wait = 0;
        }

        Length(track, wait);
        track.AddRange([0xFF, 0x2F, 0]);
        return track;
    }

    private static void Chunk(List<byte> file, string name, IReadOnlyCollection<byte> content)
    {
        var size = new byte[4];
        BinaryPrimitives.WriteInt32BigEndian(size, content.Count);
        file.AddRange(Encoding.ASCII.GetBytes(name));
        file.AddRange(size);
        file.AddRange(content);
    }

    /// <summary>A number in groups of seven bits, the highest first.</summary>
    private static void Length(List<byte> track, int value)
    {
        for (var shift = 21; shift > 0; shift -= 7)
            if (value >> shift != 0)
                track.Add((byte)(0x80 | ((value >> shift) & 0x7F)));
        track.Add((byte)(value & 0x7F));
    }
}
