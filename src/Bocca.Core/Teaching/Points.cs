namespace Bocca.Core.Teaching;

/// <summary>A point on which good teachers differ, with its options as an enumeration in the order of the data.</summary>
/// <typeparam name="T">The options.</typeparam>
/// <param name="Id">Its name in records, such as <c>mp.share</c>.</param>
public readonly record struct Point<T>(string Id)
    where T : struct, Enum
{
    /// <summary>The letter of an option in records.</summary>
    public string Letter(T option) => $"{(char)('a' + Convert.ToInt32(option))}";

    /// <summary>The option of a letter.</summary>
    internal static T OptionOf(string letter) => (T)Enum.ToObject(typeof(T), letter[0] - 'a');
}

/// <summary>
/// The points of <c>approaches.json</c> by name, so that a rule asks for an option that exists. When the data are read, each is
/// held against this list: a point that is missing here, or has other options, does not start.
/// </summary>
public static class Points
{
    /// <summary>Tone on the lips alone.</summary>
    public static Point<LipsAlone> LipsAlone { get; } = new("stage.lips");

    /// <summary>Time on the mouthpiece alone.</summary>
    public static Point<MouthpieceAlone> MouthpieceAlone { get; } = new("stage.mouthpiece");

    /// <summary>Breath and buzz.</summary>
    public static Point<FirstOfLesson> FirstOfLesson { get; } = new("order.breath");

    /// <summary>How a tone begins at first.</summary>
    public static Point<FirstStart> FirstStart { get; } = new("start.order");

    /// <summary>When a step is done.</summary>
    public static Point<Advancing> Advancing { get; } = new("advance");

    /// <summary>Lips before the tone.</summary>
    public static Point<LipContact> LipContact { get; } = new("lips.contact");

    /// <summary>Centre of the lips.</summary>
    public static Point<LipCentre> LipCentre { get; } = new("lips.centre");

    /// <summary>Corners and sides of the mouth.</summary>
    public static Point<FaceCorners> FaceCorners { get; } = new("face.corners");

    /// <summary>Shape of the lips.</summary>
    public static Point<LipShape> LipShape { get; } = new("lips.shape");

    /// <summary>Where the mouthpiece sits.</summary>
    public static Point<MouthpieceShare> MouthpieceShare { get; } = new("mp.share");

    /// <summary>How the mouthpiece is held.</summary>
    public static Point<MouthpieceGrip> MouthpieceGrip { get; } = new("mp.grip");

    /// <summary>The mouthpiece in the rests.</summary>
    public static Point<MouthpieceInRests> MouthpieceInRests { get; } = new("mp.rests");

    /// <summary>Where the air comes in.</summary>
    public static Point<BreathRoute> BreathRoute { get; } = new("breath.route");

    /// <summary>Where the breath is felt.</summary>
    public static Point<BreathPlace> BreathPlace { get; } = new("breath.place");

    /// <summary>Holding the breath.</summary>
    public static Point<BreathHolding> BreathHolding { get; } = new("breath.hold");

    /// <summary>Breath drills.</summary>
    public static Point<BreathDrilling> BreathDrilling { get; } = new("breath.push");

    /// <summary>Air.</summary>
    public static Point<AirAmount> AirAmount { get; } = new("air.amount");

    /// <summary>Posture.</summary>
    public static Point<Posture> Posture { get; } = new("posture");

    /// <summary>Arms.</summary>
    public static Point<Arms> Arms { get; } = new("arms");

    /// <summary>The first sound asked for.</summary>
    public static Point<FirstTarget> FirstTarget { get; } = new("first.target");

    /// <summary>First written note on the horn.</summary>
    public static Point<HornStart> HornStart { get; } = new("horn.start");

    /// <summary>Going higher.</summary>
    public static Point<GoingHigher> GoingHigher { get; } = new("pitch.up");

    /// <summary>The jaw on low notes.</summary>
    public static Point<JawOnLowNotes> JawOnLowNotes { get; } = new("jaw.low");

    /// <summary>The pitch of a buzz.</summary>
    public static Point<BuzzPitch> BuzzPitch { get; } = new("match.pitch");

    /// <summary>Syllable.</summary>
    public static Point<TongueSyllable> TongueSyllable { get; } = new("tongue.syllable");

    /// <summary>Where the tongue touches.</summary>
    public static Point<TonguePlace> TonguePlace { get; } = new("tongue.place");

    /// <summary>How a note ends.</summary>
    public static Point<NoteEnd> NoteEnd { get; } = new("note.end");

    /// <summary>Vowels in slurs.</summary>
    public static Point<SlurVowels> SlurVowels { get; } = new("slur.vowels");

