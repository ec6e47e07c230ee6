using System.Buffers.Binary;
using System.Text;

namespace Bocca.Core.Score;

/// <summary>
/// Writes a standard MIDI file, format 1 (published: MIDI Association, Standard MIDI Files 1.0): a track for tempi and metres, then one a
/// part, as it is played with its repeats.
/// </summary>
public static class MidiWriter
{
    /// <summary>Ticks of a quarter: divides into 32nds, triplets and quintuplets without a rest.</summary>
    public const int TicksPerQuarter = 480;

    private const byte Velocity = 80;

    /// <summary>The file.</summary>
    public static byte[] Write(MusicScore score)
    {
        var order = score.Parts.Count == 0 ? [] : PlayingOrder.Of(score.Parts[0].Measures);
        var starts = Starts(score, order);
        var file = new List<byte>();
        var header = new byte[6];
        BinaryPrimitives.WriteInt16BigEndian(header, 1);
        BinaryPrimitives.WriteInt16BigEndian(header.AsSpan(2), (short)(score.Parts.Count + 1));
        BinaryPrimitives.WriteInt16BigEndian(header.AsSpan(4), TicksPerQuarter);
        Chunk(file, "MThd", header);
        Chunk(file, "MTrk", Bytes(Tempi(score, order, starts), starts[^1]));
        for (var i = 0; i < score.Parts.Count; i++)
            Chunk(file, "MTrk", Track(score.Parts[i], i, order, starts));
        return [.. file];
    }

    /// <summary>When each played measure begins, quarters; last, when the piece ends. The longest part decides.</summary>
    private static List<Rational> Starts(MusicScore score, IReadOnlyList<int> order)
    {
        var starts = new List<Rational> { Rational.Zero };
        foreach (var at in order)
            starts.Add(
                starts[^1]
                    + score.Parts.Where(part => at < part.Measures.Count).Select(part => part.Measures[at].Length).DefaultIfEmpty().Max()
            );
        return starts;
    }

    private static List<(Rational At, byte[] Event)> Tempi(MusicScore score, IReadOnlyList<int> order, List<Rational> starts)
    {
        var events = new List<(Rational, byte[])> { (Rational.Zero, Tempo(score.Tempo)) };
        for (var i = 0; i < order.Count; i++)
        {
            var measure = score.Parts[0].Measures[order[i]];
            if (measure.Metre is { } metre)
                events.Add(
                    (starts[i], [0xFF, 0x58, 4, (byte)metre.Above, (byte)System.Numerics.BitOperations.Log2((uint)metre.Below), 24, 8])
                );
            foreach (var mark in measure.Marks.Where(mark => mark.Kind == MarkKind.Tempo))
                events.Add((starts[i] + mark.At, Tempo(mark.Value)));
        }

        return events;
    }

    private static byte[] Tempo(double quartersAMinute)
    {
        var microseconds = (int)Math.Round(60e6 / quartersAMinute);
        return [0xFF, 0x51, 3, (byte)(microseconds >> 16), (byte)(microseconds >> 8), (byte)microseconds];
    }

    private static List<byte> Track(ScorePart part, int index, IReadOnlyList<int> order, List<Rational> starts)
    {
        // The tenth channel is percussion.
        var channel = (byte)(index % 15 is var at && at >= 9 ? at + 1 : at);
        var name = Encoding.UTF8.GetBytes(part.Name);
        var track = new List<byte> { 0, 0xFF, 0x03 };
        Length(track, name.Length);
        track.AddRange(name);
        track.AddRange([0, (byte)(0xC0 | channel), (byte)part.Program]);
        var events = new List<(Rational At, byte[] Event)>();
        foreach (var (from, to, key) in Sounding(part, order, starts))
        {
            events.Add((to, [(byte)(0x80 | channel), key, 0]));
            events.Add((from, [(byte)(0x90 | channel), key, Velocity]));
        }

        track.AddRange(Bytes(events, starts[^1]));
        return track;
    }

    /// <summary>The notes of a part as they sound, ties joined.</summary>
    private static List<(Rational From, Rational To, byte Key)> Sounding(ScorePart part, IReadOnlyList<int> order, List<Rational> starts)
    {
        var transpositions = new List<Music.Interval>();
        foreach (var measure in part.Measures)
            transpositions.Add(measure.ToSounding ?? (transpositions.Count > 0 ? transpositions[^1] : part.ToSounding));
        var notes = new List<(Rational From, Rational To, byte Key)>();
        var held = new Dictionary<(int, int, int), int>();
        for (var i = 0; i < order.Count; i++)
            foreach (var note in order[i] < part.Measures.Count ? part.Measures[order[i]].Notes.Where(note => note.Sounds) : [])
            {
                var key = Math.Clamp(note.Written!.Value.Midi + transpositions[order[i]].Semitones, 0, 127);
                var (from, to) = (starts[i] + note.At, starts[i] + note.End);
                var line = (note.Staff, note.Voice, key);
                if (held.Remove(line, out var before) && notes[before].To == from)
                    notes[before] = notes[before] with { To = to };
                else
                {
                    before = notes.Count;
                    notes.Add((from, to, (byte)key));
                }

                if (note.TiedToNext)
                    held[line] = before;
            }

        return notes;
    }

    /// <summary>Events in order, each after its wait; at one moment what ends comes before what begins.</summary>
    private static List<byte> Bytes(List<(Rational At, byte[] Event)> events, Rational end)
    {
        var bytes = new List<byte>();
        var now = 0L;
        foreach (var (at, what) in events.OrderBy(each => each.At).ThenBy(each => (each.Event[0] & 0xF0) == 0x90))
        {
            var tick = Tick(at);
            Length(bytes, (int)(tick - now));
            bytes.AddRange(what);
            now = tick;
        }

        Length(bytes, (int)Math.Max(0, Tick(end) - now));
        bytes.AddRange([0xFF, 0x2F, 0]);
        return bytes;
    }

    private static long Tick(Rational at) => (long)Math.Round(at.Value * TicksPerQuarter);

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
