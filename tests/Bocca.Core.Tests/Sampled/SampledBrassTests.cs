using System.Diagnostics;
using System.Globalization;
using System.Text.RegularExpressions;
using Bocca.Bench;
using Bocca.Core.Instruments;
using Bocca.Core.Music;
using Bocca.Core.Sound;
using Bocca.Core.Teaching;
using Bocca.Core.Tests.Sound;
using Bocca.Core.Tone.Drills;
using Bocca.Core.Tone.Listening;
using Bocca.Core.Tone.Notes;

namespace Bocca.Core.Tests.Sampled;

/// <summary>
/// Sounds that Bocca's own player did not make, and that nothing was tuned on: sampled brass, played by a general-purpose synthesizer
/// (Debian: fluidsynth, timgm6mb-soundfont). The bars are a little under what was measured; a change that falls below them hears worse.
/// </summary>
public sealed class SampledBrassTests : IDisposable
{
    private const string SoundFont = "/usr/share/sounds/sf2/TimGM6mb.sf2";
    private const double Lead = 1;
    private readonly string _folder = Directory.CreateTempSubdirectory("bocca-sampled").FullName;

    /// <summary>Instruments with their General MIDI program, counted from 0.</summary>
    public static TheoryData<string, int> Brass =>
        new()
        {
            { "trumpet-bb", 56 },
            { "horn-f", 60 },
            { "trombone", 57 },
            { "tuba-bb-3v", 58 },
        };

    public void Dispose() => Directory.Delete(_folder, recursive: true);

    /// <summary>
    /// The chromatic scale of the chart: what the tracker hears in the steady part of each note, against equal temperament.
    /// </summary>
    [Theory]
    [MemberData(nameof(Brass))]
    public void The_pitch_of_every_note_of_the_chart_is_followed(string id, int program)
    {
        var range = Catalogue.Get(id).Range;
        var midis = Enumerable.Range(range.Lowest.Midi, range.Highest.Midi - range.Lowest.Midi + 1).ToList();
        var sound = Render(program, midis.Select((midi, i) => (Lead + i, 0.8, midi)));
        var frames = PitchTrack.Of(sound).Frames;
        var (all, heard, octaves) = (0, 0, 0);
        foreach (var (i, midi) in midis.Index())
        foreach (var frame in frames.Where(frame => frame.TimeSeconds > Lead + i + 0.2 && frame.TimeSeconds < Lead + i + 0.7))
        {
            all++;
            var cents = frame.Voiced ? Math.Abs(Tuning.Standard.CentsFrom(Pitch.FromMidi(midi), frame.FrequencyHz)) : double.NaN;
            heard += cents < 50 ? 1 : 0;
            octaves += cents is > 1150 and < 1250 ? 1 : 0;
        }

        Assert.True(heard >= 0.985 * all, $"{heard} of {all} frames within 50 cents");
        Assert.True(octaves <= 0.005 * all, $"{octaves} of {all} frames an octave off");
    }

    /// <summary>First notes, each four times: every one is found, and is the one meant.</summary>
    [Theory]
    [MemberData(nameof(Brass))]
    public void Repeated_first_notes_are_found_and_right(string id, int program)
    {
        var (instrument, reading) = (Catalogue.Get(id), Catalogue.Get(id).Readings[0]);
        var pitches = instrument.FirstNotes.SelectMany(note => Enumerable.Repeat(note, 4)).ToList();
        var sound = Render(program, pitches.Select((pitch, i) => (Lead + (0.8 * i), 0.5, pitch.Midi)));
        var heard = Hear(sound, instrument, [.. pitches.Select(pitch => MeantNote.Of(instrument, reading, reading.ToWritten(pitch)))]);
        var right = heard.Notes.Count(note => note.Judged.Outcome == NoteOutcome.Right);
        Assert.True(right >= 0.95 * pitches.Count, $"{right} of {pitches.Count} notes right, {heard.Extra.Count} too many");
        var off = heard
            .Notes.Where(note => note.Sound is not null)
            .Select(note => Math.Abs(note.Sound!.StartSeconds - Lead - (0.8 * (note.Number - 1))))
            .Order()
            .ToList();
        Assert.True(off[off.Count / 2] < 0.03, $"starts {1000 * off[off.Count / 2]:0} ms off in the median");
    }

