namespace Bocca.Core.Teaching;

/// <summary>Tone on the lips alone (<c>stage.lips</c>).</summary>
public enum LipsAlone
{
    /// <summary>Required.</summary>
    Required,

    /// <summary>When wanted.</summary>
    WhenWanted,

    /// <summary>Left out.</summary>
    LeftOut,
}

/// <summary>Time on the mouthpiece alone (<c>stage.mouthpiece</c>).</summary>
public enum MouthpieceAlone
{
    /// <summary>One to seven days.</summary>
    Days,

    /// <summary>Until it repeats.</summary>
    UntilItRepeats,

    /// <summary>The same lesson.</summary>
    SameLesson,

    /// <summary>Left out.</summary>
    LeftOut,
}

/// <summary>Breath and buzz (<c>order.breath</c>).</summary>
public enum FirstOfLesson
{
    /// <summary>Breath first.</summary>
    Breath,

    /// <summary>Buzz first.</summary>
    Buzz,
}

/// <summary>When a step is done (<c>advance</c>).</summary>
public enum Advancing
{
    /// <summary>After its time.</summary>
    AfterItsTime,

    /// <summary>When its measure is met.</summary>
    WhenItsMeasureIsMet,

    /// <summary>Once it works.</summary>
    OnceItWorks,
}

/// <summary>Learning the valve settings (<c>settings.learn</c>).</summary>
public enum SettingsLearnt
{
    /// <summary>All seven, silently.</summary>
    AllSevenSilently,

    /// <summary>One with each note.</summary>
    OneWithEachNote,

    /// <summary>Downward, with sound.</summary>
    DownwardWithSound,
}

/// <summary>Warm-up (<c>warmup</c>).</summary>
public enum WarmUpWith
{
    /// <summary>Long notes.</summary>
    LongNotes,

    /// <summary>Buzz.</summary>
    Buzz,

    /// <summary>Posture, siren, tongue.</summary>
    PostureSirenTongue,

    /// <summary>Free.</summary>
    Free,
}

/// <summary>Loudness (<c>level</c>).</summary>
public enum Loudness
{
    /// <summary>Soft to medium.</summary>
    SoftToMedium,

    /// <summary>Full.</summary>
    Full,

    /// <summary>Comfortable.</summary>
    Comfortable,
}

/// <summary>High notes (<c>high.early</c>).</summary>
public enum HighNotes
{
    /// <summary>Low first, with a ceiling.</summary>
    LowFirstWithACeiling,

    /// <summary>The next one when able.</summary>
    NextOneWhenAble,
}

/// <summary>After a miss (<c>miss.rule</c>).</summary>
public enum AfterAMiss
{
    /// <summary>Again at once.</summary>
    AgainAtOnce,

    /// <summary>Carry on.</summary>
    CarryOn,

    /// <summary>Only what is worked on counts.</summary>
    OnlyWhatIsWorkedOn,
}

/// <summary>How much a day (<c>amount</c>).</summary>
public enum DailyAmount
{
    /// <summary>15 to 20 minutes daily.</summary>
    FifteenToTwentyMinutes,

    /// <summary>Four short rounds.</summary>
    FourShortRounds,

    /// <summary>Five minutes, rising, six days.</summary>
    FiveMinutesRising,
}

/// <summary>Before the verdict (<c>verdict.guess</c>).</summary>
public enum BeforeTheVerdict
{
    /// <summary>It is shown at once.</summary>
    AtOnce,

    /// <summary>The pupil guesses first.</summary>
    GuessFirst,
}
