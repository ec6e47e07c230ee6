using Bocca.Core.Instruments;
using Bocca.Core.Music;
using Bocca.Core.Sound;

namespace Bocca.Core.Buzz;

/// <summary>A point of a thread that is being drawn while it sounds.</summary>
/// <param name="Frame">Which hundredth of a second of the stream it is, from 0.</param>
/// <param name="Try">Which try it belongs to, from 1.</param>
/// <param name="Seconds">Seconds from that try's start.</param>
/// <param name="Cents">Cents from the middle of the gate; null where nothing with a pitch sounds.</param>
/// <param name="Hertz">Its pitch; null where nothing with a pitch sounds.</param>
/// <param name="Decided">False while it may still change.</param>
public readonly record struct LivePoint(int Frame, int Try, double Seconds, double? Cents, double? Hertz, bool Decided);

/// <summary>
/// Draws the threads of a take while it is made: a stream of samples in, points out. The newest points are guesses that
/// a later answer may replace; the take's own measures are made from the whole recording. The gate's middle is the
/// pitch of the first fifth of a second that sounds once it has started.
/// </summary>
public sealed class LiveThread
{
    /// <summary>The longest stream, seconds (ours, editable).</summary>
    public const double LongestSeconds = 600;

    private const double NewTrySeconds = 0.4;
    private const int FramesOfStart = 6;
    private const int FramesOfMiddle = 20;
    private readonly PitchTracker _tracker;
    private readonly List<PitchFrame> _frames = [];
    private readonly List<LivePoint> _guesses = [];
    private readonly List<LivePoint> _told = [];
    private State _decided;

    /// <summary>A thread for one stream.</summary>
    /// <param name="sampleRate">Samples a second, 8000 to 192000.</param>
    /// <param name="lowestHz">The lowest pitch in play: the delay follows its period.</param>
    /// <exception cref="ArgumentOutOfRangeException">The rate lies outside its range.</exception>
    public LiveThread(int sampleRate, double lowestHz) =>
        _tracker = new PitchTracker(sampleRate, new PitchTrackerSettings { LowestHz = Math.Clamp(lowestHz, 28, 200) });

    /// <summary>
    /// A thread for the player of an instrument: buzzes go an octave and a half under a beginner's first note (ours, editable).
    /// </summary>
    public static LiveThread For(Instrument instrument, int sampleRate, Tuning tuning) =>
        new(sampleRate, tuning.Frequency(instrument.FirstNotes[0].Midi - 18.0));

    /// <summary>
    /// Takes samples in and appends the points that are decided since, each once, and of the guesses those that are new or have changed,
    /// oldest first.
    /// </summary>
    public void Push(ReadOnlySpan<float> samples, ICollection<LivePoint> into)
    {
        _frames.Clear();
        _tracker.Push(samples, _frames);
        foreach (var frame in _frames)
            Add(ref _decided, frame, decided: true, into);
        _frames.Clear();
        _tracker.Preview(_frames);
        var open = _decided;
        _guesses.Clear();
        foreach (var frame in _frames)
            Add(ref open, frame, decided: false, _guesses);
        // A guess that stands as it was told before is not told again: most of them do.
        foreach (var guess in _guesses)
            if (!_told.Contains(guess))
                into.Add(guess);
        _told.Clear();
        _told.AddRange(_guesses);
    }

    private static void Add(ref State state, PitchFrame frame, bool decided, ICollection<LivePoint> into)
    {
        var index = state.Frames++;
        if (frame.Voiced)
        {
            if (state.Try == 0 || state.Silent * PitchTrack.HopSeconds >= NewTrySeconds)
            {
                state.Try++;
                state.Start = frame.TimeSeconds;
            }

            state.Silent = 0;
            // The very start, which is often low, gives a middle only until something better is there.
            if (++state.Heard == FramesOfStart + 1)
                state.LogMiddle = 0;
            var counted = state.Heard <= FramesOfStart ? state.Heard : state.Heard - FramesOfStart;
            if (state.Heard <= FramesOfStart + FramesOfMiddle)
                state.LogMiddle += (Math.Log(frame.FrequencyHz) - state.LogMiddle) / counted;
        }
        else
        {
            state.Silent++;
        }

        if (state.Try > 0 && state.Silent * PitchTrack.HopSeconds < NewTrySeconds)
            into.Add(
                new LivePoint(
                    index,
                    state.Try,
                    Math.Round(frame.TimeSeconds - state.Start, 3),
                    frame.Voiced ? Math.Round(Tuning.Cents(Math.Exp(state.LogMiddle), frame.FrequencyHz), 1) : null,
                    frame.Voiced ? Math.Round(frame.FrequencyHz, 3) : null,
                    decided
                )
            );
    }

    private struct State
    {
        public int Frames;
        public int Try;
        public double Start;
        public int Silent;
        public int Heard;
        public double LogMiddle;
    }
}
