using Bocca.Core.Instruments;
using Bocca.Core.Music;
using Bocca.Core.Sound;
using Bocca.Core.Teaching;
using MathNet.Numerics.Statistics;

namespace Bocca.Core.Simulation;

/// <summary>The three handles as a teacher moves them, each from 0 to 100.</summary>
/// <param name="Tension">How firm the lips are: 0 slack, 100 as firm as the eighth partial needs.</param>
/// <param name="Opening">How far apart: 0 pressed together, 50 as usual, 100 wide.</param>
/// <param name="Air">How much breath: 0 none, 50 as usual, 100 all there is.</param>
public sealed record LipSetting(double Tension, double Opening, double Air)
{
    private const double LowestPartial = 1.5,
        HighestPartial = 8.6;
    private const double MostOpen = 9;

    /// <summary>The setting at which a partial speaks on its usual opening and air.</summary>
    public static LipSetting ForPartial(double partial) =>
        new(Math.Clamp(100 * Math.Log(0.965 * partial / LowestPartial) / Math.Log(HighestPartial / LowestPartial), 0, 100), 50, 50);

    /// <summary>The handles of the model on a tube with this first partial.</summary>
    internal LipHandles On(double partialOneHz) =>
        On(partialOneHz, Opening, Air) with
        {
            TensionHz = partialOneHz * LowestPartial * Math.Pow(HighestPartial / LowestPartial, Within(Tension)),
        };

    /// <summary>The handles of the model for lips of this frequency.</summary>
    internal static LipHandles On(double tensionHz, double opening, double air) =>
        new(tensionHz, Math.Pow(MostOpen, (2 * Within(opening)) - 1), 2 * LipTuning.UsualPressure * Within(air));

    private static double Within(double handle) => Math.Clamp(handle, 0, 100) / 100;
}

/// <summary>What came of it.</summary>
public enum LipOutcome
{
    /// <summary>A steady tone.</summary>
    Speaks,

    /// <summary>A tone that flips or will not settle.</summary>
    Cracks,

    /// <summary>Air without a tone.</summary>
    AirOnly,

    /// <summary>Nothing to be heard.</summary>
    Silence,
}

