using System.Collections.Concurrent;
using Bocca.Core.Slurs;
using Bocca.Core.Sound;
using Bocca.Core.Teaching;
using Bocca.Core.Tone.Notes;

namespace Bocca.Core.Simulation;

/// <summary>The three handles over a slur.</summary>
/// <param name="Reach">How far the lips go with each change, percent of what the new partial needs: 0 they stay, 100 all the way, 200
/// twice as far.</param>
/// <param name="Opening">How far apart they are: 0 pressed together, 50 as usual, 100 wide.</param>
/// <param name="Air">How much breath: 0 none, 50 as usual, 100 all there is.</param>
public sealed record SlurLips(double Reach, double Opening, double Air)
{
    /// <summary>As a player does it who can.</summary>
    public static SlurLips Usual { get; } = new(100, 50, 50);
}

/// <summary>
/// One try of a slur on the physical model: the lips of a practised player go from partial to partial as far as the handles
/// let them, the tube answers as it will, and what comes is heard like a pupil.
/// </summary>
/// <param name="Sound">What it sounds like, a beat of rest before and after.</param>
/// <param name="Heard">What was heard of it.</param>
/// <param name="Slurred">Whether every note came, and no change was broken.</param>
/// <param name="Sentence">What came and what broke it, for people.</param>
/// <param name="Why">Why, in terms of lips, tube and air; empty where nothing broke.</param>
/// <param name="Next">Which handle to move next, and whither.</param>
public sealed record SlurTrial(MonoSound Sound, HeardSlur Heard, bool Slurred, string Sentence, string Why, string Next)
{
    /// <summary>From here on the lips are too far apart, from there too close, the breath too small or too large (of 100).</summary>
    private const double TooOpen = 65,
        TooClose = 35,
        TooLittleAir = 30,
        TooMuchAir = 80;

    /// <summary>The longest slur that is tried, seconds: more than any breath holds.</summary>
    private const double LongestSeconds = 30;

    private const double ToneLevel = 0.1,
        NoiseLevel = 0.004,
        Unrest = 0.004;

    /// <summary>A note that slurs so far off its place was pulled there by the lips (cents; ours, editable).</summary>
    private const double PulledCents = 25;

    private const int ControlSamples = 16;
    private const float LoudestPeak = 0.6f;

    /// <summary>
    /// Ways from one partial to the next that a player tries while practising: a tube holds the note it has, so lips go past the
    /// place for a moment and settle (ours, editable).
    /// </summary>
    private static readonly IReadOnlyList<Passage> Passages =
    [
        new(0, 0.05, 0.02),
        new(0.3, 0.03, 0.01),
        new(1, 0.02, 0.01),
        new(0.6, 0.03, 0.01),
    ];

    private static readonly ConcurrentDictionary<string, Passage> Practised = new();

    /// <summary>Plays a slur.</summary>
    /// <param name="asked">The slur, once or more often, on one tube.</param>
    /// <param name="lips">The handles.</param>
    /// <param name="seed">Same seed, same samples.</param>
    /// <exception cref="ArgumentException">The slur changes its tube, where the hand and not the lips leads, or no breath holds
    /// it.</exception>
    public static SlurTrial Play(AskedSlur asked, SlurLips lips, int seed)
    {
        if (asked.Slur.Shape.Neighbours)
            throw new ArgumentException($"{asked.Slur.Shape.Name} change the tube: try the lips on a slur along one tube.");
        if (asked.Slur.Seconds(asked.Tempo) > LongestSeconds)
            throw new ArgumentException(
                $"This slur takes {asked.Slur.Seconds(asked.Tempo):0} seconds, and no breath holds it: play it quicker."
            );
        var practised = Practised.GetOrAdd($"{asked.Player.Instrument.Id} {asked.Slur.Id} {asked.Tempo:0}", _ => Practise(asked));
        return Of(asked, lips, practised, seed);
    }

    /// <summary>The way that serves this slur best: every note, and the fewest changes broken.</summary>
    private static Passage Practise(AskedSlur asked)
    {
        var best = (Way: Passages[0], Broken: int.MaxValue);
        foreach (var way in Passages)
        {
            var trial = Of(asked, SlurLips.Usual, way, 1);
            var broken =
                (100 * trial.Heard.Row.Notes.Count(note => note.Judged.Outcome != NoteOutcome.Right))
                + trial.Heard.Changes.Count(change => change.Fault(asked.Bands) is not null);
            if (broken < best.Broken)
                best = (way, broken);
            if (broken == 0)
                break;
        }

        return best.Way;
    }