    /// <summary>The same in rooms that ring: the notes come, and the room is known, whoever plays.</summary>
    [Theory]
    [InlineData("trumpet-bb", 56, 0.3)]
    [InlineData("trumpet-bb", 56, 0.6)]
    [InlineData("trumpet-bb", 56, 1.2)]
    [InlineData("trombone", 57, 0.6)]
    [InlineData("horn-f", 60, 0.6)]
    [InlineData("tuba-bb-3v", 58, 0.6)]
    public void In_a_room_that_rings_notes_come_and_the_room_is_known(string id, int program, double seconds)
    {
        var (instrument, reading) = (Catalogue.Get(id), Catalogue.Get(id).Readings[0]);
        var pitches = instrument.FirstNotes.SelectMany(note => Enumerable.Repeat(note, 2)).ToList();
        var dry = Render(program, pitches.Select((pitch, i) => (Lead + (1.5 * i), 0.6, pitch.Midi)));
        var heard = Hear(
            LiveRoom.On(dry, seconds),
            instrument,
            [.. pitches.Select(pitch => MeantNote.Of(instrument, reading, reading.ToWritten(pitch)))]
        );
        Assert.InRange(heard.RoomDecaySeconds!.Value, 0.65 * seconds, 1.6 * seconds);
        Assert.True(RowArticulation.Of(heard).EndingsHidden);
        var right = heard.Notes.Count(note => note.Judged.Outcome == NoteOutcome.Right);
        Assert.True(right >= 0.9 * pitches.Count, $"{right} of {pitches.Count} notes right");
    }

    /// <summary>A row of five notes, in which once the partial above or below the one meant sounds: it is named so, and no other.</summary>
    [Theory]
    [MemberData(nameof(Brass))]
    public void A_partial_too_low_or_too_high_is_named(string id, int program)
    {
        var (instrument, reading) = (Catalogue.Get(id), Catalogue.Get(id).Readings[0]);
        int[] partials = instrument.Family == "horn" ? [4, 5, 6, 5, 4] : [3, 4, 5, 4, 3];
        int Midi(int partial) => instrument.PartialOne.Midi + HarmonicSeries.Semitones(partial);
        var open = instrument.Tubes[0].Setting;
        var meant = partials.Select(partial => MeantNote.On(instrument, reading, reading.ToWritten(Pitch.FromMidi(Midi(partial))), open));
        var rows = Enumerable.Range(0, partials.Length).SelectMany(at => new[] { (at, By: -1), (at, By: 1) }).ToList();
        var wrong = new List<string>();
        foreach (var (at, by) in rows)
        {
            var sound = Render(program, partials.Select((partial, i) => (Lead + i, 0.7, Midi(i == at ? partial + by : partial))));
            var heard = Hear(sound, instrument, [.. meant]).Notes.Select(note => note.Judged.Outcome).ToList();
            if (!heard.SequenceEqual(partials.Select((_, i) => Named(i == at ? by : 0))))
                wrong.Add($"note {at + 1} by {by}: {string.Join(" ", heard)}");
        }

        Assert.True(wrong.Count <= 1, $"{wrong.Count} of {rows.Count} rows heard wrong:\n{string.Join("\n", wrong)}");
    }

    /// <summary>
    /// Pairs of partials, the old note held 30 ms into the new one or ended 60 ms before it: slurred and tongued are told apart. The
    /// horn's samples ring on (60 ms after their end they are down 4 to 9 dB, so nothing divides them); they are ended 200 ms before.
    /// </summary>
    [Theory]
    [MemberData(nameof(Brass))]
    public void Slurred_and_tongued_are_told_apart(string id, int program)
    {
        const double Beat = 0.8;
        var (instrument, reading) = (Catalogue.Get(id), Catalogue.Get(id).Readings[0]);
        int[] partials = instrument.Family == "horn" ? [4, 5, 4, 6, 5, 6, 4] : [2, 3, 2, 3, 4, 3, 4];
        var pitches = partials.Select(partial => Pitch.FromMidi(instrument.PartialOne.Midi + HarmonicSeries.Semitones(partial))).ToList();
        var meant = pitches
            .Select(pitch => MeantNote.On(instrument, reading, reading.ToWritten(pitch), instrument.Tubes[0].Setting))
            .ToList();
        var gap = instrument.Family == "horn" ? 0.2 : 0.06;
        foreach (var slur in new[] { true, false })
        {
            var sound = Render(program, pitches.Select((pitch, i) => (Lead + (Beat * i), slur ? Beat + 0.03 : Beat - gap, pitch.Midi)));
            var changes = Hear(sound, instrument, meant).Notes.Skip(1).Where(note => note.Sound is not null).ToList();
            var told = changes.Count(note => note.Sound!.Tongued == !slur);
            Assert.True(told >= partials.Length - 2, $"{told} of {partials.Length - 1} heard as {(slur ? "slurred" : "tongued")}");
        }
    }

