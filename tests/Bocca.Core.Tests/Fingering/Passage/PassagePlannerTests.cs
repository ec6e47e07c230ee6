using Bocca.Core.Fingering;
using Bocca.Core.Fingering.Passage;
using Bocca.Core.Instruments;
using Bocca.Core.Music;

namespace Bocca.Core.Tests.Fingering.Passage;

/// <summary>The cheapest way through a line: exact, and what the trade would do.</summary>
public sealed class PassagePlannerTests
{
    private static List<PassageNote> Line(string reading, double seconds, params string[] written)
    {
        var read = Catalogue.Get(reading.Split(':')[0]).ReadingOf(reading.Contains(':') ? reading.Split(':')[1] : null);
        return [.. written.Select((note, i) => new PassageNote(read.ToSounding(Pitch.Parse(note)), i * seconds, seconds))];
    }

    private static string Settings(PassagePlan plan) => string.Join(' ', plan.Notes.Select(note => note.Fingering.Setting));

    private static List<PassageNote> Random(Random random, Instrument instrument, int count)
    {
        var (low, high) = (instrument.Range.Lowest.Midi, instrument.Range.Highest.Midi);
        var playable = Enumerable
            .Range(low, high - low + 1)
            .Where(midi => FingeringFinder.Plays(instrument, Pitch.FromMidi(midi)))
            .ToList();
        var (at, place) = (0.0, random.Next(playable.Count));
        var notes = new List<PassageNote>();
        for (var i = 0; i < count; i++)
        {
            place = Math.Clamp(place + random.Next(-5, 6), 0, playable.Count - 1);
            var seconds = 0.1 + (0.9 * random.NextDouble() * random.NextDouble());
            notes.Add(
                new PassageNote(Pitch.FromMidi(playable[place]), at, seconds)
                {
                    IsSlurred = i > 0 && random.Next(3) == 0,
                    IsExposed = random.Next(5) == 0,
                }
            );
            at += seconds;
        }

        return notes;
    }

    /// <summary>What every way through a short line costs, one after the other: the reference that knows nothing of a search.</summary>
    private static double Exhaustive(PassagePlayer player, List<PassageNote> notes, IReadOnlyList<PassageRepeat> repeats)
    {
        var ways = notes
            .Select(note =>
                PassageWay.Of(player, note.Sounding).Where(way => note.Pin is not { } pin || way.Fingering.Setting == pin).ToList()
            )
            .ToList();
        var costing = new PassageCosting(player, notes);
        var best = long.MaxValue;
        var path = new PassageWay[notes.Count];
        void Go(int i, long cost)
        {
            if (cost >= best)
                return;
            if (i == notes.Count)
            {
                var deviating = repeats.Count(repeat =>
                    Enumerable
                        .Range(0, repeat.Count)
                        .Any(k => path[repeat.From + k].Fingering.Setting != path[repeat.Like + k].Fingering.Setting)
                );
                best = Math.Min(best, cost + (long)(deviating * player.Costs.PerDeviatingRepeat * PassageCosting.Unit));
                return;
            }

            foreach (var way in ways[i])
            {
                path[i] = way;
                var more = costing.Alone(i, way);
                if (i > 0)
                    more += costing.Change(i, path[i - 1], way);
                if (i > 1 && PassageCosting.IsTurn(path[i - 2], path[i - 1], way))
                    more += costing.Turn(i);
                Go(i + 1, cost + more);
            }
        }

        Go(0, 0);
        return best / PassageCosting.Unit;
    }

    [Fact]
    public void No_way_through_a_short_line_is_cheaper()
    {
        var random = new Random(20);
        for (var round = 0; round < 3000; round++)
        {
            var instrument = Catalogue.All[round % Catalogue.All.Count];
            var player = new PassagePlayer(instrument);
            var notes = Random(random, instrument, 2 + random.Next(4));
            var repeats = new List<PassageRepeat>();
            if (round % 3 == 0 && notes.Count < 6)
            {
                // The same notes again, behind another one.
                var shift = notes[^1].Seconds + notes[^1].Held;
                var again = notes.Take(2).Select(note => note with { Seconds = note.Seconds + shift }).ToList();
                repeats.Add(new PassageRepeat(notes.Count, 0, 2));
                notes.AddRange(again);
            }

            var plan = PassagePlanner.Plan(player, notes, repeats);
            Assert.True(plan.IsProven);
            Assert.Equal(Exhaustive(player, notes, repeats), plan.Cost, 1e-9);
            Assert.True(plan.PlainCost >= plan.Cost);
        }
    }

