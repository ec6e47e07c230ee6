using System.Collections.Frozen;

namespace Bocca.Core.Teaching;

/// <summary>A point on which good teachers differ, with its options as an enumeration. Their ids in records stand in the data.</summary>
/// <typeparam name="T">The options.</typeparam>
/// <param name="id">Its name in records, such as <c>mp.share</c>.</param>
public sealed class Point<T>(string id)
    where T : struct, Enum
{
    private readonly Lazy<FrozenDictionary<string, T>> _options = new(() =>
        ApproachPoint.Get(id).Options.ToFrozenDictionary(option => option.Id, option => Enum.Parse<T>(option.Option))
    );

    private readonly Lazy<FrozenDictionary<T, string>> _ids = new(() =>
        ApproachPoint.Get(id).Options.ToFrozenDictionary(option => Enum.Parse<T>(option.Option), option => option.Id)
    );

    /// <summary>Its name in records.</summary>
    public string Id => id;

    /// <summary>The id of an option in records.</summary>
    public string IdOf(T option) => _ids.Value[option];

    /// <summary>The option of an id.</summary>
    internal T OptionOf(string optionId) => _options.Value[optionId];
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

    /// <summary>The order of first notes.</summary>
    public static Point<FirstNoteWay> FirstNoteWay { get; } = new("first.notes");

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

    /// <summary>Which way slurs go first.</summary>
    public static Point<SlurWay> SlurWay { get; } = new("slur.first");

    /// <summary>The notes of slurs in the first weeks.</summary>
    public static Point<SlurNotes> SlurNotes { get; } = new("slur.notes");

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

    /// <summary>Before the verdict.</summary>
    public static Point<BeforeTheVerdict> BeforeTheVerdict { get; } = new("verdict.guess");

    /// <summary>The jaw at rest.</summary>
    public static Point<JawAtRest> JawAtRest { get; } = new("jaw.forward");

    /// <summary>Which way the tongue moves.</summary>
    public static Point<TongueWay> TongueWay { get; } = new("tongue.way");

    /// <summary>Vibrato.</summary>
    public static Point<VibratoWanted> Vibrato { get; } = new("vibrato");

    /// <summary>Names of notes.</summary>
    public static Point<NoteNames> NoteNames { get; } = new("words.notes");

    /// <summary>Names of note values.</summary>
    public static Point<NoteValueNames> NoteValues { get; } = new("words.values");

    /// <summary>How beats are counted aloud.</summary>
    public static Point<TimeNames> TimeNames { get; } = new("count.names");

    /// <summary>The options of each point as they are called in the code, by its name in records.</summary>
    internal static IReadOnlyDictionary<string, string[]> OptionNames { get; } =
        typeof(Points)
            .GetProperties()
            .Where(property => property.PropertyType.IsGenericType && property.PropertyType.GetGenericTypeDefinition() == typeof(Point<>))
            .ToDictionary(
                property => (string)property.PropertyType.GetProperty("Id")!.GetValue(property.GetValue(null))!,
                property => Enum.GetNames(property.PropertyType.GenericTypeArguments[0])
            );
}
