using Bocca.Core.Counting;
using Bocca.Core.Score;

namespace Bocca.Core.Tests.Counting;

/// <summary>Rhythm cards: exact lengths, legal bars, what is counted under them.</summary>
public sealed class RhythmCardTests
{
    /// <summary>Worked examples: at 80 a dotted quarter, an eighth and two quarters begin at 0, 1.125, 1.5 and 2.25 s (computed).</summary>
    [Theory]
    [InlineData("q. e q q", "4/4", "0 1.125 1.5 2.25")]
    [InlineData("rh h", "4/4", "1.5")]
    [InlineData("q~ q h", "4/4", "0 1.5")]
    [InlineData("3(e e e) q h", "4/4", "0 0.25 0.5 0.75 1.5")]
    public void A_card_begins_where_its_values_say(string text, string metre, string seconds)
    {
        var card = RhythmCard.Parse(text, Metre.Parse(metre));
        Assert.Equal(seconds.Split(' ').Select(double.Parse), card.Onsets.Select(at => at.Value * 60 / 80));
    }

    /// <summary>A dot adds half: a dotted quarter is three halves of a beat, a dotted half six (common practice).</summary>
    [Theory]
    [InlineData("q.", 3)]
    [InlineData("h.", 6)]
    [InlineData("q", 2)]
    [InlineData("h..", 7)]
    public void A_dotted_value_has_so_many_half_beats(string token, int halves) =>
        Assert.Equal(halves, Counts.Halves(RhythmCard.LengthOf(token)!.Value));

    [Theory]
    [InlineData("q q q", "does not fill its bar: 3 of 4")]
    [InlineData("q q q q q", "does not fill its bar: 5 of 8")]
    [InlineData("q x q q", "Value 2: 'x' is not a value I know")]
    [InlineData("q. h q.", "reaches over the end")]
    [InlineData("q q | q q", "Value 3: the bar line stands after 2")]
    [InlineData("q q q q~", "tied to nothing")]
    [InlineData("q~ rq h", "cannot be tied to a rest")]
    [InlineData("~ q q q q", "only a note can be tied")]
    [InlineData("3(e e) q h", "a triplet is three of one value")]
    [InlineData("3(e e e q h", "no end")]
    [InlineData("e.... q h q", "is not a value I know")]
    [InlineData("", "is empty")]
    public void What_is_no_card_is_said_with_its_place(string text, string sentence)
    {
        // A bar may be crossed only where somebody writes over it.
        var metre = text == "q. h q." ? Metre.Parse("2/4") : Metre.Common;
        Assert.Contains(sentence, Assert.Throws<ArgumentException>(() => RhythmCard.Parse(text, metre)).Message);
    }

    [Theory]
    [InlineData("5")]
    [InlineData("4/3")]
    [InlineData("0/4")]
    [InlineData("99/4")]
    [InlineData("-4/4")]
    public void What_is_no_metre_is_said(string text) => Assert.Throws<ArgumentException>(() => Metre.Parse(text));

    /// <summary>Counts as every primer has them (common practice).</summary>
    [Theory]
    [InlineData("q e e h", "4/4", "1 2 & 3")]
    [InlineData("s s s s q h", "4/4", "1 e & a 2 3")]
    [InlineData("q. e q. e", "4/4", "1 & 3 &")]
    [InlineData("q e e e e", "6/8", "1 3 4 5 6")]
    [InlineData("q. q.", "6/8", "1 4")]
    [InlineData("h h", "2/2", "1 2")]
    [InlineData("h q q", "2/2", "1 2 &")]
    [InlineData("q q q | h.", "3/4", "1 2 3 1")]
    public void Counts_are_those_of_the_primers(string text, string metre, string counts) =>
        Assert.Equal(counts, string.Join(' ', Counts.Of(RhythmCard.Parse(text, Metre.Parse(metre)))));