    [Fact]
    public void A_pin_is_kept_and_never_makes_it_cheaper()
    {
        var random = new Random(21);
        for (var round = 0; round < 600; round++)
        {
            var instrument = Catalogue.All[round % Catalogue.All.Count];
            var player = new PassagePlayer(instrument);
            var notes = Random(random, instrument, 6);
            var free = PassagePlanner.Plan(player, notes);
            var at = random.Next(notes.Count);
            var ways = PassageWay.Of(player, notes[at].Sounding);
            var pin = ways[random.Next(ways.Count)].Fingering.Setting;
            List<PassageNote> pinnedNotes = [.. notes.Select((note, i) => i == at ? note with { Pin = pin } : note)];
            var pinned = PassagePlanner.Plan(player, pinnedNotes);
            Assert.Equal(pin, pinned.Notes[at].Fingering.Setting);
            Assert.True(pinned.Notes[at].IsPinned);
            Assert.True(pinned.Cost >= free.Cost);
            Assert.Equal(Exhaustive(player, pinnedNotes, []), pinned.Cost, 1e-9);
        }
    }

    /// <summary>Of each setting that is called nearly as good, the best line through it lies within the whisker.</summary>
    [Fact]
    public void What_is_called_as_good_is()
    {
        var random = new Random(22);
        var seen = 0;
        for (var round = 0; round < 300; round++)
        {
            var instrument = Catalogue.All[round % Catalogue.All.Count];
            var player = new PassagePlayer(instrument);
            var notes = Random(random, instrument, 5);
            var plan = PassagePlanner.Plan(player, notes);
            for (var i = 0; i < notes.Count; i++)
                foreach (var way in PassageWay.Of(player, notes[i].Sounding).Select(way => way.Fingering.Setting).Distinct())
                {
                    List<PassageNote> pinned = [.. notes.Select((note, k) => k == i ? note with { Pin = way } : note)];
                    var near = Exhaustive(player, pinned, []) <= plan.Cost + player.Costs.Whisker + 1e-9;
                    Assert.Equal(near && way != plan.Notes[i].Fingering.Setting, plan.Notes[i].Also.Any(also => also.Setting == way));
                    seen += near ? 1 : 0;
                }
        }

        Assert.True(seen > 1000);
    }

    // Common practice: the first five notes of a trumpet, and the same line on a cornet.
    [Fact]
    public void First_notes_are_the_charts()
    {
        string[] five = ["C4", "D4", "E4", "F4", "G4"];
        Assert.Equal("0 1-3 1-2 1 0", Settings(PassagePlanner.Plan(new(Catalogue.Get("trumpet-bb")), Line("trumpet-bb", 0.75, five))));
        Assert.Equal("0 1-3 1-2 1 0", Settings(PassagePlanner.Plan(new(Catalogue.Get("cornet-bb")), Line("cornet-bb", 0.75, five))));
    }

    // Common practice: valve 3 for E beside D, where one finger moves instead of two; +2 and +13 cents are computed.
    [Fact]
    public void A_fast_D_to_E_on_the_trumpet_takes_valve_3_and_shows_both()
    {
        var player = new PassagePlayer(Catalogue.Get("trumpet-bb"));
        var fast = PassagePlanner.Plan(player, Line("trumpet-bb", 0.25, "D4", "E4", "D4", "E4", "D4"));
        Assert.Equal("1-3 3 1-3 3 1-3", Settings(fast));
        Assert.Equal("1-2", fast.Notes[1].Plain.Setting.ToString());
        Assert.Contains("+2 cents instead of +13", fast.Notes[1].Reason);
        Assert.Contains(fast.Notes[1].Also, way => way.Setting.ToString() == "1-2");
        Assert.True(fast.Gain.Fingers > 0);
        Assert.Equal("1-3 1-2 1-3", Settings(PassagePlanner.Plan(player, Line("trumpet-bb", 1, "D4", "E4", "D4"))));
    }

    // Common practice: slides stay near; D4 to B flat 3 is one place and two partials.
    [Fact]
    public void A_slide_goes_no_further_than_it_has_to()
    {
        var player = new PassagePlayer(Catalogue.Get("trombone"));
        Assert.Equal("1 2 1", Settings(PassagePlanner.Plan(player, Line("trombone", 0.5, "F4", "G4", "F4"))));
        var slurred = Line("trombone", 0.5, "D4", "Bb3").Select((note, i) => note with { IsSlurred = i > 0 }).ToList();
        var plan = PassagePlanner.Plan(player, slurred);
        Assert.Equal("1 1", Settings(plan));
        Assert.Equal(SlideSlur.Lip, plan.Notes[1].Slur);
    }

    // Common practice: on one partial a soft tongue hides the slide; where the partial changes the lip slurs.
    [Theory]
    [InlineData("F3", "Eb3", SlideSlur.Doo)]
    [InlineData("F3", "G3", SlideSlur.Lip)]
    public void A_slurred_slide_is_joined_by_the_tongue_or_the_lip(string from, string to, SlideSlur expected)
    {
        var notes = Line("trombone", 0.6, from, to).Select((note, i) => note with { IsSlurred = i > 0 }).ToList();
        Assert.Equal(expected, PassagePlanner.Plan(new(Catalogue.Get("trombone")), notes).Notes[1].Slur);
    }

