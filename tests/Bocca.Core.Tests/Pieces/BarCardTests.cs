using Bocca.Core.Counting;
using Bocca.Core.Pieces;
using Bocca.Core.Score;

namespace Bocca.Core.Tests.Pieces;

/// <summary>Bars of pieces as rhythm cards.</summary>
public sealed class BarCardTests
{
    [Theory]
    [InlineData("4/4 q. C4 e D4 q E4 q F4 |", 0, "q. e q q")]
    [InlineData("4/4 q C4 r e D4 E4 q r |", 0, "q rq e e rq")]
    [InlineData("4/4 3{e C4 D4 E4} q F4 h G4 |", 0, "3(e e e) q h")]
    [InlineData("4/4 q C4 D4 E4 F4~ | h F4 h G4 |", 1, "rh h")]
    [InlineData("6/8 q C4 e D4 q. E4 |", 0, "q e q.")]
    [InlineData("4/4 h.. C4 e D4 |", 0, "h.. e")]
    public void A_bar_is_a_card(string text, int bar, string card) =>
        Assert.Equal(RhythmCard.Parse(card, Metre.Parse(text[..3])).Text, BarCard.Of(Typed.Line(text))[bar]!.Rhythm);

    [Theory]
    [InlineData("4/4 q C4 | w D4 |", 0)]
    [InlineData("4/4 w C4~ | w C4 |", 1)]
    [InlineData("4/4 5{e C4 D4 E4 F4 G4} h A4 |", 0)]
    public void What_makes_no_card_makes_none(string text, int bar) => Assert.Null(BarCard.Of(Typed.Line(text))[bar]);

    /// <summary>A card written, typed as a piece on one note, and taken out of it again begins at the same moments.</summary>
    [Fact]
    public void Cards_come_back_from_pieces()
    {
        for (var seed = 0; seed < 400; seed++)
        {
            var card = CardWriter.Write(
                Metre.Common,
                [.. RhythmValue.All.Where(value => value.Simple.Count > 0 && value.Id != "tie")],
                1,
                seed
            );
            var typed = string.Join(' ', card.Notes.Select(Typing));
            if (!card.Onsets.Any())
                continue;
            var line = Typed.Line($"4/4 {Tuplets(typed)} |");
            Assert.Equal(card.Onsets, BarCard.Of(line)[0]!.Onsets);
        }
    }

    private static string Typing(CardNote note)
    {
        var value = note.Token.TrimStart('r') is { Length: > 0 } own ? own : "q";
        return $"{(note.InTriplet ? "^" : "")}{value} {(note.IsRest ? "r" : "C4")}";
    }

    /// <summary>Marked notes three by three into braces.</summary>
    private static string Tuplets(string typed) =>
        System.Text.RegularExpressions.Regex.Replace(typed, @"\^(\S+ C4) \^(\S+ C4) \^(\S+ C4)", "3{ $1 $2 $3 }");
}
