using Bocca.Core.Pieces;
using Bocca.Core.Pieces.Breathing;
using Bocca.Core.Pieces.Lines;
using Bocca.Core.Pieces.Study;
using Bocca.Core.Teaching;

namespace Bocca.Core.Tests.Pieces;

/// <summary>Where a line is breathed in: exact, legal, and what the trade would do.</summary>
public sealed class AirPlannerTests
{
    private static PieceLine Line(string text, string instrument = "trumpet-bb", double? tempo = null) =>
        Typed.Line(text, instrument, tempo);

    private static AirPlan Plan(PieceLine line, PieceBreather breather)
    {
        var returns = Returns.Of(line);
        return AirPlanner.Plan(line, breather, Phrases.Of(line, returns), returns);
    }

    private const string FourteenBeats = "8/4 =80 q C4 D4 E4 F4 G4 A4 h G4 , | 6/4 q F4 E4 D4 C4 h C4 |";

    // Computed: 14 beats at 80 are 10.5 s, at 94 they are 8.94 s; a half at 80 less an eighth leaves 0.375 s to breathe.
    [Fact]
    public void Fourteen_beats_go_in_one_breath_from_94_and_with_the_comma_below()
    {
        var breather = new PieceBreather(9);
        Assert.Empty(Plan(Line(FourteenBeats, tempo: 94), breather).Breaths);
        Assert.Single(Plan(Line(FourteenBeats, tempo: 93), breather).Breaths);
        var plan = Plan(Line(FourteenBeats), breather);
        var breath = Assert.Single(plan.Breaths);
        Assert.Equal((6, PlaceKind.Comma), (breath.Place.After, breath.Place.Kind));
        Assert.Equal(0.375, breath.Place.Seconds, 1e-9);
        Assert.Equal("dotted quarter and eighth rest", breath.WrittenAs);
        Assert.Equal(94, breath.WithoutFrom);
        // Eight beats less half a one, and six: the half note ends on the eighth.
        Assert.Equal([5.625, 4.5], plan.Spans.Select(span => Math.Round(span.Seconds, 3)));
        Assert.All(plan.Spans, span => Assert.True(span.Needs <= span.Capacity));
    }

    // Computed: a sixteenth at 100 is 0.15 s; no full breath is that quick.
    [Fact]
    public void A_dropped_sixteenth_is_a_top_up_only()
    {
        var line = Line(
            "4/4 =100 (s C4 D4) E4 F4 (G4 F4) E4 D4 (C4 D4) E4 F4 (G4 F4) E4 D4 | C4 D4 E4 F4 G4 F4 E4 D4 C4 D4 E4 F4 G4 F4 E4 D4 |"
        );
        var breather = new PieceBreather(4) { Asked = new HashSet<int> { 14 } };
        var drop = Plan(line, breather).Breaths.Single(breath => breath.Place.After == 14);
        Assert.Equal(PlaceKind.Drop, drop.Place.Kind);
        Assert.Equal(0.15, drop.Place.Seconds, 1e-9);
        Assert.False(drop.IsFull);
        Assert.Contains("top-up only", drop.Why);
    }

    // Computed: two beats at 80 are 1.5 s: time to let the old air go and fill (common practice, horn).
    [Fact]
    public void A_rest_of_two_beats_is_used_whole()
    {
        var plan = Plan(Line("4/4 =80 q C4 D4 r r | q E4 F4 G4 r |", "horn-f"), new PieceBreather(8));
        Assert.Equal(PlaceKind.Rest, plan.Breaths[0].Place.Kind);
        Assert.Equal(1.5, plan.Breaths[0].Place.Seconds, 1e-9);
        Assert.Contains("let the old air go", plan.Breaths[0].Why);
    }

    // Computed: quarters at 72 from B flat 2 to B flat 4 and back; 16 of them are 13.3 s.
    [Fact]
    public void A_chromatic_scale_is_breathed_before_D_and_after_E_flat()
    {
        var scale = Enumerable
            .Range(46, 24)
            .Concat(Enumerable.Range(46, 25).Reverse())
            .Select(midi => $"{Bocca.Core.Music.Pitch.FromMidi(midi)}")
            .ToList();
        var bars = scale.Chunk(4).Select(bar => string.Join(' ', bar));
        var plan = Plan(Line($"4/4 =72 q {string.Join(" | ", bars)} r r r |", "euphonium-4v"), new PieceBreather(15));
        Assert.Equal(["C#4", "Eb4"], plan.Breaths.Select(breath => scale[breath.Place.After]));
        Assert.Equal(16, plan.Spans[1].To - plan.Spans[1].From + 1);
        Assert.Equal("D4", scale[plan.Breaths[0].Place.After + 1]);
        Assert.Equal(16 * 60 / 72.0, plan.Spans[1].Seconds + plan.Breaths[1].Place.Seconds, 1e-9);
    }

