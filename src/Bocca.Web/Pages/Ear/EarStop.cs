using Bocca.Core.Counting;
using Bocca.Core.Ear;
using Bocca.Core.Health;
using Bocca.Core.Judging;
using Bocca.Core.Teaching;
using Bocca.Web.Frame;
using Bocca.Web.Record;

namespace Bocca.Web.Pages.Ear;

/// <summary>
/// What an answer of the ear has beside its columns: the question by its level and seed, what was tapped, sung and played, the pitch over
/// time. The sound itself is not kept.
/// </summary>
public sealed record EarPayload(
    int Level,
    int Seed,
    string Line,
    IReadOnlyList<string> Answer,
    IReadOnlyList<string> Tapped,
    IReadOnlyList<EarHeard> Sung,
    IReadOnlyList<EarHeard> Played,
    double NoteBeats,
    double AsideCents,
    double FirstSeconds,
    IReadOnlyList<double?> Midi,
    IReadOnlyList<EarFigure> Values,
    Verdict Verdict
) : IJudgedPayload<EarPayload>
{
    public EarPayload With(Verdict verdict) => this with { Verdict = verdict };
}

/// <summary>A figure of an answer or a take of cards, as it was found.</summary>
public sealed record EarFigure(string Name, double Value, int Count, string Item);

/// <summary>A beginning on the grid of a card, and what came of it in a track.</summary>
public sealed record TracedBeat(double At, string Place, double? ErrorMs);

/// <summary>A track of a card as it is kept.</summary>
public sealed record TracedTrack(IReadOnlyList<TracedBeat> Beats, IReadOnlyList<double> ExtraSeconds, bool Passed);

/// <summary>A card of a take: what was said and what the hands did.</summary>
public sealed record TracedCard(string Card, TracedTrack? Said, TracedTrack? Hands);

/// <summary>What a take of cards has beside its columns.</summary>
public sealed record CountPayload(
    string Metre,
    int GapBeats,
    CountWays Ways,
    double ToleranceMs,
    double DelayMs,
    IReadOnlyList<TracedCard> Cards,
    IReadOnlyList<EarFigure> Values,
    Verdict Verdict
) : IJudgedPayload<CountPayload>
{
    public CountPayload With(Verdict verdict) => this with { Verdict = verdict };
}

/// <summary>The Ear &amp; count stop, and what it writes into the record.</summary>
public static class EarStop
{
    /// <summary>The cards' recall stands beside the notes' under this name instead of an instrument; so does the ear's.</summary>
    public const string OfValues = "counting",
        OfEar = "ear";

    private static readonly IReadOnlyList<FigureKind> Kinds =
    [
        EarFigures.Tapped,
        EarFigures.Sung,
        EarFigures.Played,
        EarFigures.VoiceLowest,
        EarFigures.VoiceHighest,
        CountFigures.Said,
        CountFigures.Clapped,
        CountFigures.Evenness,
    ];

    /// <summary>The level of a question, from 0, where the answer moves the staircase of its drill.</summary>
    public static ResultNumber Level { get; } = new("level");

    /// <summary>How hard the hardest card was, points.</summary>
    public static ResultNumber Points { get; } = new("points");

    /// <summary>An answer of the ear; its subject is what was asked.</summary>
    public static EntryKind<EarPayload> Answers { get; } =
        new("ear", "answer")
        {
            Shape = StoredEarAnswer.Shape,
            OfOlderLevel = level => EntryResult.Of(Level, level),
            IsTake = true,
            Title = answer => $"Ear: {EarName(answer.DrillId!)}",
            Opens = answer => $"/ear/{(answer.DrillId == Faults ? "tell/" : "")}{answer.PupilId}?take={answer.Id}",
            Figures = (_, answer) => [.. answer.Values.Select(Of), .. CueHistory.FiguresOf(answer.Verdict)],
        };

