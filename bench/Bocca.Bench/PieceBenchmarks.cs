using System.Text;
using BenchmarkDotNet.Attributes;
using Bocca.Core.Fingering;
using Bocca.Core.Fingering.Passage;
using Bocca.Core.Instruments;
using Bocca.Core.Music;
using Bocca.Core.Pieces;
using Bocca.Core.Pieces.Breathing;
using Bocca.Core.Pieces.Lines;
using Bocca.Core.Score;
using Bocca.Core.Teaching;

namespace Bocca.Bench;

/// <summary>
/// Ten thousand notes fingered and breathed, and a part of four pages as a whole; a walk that takes the cheapest way from note to note is
/// the reference for the first.
/// </summary>
[MemoryDiagnoser]
public class PieceBenchmarks
{
    private const int Count = 10_000;

    private readonly Dictionary<string, (PassagePlayer Player, List<PassageNote> Notes)> _lines = [];
    private PieceLine _line = null!;
    private byte[] _file = [];

    [Params("trumpet-bb", "euphonium-4v", "trombone-f", "horn-double")]
    public string Instrument { get; set; } = "";

    [GlobalSetup]
    public void Write()
    {
        var instrument = Catalogue.Get(Instrument);
        var random = new Random(1);
        var playable = Enumerable
            .Range(instrument.Range.Lowest.Midi, instrument.Range.Highest.Midi - instrument.Range.Lowest.Midi + 1)
            .Where(midi => FingeringFinder.Plays(instrument, Pitch.FromMidi(midi)))
            .ToList();
        var (at, place) = (0.0, playable.Count / 2);
        var notes = new List<PassageNote>();
        var text = new StringBuilder("4/4 =100");
        for (var i = 0; i < Count; i++)
        {
            place = Math.Clamp(place + random.Next(-4, 5), 0, playable.Count - 1);
            var held = 0.15 * (1 + random.Next(4));
            notes.Add(new PassageNote(Pitch.FromMidi(playable[place]), at, held) { IsSlurred = random.Next(3) == 0 });
            at += held;
            var written = instrument.Readings[0].ToWritten(Pitch.FromMidi(playable[place]));
            if (i < 640)
                text.Append($"{(i % 8 == 0 ? " |" : "")} e {written}".Replace("4/4 =100 |", "4/4 =100"));
        }

        _lines[Instrument] = (new PassagePlayer(instrument), notes);
        _file = PieceSource.OfText(text.ToString().Replace("=100 |", "=100") + " |", "Four pages", instrument.Readings[0]).Document.Write();
        var bars = Enumerable.Range(0, Count / 4).Select(bar => new LineBar(bar, $"{bar + 1}", 4 * bar, 4, Metre.Common)).ToList();
        _line = new PieceLine(
            "",
            "",
            instrument.Readings[0],
            100,
            bars,
            [
                .. notes.Select(
                    (note, i) =>
                        new LineNote(i, i / 4, i, 1, note.Sounding, note.Sounding)
                        {
                            Beat = 1 + (i % 4),
                            Seconds = 0.6 * i,
                            Held = 0.6,
                            Heads = [1],
                            Slurred = i % 4 != 0 && random.Next(2) == 0,
                        }
                ),
            ]
        )
        {
            Choice = new LineChoice(0, 1, 1, "", Count),
        };
    }

    [Benchmark(Baseline = true, Description = "10 000 notes, from each to the cheapest next")]
    public long Greedy()
    {
        var (player, notes) = _lines[Instrument];
        var costing = new PassageCosting(player, notes);
        var ways = notes
            .Select(note => note.Sounding.Midi)
            .Distinct()
            .ToDictionary(midi => midi, midi => PassageWay.Of(player, Pitch.FromMidi(midi)));
        var (cost, before) = (0L, ways[notes[0].Sounding.Midi][0]);
        for (var i = 1; i < notes.Count; i++)
        {
            var way = ways[notes[i].Sounding.Midi].MinBy(way => costing.Alone(i, way) + costing.Change(i, before, way))!;
            cost += costing.Alone(i, way) + costing.Change(i, before, way);
            before = way;
        }

        return cost;
    }

    [Benchmark(Description = "10 000 notes fingered, the optimum, with reasons")]
    public double Fingered()
    {
        var (player, notes) = _lines[Instrument];
        return PassagePlanner.Plan(player, notes).Cost;
    }

    [Benchmark(Description = "10 000 notes breathed, the optimum")]
    public double Breathed() => AirPlanner.Plan(_line, new PieceBreather(7), [], []).Cost;

    [Benchmark(Description = "four pages (640 notes): read, studied, fingered, breathed")]
    public double FourPages()
    {
        var instrument = Catalogue.Get(Instrument);
        var source = PieceSource.OfFile(_file);
        var line = PieceLine.Of(source.Score, LineChoice.Choose(source.Score, null), instrument.Readings[0]);
        return PiecePlan
            .Of(
                line,
                PiecePlayer.Of(instrument, Approach.Of(ApproachPreset.MouthpieceFirst), LearningStage.Pieces, Hand.Free),
                new PieceBreather(7)
            )
            .Breathed.Cost;
    }
}
