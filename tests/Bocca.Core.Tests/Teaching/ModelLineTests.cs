using Bocca.Core.Instruments;
using Bocca.Core.Music;
using Bocca.Core.Teaching;
using Bocca.Core.Tone.Drills;
using Bocca.Core.Tone.Notes;

namespace Bocca.Core.Tests.Teaching;

public sealed class ModelLineTests
{
    [Fact]
    public void Steps_share_the_sound_and_are_bound_and_an_octave_up_is_twice_the_pitch()
    {
        var model = ModelLine.Of(new CuePlan(60, [new Cue(0, 4, 4, "", [0, 12])]), 220);

        Assert.Equal([(220.0, 0.0, 2.0, false), (440.0, 2.0, 2.0, true)], model.Select(Told));
    }

    [Fact]
    public void A_glide_begins_at_its_first_height_and_reaches_each_of_the_others_at_the_end_of_its_piece()
    {
        var model = ModelLine.Of(new CuePlan(60, [new Cue(2, 6, 2, "", [0, 12, 0], Glides: true)]), 220);

        Assert.Equal([(220.0, 2.0, 0.0, false), (440.0, 2.0, 3.0, true), (220.0, 5.0, 3.0, true)], model.Select(Told));
        Assert.Equal([false, true, true], model.Select(note => note.Glides));
    }

    [Fact]
    public void Without_a_pitch_there_is_no_model() => Assert.Empty(ModelLine.Of(new CuePlan(60, 4, 4, 4), 0));

    [Fact]
    public void Tries_alike_are_played_first_once_and_others_each()
    {
        Assert.Single(ModelLine.Lead(ModelLine.Of(new CuePlan(60, 4, 4, 4), 220)));
        Cue[] climbing = [new(0, 4, 4, "", [0]), new(8, 4, 4, "", [2]), new(16, 4, 4, "", [0])];
        Assert.Equal([0.0, 8], ModelLine.Lead(ModelLine.Of(new CuePlan(60, climbing), 220)).Select(note => note.StartBeat));
    }

    [Fact]
    public void A_slurred_row_is_one_tone_and_a_tongued_one_as_long_as_asked()
    {
        var trumpet = Catalogue.Get("trumpet-bb");
        var meant = MeantNote.Row(trumpet, trumpet.Readings[0], "G4~C5 C4");

        var model = RowPlan.Even(meant, 60, 2, 0.5).Model(note => Tuning.Standard.Frequency(note.Sounding));

        Assert.Equal([false, true, false], model.Select(note => note.Bound));
        Assert.Equal([2.0, 1, 1], model.Select(note => note.Beats));
        // Written G4 on a B-flat trumpet sounds F4: 349.23 Hz (published: equal temperament from 440 Hz).
        Assert.Equal(349.23, model[0].Hertz, 2);
    }

    [Fact]
    public void Any_partial_will_do_has_no_model()
    {
        var trumpet = Catalogue.Get("trumpet-bb");
        var plan = RowPlan.Even(MeantNote.Row(trumpet, trumpet.Readings[0], "G4"), 60, 2);

        Assert.Empty(new RowPlan(60, [plan.Notes[0] with { AnyPartial = true }]).Model(_ => 220));
    }

    private static (double, double, double, bool) Told(ModelNote note) =>
        (Math.Round(note.Hertz, 6), note.StartBeat, note.Beats, note.Bound);
}
