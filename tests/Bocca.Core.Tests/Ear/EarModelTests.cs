using Bocca.Core.Ear;
using Bocca.Core.Music;
using Bocca.Core.Teaching;

namespace Bocca.Core.Tests.Ear;

public class EarModelTests
{
    private static readonly VoiceRange Child = VoiceRange.Usual;

    [Fact]
    public void What_is_sung_sounds_where_the_voice_is()
    {
        // Two octaves up from Bb1, as a child sings a tuba's note: Bb3 is 233.08 Hz (published: equal temperament from A4 = 440 Hz).
        var model = EarModel.Of(Question(EarKind.Intervals, "Bb1", "D2"), Tuning.Standard, Child, Singing.Alone);
        Assert.Equal(2, model.Octaves);
        Assert.Equal([233.08, 293.66], model.Notes.Select(note => note.Hertz), (a, b) => Math.Abs(a - b) < 0.01);
        Assert.Equal([(0.0, 1.84), (2.0, 1.84)], model.Notes.Select(note => (note.StartBeat, Math.Round(note.Beats, 9))));
        // Nothing to be sung: as it is written.
        var played = EarModel.Of(
            Question(EarKind.Intervals, "Bb1", "D2") with
            {
                Sung = [],
                Played = [Pitch.Parse("Bb1")],
            },
            Tuning.Standard,
            Child,
            Singing.WithAVoice
        );
        Assert.Equal((0, 58.27), (played.Octaves, Math.Round(played.Notes[0].Hertz, 2)));
    }

    [Fact]
    public void What_no_octave_brings_to_the_voice_sounds_as_written()
    {
        // From Bb1 to Bb3 are two octaves: a voice of a sixth reaches them nowhere.
        var model = EarModel.Of(Question(EarKind.Intervals, "Bb1", "Bb3"), Tuning.Standard, new VoiceRange(220, 370), Singing.Alone);
        Assert.Null(model.Octaves);
        Assert.Equal([58.27, 233.08], model.Notes.Select(note => Math.Round(note.Hertz, 2)));
    }

    [Theory]
    [InlineData(2, 4)]
    [InlineData(3, 8)]
    public void With_a_voice_it_comes_again_after_whole_bars(int notes, double again)
    {
        var question = Question(EarKind.Intervals, [.. Enumerable.Repeat("F3", notes)]);
        var model = EarModel.Of(question, Tuning.Standard, Child, Singing.WithAVoice);
        Assert.Equal(2 * notes, model.Notes.Count);
        Assert.All(
            Enumerable.Range(0, notes),
            i => Assert.Equal(model.Notes[i] with { StartBeat = model.Notes[i].StartBeat + again }, model.Notes[notes + i])
        );
    }

    [Fact]
    public void A_chord_rings_to_its_end_and_a_drone_is_there_before_what_is_played()
    {
        var chord = EarModel.Of(Question(EarKind.Lowest, "F3", "A3"), Tuning.Standard, Child, Singing.Alone);
        Assert.All(chord.Notes, note => Assert.Equal(2, note.Beats));
        var along = EarModel.Along(Question(EarKind.Drone, "F3") with { Drone = [174.61, 261.63], NoteBeats = 6 });
        Assert.Equal([(174.61, -2.0, 8.0), (261.63, -2.0, 8.0)], along.Select(line => (line[0].Hertz, line[0].StartBeat, line[0].Beats)));
    }

    [Fact]
    public void Answers_lead_up_the_staircase_from_where_the_oldest_stood()
    {
        Assert.Equal(new Staircase(0, 5), Staircase.Of([], 5));
        Assert.Equal(new Staircase(3, 5, 1), Staircase.Of([(2, true), (2, true), (2, true), (3, true)], 5));
        Assert.Equal(new Staircase(1, 5), Staircase.Of([(2, true), (2, false)], 5));
        // What an answer says of itself later on does not move it: it moves by what came.
        Assert.Equal(new Staircase(2, 5, 2), Staircase.Of([(2, true), (4, true)], 5));
    }

    private static EarQuestion Question(EarKind kind, params string[] notes) =>
        new(EarDrill.All.First(drill => drill.Kind == kind), 0, 1)
        {
            Heard = [.. notes.Select((note, i) => (Pitch.Parse(note), 2.0 * i, 2.0))],
            Sung = [.. notes.Select(Pitch.Parse)],
        };
}