    /// <summary>The fourth valve.</summary>
    public static Point<FourthValve> FourthValve { get; } = new("valve4");

    /// <summary>The third valve alone.</summary>
    public static Point<ThirdValve> ThirdValve { get; } = new("valve3");

    /// <summary>Moving tuning slides while playing.</summary>
    public static Point<SlidePulling> SlidePulling { get; } = new("slide.pull");

    /// <summary>The thumb valve of a double horn.</summary>
    public static Point<HornThumb> HornThumb { get; } = new("horn.thumb");

    /// <summary>Learning the valve settings.</summary>
    public static Point<SettingsLearnt> SettingsLearnt { get; } = new("settings.learn");

    /// <summary>Finding slide positions.</summary>
    public static Point<SlideFinding> SlideFinding { get; } = new("slide.find");

    /// <summary>Little finger of the right hand, trumpet.</summary>
    public static Point<LittleFinger> LittleFinger { get; } = new("tp.littleFinger");

    /// <summary>Finger in the third slide's ring, trumpet.</summary>
    public static Point<LeftRing> LeftRing { get; } = new("tp.leftRing");

    /// <summary>Where slurs come from.</summary>
    public static Point<SlurSource> SlurSource { get; } = new("slurs.source");

    /// <summary>Singing.</summary>
    public static Point<Singing> Singing { get; } = new("sing");

    /// <summary>A wandering tone.</summary>
    public static Point<SteadyVia> SteadyVia { get; } = new("steady.via");

    /// <summary>Slurs in motion.</summary>
    public static Point<SlurMotion> SlurMotion { get; } = new("motion");

    /// <summary>Warm-up.</summary>
    public static Point<WarmUpWith> WarmUpWith { get; } = new("warmup");

    /// <summary>Loudness.</summary>
    public static Point<Loudness> Loudness { get; } = new("level");

    /// <summary>High notes.</summary>
    public static Point<HighNotes> HighNotes { get; } = new("high.early");

    /// <summary>After a miss.</summary>
    public static Point<AfterAMiss> AfterAMiss { get; } = new("miss.rule");

    /// <summary>Printed breath marks.</summary>
    public static Point<BreathMarks> BreathMarks { get; } = new("commas");

    /// <summary>Short notes.</summary>
    public static Point<ShortNotes> ShortNotes { get; } = new("staccato");

    /// <summary>How much a day.</summary>
    public static Point<DailyAmount> DailyAmount { get; } = new("amount");

    /// <summary>How many options each point has, by its name in records.</summary>
    internal static IReadOnlyDictionary<string, int> OptionCounts { get; } =
        typeof(Points)
            .GetProperties()
            .Where(property => property.PropertyType.IsGenericType && property.PropertyType.GetGenericTypeDefinition() == typeof(Point<>))
            .ToDictionary(
                property => (string)property.PropertyType.GetProperty("Id")!.GetValue(property.GetValue(null))!,
                property => Enum.GetValues(property.PropertyType.GenericTypeArguments[0]).Length
            );
}

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

/// <summary>How a tone begins at first (<c>start.order</c>).</summary>
public enum FirstStart
{
    /// <summary>Air, then the tongue.</summary>
    AirThenTongue,

    /// <summary>Tongue at once.</summary>
    TongueAtOnce,
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

/// <summary>Lips before the tone (<c>lips.contact</c>).</summary>
public enum LipContact
{
    /// <summary>Together.</summary>
    Together,

    /// <summary>A slight gap.</summary>
    SlightGap,

    /// <summary>Narrowing until it speaks.</summary>
    NarrowingUntilItSpeaks,
}

/// <summary>Centre of the lips (<c>lips.centre</c>).</summary>
public enum LipCentre
{
    /// <summary>Firm.</summary>
    Firm,

    /// <summary>Loose.</summary>
    Loose,
}

/// <summary>Corners and sides of the mouth (<c>face.corners</c>).</summary>
public enum FaceCorners
{
    /// <summary>Corners firm.</summary>
    Firm,

    /// <summary>Sides untensed.</summary>
    SidesUntensed,
}

/// <summary>Shape of the lips (<c>lips.shape</c>).</summary>
public enum LipShape
{
    /// <summary>Forward and rounded.</summary>
    ForwardAndRounded,

    /// <summary>Lower lip flat on the teeth.</summary>
    LowerLipFlat,
}

/// <summary>Where the mouthpiece sits (<c>mp.share</c>).</summary>
public enum MouthpieceShare
{
    /// <summary>Half and half.</summary>
    HalfAndHalf,

    /// <summary>Where it is comfortable.</summary>
    WhereComfortable,

