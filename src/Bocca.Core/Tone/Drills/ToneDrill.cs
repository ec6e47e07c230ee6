using Bocca.Core.Instruments;
using Bocca.Core.Teaching;
using Bocca.Core.Tone.Notes;

namespace Bocca.Core.Tone.Drills;

/// <summary>What a tone drill is held against, beside every note.</summary>
public enum ToneAim
{
    /// <summary>The notes themselves.</summary>
    Notes,

    /// <summary>Which open partial came, and how soon.</summary>
    FirstSound,

    /// <summary>Patterns, one at a time: the next is for when the one before was clean each time (common practice).</summary>
    Patterns,

    /// <summary>Two neighbours at will.</summary>
    Pair,

    /// <summary>Long and steady.</summary>
    Held,

    /// <summary>Where the open partials of the instrument lie.</summary>
    Tuning,

    /// <summary>The same note in several ways, compared.</summary>
    Experiment,

    /// <summary>Notes begun by the air alone, and by the tongue.</summary>
    Starts,

    /// <summary>Joined tongued notes.</summary>
    Joined,

    /// <summary>Short notes.</summary>
    Short,

    /// <summary>Which syllable starts cleanest.</summary>
    Syllables,

    /// <summary>A tone that is bent down and back.</summary>
    Bend,

    /// <summary>The slide drawn in one breath, without a stop.</summary>
    Glide,

    /// <summary>The pupil's own soft, medium and loud.</summary>
    Levels,

    /// <summary>Air begun by the tongue, with no tone.</summary>
    Air,

    /// <summary>A semitone down and back.</summary>
    Neighbour,

    /// <summary>A scale at full length and in one tempo.</summary>
    Scale,

    /// <summary>The second try beside the first.</summary>
    Better,

    /// <summary>The same partial further out on the slide.</summary>
    ByPosition,

    /// <summary>Long notes at the positions of the slide: how far each lies from its place.</summary>
    Stations,

    /// <summary>Ways of making the same tone that are known beforehand, compared.</summary>
    Contrast,

    /// <summary>Small tunes, one at a time, the one with the fewest changes of partial first.</summary>
    Tunes,

    /// <summary>Ever quicker notes under the tongue: the quickest that are even, and what twenty seconds leave of it.</summary>
    Fastest,
}

/// <summary>Part of a drill: a phrase, repeated.</summary>
/// <param name="Id">Its name in a teacher's settings; it stays, whatever is put before it.</param>
/// <param name="Row">The notes. A phrase of which one lies beyond range or reach, or is not learnt, is left out.</param>
/// <param name="Beats">Beats of each note.</param>
/// <param name="RestBeats">Beats of rest after the phrase.</param>
/// <param name="Times">How often the phrase comes.</param>
/// <param name="Share">How much of each note is to sound.</param>
/// <param name="Label">What it is called while it is counted.</param>
/// <param name="Heights">Semitones from the note that the tone glides through, where it does not keep one height; null for notes.</param>
/// <param name="LastBeats">Beats of the phrase's last note, where they differ.</param>
/// <param name="Lengths">Beats of every note of the phrase, where they differ.</param>
/// <param name="Part">What it is for, where the aim holds parts against each other.</param>
public sealed record ToneSet(
    string Id,
    Phrase Row,
    double Beats,
    double RestBeats,
    int Times = 1,
    double Share = 1,
    string Label = "",
    IReadOnlyList<double>? Heights = null,
    double? LastBeats = null,
    IReadOnlyList<double>? Lengths = null,
    DrillPart Part = DrillPart.Any
)
{
    /// <summary>Beats of a note of the phrase, counted from 0 out of so many.</summary>
    internal double BeatsOf(int note, int of) =>
        Lengths is { } lengths ? lengths[note]
        : note + 1 == of ? LastBeats ?? Beats
        : Beats;
}

