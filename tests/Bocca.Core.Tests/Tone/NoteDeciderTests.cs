using Bocca.Core.Instruments;
using Bocca.Core.Music;
using Bocca.Core.Tone.Notes;
using CsCheck;

namespace Bocca.Core.Tests.Tone;

/// <summary>
/// What came of a note, against worked examples (computed from the harmonic series and added lengths) and facts of the trade.
/// </summary>
public class NoteDeciderTests
{
    /// <summary>Worked examples of the trade: asked, its setting, what sounded and how many cents from that note, and what it is.</summary>
    [Theory]
    [InlineData("trumpet-bb", "D4", "1-3", "G3", 0, NoteOutcome.PartialLow, -1)]
    [InlineData("trumpet-bb", "C4", "0", "G4", 0, NoteOutcome.PartialHigh, 1)]
    [InlineData("trumpet-bb", "C4", "0", "C5", 0, NoteOutcome.PartialHigh, 2)]
    [InlineData("trumpet-bb", "E4", "1-2", "F4", 0, NoteOutcome.OtherSetting, 0)]
    [InlineData("horn-f", "A4", "1-2", "B4", 0, NoteOutcome.PartialHigh, 1)]
    [InlineData("horn-f", "G4", "0", "E4", -14, NoteOutcome.PartialLow, -1)]
    [InlineData("trombone", "C3", "6", "F2", 0, NoteOutcome.PartialLow, -1)]
    [InlineData("trombone-f", "C3", "T1", "F2", 0, NoteOutcome.PartialLow, -1)]
    [InlineData("euphonium-4v-comp", "D3", "1-2", "G2", 0, NoteOutcome.PartialLow, -1)]
    [InlineData("tuba-bb-3v", "Bb1", "0", "F2", 0, NoteOutcome.PartialHigh, 1)]
    [InlineData("tuba-eb-3v", "F2", "1-3", "Bb1", 0, NoteOutcome.PartialLow, -1)]
    public void Names_the_miss(string id, string asked, string setting, string sounded, double cents, NoteOutcome outcome, int by)
    {
        var judged = Judge(id, asked, setting, sounded, cents);

        Assert.Equal(outcome, judged.Outcome);
        Assert.Equal(by, judged.By);
    }

    [Fact]
    public void Says_which_valve_was_up()
    {
        var judged = Judge("trumpet-bb", "E4", "1-2", "F4", 0);

        Assert.Equal("1", judged.OtherSetting.ToString());
        Assert.Contains("valve 2 was up", judged.Sentence, StringComparison.Ordinal);
    }

    /// <summary>1-2-3 is 53.6 cents sharp (computed): its second partial is nearer to G3, and is F#3 all the same.</summary>
    [Theory]
    [InlineData("trumpet-bb", "C#4", "1-2-3", "F#3", 54, "C#4 came out as F#3: one partial low")]
    [InlineData("tuba-bb-3v", "B1", "1-2-3", "E1", 54, "B1 came out as E1: one partial low")]
    public void Calls_a_partial_of_a_sharp_tube_by_its_own_note(
        string id,
        string asked,
        string setting,
        string sounded,
        double cents,
        string sentence
    )
    {
        var judged = Judge(id, asked, setting, sounded, cents);

        Assert.StartsWith(sentence, judged.Sentence, StringComparison.Ordinal);
        Assert.Equal(sounded, $"{judged.HeardWritten}");
        Assert.Equal(cents, judged.Cents!.Value, 0.1);
    }

    [Fact]
    public void Says_how_far_to_move_the_slide()
    {
        var off = Judge("trombone", "A2", "2", "A2", 45);
        var other = Judge("trombone", "D3", "4", "Eb3", 0);

        Assert.Equal(NoteOutcome.SlideOff, off.Outcome);
        Assert.Equal(3.7, off.Cm!.Value, 1);
        Assert.Null(off.OtherSetting);
        Assert.Equal(NoteOutcome.SlideOff, other.Outcome);
        Assert.Equal("3", other.OtherSetting.ToString());
        Assert.Contains("3rd position, not 4th", other.Sentence, StringComparison.Ordinal);
    }

    /// <summary>A closed slide is never too far in (a fact of the trade): sharp in 1st is the tuning slide or the lips.</summary>
    [Theory]
    [InlineData("trombone", "Bb2", "1", 33, "closed", "tuning slide")]
    [InlineData("trombone", "F3", "1", 48, "closed", "ease the lips")]
    [InlineData("trombone-f", "C2", "T6", -35, "all the way out", "firm the lips")]
    public void A_slide_at_its_end_leaves_the_tuning_slide_and_the_lips(
        string id,
        string asked,
        string setting,
        double cents,
        string where,
        string what
    )
    {
        var judged = Judge(id, asked, setting, asked, cents);

        Assert.Equal(NoteOutcome.Right, judged.Outcome);
        Assert.Null(judged.Cm);
        Assert.Equal("lips", judged.Remedy!.What);
        Assert.Contains(where, judged.Sentence, StringComparison.Ordinal);
        Assert.Contains(what, judged.Sentence, StringComparison.Ordinal);
        Assert.DoesNotContain("too far", judged.Sentence, StringComparison.Ordinal);
    }

