using Bocca.Core.Fingering;
using Bocca.Core.Instruments;
using Bocca.Core.Music;

namespace Bocca.Core.Tone.Notes;

/// <summary>A tone beside the note meant: what it is by itself, and how each way to it is said. Tolerances ours, editable.</summary>
internal sealed class HeardTone(MeantNote meant, double heardHz, PlayerSituation situation)
{
    /// <summary>How far from its place a note may lie and still be it (cents): on valves, and on a slide.</summary>
    private const double RightCents = 50,
        RightOnSlideCents = 25;

    /// <summary>How far from an octave, or two, a note may lie and still be that (cents).</summary>
    private const double OctaveCents = 50;

    /// <summary>A tube off by this much is told of (cents), where the note is off as well and lies within so much of it.</summary>
    private const double TubeCents = 10,
        OwnCents = 15;

    public MeantNote Meant => meant;

    public PlayerSituation Situation => situation;

    /// <summary>Cents above the note meant in equal temperament.</summary>
    public double FromMeantCents { get; } = Tuning.Cents(situation.Tuning.Frequency(meant.Sounding), heardHz);

    public Pitch NearestSounding { get; } = Pitch.FromMidi(Math.Clamp((int)Math.Round(situation.Tuning.Midi(heardHz)), 0, 127));

    public double OffCents(Tube tube, int partial) => Tuning.Cents(situation.Hertz(tube, partial), heardHz);

    /// <summary>
    /// Within the tolerance of the tube's own pitch or of the note read, or between the two: pulled slides and lips bring it there.
    /// </summary>
    public bool IsRight
    {
        get
        {
            var tolerance = SlideCanBeOff ? RightOnSlideCents : RightCents;
            var own = OffCents(meant.Tube, meant.Partial);
            return Math.Min(own, FromMeantCents) <= tolerance && Math.Max(own, FromMeantCents) >= -tolerance;
        }
    }

    /// <summary>
    /// Whether a slide can have stood where the pitch has it: a closed one is never too far in, and one at its end never too far out, so
    /// that there only the main slide and the lips are left. False on valves.
    /// </summary>
    public bool SlideCanBeOff => situation.Instrument.Slide is { } slide && slide.CanStandAt(meant.Tube.SlideOutCm - SlideCm());

    public NoteReading RightReading => new(NoteOutcome.Right, meant.Setting, meant.Partial, 0, OffCents(meant.Tube, meant.Partial), 1);

    /// <summary>The note meant; where it is off and so is its tube, that is told apart from the player, with what mends it.</summary>
    public JudgedNote Right()
    {
        var judged = Judged(NoteOutcome.Right, RightReading) with { Cents = FromMeantCents };
        if (situation.Instrument.Slide is not null && !SlideCanBeOff && Math.Abs(FromMeantCents) >= RightOnSlideCents)
            return judged with { Remedy = AtItsEnd, Sentence = NoteSentence.OfSlideAtEnd(meant, FromMeantCents, AtItsEnd.Sentence) };
        var tube = Tuning.Cents(situation.Tuning.Frequency(meant.Sounding), situation.Hertz(meant.Tube, meant.Partial));
        var isOff = Math.Abs(tube) >= TubeCents && Math.Abs(FromMeantCents) >= TubeCents;
        if (!isOff || Math.Sign(tube) != Math.Sign(FromMeantCents) || Math.Abs(FromMeantCents - tube) > OwnCents)
            return judged;
        var remedy = Remedy();
        return judged with { Remedy = remedy, Sentence = NoteSentence.OfTube(meant, FromMeantCents, remedy?.Sentence) };
    }

    /// <summary>What is left where the slide is at its end.</summary>
    private Correction AtItsEnd =>
        FromMeantCents > 0
            ? new Correction("lips", 0, "The slide is closed: ease the lips. If every note is sharp, draw the tuning slide.")
            : new Correction("lips", 0, "The slide is all the way out: firm the lips. If every note is flat, push the tuning slide in.");

    /// <summary>Valve 4 where it gives the note truer than the combination; else what brings the combination in tune.</summary>
    private Correction? Remedy()
    {
        var ways = FingeringFinder.FindSounding(
            situation.Instrument,
            meant.Sounding,
            situation.Weights,
            situation.Hand,
            situation.Passport
        );
        var own = ways.FirstOrDefault(way => way.Setting == meant.Setting && way.Partial == meant.Partial);
        var fourth = ways.FirstOrDefault(way =>
            way.Partial == meant.Partial
            && way.Barred is null
            && way.Setting.Presses(4)
            && !meant.Setting.Presses(4)
            && Math.Abs(way.Cents) < Math.Abs(own?.Cents ?? 0) - TubeCents
        );
        return fourth is not null ? new Correction("valve4", 0, $"Use {fourth.Setting}.")
            : own is null ? null
            : TuningCorrection.SetOnce(situation.Instrument, own.Tube, own.Cents) ?? own.Correction;
    }