    /// <summary>A take of rhythm cards; its subject is the cards, its drill how they were done.</summary>
    public static EntryKind<CountPayload> Cards { get; } =
        new("cards", "row of cards")
        {
            Shape = StoredCardsTake.Shape,
            OfOlderLevel = level => EntryResult.Of(Points, level),
            Plural = "rows of cards",
            IsTake = true,
            StepDrill = _ => CountTakeJudge.DrillId,
            Title = take => $"Cards, {CountDrill.Get(take.DrillId!).Name.ToLowerInvariant()}: {take.Subject}",
            Opens = take => $"/ear/count/{take.PupilId}?take={take.Id}",
            Figures = (_, take) => [.. take.Values.Select(Of), .. CueHistory.FiguresOf(take.Verdict)],
        };

    public static Stop Stop { get; } =
        new()
        {
            Key = '8',
            Path = "ear",
            Name = "Ear & count",
            Promise = "Sing it, play it, name it; say it, clap it, play it.",
            Kinds = [Answers, Cards],
            Requests = [EarRequest.Kind, OwnTakeRequest.Kind, CardsRequest.Kind],
            Followed = [EarFigures.Tapped, EarFigures.Sung, CountFigures.Clapped],
            Styles = ["notes", "ear"],
            KeyPlaces = ["ear", "tell", "count", "delay", "cards"],
            Steps = (pupil, drill) =>
                drill == CountTakeJudge.DrillId ? $"/ear/count/{pupil}"
                : drill == Faults ? $"/ear/tell/{pupil}"
                : $"/ear/{pupil}{(drill is null ? "" : $"?drill={Uri.EscapeDataString(drill)}")}",
            DrillName = DrillName,
            OffersDrill = (id, pupil, approach, _) =>
                id is CountTakeJudge.DrillId or Faults || EarDrill.For(pupil.Stage, approach).Any(drill => drill.Id == id),
            Dues =
            [
                new StopDue(count => $"{count} {(count == 1 ? "value" : "values")} to count", pupil => $"/ear/count/{pupil}", "values-due")
                {
                    Recalls = OfValues,
                    Drill = "ear:cards",
                },
                new StopDue(count => $"{count} to hear again", pupil => $"/ear/{pupil}", "ear-due")
                {
                    Recalls = OfEar,
                    Drill = "ear:copy-back",
                },
            ],
        };

    /// <summary>The drill in which faults are told apart by ear.</summary>
    public const string Faults = "right-or-wrong";

    /// <summary>An answer as it was heard, not yet kept.</summary>
    public static (Entry Entry, EarPayload Payload) Answer(
        Pupil pupil,
        EarQuestion question,
        EarHearing heard,
        Verdict verdict,
        EntrySource? source,
        string line,
        DateTime at
    )
    {
        var entry = new Entry
        {
            PupilId = pupil.Id,
            Kind = Answers.Id,
            DrillId = question.Drill.Id,
            Subject = question.Item,
            InstrumentId = pupil.InstrumentId,
            Source = source,
            Tempo = question.Drill.Tempo,
            PlayedSeconds = question.Played.Count > 0 && source is not null ? PlayingClock.PlayedSeconds(LipsOf(question)) : null,
            Result = EntryResult.Of(Level, question.Level),
            Came = heard.Sung.Concat(heard.Played).Count(EarJudge.Came) + (heard.EarRight == true ? 1 : 0),
            Asked = heard.Sung.Count + heard.Played.Count + (heard.EarRight is null ? 0 : 1),
            At = at,
            Outcome = verdict.Outcome,
            Summary = verdict.Summary,
        };
        var payload = new EarPayload(
            question.Level,
            question.Seed,
            line,
            question.Answer,
            heard.Tapped,
            heard.Sung,
            heard.Played,
            question.NoteBeats,
            question.AsideCents,
            heard.FirstSeconds,
            heard.Midi,
            Stored(EarFigures.Of(heard)),
            verdict
        );
        return (entry, payload);
    }