    [Fact]
    public void Every_card_that_is_written_fills_its_bars_and_has_nothing_that_was_not_asked_for()
    {
        var random = new Random(3);
        var written = 0;
        for (var seed = 0; seed < 3000; seed++)
        {
            var metre = Metre.Taught[random.Next(Metre.Taught.Count)];
            var values = RhythmValue.All.Where(_ => random.Next(3) == 0).ToList();
            var bars = random.Next(1, 5);
            RhythmCard card;
            try
            {
                card = CardWriter.Write(metre, values, bars, seed);
            }
            catch (ArgumentException problem)
            {
                Assert.Contains("add a value", problem.Message);
                continue;
            }

            written++;
            // By an adder of its own, in 96ths of a quarter.
            Assert.Equal(bars * 96 * 4 * metre.Above / metre.Below, Ticks(card.Text), 1e-9);
            var allowed = values.SelectMany(value => value.In(metre)).SelectMany(figure => Bare(figure).Split(' ')).ToHashSet();
            Assert.All(Bare(card.Text).Split(' '), token => Assert.Contains(token, allowed));
            Assert.Equal(Syllables(card), Counts.Of(card));
            Assert.Equal(card.Text, RhythmCard.Parse(card.Text, metre).Text);
            Assert.Equal(card.Text, CardWriter.Write(metre, values, bars, seed).Text);
        }

        Assert.True(written > 1500, $"{written} written");
    }

    [Fact]
    public void What_is_wanted_is_in_the_card()
    {
        var values = RhythmValue.All.Take(9).ToList();
        foreach (var value in values.Where(value => value.Id != "rw"))
            for (var seed = 0; seed < 400; seed++)
            {
                var card = CardWriter.Write(Metre.Common, values, 1 + (seed % 4), seed, [value]);
                Assert.Contains(value.Simple, figure => Bare(card.Text).Contains(Bare(figure), StringComparison.Ordinal));
            }
    }

    /// <summary>A bar with a value and quarters is the harder, the later the value is taught (the order is common practice).</summary>
    [Fact]
    public void Difficulty_goes_in_the_order_in_which_values_are_taught()
    {
        var points = RhythmValue
            .All.Where(value => value.Simple.Count > 0)
            .Select(value => CardDifficulty.Of(Filled(value.Simple[0])).Points)
            .ToList();
        Assert.Equal(points.Order(), points);
    }

    /// <summary>A bar with a figure at its beginning, and quarters after it.</summary>
    private static RhythmCard Filled(string figure) =>
        Enumerable
            .Range(0, 4)
            .Select(quarters => figure + string.Concat(Enumerable.Repeat(" q", quarters)))
            .Where(text => Math.Abs(Ticks(text) - (4 * 96)) < 1e-9)
            .Select(text => RhythmCard.Parse(text, Metre.Common))
            .Single();

    [Fact]
    public void Lengths_are_exact()
    {
        Assert.Equal(new Rational(1, 2), new Rational(-3, -6));
        Assert.Equal(Rational.One, new Rational(1, 3) + new Rational(1, 3) + new Rational(1, 3));
        Assert.Equal("3/2", (new Rational(1, 2) / new Rational(1, 3)).ToString());
        Assert.Equal(-1, new Rational(-1, 3).Floor);
        Assert.True(new Rational(2, 3) > new Rational(3, 5));
        Assert.Equal(default, Rational.Zero);
        Assert.Throws<ArgumentOutOfRangeException>(() => new Rational(1, 0));
    }

    private static string Bare(string text) => text.Replace("3(", "").Replace(")", "").Replace("~", "").Replace("| ", "");

    private static double Ticks(string card)
    {
        var (sum, inTriplet) = (0.0, false);
        foreach (var token in card.Split(' '))
        {
            inTriplet |= token.StartsWith("3(", StringComparison.Ordinal);
            var bare = Bare(token).TrimStart('r');
            var length = 96.0 * 4 / (1 << "whqest".IndexOf(bare[0])) * (2 - Math.Pow(0.5, bare.Count(sign => sign == '.')));
            sum += inTriplet ? length * 2 / 3 : length;
            inTriplet &= !token.EndsWith(')');
        }

        return sum;
    }

    private static List<string> Syllables(RhythmCard card)
    {
        var said = new List<string>();
        foreach (var onset in card.Onsets)
        {
            var inBar = onset.Value % (4.0 * card.Metre.Above / card.Metre.Below);
            if (card.Metre.IsCompound)
            {
                var eighths = inBar * 2;
                said.Add(Math.Abs(eighths - Math.Round(eighths)) < 1e-9 ? $"{Math.Round(eighths) + 1}" : "&");
                continue;
            }

            var beats = inBar * card.Metre.Below / 4;
            var within = Math.Round((beats - Math.Floor(beats + 1e-9)) * 12);
            said.Add(
                within switch
                {
                    0 => $"{Math.Floor(beats + 1e-9) + 1}",
                    3 => "e",
                    4 => "trip",
                    6 => "&",
                    8 => "let",
                    9 => "a",
                    _ => "-",
                }
            );
        }

        return said;
    }
}