    public JudgedNote Judged(NoteOutcome outcome, NoteReading way, bool isPrevious = false)
    {
        double? cm = outcome == NoteOutcome.SlideOff ? SlideCm() : null;
        Setting? other = outcome switch
        {
            NoteOutcome.SlideOff => OtherPosition(),
            NoteOutcome.OtherSetting => way.Setting,
            _ => null,
        };
        var heard = outcome is NoteOutcome.PartialLow or NoteOutcome.PartialHigh or NoteOutcome.OtherSetting ? On(way) : Nearby;
        return Named(outcome, heard) with
        {
            Partial = way.Partial,
            By = way.By,
            Cm = cm,
            OtherSetting = other,
            IsPrevious = isPrevious,
            Cents = outcome == NoteOutcome.SlideOff ? FromMeantCents : CentsFrom(heard),
            Readings = [way],
            Sentence = NoteSentence.Of(meant, outcome, way, heard, FromMeantCents, cm, other, isPrevious),
        };
    }

    public JudgedNote Two(NoteReading one, NoteReading other, bool isPrevious) =>
        Named(NoteOutcome.TwoReadings, Nearby) with
        {
            Partial = one.Partial,
            By = one.By,
            OtherSetting = other.Setting,
            IsPrevious = isPrevious,
            Sentence = NoteSentence.OfTwo(meant, one, other, Nearby, isPrevious),
        };

    /// <summary>Another combination, whichever of the two it was.</summary>
    public JudgedNote Either(NoteReading one, NoteReading other, bool isPrevious) =>
        Named(NoteOutcome.OtherSetting, On(one)) with
        {
            Partial = one.Partial,
            By = one.By,
            OtherSetting = one.Setting,
            IsPrevious = isPrevious,
            Sentence = NoteSentence.OfEither(meant, one, other, On(one), isPrevious),
        };

    /// <summary>Another note altogether: the only way there is to it.</summary>
    public JudgedNote Alone(NoteReading way, bool isPrevious) =>
        Named(NoteOutcome.OtherSetting, On(way)) with
        {
            Partial = way.Partial,
            By = way.By,
            OtherSetting = way.Setting,
            IsPrevious = isPrevious,
            Sentence = NoteSentence.OfOne(meant, way, On(way), isPrevious),
        };

    public JudgedNote Previous(MeantNote previous) =>
        Named(NoteOutcome.PreviousNote, Nearby) with
        {
            Partial = previous.Partial,
            OtherSetting = previous.Setting == meant.Setting ? null : previous.Setting,
            IsPrevious = true,
            Sentence = $"{previous.Written} again: the note did not change.",
        };

    public JudgedNote? OctaveAway()
    {
        var octaves = (int)Math.Round(FromMeantCents / 1200);
        if (octaves == 0 || Math.Abs(octaves) > 2 || Math.Abs(FromMeantCents - (1200 * octaves)) > OctaveCents)
            return null;
        return Named(NoteOutcome.Octave, Nearby) with { Sentence = $"{NoteSentence.Octave(meant, Nearby)}." };
    }

    /// <summary>The setting and partial that lie nearest of all, fewest fingers off among those as near.</summary>
    public NoteReading Nearest()
    {
        var (tube, partial) = situation
            .Instrument.Tubes.SelectMany(tube => Enumerable.Range(1, HarmonicSeries.Highest).Select(partial => (tube, partial)))
            .MinBy(way =>
                Math.Abs(OffCents(way.tube, way.partial))
                + (10 * NoteDecider.FingersOff(way.tube.Setting, meant.Setting))
                + (5 * Math.Abs(way.partial - meant.Partial))
            );
        return new NoteReading(NoteOutcome.TwoReadings, tube.Setting, partial, partial - meant.Partial, OffCents(tube, partial), 1);
    }

    /// <summary>The written note nearest to the sound, spelled as the part spells it.</summary>
    private Pitch Nearby =>
        situation.Reading.ToWritten(NearestSounding) is var written && written.Midi == meant.Written.Midi
            ? meant.Written
            : written.SpelledBeside(meant.Written);

    /// <summary>The written note that a way stands for in charts: on a sharp tube not the nearest one.</summary>
    private Pitch On(NoteReading way) =>
        situation.Instrument.TubeOf(way.Setting) is { } tube
            ? Rung.At(situation.Instrument, tube, way.Partial, situation.Tuning).Written(situation.Reading, meant.Written)
            : Nearby;

    private double CentsFrom(Pitch written) => situation.Tuning.CentsFrom(situation.Reading.ToSounding(written), heardHz);

    private JudgedNote Named(NoteOutcome outcome, Pitch heard) =>
        new()
        {
            Meant = meant,
            Outcome = outcome,
            HeardHz = heardHz,
            HeardWritten = heard,
            Cents = CentsFrom(heard),
            Sentence = "",
        };

    /// <summary>Half the tube that is missing: 50 x tube x (1 - 2^(-cents/1200)).</summary>
    private double SlideCm()
    {
        var metres = situation.Instrument.SlideTubeMetres(meant.Setting.Attachment) * Math.Pow(2, (meant.Setting.Position - 1) / 12.0);
        return 50 * metres * (1 - Math.Pow(2, -FromMeantCents / 1200));
    }

    /// <summary>The position that the slide stood nearer to; null while it was nearer to the one meant.</summary>
    private Setting? OtherPosition()
    {
        var position = (int)Math.Round(meant.Setting.Position - (FromMeantCents / 100));
        return position == meant.Setting.Position || position is < 1 or > 7 ? null : Setting.OfSlide(position, meant.Setting.Attachment);
    }
}
