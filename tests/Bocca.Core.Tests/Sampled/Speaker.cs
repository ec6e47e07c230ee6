using System.Runtime.InteropServices;

namespace Bocca.Core.Tests.Sampled;

/// <summary>A word as a general-purpose synthesizer says it, and where its vowel begins by the synthesizer's own account.</summary>
/// <param name="Samples">The sound, at <see cref="Speaker.SampleRate"/>.</param>
/// <param name="VowelSeconds">When its first vowel begins.</param>
public sealed record SpokenWord(float[] Samples, double VowelSeconds);

/// <summary>Single words by Debian's libespeak-ng, which tells when each of its phonemes begins.</summary>
public static class Speaker
{
    /// <summary>Samples a second.</summary>
    public const int SampleRate = 22050;

    private const int Synchronous = 2,
        PhonemeEvents = 1,
        Phoneme = 7,
        Rate = 1,
        PitchParameter = 3,
        Utf8 = 1;

    private static readonly List<short> Samples = [];
    private static double? _vowel;
    private static readonly OnSound Callback = Take;
    private static readonly Lazy<int> Started = new(() =>
    {
        var rate = espeak_Initialize(Synchronous, 0, null, PhonemeEvents);
        espeak_SetSynthCallback(Callback);
        return rate;
    });

    private static readonly Lock Gate = new();

    /// <summary>Says one word.</summary>
    /// <param name="voice">The synthesizer's voice, such as <c>en+f3</c>.</param>
    /// <param name="word">The word.</param>
    /// <param name="wordsAMinute">How fast, 80 to 450.</param>
    /// <param name="pitch">0 to 99.</param>
    public static SpokenWord Say(string voice, string word, int wordsAMinute, int pitch)
    {
        lock (Gate)
        {
            Done(Started.Value - SampleRate);
            Samples.Clear();
            _vowel = null;
            Done(espeak_SetVoiceByName(voice));
            Done(espeak_SetParameter(Rate, wordsAMinute, 0));
            Done(espeak_SetParameter(PitchParameter, pitch, 0));
            var text = System.Text.Encoding.UTF8.GetBytes(word + "\0");
            Done(espeak_Synth(text, (nuint)text.Length, 0, 0, 0, Utf8, 0, 0));
            return new SpokenWord([.. Samples.Select(sample => sample / 32768f)], _vowel ?? 0);
        }
    }

    private static int Take(nint wav, int count, nint events)
    {
        if (wav == 0)
            return 0;
        var samples = new short[count];
        Marshal.Copy(wav, samples, 0, count);
        Samples.AddRange(samples);
        for (
            var each = Marshal.PtrToStructure<Event>(events);
            each.Type != 0;
            events += Marshal.SizeOf<Event>(), each = Marshal.PtrToStructure<Event>(events)
        )
            if (each.Type == Phoneme && _vowel is null && IsVowel(each.Name))
                _vowel = each.AudioMilliseconds / 1000.0;
        return 0;
    }

    private static void Done(int answer)
    {
        if (answer != 0)
            throw new InvalidOperationException($"The synthesizer answered {answer}.");
    }

    private static bool IsVowel(string name) =>
        name.TrimStart('\'', ',', '%', '=', '_', ':') is [var first, ..] && "aeiouAEIOUV@03y".Contains(first, StringComparison.Ordinal);

    private delegate int OnSound(nint wav, int count, nint events);

    [StructLayout(LayoutKind.Sequential)]
    private struct Event
    {
        public int Type;
        public uint Identifier;
        public int TextPosition;
        public int Length;
        public int AudioMilliseconds;
        public int Sample;
        public nint User;
        public long Id;

        /// <summary>The phoneme's name stands in the bytes of the identifier.</summary>
        public readonly string Name => System.Text.Encoding.ASCII.GetString(BitConverter.GetBytes(Id)).TrimEnd('\0');
    }

    [DllImport("libespeak-ng.so.1")]
    private static extern int espeak_Initialize(int output, int bufferMilliseconds, string? path, int options);

    [DllImport("libespeak-ng.so.1")]
    private static extern void espeak_SetSynthCallback(OnSound callback);

    [DllImport("libespeak-ng.so.1")]
    private static extern int espeak_SetVoiceByName(string name);

    [DllImport("libespeak-ng.so.1")]
    private static extern int espeak_SetParameter(int parameter, int value, int relative);

    [DllImport("libespeak-ng.so.1")]
    private static extern int espeak_Synth(
        byte[] text,
        nuint size,
        uint position,
        int positionType,
        uint endPosition,
        uint flags,
        nint identifier,
        nint userData
    );
}
