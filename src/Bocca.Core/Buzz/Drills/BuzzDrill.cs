using Bocca.Core.Instruments;
using Bocca.Core.Music;
using Bocca.Core.Teaching;

namespace Bocca.Core.Buzz.Drills;

/// <summary>What a drill is held against, beside what every try is.</summary>
public enum DrillAim
{
    /// <summary>Tries alike and straight.</summary>
    Alike,

    /// <summary>Middle, higher and lower a good way apart.</summary>
    Heights,

    /// <summary>A glide: how wide, how often it turns, how smooth.</summary>
    Siren,

    /// <summary>A semitone down and back, lower each time.</summary>
    Neighbour,

    /// <summary>The directions of a tune, not its intervals.</summary>
    Directions,

    /// <summary>The pupil's own tight, centred and open sound, for later comparison.</summary>
    Reference,

    /// <summary>The same tone on ever fewer fingers.</summary>
    Grip,

    /// <summary>Air that speaks sooner each time.</summary>
    Speaking,

    /// <summary>Before and after something that is done with the face: what it changed.</summary>
    Pair,

    /// <summary>Silent where the lips cannot meet, a tone where they do.</summary>
    Proof,

    /// <summary>The rim at several places: what came of each try, and where it sits best.</summary>
    Search,
}

/// <summary>Tries of one kind within a drill.</summary>
/// <param name="Id">Its name in a teacher's settings; it stays, whatever is put before it.</param>
/// <param name="SoundBeats">Beats that sound.</param>
/// <param name="RestBeats">Beats of rest after each.</param>
/// <param name="Times">How many times.</param>
/// <param name="Label">What it is called while it is counted.</param>
/// <param name="Heights">Semitones from the middle, each for an equal share of the sound; null for the middle alone.</param>
/// <param name="Step">Semitones by which each further time lies from the one before.</param>
/// <param name="Glides">Whether the pitch glides from height to height.</param>
/// <param name="AsLongAsItLasts">Whether the breath and not the count ends it.</param>
/// <param name="Tongued">Whether the tongue begins it.</param>
/// <param name="Voice">Whether it is sung.</param>
/// <param name="Silent">Whether nothing may sound.</param>
/// <param name="PlayedOn">What these are played on; null for what the take is played on.</param>
/// <param name="Part">What they are for, where the aim holds parts against each other.</param>
public sealed record DrillSet(
    string Id,
    double SoundBeats,
    double RestBeats,
    int Times,
    string Label = "",
    IReadOnlyList<double>? Heights = null,
    double Step = 0,
    bool Glides = false,
    bool AsLongAsItLasts = false,
    bool Tongued = false,
    bool Voice = false,
    bool Silent = false,
    SoundStage? PlayedOn = null,
    DrillPart Part = DrillPart.Any
);

/// <summary>How often a day a drill is meant to come round.</summary>
/// <param name="ADay">Rounds a day.</param>
/// <param name="ApartMinutes">Minutes between two that count.</param>
public sealed record DrillRounds(int ADay, double ApartMinutes);