    [Fact]
    public void Short_arms_take_the_trigger_and_what_nothing_reaches_is_named()
    {
        var hand = new Hand { ReachCm = 45 };
        var low = Line("trombone", 0.5, "D3", "C3");
        Assert.Equal("4 T1", Settings(PassagePlanner.Plan(new(Catalogue.Get("trombone-f")) { Hand = hand }, low)));
        var plain = PassagePlanner.Plan(new(Catalogue.Get("trombone")) { Hand = hand }, low);
        Assert.Contains("reaches 45 cm", plain.Notes[1].Barred);
        Assert.Contains("reaches 45 cm", plain.Notes[1].Reason);
    }

    // Common practice: low C of a four-valve euphonium is 4; an approach that keeps the fingers easy has 1-3.
    [Fact]
    public void Low_C_of_a_euphonium_follows_the_approach()
    {
        var line = Line("euphonium-4v", 0.2, "D3", "C3", "D3", "C3");
        var player = new PassagePlayer(Catalogue.Get("euphonium-4v"));
        Assert.Equal("4", PassagePlanner.Plan(player, line).Notes[1].Fingering.Setting.ToString());
        var easier = player with { Weights = FingeringWeights.Default with { FourthForFirstAndThird = 12 } };
        Assert.Equal("1-3", PassagePlanner.Plan(easier, line).Notes[1].Fingering.Setting.ToString());
    }

    [Fact]
    public void A_passage_that_returns_is_fingered_alike_unless_that_costs_too_much()
    {
        // D E D E fast, then the same slowly: alone it would be fingered otherwise, tied it is not.
        var player = new PassagePlayer(Catalogue.Get("trumpet-bb"));
        var fast = Line("trumpet-bb", 0.24, "D4", "E4", "D4");
        var slow = Line("trumpet-bb", 0.42, "D4", "E4", "D4").Select(note => note with { Seconds = note.Seconds + 5 });
        List<PassageNote> both = [.. fast, .. slow];
        Assert.Equal("1-3 3 1-3 1-3 1-2 1-3", Settings(PassagePlanner.Plan(player, both)));
        var tied = PassagePlanner.Plan(player, both, [new PassageRepeat(3, 0, 3)]);
        Assert.Equal(tied.Notes[1].Fingering.Setting, tied.Notes[4].Fingering.Setting);
        Assert.Empty(tied.Deviating);
        var free = player with { Costs = PassageCosts.Shipped with { PerDeviatingRepeat = 0.01 } };
        Assert.Equal(
            (3, 0, 3),
            PassagePlanner.Plan(free, both, [new PassageRepeat(3, 0, 3)]).Deviating is [var one]
                ? (one.Repeat.From, one.Repeat.Like, one.Repeat.Count)
                : default
        );
    }

    [Fact]
    public void This_pupils_slow_change_is_gone_round()
    {
        var line = Line("trumpet-bb", 0.5, "D4", "E4", "D4");
        var slow = new Dictionary<(Setting, Setting), double>
        {
            [(Setting.OfValves("", 1, 3), Setting.OfValves("", 1, 2))] = 0.8,
            [(Setting.OfValves("", 1, 2), Setting.OfValves("", 1, 3))] = 0.8,
        };
        var player = new PassagePlayer(Catalogue.Get("trumpet-bb"));
        Assert.Equal("1-3 1-2 1-3", Settings(PassagePlanner.Plan(player, line)));
        Assert.Equal("1-3 3 1-3", Settings(PassagePlanner.Plan(player with { SlowChanges = slow }, line)));
    }

    [Fact]
    public void What_cannot_be_pinned_says_why()
    {
        string Why(string instrument, string note, Setting pin, Hand? hand = null) =>
            Assert
                .Throws<PassageException>(() =>
                    PassagePlanner.Plan(
                        new(Catalogue.Get(instrument)) { Hand = hand ?? Hand.Free },
                        [.. Line(instrument, 1, note).Select(each => each with { Pin = pin })]
                    )
                )
                .Message;
        Assert.Contains("does not give this note", Why("trumpet-bb", "C4", Setting.OfValves("", 2)));
        Assert.Contains("reaches 40 cm", Why("trombone", "C3", Setting.OfSlide(6), new Hand { ReachCm = 40 }));
        Assert.Contains(
            "lies on no B♭ trumpet",
            Assert
                .Throws<PassageException>(() =>
                    PassagePlanner.Plan(new(Catalogue.Get("trumpet-bb")), [new PassageNote(Pitch.Parse("C2"), 0, 1)])
                )
                .Message,
            StringComparison.OrdinalIgnoreCase
        );
        Assert.Throws<ArgumentException>(() => PassagePlanner.Plan(new(Catalogue.Get("trumpet-bb")), []));
    }

    // Common practice: across the line of a double horn the hand stays on one side where that is near.
    [Fact]
    public void A_double_horn_crosses_its_line_without_partials_that_no_chart_has()
    {
        var plan = PassagePlanner.Plan(
            new(Catalogue.Get("horn-double")),
            Line("horn-double", 0.25, "F4", "G4", "Ab4", "Bb4", "Ab4", "G4", "F4")
        );
        Assert.All(plan.Notes, note => Assert.DoesNotContain(note.Fingering.Partial, new[] { 7, 11, 13, 14 }));
        Assert.True(plan.IsProven);
    }
}