    [Theory]
    [InlineData("trombone")]
    [InlineData("trombone-f")]
    [InlineData("bass-trombone")]
    public void No_slide_is_moved_from_beyond_an_end(string id)
    {
        var player = Player(id);
        var (moved, slide) = (0, player.Instrument.Slide!);
        foreach (var note in Bocca.Core.Fingering.FingeringChart.Of(player.Instrument, player.Reading))
        foreach (var way in note.Ways)
            for (var cents = -95; cents <= 95; cents += 10)
            {
                var meant = MeantNote.Row(player.Instrument, player.Reading, $"{note.Written}", $"{way.Setting}")[0];
                var hertz = player.Tuning.Frequency(meant.Sounding) * Math.Pow(2, cents / 1200.0);
                if (NoteDecider.Decide(meant, hertz, player).Cm is not { } cm)
                    continue;
                moved++;
                Assert.InRange(meant.Tube.SlideOutCm - cm, -0.5, slide.TravelCm + 0.5);
            }

        Assert.True(moved > 100, $"{moved} slides were moved.");
    }

    /// <summary>The seventh partial of 1-2 and the sixth of the open horn lie 23 cents apart: only the hand can tell.</summary>
    [Fact]
    public void Asks_where_two_ways_are_too_close_to_call()
    {
        var judged = Judge("horn-f", "A4", "1-2", "G4", -21);

        Assert.Equal(NoteOutcome.TwoReadings, judged.Outcome);
        Assert.Contains(judged.Readings, way => way is { Partial: 7 } && way.Setting.ToString() == "1-2");
        Assert.Contains(judged.Readings, way => way is { Partial: 6 } && way.Setting.ToString() == "0");
        Assert.Equal(1, judged.Readings.Sum(way => way.Probability), 6);
    }

    [Fact]
    public void Recognises_the_note_before()
    {
        var player = Player("euphonium-4v-comp");
        var before = MeantNote.Of(player.Instrument, player.Reading, Pitch.Parse("Bb2"));
        var meant = MeantNote.Row(player.Instrument, player.Reading, "C3", "1-3")[0];

        var judged = NoteDecider.Decide(meant, Hertz(player, "Bb2", 0), player, before);

        Assert.Equal(NoteOutcome.PreviousNote, judged.Outcome);
        Assert.Contains("Bb2 again: the note did not change", judged.Sentence, StringComparison.Ordinal);
    }

    [Fact]
    public void Says_octave_only_where_no_partial_of_the_tube_is()
    {
        // E3 lies midway between partials 1 and 2 of 1-2.
        Assert.Equal(NoteOutcome.Octave, Judge("trumpet-bb", "E4", "1-2", "E3", 0).Outcome);
        Assert.StartsWith(
            "C4 came out as C5: an octave higher",
            Judge("trumpet-bb", "C4", "0", "C5", 0).Sentence,
            StringComparison.Ordinal
        );
        Assert.Equal("E4 came out as E3: an octave lower.", Judge("trumpet-bb", "E4", "1-2", "E3", 0).Sentence);
    }

    /// <summary>1-2-3 lies 54 cents sharp by itself; the slide or the lips bring it down, and all between is right.</summary>
    [Fact]
    public void What_is_in_tune_is_never_a_miss() =>
        Gen.Select(Gen.Int[0, Catalogue.All.Count - 1], Gen.Int[0, 200], Gen.Double[0, 1])
            .Sample(
                (which, note, share) =>
                {
                    var player = Player(Catalogue.All[which].Id);
                    var chart = Bocca.Core.Fingering.FingeringChart.Of(player.Instrument, player.Reading);
                    var meant = MeantNote.Of(player.Instrument, player.Reading, chart[note % chart.Count].Written);
                    var own = Tuning.Cents(player.Tuning.Frequency(meant.Sounding), player.Hertz(meant.Tube, meant.Partial));

                    var judged = NoteDecider.Decide(
                        meant,
                        player.Tuning.Frequency(meant.Sounding) * Math.Pow(2, own * share / 1200),
                        player
                    );

                    Assert.Equal(NoteOutcome.Right, judged.Outcome);
                    Assert.Equal(own * share, judged.Cents!.Value, 3);
                }
            );

    /// <summary>The neighbours on the tube are what lips miss by (common practice): on no instrument are they taken for the hand.</summary>
    [Fact]
    public void Neighbours_of_first_notes_are_partials_on_every_instrument()
    {
        foreach (var instrument in Catalogue.All)
        {
            var player = Player(instrument.Id);
            foreach (var first in instrument.FirstNotes)
            {
                var meant = MeantNote.Of(instrument, player.Reading, player.Reading.ToWritten(first));
                Assert.Equal(
                    NoteOutcome.PartialHigh,
                    NoteDecider.Decide(meant, player.Hertz(meant.Tube, meant.Partial + 1), player).Outcome
                );
                Assert.Equal(
                    NoteOutcome.PartialLow,
                    NoteDecider.Decide(meant, player.Hertz(meant.Tube, meant.Partial - 1), player).Outcome
                );
            }
        }
    }

