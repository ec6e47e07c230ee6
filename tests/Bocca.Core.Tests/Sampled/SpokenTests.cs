using System.Diagnostics;
using Bocca.Core.Sound;

namespace Bocca.Core.Tests.Sampled;

/// <summary>Speech and whispering from a general-purpose synthesizer (Debian: espeak-ng): nothing that was said ever is a note.</summary>
public sealed class SpokenTests : IDisposable
{
    private readonly string _folder = Directory.CreateTempSubdirectory("bocca-spoken").FullName;

    public void Dispose() => Directory.Delete(_folder, recursive: true);

    [Theory]
    [InlineData("en", 50, "Now take a breath, put the mouthpiece on your lips, and play the same note once more. Do not hurry.")]
    [InlineData("en+f4", 90, "Can I play it again? I think my lips are tired. My brother has a trumpet, too, and he plays much louder.")]
    [InlineData("en+m3", 40, "One and two and three and four and: breathe in, and out, and listen to the end of it before you go on.")]
    public void Somebody_talking_is_said_and_never_a_row_of_notes(string voice, int pitch, string text)
    {
        var sound = Spoken(voice, pitch, text);
        Assert.Equal(DisturbanceKind.Speech, Disturbance.Find(sound, PitchTrack.Of(sound), [], voiceAsked: false, joined: true)?.Kind);
        Assert.Null(Disturbance.Find(sound, PitchTrack.Of(sound), [], voiceAsked: true));
    }

    [Theory]
    [InlineData("en")]
    [InlineData("en+f3")]
    [InlineData("en+m3")]
    [InlineData("en+f5")]
    public void Laughter_on_one_vowel_is_somebody_talking_too(string voice)
    {
        foreach (var laughter in new[] { "ha ha ha ha ha! hee hee hee hee! ha ha ha!", "ha ha ha ha ha! he he he he!" })
        {
            var sound = Spoken(voice, 50, laughter);
            Assert.Equal(DisturbanceKind.Speech, Disturbance.Find(sound, PitchTrack.Of(sound), [], voiceAsked: false, joined: true)?.Kind);
            Assert.Equal(DisturbanceKind.Speech, Disturbance.Find(sound, PitchTrack.Of(sound), [], voiceAsked: false)?.Kind);
        }
    }

    [Fact]
    public void A_whispered_count_is_no_tone()
    {
        var frames = PitchTrack.Of(Spoken("en+whisper", 50, "one, two, three, four. one, two, three, four.")).Frames;
        Assert.InRange(frames.Count(frame => frame.Voiced), 0, frames.Count / 50);
    }

    private MonoSound Spoken(string voice, int pitch, string text)
    {
        var file = Path.Combine(_folder, "spoken.wav");
        using var speaker = Process.Start("espeak-ng", ["-v", voice, "-p", $"{pitch}", "-s", "150", "-w", file, text]);
        speaker.WaitForExit();
        Assert.Equal(0, speaker.ExitCode);
        using var stream = File.OpenRead(file);
        var spoken = WavFile.Read(stream, file);
        // In a room: digital silence is none.
        var random = new Random(1);
        return new MonoSound(
            [.. spoken.Samples.Select(sample => sample + (float)(0.001 * ((2 * random.NextDouble()) - 1)))],
            spoken.SampleRate
        );
    }
}
