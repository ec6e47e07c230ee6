using Bocca.Core.Music;
using CsCheck;

namespace Bocca.Core.Tests.Music;

public sealed class PitchTests
{
    private static readonly Gen<Pitch> Pitches = Gen.Select(Gen.Enum<Letter>(), Gen.Int[-1, 1], Gen.Int[1, 7])
        .Select((letter, alter, octave) => new Pitch(letter, alter, octave));

    // Published: Young 1939 (C4 is middle C), ISO 16 (A4 = 440 Hz); MIDI numbers are common practice.
    [Theory]
    [InlineData("A4", 69, 440)]
    [InlineData("C4", 60, 261.63)]
    [InlineData("Bb3", 58, 233.08)]
    [InlineData("Bb2", 46, 116.54)]
    [InlineData("Bb1", 34, 58.27)]
    [InlineData("E1", 28, 41.20)]
    [InlineData("Bb0", 22, 29.14)]
    public void Has_its_midi_number_and_frequency(string name, int midi, double hertz)
    {
        Assert.Equal(midi, Pitch.Parse(name).Midi);
        Assert.Equal(hertz, Tuning.Standard.Frequency(Pitch.Parse(name)), 0.005);
    }

    [Theory]
    [InlineData("")]
    [InlineData("H4")]
    [InlineData("C")]
    [InlineData("C#b4")]
    [InlineData("C###4")]
    [InlineData("4")]
    [InlineData("C44")]
    [InlineData("C 4")]
    [InlineData("14")]
    public void Refuses_what_is_no_note_and_names_it(string text)
    {
        var refused = Assert.Throws<FormatException>(() => Pitch.Parse(text));
        Assert.Contains($"'{text}'", refused.Message);
    }

    [Theory]
    [InlineData("D#5", "Bb4", "Eb5")]
    [InlineData("C#4", "Eb4", "Db4")]
    [InlineData("Bb4", "F#4", "A#4")]
    [InlineData("Cb4", "Bb3", "B3")]
    [InlineData("D#5", "C4", "Eb5")]
    public void A_note_heard_is_spelled_as_the_part_beside_it(string heard, string beside, string spelled) =>
        Assert.Equal(Pitch.Parse(spelled), Pitch.Parse(heard).SpelledBeside(Pitch.Parse(beside)));

    [Fact]
    public void Reads_what_it_writes() => Pitches.Sample(pitch => Assert.Equal(pitch, Pitch.Parse(pitch.ToString())));

    [Fact]
    public void A_midi_number_survives_its_spelling() => Gen.Int[0, 127].Sample(midi => Assert.Equal(midi, Pitch.FromMidi(midi).Midi));

    [Fact]
    public void Transposing_there_and_back_sounds_the_same() =>
        Gen.Select(Pitches.Where(pitch => pitch.Midi is >= 24 and <= 103), Gen.Int[-14, 14], Gen.Int[-24, 24])
            .Sample(
                (pitch, steps, semitones) =>
                {
                    var there = pitch.Transpose(new Interval(steps, semitones));
                    Assert.Equal(pitch.Midi + semitones, there.Midi);
                    Assert.Equal(pitch.Midi, there.Transpose(new Interval(-steps, -semitones)).Midi);
                }
            );

    [Fact]
    public void Frequency_and_midi_are_inverse() =>
        Gen.Double[20, 4000].Sample(hertz => Assert.Equal(hertz, new Tuning(442).Frequency(new Tuning(442).Midi(hertz)), hertz * 1e-9));

    // Common practice: H and B, endings for sharps and flats; do is C, or moves.
    [Theory]
    [InlineData(NoteNamingKind.German, "B3", "H3")]
    [InlineData(NoteNamingKind.German, "Bb3", "B3")]
    [InlineData(NoteNamingKind.German, "F#4", "Fis4")]
    [InlineData(NoteNamingKind.German, "Eb4", "Es4")]
    [InlineData(NoteNamingKind.German, "Ab4", "As4")]
    [InlineData(NoteNamingKind.German, "Db4", "Des4")]
    [InlineData(NoteNamingKind.German, "B#3", "His3")]
    [InlineData(NoteNamingKind.FixedDo, "G4", "sol4")]
    [InlineData(NoteNamingKind.FixedDo, "Bb3", "si♭3")]
    [InlineData(NoteNamingKind.MovableDo, "Bb2", "do")]
    [InlineData(NoteNamingKind.MovableDo, "D3", "mi")]
    [InlineData(NoteNamingKind.MovableDo, "A2", "ti")]
    [InlineData(NoteNamingKind.MovableDo, "E3", "fi")]
    [InlineData(NoteNamingKind.MovableDo, "Ab2", "te")]
    public void Notes_are_called_as_a_room_calls_them(NoteNamingKind kind, string printed, string called)
    {
        var naming = new NoteNaming(kind, Pitch.Parse("Bb2"));
        Assert.Equal(called, naming.Name(Pitch.Parse(printed)));
        Assert.Equal(called, naming.Table()[printed]);
    }

    // Common practice: crotchet, quaver, minim.
    [Theory]
    [InlineData("quarter rest", "crotchet rest")]
    [InlineData("an eighth", "a quaver")]
    [InlineData("half note", "minim")]
    [InlineData("an eighth rest", "a quaver rest")]
    [InlineData("sixteenths", "semiquavers")]
    public void Note_values_have_their_british_names(string printed, string called) => Assert.Equal(called, ValueNaming.British[printed]);

    [Fact]
    public void A_half_of_something_else_is_no_minim() => Assert.DoesNotContain("half", ValueNaming.British.Keys);
}