    /// <summary>
    /// Every note of every chart, played as meant or on a neighbour partial, by a player anywhere within 25 cents: of
    /// those called, at least 97 % are right, and on horns above the eighth partial at least 93 %.
    /// </summary>
    [Fact]
    public void Right_or_a_neighbour_is_told_over_the_whole_range_of_every_instrument()
    {
        foreach (var instrument in Catalogue.All)
        {
            var (player, random) = (Player(instrument.Id), new Random(1));
            var notes = Bocca
                .Core.Fingering.FingeringChart.Of(instrument, player.Reading)
                .Select(note => MeantNote.Of(instrument, player.Reading, note.Written))
                .ToList();
            var (called, right, close) = (0, 0, 0);
            foreach (
                var (note, by) in notes
                    .SelectMany(note => Enumerable.Range(-1, 3).SelectMany(miss => Enumerable.Repeat((note, miss), 10)))
                    .Where(played => played.note.Partial + played.miss >= 1)
            )
            {
                var heard = player.Hertz(note.Tube, note.Partial + by) * Math.Pow(2, 25 * ((2 * random.NextDouble()) - 1) / 1200);
                var judged = NoteDecider.Decide(note, heard, player);
                if (judged.Outcome == NoteOutcome.TwoReadings)
                {
                    close++;
                    continue;
                }

                called++;
                right +=
                    judged.Outcome
                    == (
                        by switch
                        {
                            -1 => NoteOutcome.PartialLow,
                            0 => NoteOutcome.Right,
                            _ => NoteOutcome.PartialHigh,
                        }
                    )
                        ? 1
                        : 0;
            }

            Assert.True(
                right >= (instrument.Family == "horn" ? 0.93 : 0.97) * called,
                $"{instrument.Id}: {right} of {called} right, {close} too close to call."
            );
            Assert.True(close < 0.15 * (called + close), $"{instrument.Id}: {close} of {called + close} too close to call.");
        }
    }

    [Fact]
    public void Reckons_with_where_the_instrument_lies()
    {
        // A fourth partial 45 cents flat: C5 there is right with the passport, and with the reference alone only just.
        var plain = Player("trumpet-bb");
        var flat = plain with { Passport = new Passport(new Dictionary<int, double> { [4] = -70 }) };
        var meant = MeantNote.Of(plain.Instrument, plain.Reading, Pitch.Parse("C5"));
        var heard = Hertz(plain, "C5", -100);

        Assert.NotEqual(NoteOutcome.Right, NoteDecider.Decide(meant, heard, plain).Outcome);
        Assert.Equal(NoteOutcome.Right, NoteDecider.Decide(meant, heard, flat).Outcome);
    }

    [Fact]
    public void Recent_misses_tip_the_scales()
    {
        // Heard between the ninth partial of 1-2 and the eighth of 2.
        var player = Player("horn-f");
        var meant = MeantNote.Row(player.Instrument, player.Reading, "A4", "1-2")[0];
        var heard = Hertz(player, "B4", -12);
        JudgedNote Under(RecentMisses misses) => NoteDecider.Decide(meant, heard, player with { Misses = misses });

        Assert.Equal(NoteOutcome.PartialHigh, Under(new RecentMisses(6, 0)).Outcome);
        Assert.Equal(NoteOutcome.TwoReadings, Under(new RecentMisses(0, 6)).Outcome);
    }

    [Theory]
    [InlineData("H4", null, "note 1")]
    [InlineData("D4 E4", "1-3", "2 notes need 2 settings")]
    [InlineData("D4", "1", "does not give D4")]
    [InlineData("D4", "7", "cannot be set")]
    [InlineData("D4~", null, "slurs to nothing")]
    [InlineData("C2", null, "out of range")]
    public void A_row_that_makes_no_sense_is_refused_by_name(string notes, string? settings, string said)
    {
        var player = Player("trumpet-bb");
        var refused = Assert.Throws<ArgumentException>(() => MeantNote.Row(player.Instrument, player.Reading, notes, settings));
        Assert.Contains(said, refused.Message, StringComparison.Ordinal);
    }

    private static JudgedNote Judge(string id, string asked, string setting, string sounded, double cents)
    {
        var player = Player(id);
        return NoteDecider.Decide(
            MeantNote.Row(player.Instrument, player.Reading, asked, setting)[0],
            Hertz(player, sounded, cents),
            player
        );
    }

    private static PlayerSituation Player(string id) => new(Catalogue.Get(id), Catalogue.Get(id).Readings[0], Tuning.Standard);

    private static double Hertz(PlayerSituation player, string written, double cents) =>
        player.Tuning.Frequency(player.Reading.ToSounding(Pitch.Parse(written))) * Math.Pow(2, cents / 1200);
}
