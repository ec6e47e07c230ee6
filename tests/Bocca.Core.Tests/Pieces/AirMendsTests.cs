using Bocca.Core.Pieces.Breathing;
using Bocca.Core.Pieces.Lines;
using Bocca.Core.Pieces.Study;

namespace Bocca.Core.Tests.Pieces;

/// <summary>A line that cannot be breathed: the notes that may be left out for it, tried by writing rests in their place.</summary>
public sealed class AirMendsTests
{
    /// <summary>An eighth off the beat, too quick to be shortened, and no group of like notes.</summary>
    private const string Syncopated = "s C4 e D4 s E4";

    /// <summary>Seven bars at 140: 12 s without a place to breathe.</summary>
    private static readonly string[] Long = [.. Enumerable.Repeat(Beat(Syncopated), 27).SelectMany(beat => beat), "q C4"];

    [Fact]
    public void A_short_note_before_a_beat_is_left_out_as_late_as_the_air_carries()
    {
        var (line, breather) = (Line(Long), new PieceBreather(10));
        var plan = Plan(line, breather);
        Assert.False(plan.IsPossible);
        var drop = Assert.Single(plan.MendingNotes);
        Assert.EndsWith($", or with the D4 of {line.PlaceOf(drop)} left out for a breath.", plan.Why, StringComparison.Ordinal);
        Assert.True(Plan(Line(WithRests(Long, [drop])), breather).IsPossible);
        // A beat later the air is gone before it.
        Assert.InRange(line.Notes[drop].Seconds, 8, 10);
    }

    [Fact]
    public void Nothing_is_left_out_of_a_slur()
    {
        var plan = Plan(Typed.Line("4/4 =60 (q C4 D4 E4 F4 | G4 A4 B4 C5 | w C4) |"), new PieceBreather(6));
        Assert.Empty(plan.MendingNotes);
        Assert.DoesNotContain("left out", plan.Why);
    }

    private static readonly string[] Beats = [Syncopated, "e F4 s G4 s A4", "s E4 s F4 e G4", "s A4 e. G4"];

    [Fact]
    public void What_is_said_to_mend_a_line_mends_it()
    {
        var random = new Random(17);
        var mended = 0;
        for (var seed = 0; seed < 300; seed++)
        {
            string[] tokens = [.. Enumerable.Range(0, 16 + (4 * random.Next(4))).SelectMany(_ => Beat(Beats[random.Next(Beats.Length)]))];
            var line = Line(tokens);
            var breather = new PieceBreather(2 + (4 * random.NextDouble()));
            var plan = Plan(line, breather);
            if (plan.MendingNotes.Count == 0)
                continue;
            mended++;
            Assert.False(plan.IsPossible);
            Assert.All(plan.MendingNotes, note => Assert.True(line.Notes[note].IsTongued && line.Notes[note + 1].IsTongued));
            Assert.True(Plan(Line(WithRests(tokens, plan.MendingNotes)), breather).IsPossible, string.Join(' ', tokens));
        }

        Assert.InRange(mended, 30, 300);
    }

    private static string[] Beat(string beat) => [.. beat.Split(' ').Chunk(2).Select(token => string.Join(' ', token))];

    private static string[] WithRests(string[] tokens, IReadOnlyList<int> notes) =>
        [.. tokens.Select((token, i) => notes.Contains(i) ? $"{token.Split(' ')[0]} r" : token)];

    private static PieceLine Line(string[] tokens)
    {
        var (text, sixteenths) = ("4/4 =140", 0);
        foreach (var token in tokens)
        {
            text += $" {token}";
            sixteenths += token.Split(' ')[0] switch
            {
                "s" => 1,
                "e" => 2,
                "e." => 3,
                _ => 4,
            };
            text += sixteenths % 16 == 0 ? " |" : "";
        }

        return Typed.Line(text);
    }

    private static AirPlan Plan(PieceLine line, PieceBreather breather)
    {
        var returns = Returns.Of(line);
        return AirPlanner.Plan(line, breather, Phrases.Of(line, returns), returns);
    }
}