    private static SlurTrial Of(AskedSlur asked, SlurLips lips, Passage way, int seed)
    {
        var sound = Render(asked, lips, way, seed);
        var heard = HeardSlur.Hear(sound, asked, asked.Plan.BeatSeconds, handStays: true);
        var bands = asked.Bands;
        var broken = heard.Changes.FirstOrDefault(change => change.Fault(bands) is not null);
        var silent = heard.Row.Notes.All(note => note.Sound is null);
        var slurred =
            !silent && heard.Row.Problem is null && broken is null && heard.Row.Notes.All(note => note.Judged.Outcome == NoteOutcome.Right);
        return new SlurTrial(
            sound,
            heard,
            slurred,
            Told(heard, broken, bands, silent),
            slurred ? "" : Reason(asked, lips, heard, broken, silent),
            Onward(lips, slurred)
        );
    }

    private static MonoSound Render(AskedSlur asked, SlurLips lips, Passage way, int seed)
    {
        var (instrument, notes, beat) = (asked.Player.Instrument, asked.Plan.Notes, asked.Plan.BeatSeconds);
        var tube = notes[0].Meant.Tube;
        var tunings = notes
            .Select(note =>
                LipTuning.For(instrument, SoundStage.Instrument, note.Meant.Tube, asked.Player.Hertz(note.Meant.Tube, note.Meant.Partial))
            )
            .ToList();
        var build = LipBuild.Of(instrument.Family);
        var column = AirColumn.Of(SoundStage.Instrument, instrument, tube);
        var model = new LipModel(build, column.Scaled(tunings[0].ColumnRatio));
        var radiation = new Radiation(column.RadiatesFromHz);
        var random = new Random(seed);
        var air = new BreathNoise(random, NoiseLevel);
        var starts = asked.Plan.Starts.Select(start => start + beat).ToList();
        var ends = notes.Select((note, i) => starts[i] + (note.Beats * beat)).ToList();
        var samples = new float[(int)((ends[^1] + beat) * LipModel.Rate)];
        var handles = default(LipHandles);
        var gain = ToneLevel / tunings[0].Level;
        for (var i = 0; i < samples.Length; i++)
        {
            if (i % ControlSamples == 0)
                handles = At((double)i / LipModel.Rate);
            var unrest = 1 + (Unrest * ((2 * random.NextDouble()) - 1));
            var tone = gain * radiation.Next(model.Next(handles with { PressurePa = handles.PressurePa * unrest }));
            samples[i] = (float)(tone + (air.Next() * LipModel.Turbulence(model.Flow / tunings[0].Flow)));
        }

        // Forced lips are loud; a recording of them is turned down.
        var peak = samples.Max(Math.Abs);
        if (peak > LoudestPeak)
            for (var i = 0; i < samples.Length; i++)
                samples[i] *= LoudestPeak / peak;
        return new MonoSound(samples, LipModel.Rate);

        LipHandles At(double t)
        {
            var now = Math.Max(0, starts.FindLastIndex(start => start - (way.Seconds / 2) <= t));
            var (phrase, last) = (now, now);
            while (phrase > 0 && notes[phrase - 1].Meant.SlurredToNext)
                phrase--;
            while (last + 1 < notes.Count && notes[last].Meant.SlurredToNext)
                last++;
            // From note to note as far as the handle lets them: lips, and what the mouth behind them does with the air column.
            var before = Math.Max(phrase, now - 1);
            var since = t - starts[now] + (way.Seconds / 2);
            var beyond = now == phrase ? 0 : way.Beyond * Smooth((way.BeyondSeconds + way.Seconds - since) / way.Seconds);
            var share = lips.Reach / 100 * Smooth(since / way.Seconds) * (1 + beyond);
            double Between(double first, double from, double to) =>
                first * Math.Pow(from / first, lips.Reach / 100) * Math.Pow(to / from, share);
            model.Tune(column, Between(tunings[phrase].ColumnRatio, tunings[before].ColumnRatio, tunings[now].ColumnRatio));
            var breath = Math.Min(Smooth((t - starts[phrase]) / 0.02), Smooth((ends[last] + 0.03 - t) / 0.1));
            return LipSetting.On(
                Between(tunings[phrase].TensionHz, tunings[before].TensionHz, tunings[now].TensionHz),
                lips.Opening,
                breath * lips.Air
            );
        }
    }

