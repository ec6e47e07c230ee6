using Bocca.Core.Breath;
using Bocca.Core.Fingering;
using Bocca.Core.Fingering.Class;
using Bocca.Core.Fingering.Trainer;
using Bocca.Core.Instruments;
using Bocca.Core.Music;
using Bocca.Core.Teaching;

namespace Bocca.Core.Slurs;

/// <summary>What stands under the notes of a slur for the mouth.</summary>
public enum VowelLine
{
    /// <summary>Nothing.</summary>
    None,

    /// <summary>The vowels that follow the contour.</summary>
    ByContour,

    /// <summary>Room for the teacher's own.</summary>
    Room,
}

/// <summary>Who slurs: the tube, how far the range reaches, what the hand may do, how long the breath lasts.</summary>
/// <param name="Instrument">The instrument; a very one as its passport has it.</param>
/// <param name="Reading">How it is read.</param>
/// <param name="Range">How far the notes reach.</param>
public sealed record SlurPlayer(Instrument Instrument, Reading Reading, PlayingRange Range)
{
    /// <summary>What the hand may do.</summary>
    public Hand Hand { get; init; } = Hand.Free;

    /// <summary>What ranks fingerings: whether the fourth valve goes for 1-3, and whether the thumb side is in use.</summary>
    public FingeringWeights Weights { get; init; } = FingeringWeights.Default;

    /// <summary>The settings taught; null for all.</summary>
    public IReadOnlySet<Setting>? Taught { get; init; }

    /// <summary>The notes that have come already, by setting and partial: slurs take no others; null for all.</summary>
    public IReadOnlySet<(Setting Setting, int Partial)>? Met { get; init; }

    /// <summary>Whether slurs take only what has come: in the first weeks, where the approach has it so.</summary>
    public static bool TakesOnlyMet(LearningStage stage, Approach approach) =>
        stage < LearningStage.Second && approach.Of(Points.SlurNotes) == SlurNotes.OnlyThoseMet;

    /// <summary>Whether a note may be slurred.</summary>
    internal bool HasMet(Tube tube, int partial) => Met?.Contains((tube.Setting, partial)) ?? true;

    /// <summary>Seconds of one usable breath.</summary>
    public double BreathSeconds { get; init; } = NoteBreath.UsualSeconds;

    /// <summary>What sheets print of vowels.</summary>
    public VowelLine Vowels { get; init; } = VowelLine.ByContour;

    /// <summary>Whether slurs are played to the pupil rather than read.</summary>
    public bool ByEar { get; init; }

    /// <summary>Whether slurs go down first.</summary>
    public bool DownFirst { get; init; }

    /// <summary>Whether the seventh partial may be used: only on purpose.</summary>
    public bool Seventh { get; init; }

    /// <summary>The highest note that is comfortable: the top of first notes.</summary>
    public required Pitch Comfortable { get; init; }

    /// <summary>A player as an approach and a stage have one.</summary>
    public static SlurPlayer Of(Instrument instrument, Reading reading, LearningStage stage, Approach approach) =>
        new(instrument, reading, LearnersRange.Of(instrument, stage, approach))
        {
            Comfortable = LearnersRange.Of(instrument, LearningStage.FirstNotes, approach).Highest,
            Hand = Hand.Free.Under(approach, stage),
            Weights = FingeringWeights.Default.Under(approach, stage),
            Vowels = approach.Of(Points.SlurVowels) switch
            {
                SlurVowels.ByRegister => VowelLine.ByContour,
                SlurVowels.TeachersOwn => VowelLine.Room,
                _ => VowelLine.None,
            },
            DownFirst = approach.Of(Points.SlurWay) == SlurWay.DownFirst,
            ByEar = approach.Of(Points.SlurSource) == SlurSource.ByEar,
        };

    /// <summary>
    /// The tubes in the order in which slurs go through them, from the open one down by semitones: seven combinations, with 4
    /// and 2-4 for 1-3 and 1-2-3 where the fourth valve is in use, or the positions in reach; the thumb side of a horn first
    /// where it is taught.
    /// </summary>
    public IReadOnlyList<Tube> Tubes()
    {
        var fourth = Instrument.Valves.Count >= 4 && !(Hand.HighestValve < 4) && Weights.FourthForFirstAndThird <= 0;
        var settings = HandTrainer
            .Order(Instrument, Hand)
            .Select(setting =>
                fourth && setting.Presses(1) && setting.Presses(3) ? Setting.OfValves("", setting.Presses(2) ? [2, 4] : [4]) : setting
            )
            .ToList();
        if (Instrument.ThumbSide is not null && !Weights.HidesThumbSide)
            settings.AddRange(settings.Take(5).Select(setting => Setting.OfValves("T", setting.Valves)).ToList());
        return [.. settings.Where(setting => Taught?.Contains(setting) ?? true).Select(Instrument.TubeOf).OfType<Tube>()];
    }
}