    /// <summary>
    /// Trombone notes out of tune by so many cents, in first and in fourth position: no sentence moves the slide where there is none,
    /// and in fourth position it names the way and the centimetres (a semitone is about 9 cm of slide there, so 43 cents about 4: common
    /// practice, from memory).
    /// </summary>
    [Theory]
    [InlineData(25)]
    [InlineData(43)]
    [InlineData(-25)]
    [InlineData(-43)]
    public void The_slide_is_moved_only_where_there_is_slide(int cents)
    {
        var (instrument, reading) = (Catalogue.Get("trombone"), Catalogue.Get("trombone").Readings[0]);
        string[] written = ["Bb2", "F3", "Bb3", "D4", "G2", "D3", "G3", "B3"];
        var meant = written.Select(note => MeantNote.Of(instrument, reading, Pitch.Parse(note))).ToList();
        var played = Render(57, meant.Select((note, i) => (Lead + i, 0.7, note.Written.Midi)));
        var sound = new MonoSound(played.Samples, (int)Math.Round(played.SampleRate * Math.Pow(2, cents / 1200.0)));
        var notes = Hear(sound, instrument, meant).Notes.Where(note => note.Judged.Outcome is NoteOutcome.Right or NoteOutcome.SlideOff);
        Assert.True(notes.Count() >= 7, string.Join("\n", notes.Select(note => note.Judged.Sentence)));
        Assert.DoesNotContain(
            notes,
            note => note.Judged.Meant.Setting.Position == 1 && note.Judged.Sentence.Contains("too far in", StringComparison.Ordinal)
        );
        foreach (var note in notes.Where(note => note.Judged.Meant.Setting.Position == 4 && Math.Abs(cents) > 40))
        {
            Assert.Contains(cents > 0 ? "too far in" : "too far out", note.Judged.Sentence, StringComparison.Ordinal);
            var said = double.Parse(Regex.Match(note.Judged.Sentence, @"([\d.]+) cm").Groups[1].Value, CultureInfo.InvariantCulture);
            Assert.InRange(said, 2.5, 5.5);
        }
    }

    private static NoteOutcome Named(int by) =>
        by switch
        {
            -1 => NoteOutcome.PartialLow,
            0 => NoteOutcome.Right,
            _ => NoteOutcome.PartialHigh,
        };

    private static HeardRow Hear(MonoSound sound, Instrument instrument, IReadOnlyList<MeantNote> meant) =>
        RowListener.Hear(
            sound,
            new AskedRow(
                RowPlan.Even(meant, 60, 1),
                new PlayerSituation(instrument, instrument.Readings[0], Tuning.Standard),
                LearningStage.Second
            )
        );

    private MonoSound Render(int program, IEnumerable<(double Start, double Seconds, int Midi)> notes)
    {
        Assert.True(File.Exists(SoundFont), "The soundfont is missing: run 'apt-get install fluidsynth timgm6mb-soundfont' as root.");
        var (midi, wav) = (Path.Combine(_folder, $"{Guid.NewGuid()}.mid"), Path.Combine(_folder, $"{Guid.NewGuid()}.wav"));
        MidiScale.Write(midi, program, notes.Select(note => (note.Start, note.Seconds, note.Midi, 90)));
        string[] arguments = ["-ni", "-q", "-R", "0", "-C", "0", "-g", "0.8", "-r", "44100", "-O", "s16", "-F", wav, SoundFont, midi];
        using var synthesizer = Process.Start(
            new ProcessStartInfo("fluidsynth", arguments) { RedirectStandardError = true, RedirectStandardOutput = true }
        )!;
        synthesizer.WaitForExit();
        Assert.Equal(0, synthesizer.ExitCode);
        return WavFile.Read(File.ReadAllBytes(wav), wav);
    }
}