    /// <summary>Every set of places, one after the other, on the same reservoir: the reference that knows no labels.</summary>
    private static long? Exhaustive(PieceLine line, PieceBreather breather, IReadOnlyList<Phrase> phrases)
    {
        var finder = new AirPlaces(line, breather, phrases);
        var places = line.Notes.Select((_, i) => finder.After(i)).ToList();
        var capacity = (int)(1000 * breather.CapacitySeconds);
        var quickest = breather.QuickestSeconds ?? breather.Costs.QuickestSeconds;
        long? best = null;
        long Thin(int left)
        {
            var over = Math.Max(0, 1 - ((double)left / capacity) - breather.Costs.ThinFrom) / (1 - breather.Costs.ThinFrom);
            return (long)Math.Round(1000 * breather.Costs.ThinSpare * over * over);
        }

        void Go(int i, int left, long cost, bool dropped)
        {
            if (i == line.Notes.Count)
            {
                best = Math.Min(best ?? long.MaxValue, cost + Thin(left));
                return;
            }

            var need = (int)Math.Ceiling((1000 * AirSpent.Seconds(line.Notes[i], breather)) - 1e-6);
            var must = places[i].Count > 0 && (places[i][0].Kind == PlaceKind.Rest || breather.Asked.Contains(i));
            var rest = left - (dropped ? 0 : need);
            if (!must && rest >= 0)
                Go(i + 1, rest, cost + (finder.WantsBreath(i) ? (long)(1000 * breather.Costs.HighSkipped) : 0), false);
            foreach (var place in dropped ? [] : places[i])
            {
                var saved = place.Shortens is { } cut && cut.Note == i ? (int)Math.Floor(need * (cut.By / line.Notes[i].Length).Value) : 0;
                if (rest + saved < 0)
                    continue;
                var filled = Math.Min(capacity, rest + saved + (int)Math.Floor(capacity * Math.Min(1, place.Seconds / quickest)));
                Go(i + 1, filled, cost + place.Points + Thin(rest + saved), place.Kind == PlaceKind.Drop);
            }
        }

        Go(0, capacity, 0, false);
        return best;
    }

    private static string Random(Random random, int bars)
    {
        var text = "4/4 =90";
        var pitch = 0;
        string[] names = ["C4", "D4", "E4", "F4", "G4", "A4", "B4", "C5"];
        for (var bar = 0; bar < bars; bar++)
        {
            foreach (
                var value in (string[][])
                    [
                        ["h", "q", "q"],
                        ["q", "q", "q", "q"],
                        ["q.", "e", "h"],
                        ["e", "e", "e", "e", "h"],
                    ]
                    is var all
                    ? all[random.Next(all.Length)]
                    : []
            )
            {
                pitch = Math.Clamp(pitch + random.Next(-2, 4), 0, names.Length - 1);
                var isRest = random.Next(10) == 0;
                text += isRest ? $" {value} r" : $" {value} {names[pitch]}{(random.Next(8) == 0 ? " ," : "")}";
                if (!isRest && random.Next(5) == 0 && !text.EndsWith(','))
                    text = text[..text.LastIndexOf(' ')] + " (" + text[(text.LastIndexOf(' ') + 1)..] + $" {value} {names[0]})";
            }

            text += " |";
        }

        return text;
    }

    [Fact]
    public void No_set_of_breaths_is_cheaper_and_none_is_used_up()
    {
        var random = new Random(23);
        var (possible, tried) = (0, 0);
        while (tried < 1500)
        {
            PieceLine line;
            try
            {
                line = Line(Random(random, 1 + random.Next(2)));
            }
            catch (EntrySlip)
            {
                // The bar was overfull: another one.
                continue;
            }

            tried++;
            var breather = new PieceBreather(1.5 + (3 * random.NextDouble()))
            {
                Commas = (BreathMarks)random.Next(3),
                QuickestSeconds = random.Next(2) == 0 ? null : 0.3 + (0.5 * random.NextDouble()),
            };
            var phrases = Phrases.Of(line, []);
            var plan = AirPlanner.Plan(line, breather, phrases, []);
            var exact = Exhaustive(line, breather, phrases);
            Assert.Equal(exact is not null, plan.IsPossible);
            if (exact is not { } cost)
                continue;
            possible++;
            Assert.Equal(cost / 1000.0, plan.Cost, 1e-9);
            Assert.All(plan.Spans, span => Assert.True(span.Needs <= span.Capacity + 1e-9));
            Assert.All(plan.Breaths, breath => Assert.False(line.Notes[breath.Place.After + 1].Slurred));
            Forbid(line, breather, phrases, plan, random);
        }

        Assert.InRange(possible, 300, 1499);
    }