/// <summary>One try of the three handles on the lip model: what it sounds like, and why.</summary>
/// <param name="Sound">A second and a half of it.</param>
/// <param name="Outcome">What came of it.</param>
/// <param name="Hertz">The pitch, or null.</param>
/// <param name="Partial">The nearest partial of the tube, or null.</param>
/// <param name="Cents">How far from that partial.</param>
/// <param name="NoiseDb">Level of the tone over its own noise, decibels; null without a tone.</param>
/// <param name="LevelDb">Level against the usual setting, decibels.</param>
/// <param name="Sentence">What was heard and why, for people.</param>
public sealed record LipTrial(
    MonoSound Sound,
    LipOutcome Outcome,
    double? Hertz,
    int? Partial,
    double? Cents,
    double? NoiseDb,
    double LevelDb,
    string Sentence
)
{
    /// <summary>How long a trial sounds.</summary>
    public const double Seconds = 1.5;

    private const double SettledFrom = 0.6;
    private const int TunedPartial = 4;
    private const double UnheardDb = -40;
    private const double SteadyCents = 60;

    /// <summary>Plays a setting.</summary>
    /// <param name="instrument">Whose lips and tube.</param>
    /// <param name="on">Lips, mouthpiece or instrument.</param>
    /// <param name="tube">The tube in use; null for the open one.</param>
    /// <param name="setting">The handles.</param>
    /// <param name="seed">Same seed, same samples.</param>
    public static LipTrial Play(Instrument instrument, SoundStage on, Tube? tube, LipSetting setting, int seed)
    {
        var partialOne = instrument.Frequency(tube ?? instrument.Tubes[0], 1, Tuning.Built);
        var build = LipBuild.Of(instrument.Family);
        var column = AirColumn.Of(on, instrument, tube);
        // The tuning slide is set as a player sets it: so that a middle partial is in tune.
        if (on == SoundStage.Instrument)
            column = column.Scaled(LipTuning.For(instrument, on, tube, TunedPartial * partialOne).ColumnRatio);
        var usual = LipTuning.Listen(build, column, LipSetting.ForPartial(2).On(partialOne));
        var sound = Render(build, column, setting.On(partialOne), 0.1 / usual.Level, usual.Flow, seed);
        return Judge(sound, setting, on, partialOne);
    }

    private static MonoSound Render(LipBuild build, AirColumn column, LipHandles handles, double gain, double usualFlow, int seed)
    {
        var random = new Random(seed);
        var model = new LipModel(build, column);
        var radiation = new Radiation(column.RadiatesFromHz);
        var air = new BreathNoise(random, 0.008);
        var samples = new float[(int)(Seconds * LipModel.Rate)];
        for (var i = 0; i < samples.Length; i++)
        {
            var t = (double)i / LipModel.Rate;
            var envelope = Math.Clamp(Math.Min(t / 0.02, (Seconds - t) / 0.05), 0, 1);
            // Lips are never still: without a little unrest a perfect balance would hold for ever.
            var unrest = 1 + (0.004 * ((2 * random.NextDouble()) - 1));
            var tone = gain * radiation.Next(model.Next(handles with { PressurePa = handles.PressurePa * envelope * unrest }));
            samples[i] = (float)Math.Clamp(tone + (air.Next() * LipModel.Turbulence(model.Flow / usualFlow)), -1, 1);
        }

        return new MonoSound(samples, LipModel.Rate);
    }

    private static LipTrial Judge(MonoSound sound, LipSetting setting, SoundStage on, double partialOne)
    {
        var frames = PitchTrack
            .Of(sound)
            .Frames.Where(frame => frame.TimeSeconds >= SettledFrom && frame.TimeSeconds < Seconds - 0.1)
            .ToList();
        var level = frames.Select(frame => frame.LevelDb).Median() - (20 * Math.Log10(0.1));
        var voiced = frames.Where(frame => frame.Voiced).ToList();
        if (voiced.Count < frames.Count / 4 || level < UnheardDb)
        {
            var loud = level > UnheardDb;
            return new LipTrial(
                sound,
                loud ? LipOutcome.AirOnly : LipOutcome.Silence,
                null,
                null,
                null,
                null,
                level,
                NoTone(setting.Opening, setting.Air, loud)
            );
        }

        var hertz = voiced.Select(frame => frame.FrequencyHz).Median();
        var spread = voiced.Select(frame => Tuning.Cents(hertz, frame.FrequencyHz)).StandardDeviation();
        var clarity = Math.Clamp(voiced.Select(frame => frame.Clarity).Median(), 0.001, 0.99999);
        var noise = 10 * Math.Log10(clarity / (1 - clarity));
        var partial = Math.Max(1, (int)Math.Round(hertz / partialOne));
        var cents = Tuning.Cents(partial * partialOne, hertz);
        var cracks = spread > SteadyCents || voiced.Count < 0.9 * frames.Count;
        var outcome = cracks ? LipOutcome.Cracks : LipOutcome.Speaks;
        return new LipTrial(
            sound,
            outcome,
            hertz,
            partial,
            cents,
            noise,
            level,
            $"{Tone(on, outcome, hertz, partial, cents)} {Why(setting, noise, on)}".TrimEnd()
        );
    }

    private static string Tone(SoundStage on, LipOutcome outcome, double hertz, int partial, double cents)
    {
        if (outcome == LipOutcome.Cracks)
            return $"It cracks: the tone will not settle near {hertz:0} Hz.";
        return on == SoundStage.Instrument
            ? $"Partial {partial} speaks, {hertz:0} Hz, {Math.Abs(cents):0} cents {(cents < 0 ? "under" : "over")} its place."
            : $"It buzzes at {hertz:0} Hz: without a tube every height is free.";
    }

    /// <summary>What lips so far apart, lips pressed together, and too much breath do to a tone.</summary>
    internal const string Airy =
            "Airy: the lips stand so far apart that they no longer close, and more breath passes than is turned into tone.",
        Pinched = "Pinched: pressed together, little of the lips moves and little air passes; it comes out thin and sharp.",
        Forced = "Forced: more breath opens the lips further each time, louder and brighter, and drives the pitch up.";

    private static string Why(LipSetting setting, double noise, SoundStage on) =>
        setting switch
        {
            { Opening: >= 65 } when noise < 18 => Airy,
            { Opening: <= 35 } => Pinched,
            { Air: >= 80 } => Forced,
            _ when on == SoundStage.Instrument => "The lips are near this place of the tube, and it holds them there.",
            _ => "",
        };

    /// <summary>Why lips give no tone.</summary>
    internal static string NoTone(double opening, double air, bool loud)
    {
        if (opening >= 60)
            return "Air without a tone: so far apart, the breath passes and nothing pulls the lips back.";
        if (air < 40)
            return loud
                ? "Air without a tone: too little breath to set the lips swinging."
                : "Nothing: too little breath to set the lips swinging.";
        return opening <= 35
            ? "Nothing: the lips are pressed shut harder than the breath can part them."
            : "The lips hang between two places where the tube answers, and neither takes them.";
    }
}
