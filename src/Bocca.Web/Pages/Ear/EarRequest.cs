using Bocca.Core.Ear;
using Bocca.Core.Fingering.Class;
using Bocca.Core.Music;
using Bocca.Core.Teaching;
using Bocca.Core.Tone.Notes;
using Bocca.Web.Record.Requests;
using Bocca.Web.Record.Shapes;

namespace Bocca.Web.Pages.Ear;

/// <summary>A question for the ear as it was asked: what is right, and what was to be sung and played, as it is read.</summary>
/// <param name="Level">How hard, on the staircase of the drill.</param>
/// <param name="Seed">What it was made from.</param>
/// <param name="Tempo">Beats a minute.</param>
/// <param name="Item">What it is about: <c>interval -4</c>.</param>
/// <param name="Answer">What is right to tap, in order; empty where nothing is tapped.</param>
/// <param name="Sung">What is to be sung.</param>
/// <param name="Played">What is to be played.</param>
/// <param name="NoteBeats">Beats of a note, where not each has its own.</param>
public sealed record StoredQuestion(
    int Level,
    int Seed,
    double Tempo,
    string Item,
    IReadOnlyList<string> Answer,
    IReadOnlyList<string> Sung,
    IReadOnlyList<string> Played,
    double NoteBeats
) : StoredShape
{
    /// <summary>The most beats that a note lasts (ours).</summary>
    private const double MostBeats = 64;

    /// <summary>Whether it is played alone because nobody is asked to sing; null for no.</summary>
    public bool? Unsung { get; init; }

    /// <summary>Beats of each note that is sung; null where they are alike.</summary>
    public IReadOnlyList<double>? SungLengths { get; init; }

    /// <summary>Cents that the notes lie from equal temperament; null for none.</summary>
    public double? AsideCents { get; init; }

    public static StoredQuestion Of(EarQuestion question) =>
        new(
            question.Level,
            question.Seed,
            question.Drill.Tempo,
            question.Item,
            question.Answer,
            [.. question.Sung.Select(note => $"{note}")],
            [.. question.Played.Select(note => $"{note}")],
            question.NoteBeats
        )
        {
            Unsung = EarDrill.Get(question.Drill.Id).Sings && !question.Drill.Sings ? true : null,
            SungLengths = question.SungLengths.Count == 0 ? null : question.SungLengths,
            AsideCents = question.AsideCents == 0 ? null : question.AsideCents,
        };

    /// <summary>The question of a drill.</summary>
    /// <exception cref="InvalidDataException">It is none that can be asked.</exception>
    public EarQuestion Read(EarDrill drill)
    {
        var (slowest, fastest) = CuePlan.TempoRange;
        IReadOnlyList<double> lengths = SungLengths ?? [];
        if (
            !(Tempo >= slowest && Tempo <= fastest && NoteBeats is > 0 and <= MostBeats)
            || Answer.Count > EarLine.MostNotes
            || Sung.Count > EarLine.MostNotes
            || Played.Count > EarLine.MostNotes
            || (lengths.Count > 0 && (lengths.Count != Sung.Count || lengths.Any(beats => beats is not (> 0 and <= MostBeats))))
        )
            throw new InvalidDataException($"This is no question of '{drill.Id}'.");
        return new EarQuestion(drill with { Tempo = Tempo, Sings = drill.Sings && Unsung != true }, Level, Seed)
        {
            Item = Item,
            Answer = Answer,
            Sung = Pitches(Sung),
            Played = Pitches(Played),
            NoteBeats = NoteBeats,
            SungLengths = lengths,
            AsideCents = AsideCents ?? 0,
        };
    }

    private static List<Pitch> Pitches(IReadOnlyList<string> notes) =>
        [.. notes.Select(note => Pitch.TryParse(note, out var pitch) ? pitch : throw new InvalidDataException($"'{note}' is no note."))];
}

/// <summary>What a take for the ear was asked to be.</summary>
/// <param name="Drill">The drill, by its id.</param>
/// <param name="Question">The question.</param>
/// <param name="On">What it is played on.</param>
/// <param name="Stage">How far the pupil had come: the name of the stage.</param>
/// <param name="Approach">The teacher's approach, as it is stored.</param>
public sealed record EarRequest(string Drill, StoredQuestion Question, StoredInstrument On, string Stage, string Approach)
    : AskedUnder(On, Stage, Approach)
{
    public static RequestKind<EarRequest> Kind { get; } =
        new("ear")
        {
            Resolve = asked =>
            {
                _ = asked.Asked();
                _ = asked.Player();
            },
        };

    /// <summary>A question as it is asked now.</summary>
    /// <param name="question">The question.</param>
    /// <param name="line">A line of somebody's own that it was made from; null for none.</param>
    /// <param name="player">Whose ear is asked.</param>
    /// <param name="terms">Under what it is asked.</param>
    public static EarRequest Of(EarQuestion question, string? line, PlayerSituation player, TakeTerms terms) =>
        new(question.Drill.Id, StoredQuestion.Of(question), StoredInstrument.Of(player), terms.StageName, terms.ApproachText)
        {
            Line = string.IsNullOrWhiteSpace(line) ? null : line.Trim(),
            Own = terms.OwnText,
        };

    /// <summary>A line of somebody's own that the question was made from; null for none.</summary>
    public string? Line { get; init; }

    /// <summary>The question.</summary>
    /// <exception cref="ArgumentException">There is no such drill any more.</exception>
    /// <exception cref="InvalidDataException">It is none that can be asked.</exception>
    public EarQuestion Asked() => Question.Read(EarDrill.Get(Drill));

    /// <summary>Whose ear is asked, and the tuning.</summary>
    public (EarPlayer Player, Tuning Tuning) Player()
    {
        var player = On.Read();
        var range = LearnersRange.Of(player.Instrument, ReadStage(), Core.Teaching.Approach.Parse(Approach));
        return (new EarPlayer(player.Instrument, player.Reading, range), player.Tuning);
    }
}