/// <summary>A drill on the instrument, as data (<c>tone-drills.json</c>).</summary>
/// <param name="Id">Its name in records.</param>
/// <param name="Name">Its name for people.</param>
/// <param name="Ask">What to do, in one or two sentences; <c>{tongue}</c> stands for how the approach wants the tongue,
/// <c>{sing}</c> for singing first.</param>
/// <param name="Aim">What it is held against.</param>
/// <param name="Tempo">Its usual tempo, beats a minute.</param>
/// <param name="Sets">Its parts, in order.</param>
/// <param name="Easier">The drill to step back to.</param>
/// <param name="From">The stage from which on it is offered.</param>
/// <param name="Basis">Where it comes from.</param>
/// <param name="Families">The instruments that have it; null for all.</param>
public sealed record ToneDrill(
    string Id,
    string Name,
    string Ask,
    ToneAim Aim,
    double Tempo,
    IReadOnlyList<ToneSet> Sets,
    string Easier,
    LearningStage From,
    string Basis,
    IReadOnlyList<string>? Families = null
)
{
    /// <summary>With so many first notes learnt, patterns go over all of them.</summary>
    private const int AllFirst = 5;

    /// <summary>The most notes that a drill is laid out for.</summary>
    private const int MostNotes = MeantNote.MostNotes;

    private static readonly Lazy<IReadOnlyList<ToneDrill>> Shipped = new(() => EmbeddedData.Read<List<ToneDrill>>("tone-drills.json"));

    /// <summary>All drills, in the order in which they are met.</summary>
    public static IReadOnlyList<ToneDrill> All => Shipped.Value;

    /// <summary>Whether its phrases come one at a time: the next when the one before was clean each time (common practice).</summary>
    public bool OneByOne => Aim is ToneAim.Patterns or ToneAim.Tunes;

    /// <summary>Whether the notes are chosen for it rather than its own.</summary>
    public bool TakesNotes => Sets.Any(set => set.Row.TakesChosen);

    /// <summary>The same drill with a teacher's own counts, tempo and repeats.</summary>
    public ToneDrill With(OwnSettings own) => own.In(this, Numbers);

    /// <summary>What a teacher may set otherwise in it.</summary>
    public IEnumerable<NumberSetting> Settings => Numbers.Select(number => number.Setting);

    /// <summary>Puts a number into one of the sets of a drill.</summary>
    private static Func<ToneDrill, double, ToneDrill> InSet(string id, Func<ToneSet, double, ToneSet> put) =>
        (drill, value) => drill with { Sets = [.. drill.Sets.Select(set => set.Id == id ? put(set, value) : set)] };

    private IEnumerable<NumberIn<ToneDrill>> Numbers
    {
        get
        {
            NumberSetting Of(string path, string name, string means, double shipped, double least, double most, bool whole = true) =>
                new($"drills.tone.{Id}.{path}", Name, name, path == "tempo" ? "a minute" : "", means, shipped, least, most, whole);
            var (slowest, fastest) = CuePlan.TempoRange;
            yield return new(Of("tempo", "tempo", "beats", Tempo, slowest, fastest), (drill, value) => drill with { Tempo = value });
            // Tunes keep their rhythm; where phrases come one at a time, each is one.
            if (OneByOne)
                yield break;
            foreach (var (at, set) in Sets.Index())
            {
                var which = Sets.Count == 1 ? "" : $" {(set.Label == "" ? $"{at + 1}" : set.Label)}";
                if (set.Lengths is null)
                    yield return new(
                        Of($"sets.{set.Id}.beats", $"counts{which}", "of each note", set.Beats, 0.25, 16, whole: false),
                        InSet(set.Id, (it, value) => it with { Beats = value })
                    );
                // A rest is never taken away: that would be a cap lifted.
                yield return new(
                    Of($"sets.{set.Id}.restBeats", $"counts off{which}", "rest after it", set.RestBeats, set.RestBeats, 32, whole: false),
                    InSet(set.Id, (it, value) => it with { RestBeats = value })
                );
                yield return new(
                    Of($"sets.{set.Id}.times", $"times{which}", "repeats", set.Times, 1, Math.Max(8, set.Times)),
                    InSet(set.Id, (it, value) => it with { Times = (int)Math.Round(value) })
                );
            }
        }
    }

    /// <summary>What to do, in the approach's words.</summary>
    public string AskFor(Approach approach)
    {
        var syllable = approach.Of(Points.TongueSyllable) switch
        {
            TongueSyllable.Ta => "say ta",
            TongueSyllable.Too => "say too",
            TongueSyllable.Da => "say da",
            _ => "say the syllable that starts clearest",
        };
        var place = approach.Of(Points.TonguePlace) switch
        {
            TonguePlace.BehindTheTeeth => ", the tip behind the top teeth",
            TonguePlace.Roof => ", the tip at the roof of the mouth",
            _ => "",
        };
        var way = approach.Of(Points.TongueWay) switch
        {
            TongueWay.Down => ", and it drops",
            TongueWay.Back => ", and it draws back",
            _ => "",
        };
        var sing = approach.Of(Points.Singing) == Singing.Off ? "Hear it inside first." : "Sing it first.";
        return Ask.Replace("{tongue}", $": {syllable}{place}{way}", StringComparison.Ordinal)
            .Replace("{sing}", sing, StringComparison.Ordinal);
    }

    /// <summary>
    /// Whether an instrument has it and an approach a use for it: which start is clearest is only asked where that decides the syllable.
    /// </summary>
    public bool IsFor(Instrument instrument, Approach approach) =>
        (Families is null || Families.Contains(instrument.Family))
        && (Aim != ToneAim.Syllables || approach.Of(Points.TongueSyllable) == TongueSyllable.WhicheverStartsClearest);

    /// <summary>Whether it is for an instrument and approach, and a phrase of it lies within this player's range and reach.</summary>
    public bool IsFor(PlayerSituation player, Approach approach)
    {
        if (!IsFor(player.Instrument, approach))
            return false;
        var named = new DrillNotes(player, approach, Sets);
        return Sets.Any(set => named.Of(set, null) is not null);
    }

    /// <summary>Whether it is offered: it is for the player, and of first notes or for the stage.</summary>
    public bool IsOffered(PlayerSituation player, Approach approach, LearningStage stage) =>
        IsFor(player, approach) && (From <= LearningStage.FirstNotes || From <= stage);

    /// <summary>The phrase whose turn it is: patterns in their order, tunes by how often the partial changes.</summary>
    private IEnumerable<ToneSet> Next(PlayerSituation player, DrillNotes named)
    {
        var open = Sets.Where(set => IsOnLearnt(set) || Aim == ToneAim.Tunes || player.Learnt is null or >= AllFirst)
            .Select(set => (Set: set, Notes: named.Of(set, null)))
            .Where(each => each.Notes is not null)
            .ToList();
        if (Aim == ToneAim.Tunes)
            open =
            [
                .. open.OrderBy(each => Steps(each.Notes!).Count(step => step.Partials > 0))
                    .ThenBy(each => Steps(each.Notes!).Max(step => step.Semitones)),
            ];
        return open.Count == 0 ? [] : [open[player.Clean % open.Count].Set];
    }

    private static IEnumerable<(int Partials, int Semitones)> Steps(List<MeantNote> notes) =>
        notes.Zip(notes.Skip(1), (from, to) => (Math.Abs(from.Partial - to.Partial), Math.Abs(from.Sounding.Midi - to.Sounding.Midi)));

    private static bool IsOnLearnt(ToneSet set) => set.Row.Notes[0] is PhraseNote.OfLearnt;

    /// <summary>Whether any partial will do.</summary>
    private bool AnyPartial(Approach approach) =>
        Aim == ToneAim.FirstSound && approach.Of(Points.FirstTarget) == FirstTarget.WhateverSpeaks;

    /// <summary>The drill with this id.</summary>
    /// <exception cref="ArgumentException">There is none; the message names those there are.</exception>
    public static ToneDrill Get(string id) =>
        All.FirstOrDefault(drill => drill.Id == id)
        ?? throw new ArgumentException(
            $"'{id}' is not a tone drill Bocca knows; it knows {string.Join(", ", All.Select(drill => drill.Id))}."
        );

    /// <summary>The drill laid out for a player.</summary>
    /// <param name="player">Who plays what.</param>
    /// <param name="approach">The teacher's approach: it says which note is the first.</param>
    /// <param name="tempo">Beats a minute.</param>
    /// <param name="asked">The notes chosen, where it takes some; null for the first note.</param>
    /// <param name="ways">The teacher's words for the ways an experiment compares, in order; null for the drill's own.</param>
    /// <param name="share">How much of a short note is to sound, 0.2 to 0.95; null for the drill's own. What is half as long halves
    /// it.</param>
    /// <exception cref="ArgumentException">It would be longer than a take may be, or the share is none.</exception>
    public RowPlan Plan(
        PlayerSituation player,
        Approach approach,
        double tempo,
        IReadOnlyList<MeantNote>? asked = null,
        IReadOnlyList<string>? ways = null,
        double? share = null
    )
    {
        var (slowest, fastest) = CuePlan.TempoRange;
        var named = new DrillNotes(player, approach, Sets);
        var notes = new List<AskedNote>();
        var at = 0.0;
        // With two ways worded, an experiment has two.
        var sets = Aim == ToneAim.Experiment && ways is { Count: >= 2 } ? Sets.Zip(ways, (set, way) => set with { Label = way }) : Sets;
        if (Aim == ToneAim.Short && share is { } target)
        {
            if (!(target is >= 0.2 and <= 0.95))
                throw new ArgumentException($"A short note sounds 20 to 95 % of its length, not {100 * target:0} %.");
            sets = Sets.Select(set => set with { Share = set.Share * target / Sets[0].Share });
        }

        if (OneByOne)
            sets = Next(player, named);

        foreach (var set in sets)
        {
            for (var time = 0; time < set.Times; time++)
            {
                if (named.Of(set, asked) is not { } row)
                    continue;
                for (var i = 0; i < row.Count; i++)
                {
                    var beats = set.BeatsOf(i, row.Count);
                    notes.Add(
                        new AskedNote(
                            row[i],
                            at,
                            beats,
                            i + 1 < row.Count ? 0 : set.RestBeats,
                            row[i].SlurredToNext ? 1 : set.Share,
                            set.Label,
                            AnyPartial(approach)
                        )
                        {
                            Part = set.Part,
                            Heights = set.Heights,
                            Air = Aim == ToneAim.Air,
                        }
                    );
                    at += beats + (i + 1 < row.Count ? 0 : set.RestBeats);
                }
            }
        }

        if (notes.Count == 0)
            throw new ArgumentException($"No phrase of {Name} is learnt and lies within the range and the reach of this player.");
        return notes.Count <= MostNotes
            ? new RowPlan(Math.Clamp(tempo, slowest, fastest), notes)
            : throw new ArgumentException($"{Name} would have {notes.Count} notes; {MostNotes} is the most. Choose fewer.");
    }
}