/// <summary>A drill for the lips, the mouthpiece or a long note, as data (<c>drills.json</c>).</summary>
/// <param name="Id">Its name in records.</param>
/// <param name="Name">Its name for people.</param>
/// <param name="Ask">What to do, in one or two sentences.</param>
/// <param name="On">What it can be played on.</param>
/// <param name="Sets">What is played, in order.</param>
/// <param name="Tempo">Beats a minute where the teacher set none.</param>
/// <param name="Easier">The drill to step back to.</param>
/// <param name="Basis">Where the numbers come from.</param>
/// <param name="Aim">What it is held against.</param>
/// <param name="Rounds">How often a day; null for as the plan says.</param>
/// <param name="FromConcertBb">Whether it starts from the concert B flat rather than from the pupil's first note.</param>
/// <param name="Allows">Symptoms that this drill asks for, so that they are none.</param>
/// <param name="Played">What the practice player does on purpose to play it as asked, as faults; empty for nothing.</param>
public sealed record BuzzDrill(
    string Id,
    string Name,
    string Ask,
    IReadOnlyList<SoundStage> On,
    IReadOnlyList<DrillSet> Sets,
    double Tempo,
    string Easier,
    string Basis,
    DrillAim Aim = DrillAim.Alike,
    DrillRounds? Rounds = null,
    bool FromConcertBb = false,
    IReadOnlyList<string>? Allows = null,
    string Played = ""
)
{
    /// <summary>What it is usually played on: the mouthpiece where it may be.</summary>
    public SoundStage UsualStage => On.FirstOrDefault(stage => stage == SoundStage.Mouthpiece, On[0]);

    private static readonly Lazy<IReadOnlyList<BuzzDrill>> Shipped = new(() => EmbeddedData.Read<List<BuzzDrill>>("drills.json"));

    /// <summary>All drills, the usual one first.</summary>
    public static IReadOnlyList<BuzzDrill> All => Shipped.Value;

    /// <summary>
    /// What a pupil begins with who has not been heard yet: two tries (16 s), so that the first verdict and its cue come within a minute.
    /// </summary>
    public static BuzzDrill First => Get("steady-line");

    /// <summary>Every try, at the drill's own tempo.</summary>
    public CuePlan Plan => new(Tempo, [.. Tries()]);

    /// <summary>The same drill with a teacher's own counts, tempo and repeats.</summary>
    public BuzzDrill With(OwnSettings own) => own.In(this, Numbers);

    /// <summary>What a teacher may set otherwise in it.</summary>
    public IEnumerable<NumberSetting> Settings => Numbers.Select(number => number.Setting);

    /// <summary>Puts a number into one of the sets of a drill.</summary>
    private static Func<BuzzDrill, double, BuzzDrill> InSet(string id, Func<DrillSet, double, DrillSet> put) =>
        (drill, value) => drill with { Sets = [.. drill.Sets.Select(set => set.Id == id ? put(set, value) : set)] };

    private IEnumerable<NumberIn<BuzzDrill>> Numbers
    {
        get
        {
            NumberSetting Of(string path, string name, string means, double shipped, double least, double most, bool whole = true) =>
                new($"drills.buzz.{Id}.{path}", Name, name, path == "tempo" ? "a minute" : "", means, shipped, least, most, whole);
            var (slowest, fastest) = CuePlan.TempoRange;
            yield return new(Of("tempo", "tempo", "beats", Tempo, slowest, fastest), (drill, value) => drill with { Tempo = value });
            foreach (var (at, set) in Sets.Index())
            {
                var which = Sets.Count == 1 ? "" : $" {(set.Label == "" ? $"{at + 1}" : set.Label)}";
                yield return new(
                    Of($"sets.{set.Id}.soundBeats", $"counts on{which}", "counts that sound", set.SoundBeats, 1, 16, whole: false),
                    InSet(set.Id, (it, value) => it with { SoundBeats = value })
                );
                // A rest is never taken away: that would be a cap lifted.
                yield return new(
                    Of($"sets.{set.Id}.restBeats", $"counts off{which}", "rest after each", set.RestBeats, set.RestBeats, 32, whole: false),
                    InSet(set.Id, (it, value) => it with { RestBeats = value })
                );
                yield return new(
                    Of($"sets.{set.Id}.times", $"times{which}", "repeats", set.Times, 1, Math.Max(8, set.Times)),
                    InSet(set.Id, (it, value) => it with { Times = (int)Math.Round(value) })
                );
            }
        }
    }

    /// <summary>The pitch it starts from on an instrument, hertz.</summary>
    public double StartHz(Instrument instrument, Tuning tuning) =>
        tuning.Frequency(FromConcertBb ? StartNotes.Of(instrument).ConcertBb : instrument.FirstNotes[0]);

    /// <summary>Whether a symptom counts in it.</summary>
    public bool Minds(string symptomId) => Allows is null || !Allows.Contains(symptomId);

    /// <summary>The drill with this id.</summary>
    /// <exception cref="ArgumentException">There is none; the message names those there are.</exception>
    public static BuzzDrill Get(string id) =>
        All.FirstOrDefault(drill => drill.Id == id)
        ?? throw new ArgumentException($"'{id}' is not a drill Bocca knows; it knows {string.Join(", ", All.Select(drill => drill.Id))}.");

    private IEnumerable<Cue> Tries()
    {
        var beat = 0.0;
        foreach (var set in Sets)
        {
            for (var time = 0; time < set.Times; time++)
            {
                IReadOnlyList<double> heights = [.. (set.Heights ?? Cue.Level).Select(height => height + (time * set.Step))];
                yield return new Cue(beat, set.SoundBeats, set.RestBeats, set.Label, heights, set.Glides)
                {
                    AsLongAsItLasts = set.AsLongAsItLasts,
                    Tongued = set.Tongued,
                    Voice = set.Voice,
                    Silent = set.Silent,
                    On = set.PlayedOn,
                    Part = set.Part,
                };
                beat += set.SoundBeats + set.RestBeats;
            }
        }
    }
}