    /// <summary>In the pupil's own span.</summary>
    OwnSpan,
}

/// <summary>How the mouthpiece is held (<c>mp.grip</c>).</summary>
public enum MouthpieceGrip
{
    /// <summary>Two fingers and thumb.</summary>
    TwoFingersAndThumb,

    /// <summary>Three fingers, then two, then one.</summary>
    ThreeThenTwoThenOne,

    /// <summary>Both hands.</summary>
    BothHands,

    /// <summary>Two fingers above one.</summary>
    TwoAboveOne,

    /// <summary>One hand.</summary>
    OneHand,
}

/// <summary>The mouthpiece in the rests (<c>mp.rests</c>).</summary>
public enum MouthpieceInRests
{
    /// <summary>Stays on.</summary>
    StaysOn,

    /// <summary>Comes off.</summary>
    ComesOff,
}

/// <summary>Where the air comes in (<c>breath.route</c>).</summary>
public enum BreathRoute
{
    /// <summary>At the corners, rim on.</summary>
    AtTheCorners,

    /// <summary>By an open mouth.</summary>
    OpenMouth,

    /// <summary>As it likes.</summary>
    AsItLikes,
}

/// <summary>Where the breath is felt (<c>breath.place</c>).</summary>
public enum BreathPlace
{
    /// <summary>The abdomen moves.</summary>
    Abdomen,

    /// <summary>The ribs widen all round.</summary>
    Ribs,

    /// <summary>No remark.</summary>
    NoRemark,
}

/// <summary>Holding the breath (<c>breath.hold</c>).</summary>
public enum BreathHolding
{
    /// <summary>Never.</summary>
    Never,

    /// <summary>Three short rounds.</summary>
    ThreeShortRounds,

    /// <summary>Daily, within the limits.</summary>
    DailyWithinLimits,
}

/// <summary>Breath drills (<c>breath.push</c>).</summary>
public enum BreathDrilling
{
    /// <summary>A ladder of counts.</summary>
    LadderOfCounts,

    /// <summary>Few cycles.</summary>
    FewCycles,

    /// <summary>Plain.</summary>
    Plain,
}

/// <summary>Air (<c>air.amount</c>).</summary>
public enum AirAmount
{
    /// <summary>Full and fast.</summary>
    FullAndFast,

    /// <summary>Gentle.</summary>
    Gentle,

    /// <summary>By register.</summary>
    ByRegister,
}

/// <summary>Posture (<c>posture</c>).</summary>
public enum Posture
{
    /// <summary>Upright, off the back of the chair.</summary>
    UprightOffTheBack,

    /// <summary>Balanced, not rigid.</summary>
    Balanced,
}

/// <summary>Arms (<c>arms</c>).</summary>
public enum Arms
{
    /// <summary>About 45 degrees from the body.</summary>
    FortyFiveDegrees,

    /// <summary>Raised, clear of the ribs.</summary>
    ClearOfTheRibs,
}

/// <summary>The first sound asked for (<c>first.target</c>).</summary>
public enum FirstTarget
{
    /// <summary>The higher.</summary>
    TheHigher,

    /// <summary>The lower.</summary>
    TheLower,

    /// <summary>Whatever speaks.</summary>
    WhateverSpeaks,

    /// <summary>A set note.</summary>
    SetNote,
}

/// <summary>First written note on the horn (<c>horn.start</c>).</summary>
public enum HornStart
{
    /// <summary>C4.</summary>
    C4,

    /// <summary>F4.</summary>
    F4,

    /// <summary>A.</summary>
    A,
}

/// <summary>Going higher (<c>pitch.up</c>).</summary>
public enum GoingHigher
{
    /// <summary>Lips and air.</summary>
    LipsAndAir,

    /// <summary>Tongue and vowel.</summary>
    TongueAndVowel,

    /// <summary>Lips.</summary>
    Lips,

    /// <summary>All, with the jaw.</summary>
    AllWithTheJaw,
}

/// <summary>The jaw on low notes (<c>jaw.low</c>).</summary>
public enum JawOnLowNotes
{
    /// <summary>Lowers a little.</summary>
    LowersALittle,

    /// <summary>Stays still.</summary>
    StaysStill,
}

/// <summary>The pitch of a buzz (<c>match.pitch</c>).</summary>
public enum BuzzPitch
{
    /// <summary>A model's.</summary>
    AModels,

    /// <summary>Above or below one's own middle.</summary>
    AboveOrBelowOwnMiddle,

    /// <summary>One's own last.</summary>
    OwnLast,
}

/// <summary>Syllable (<c>tongue.syllable</c>).</summary>
public enum TongueSyllable
{
    /// <summary>Ta.</summary>
    Ta,

    /// <summary>Too.</summary>
    Too,

    /// <summary>Da.</summary>
    Da,