    /// <summary>A place forbidden or asked for is kept, and costs no less.</summary>
    private static void Forbid(PieceLine line, PieceBreather breather, IReadOnlyList<Phrase> phrases, AirPlan plan, Random random)
    {
        if (line.Notes.Count < 3)
            return;
        var at = random.Next(line.Notes.Count - 1);
        var without = AirPlanner.Plan(line, breather with { Forbidden = new HashSet<int> { at } }, phrases, []);
        Assert.DoesNotContain(without.Breaths, breath => breath.Place.After == at);
        Assert.True(!without.IsPossible || without.Cost >= plan.Cost);
        var with = AirPlanner.Plan(line, breather with { Asked = new HashSet<int> { at } }, phrases, []);
        Assert.True(!with.IsPossible || with.Breaths.Any(breath => breath.Place.After == at));
        Assert.True(!with.IsPossible || with.Cost >= plan.Cost);
    }

    [Fact]
    public void Parallel_places_are_breathed_alike()
    {
        // Each half alone could be breathed in two ways; together they are the same.
        var line = Line("4/4 =80 q C4 D4 E4 F4 | h G4 h E4 | q D4 E4 F4 D4 | w C4 | q C4 D4 E4 F4 | h G4 h E4 | q D4 E4 F4 D4 | w C4 |");
        var plan = Plan(line, new PieceBreather(7));
        Assert.True(plan.IsProven);
        var after = plan.Breaths.Select(breath => breath.Place.After).ToList();
        Assert.Equal(after.Where(i => i < 10), after.Where(i => i >= 11).Select(i => i - 11));
    }

    [Fact]
    public void What_cannot_be_breathed_names_the_bar_and_what_would_mend_it()
    {
        var line = Line("4/4 =60 (q C4 D4 E4 F4 | G4 A4 B4 C5 | w C4) |");
        var plan = Plan(line, new PieceBreather(6));
        Assert.False(plan.IsPossible);
        Assert.StartsWith("In bar 2 the air runs out", plan.Why);
        // Twelve beats in 6 s: 120 a minute.
        Assert.Equal(120, plan.MendingTempo);
        Assert.Contains("at 120 beats a minute", plan.Why);
        var forbidden = Plan(Line(FourteenBeats), new PieceBreather(9) { Forbidden = Enumerable.Range(0, 11).ToHashSet() });
        Assert.Contains("with the forbidden places free", forbidden.Why);
        Assert.Throws<ArgumentException>(() =>
            Plan(
                line,
                new PieceBreather(6)
                {
                    Asked = new HashSet<int> { 1 },
                    Forbidden = new HashSet<int> { 1 },
                }
            )
        );
        Assert.Throws<ArgumentException>(() => Plan(line, new PieceBreather(0.1)));
    }

    [Fact]
    public void Loud_and_low_notes_spend_more()
    {
        var soft = Line("4/4 =60 p w C4 | w C4 |");
        var loud = Line("4/4 =60 ff w C4 | w C4 |");
        var breather = new PieceBreather(20) { SecondPartialMidi = 58 };
        Assert.True(AirSpent.Seconds(loud.Notes[0], breather) > 1.4 * AirSpent.Seconds(soft.Notes[0], breather));
        var low = Line("4/4 =60 w F#3 |");
        Assert.Equal(1.25, AirSpent.Seconds(low.Notes[0], breather) / low.Notes[0].Held, 1e-9);
    }

    [Fact]
    public void A_repeat_without_a_breath_is_said()
    {
        var line = Line("4/4 =60 |: q C4 D4 E4 F4 | G4 F4 E4 D4 :| w C4 |");
        Assert.Contains(
            "goes back to bar 1",
            Assert.Single(Plan(line, new PieceBreather(12) { Forbidden = new HashSet<int> { 7 } }).Remarks)
        );
        Assert.Empty(Plan(line, new PieceBreather(20) { Forbidden = new HashSet<int> { 7 } }).Remarks);
    }
}