    /// <summary>A row of cards as it was heard, not yet kept.</summary>
    public static (Entry Entry, CountPayload Payload) Counted(
        Pupil pupil,
        CountDrill drill,
        CountAsked asked,
        HeardCount heard,
        Verdict verdict,
        double toleranceMs,
        EntrySource source,
        DateTime at
    )
    {
        var played = asked.Ways.HasFlag(CountWays.Played);
        var tracks = heard.Cards.SelectMany(card => new[] { card.Said, card.Clapped }).OfType<CountedTrack>().ToList();
        var entry = new Entry
        {
            PupilId = pupil.Id,
            Kind = Cards.Id,
            DrillId = drill.Id,
            Subject = string.Join("; ", asked.Cards.Select(card => card.Text)),
            InstrumentId = played ? pupil.InstrumentId : null,
            Source = source,
            Tempo = asked.Tempo,
            PlayedSeconds = played ? PlayingClock.PlayedSeconds(PlanOf(asked)) : null,
            Result = EntryResult.Of(Points, asked.Cards.Max(card => CardDifficulty.Of(card).Points)),
            Came = tracks.Sum(track => track.Beats.Count(beat => Math.Abs(beat.ErrorMs ?? double.MaxValue) <= toleranceMs)),
            Asked = tracks.Sum(track => track.Beats.Count),
            At = at,
            Outcome = verdict.Outcome,
            Summary = verdict.Summary,
        };
        List<TracedCard> cards = heard.Problem is null
            ? [.. heard.Cards.Select(card => new TracedCard(card.Card.Text, Traced(card.Said), Traced(card.Clapped)))]
            : [.. asked.Cards.Select(card => new TracedCard(card.Text, null, null))];
        var values = Stored(CountFigures.Of(heard, toleranceMs));
        return (entry, new CountPayload($"{asked.Metre}", asked.GapBeats, asked.Ways, toleranceMs, 0, cards, values, verdict));
    }

    /// <summary>What of a question wears the lips.</summary>
    public static CuePlan LipsOf(EarQuestion question) => question.Cues with { Tries = [.. question.Cues.Tries.Where(cue => !cue.Voice)] };

    /// <summary>Cards as cues: one a card.</summary>
    public static CuePlan PlanOf(CountAsked asked) =>
        new(
            asked.Tempo,
            [
                .. asked.Cards.Select(
                    (card, i) =>
                        new Cue(
                            asked.StartSeconds(i) / asked.BeatSeconds,
                            card.Length.Value / asked.Metre.Beat.Value,
                            i + 1 < asked.Cards.Count ? asked.GapBeats : 0,
                            "",
                            Cue.Level
                        )
                ),
            ]
        );

    private static TracedTrack? Traced(CountedTrack? track)
    {
        if (track is null)
            return null;
        static TracedBeat Beat(CardBeat beat) => new(beat.At.Value, beat.Place, beat.ErrorMs is { } off ? Math.Round(off, 1) : null);
        return new TracedTrack([.. track.Beats.Select(Beat)], track.ExtraSeconds, track.Passed);
    }

    /// <summary>The figures of a chapter as they are stored with a take.</summary>
    private static IReadOnlyList<EarFigure> Stored(IEnumerable<Figure> figures) =>
        [.. figures.Select(figure => new EarFigure(figure.Kind.Name, figure.Value, figure.Count, figure.Item))];

    /// <summary>What an answer is called in a list.</summary>
    public static string EarName(string id) =>
        id == Faults ? "Right or wrong?" : EarDrill.All.FirstOrDefault(drill => drill.Id == id)?.Name ?? id;

    private static string? DrillName(string id) =>
        id == CountTakeJudge.DrillId ? "rhythm cards"
        : id == Faults ? "right or wrong by ear"
        : EarDrill.All.FirstOrDefault(drill => drill.Id == id)?.Name;

    private static Figure Of(EarFigure stored) =>
        new(Kinds.First(kind => kind.Name == stored.Name), stored.Value, 0, stored.Count, stored.Item);
}