    /// <summary>Whichever starts clearest.</summary>
    WhicheverStartsClearest,
}

/// <summary>Where the tongue touches (<c>tongue.place</c>).</summary>
public enum TonguePlace
{
    /// <summary>Behind the teeth.</summary>
    BehindTheTeeth,

    /// <summary>The roof.</summary>
    Roof,

    /// <summary>One's own place.</summary>
    OwnPlace,
}

/// <summary>How a note ends (<c>note.end</c>).</summary>
public enum NoteEnd
{
    /// <summary>The air ends it.</summary>
    AirEndsIt,

    /// <summary>The tongue may stop it.</summary>
    TongueMayStopIt,

    /// <summary>Stop and set anew.</summary>
    StopAndSetAnew,
}

/// <summary>Vowels in slurs (<c>slur.vowels</c>).</summary>
public enum SlurVowels
{
    /// <summary>Oh low, ah middle, ee high.</summary>
    ByRegister,

    /// <summary>None.</summary>
    None,

    /// <summary>The teacher's own.</summary>
    TeachersOwn,
}

/// <summary>The fourth valve (<c>valve4</c>).</summary>
public enum FourthValve
{
    /// <summary>For every 1-3 and 1-2-3.</summary>
    ForEveryFirstAndThird,

    /// <summary>1-3 where the fingers are easier.</summary>
    FirstAndThirdWhereEasier,

    /// <summary>Ask.</summary>
    Ask,
}

/// <summary>The third valve alone (<c>valve3</c>).</summary>
public enum ThirdValve
{
    /// <summary>May replace 1-2.</summary>
    MayReplaceFirstAndSecond,

    /// <summary>For special notes.</summary>
    ForSpecialNotes,
}

/// <summary>Moving tuning slides while playing (<c>slide.pull</c>).</summary>
public enum SlidePulling
{
    /// <summary>From the first written notes.</summary>
    FromTheFirstNotes,

    /// <summary>Later.</summary>
    Later,
}

/// <summary>The thumb valve of a double horn (<c>horn.thumb</c>).</summary>
public enum HornThumb
{
    /// <summary>Hidden at first.</summary>
    HiddenAtFirst,

    /// <summary>By the chart.</summary>
    ByTheChart,
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

/// <summary>Finding slide positions (<c>slide.find</c>).</summary>
public enum SlideFinding
{
    /// <summary>By ear.</summary>
    ByEar,

    /// <summary>By sight.</summary>
    BySight,

    /// <summary>Both.</summary>
    Both,
}

/// <summary>Little finger of the right hand, trumpet (<c>tp.littleFinger</c>).</summary>
public enum LittleFinger
{
    /// <summary>On the hook.</summary>
    OnTheHook,

    /// <summary>In the hook.</summary>
    InTheHook,
}

/// <summary>Finger in the third slide's ring, trumpet (<c>tp.leftRing</c>).</summary>
public enum LeftRing
{
    /// <summary>Ring finger.</summary>
    RingFinger,

    /// <summary>Middle finger.</summary>
    MiddleFinger,

    /// <summary>By the size of the hand.</summary>
    ByTheSizeOfTheHand,
}

/// <summary>Where slurs come from (<c>slurs.source</c>).</summary>
public enum SlurSource
{
    /// <summary>By ear.</summary>
    ByEar,

    /// <summary>Printed.</summary>
    Printed,
}

/// <summary>Singing (<c>sing</c>).</summary>
public enum Singing
{
    /// <summary>Alone.</summary>
    Alone,

    /// <summary>With a voice.</summary>
    WithAVoice,

    /// <summary>Off.</summary>
    Off,
}

/// <summary>A wandering tone (<c>steady.via</c>).</summary>
public enum SteadyVia
{
    /// <summary>By the air.</summary>
    TheAir,

    /// <summary>By placement.</summary>
    Placement,

    /// <summary>By listening.</summary>
    Listening,
}

/// <summary>Slurs in motion (<c>motion</c>).</summary>
public enum SlurMotion
{
    /// <summary>Slow and smooth.</summary>
    SlowAndSmooth,

    /// <summary>Quick bursts.</summary>
    QuickBursts,
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

/// <summary>Printed breath marks (<c>commas</c>).</summary>
public enum BreathMarks
{
    /// <summary>May be passed over.</summary>
    MayBePassedOver,

    /// <summary>Rests only.</summary>
    RestsOnly,

    /// <summary>An extra one before height.</summary>
    OneMoreBeforeHeight,
}

/// <summary>Short notes (<c>staccato</c>).</summary>
public enum ShortNotes
{
    /// <summary>Separated.</summary>
    Separated,

    /// <summary>Light, on connected air.</summary>
    LightOnConnectedAir,
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