    private static double Smooth(double share) =>
        share <= 0 ? 0
        : share >= 1 ? 1
        : 0.5 - (0.5 * Math.Cos(Math.PI * share));

    private static string Told(HeardSlur heard, SlurChange? broken, SlurBands bands, bool silent)
    {
        if (silent || heard.Row.Problem is not null)
            return "No tone came.";
        var missed = heard.Row.Notes.FirstOrDefault(note => note.Judged.Outcome != NoteOutcome.Right);
        var off = heard.Row.Notes.MaxBy(note => Math.Abs(note.Judged.Cents ?? 0))!.Judged;
        return missed is not null ? missed.Judged.Sentence
            : broken is not null ? SlurJudge.Words(broken, bands, heard.Row)
            : Math.Abs(off.Cents ?? 0) >= PulledCents
                ? $"It slurs, but {off.Meant.Written} is pulled {Math.Abs(off.Cents!.Value):0} cents {(off.Cents > 0 ? "sharp" : "flat")}."
            : $"It slurs: {Clean(heard.Changes.Count)}.";
    }

    private static string Clean(int changes) =>
        changes switch
        {
            1 => "the change is clean",
            2 => "both changes clean",
            _ => $"all {Judging.Words.Of(changes)} changes clean",
        };

    private static string Reason(AskedSlur asked, SlurLips lips, HeardSlur heard, SlurChange? broken, bool silent)
    {
        if (silent)
            return LipTrial.NoTone(lips.Opening, lips.Air, loud: false);
        if (lips.Opening >= TooOpen)
            return LipTrial.Airy;
        if (lips.Opening <= TooClose)
            return $"{LipTrial.Pinched} Pulled sharp, it slips to the place above.";
        if (lips.Air < TooLittleAir)
            return "Too little breath: it just holds the easier note and not the change.";
        if (lips is { Air: >= TooMuchAir, Reach: > 80 and < 125 })
            return LipTrial.Forced;
        var missed = heard.Row.Notes.FirstOrDefault(note => note.Judged.Outcome != NoteOutcome.Right)?.Judged;
        var up = missed is not null && asked.Slur.Notes[0].Partial < missed.Meant.Partial;
        if (missed?.Outcome == NoteOutcome.PreviousNote || (missed is { By: not 0 } && missed.By < 0 == up))
            return lips.Reach < 100
                ? $"The lips went {lips.Reach:0} % of the way. A tube holds the note it has until they are well past the middle."
                : "The tube held on to the note it had: the lips must go there at once, and the air with them.";
        if (missed is { Outcome: not NoteOutcome.NoClearTone })
            return lips.Reach > 100
                ? $"The lips went {lips.Reach:0} % of the way: past the place, and the next partial took them."
                : "The lips stopped between two places of the tube, and the wrong one took them.";
        if (missed is not null)
            return $"The lips went {lips.Reach:0} % of the way and hang between two places: they force a tone there that the tube "
                + $"does not carry.";
        return broken?.Fault(asked.Bands) switch
        {
            "overshoot" or "touched" => "The lips went past the place first and came back.",
            "slow" => "Lips and tube pulled different ways for a while.",
            _ => "Between two places nothing holds the lips: the air alone carries the tone across.",
        };
    }

    /// <summary>The handle that is furthest from where it carries goes back first; with all of them there it is the slur.</summary>
    private static string Onward(SlurLips lips, bool slurred)
    {
        if (slurred)
            return lips == SlurLips.Usual
                ? "Let the lips go less far, step by step, until the old note keeps sounding."
                : "One handle a little further, until it breaks; then back.";
        return lips.Opening >= TooOpen ? "Bring the lips together: opening 50."
            : lips.Opening <= TooClose ? "Let the lips come apart: opening 50."
            : lips.Air < TooLittleAir ? "Give more air: 50."
            : lips.Air >= TooMuchAir ? "Give less air: 50."
            : lips.Reach < 100 ? "Let the lips go further: 100 % of the way."
            : lips.Reach > 100 ? "Let the lips go less far: 100 % of the way."
            : lips != SlurLips.Usual ? "All handles as usual, then one at a time."
            : "Take a slower tempo, or a slur of two notes.";
    }

    /// <summary>How lips go from one partial to the next.</summary>
    /// <param name="Beyond">How far past the new place first, share of the way.</param>
    /// <param name="BeyondSeconds">For how long, seconds.</param>
    /// <param name="Seconds">How long they take, seconds.</param>
    private sealed record Passage(double Beyond, double BeyondSeconds, double Seconds);
}
