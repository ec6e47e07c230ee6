using Bocca.Core.Counting;
using Bocca.Core.Health;
using Bocca.Core.Judging;
using Bocca.Core.Score;
using Bocca.Core.Simulation;
using Bocca.Core.Sound;
using Bocca.Core.Teaching;
using Bocca.Core.Tone.Notes;
using Bocca.Web.Drawings;
using Bocca.Web.Frame;
using Bocca.Web.Record;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Pages.Ear;

/// <summary>Cards as the page sends them back: apart by semicolons.</summary>
public sealed record AskedOfCards(string Drill, double Tempo, string Cards, string Metre, int Gap);

/// <summary>A recording of cards as sent by the page.</summary>
public sealed record SentCards(
    IFormFile? Sound,
    EntrySource Source,
    double? FirstCue,
    bool Tense,
    double Missing,
    string Drill,
    double Tempo,
    string Cards,
    string Metre,
    int Gap,
    string? Taps,
    double? Delay
) : SentSound(Sound, Source, FirstCue, Tense, Missing, Drill)
{
    public AskedOfCards Asked => new(Drill, Tempo, Cards, Metre, Gap);
}

/// <summary>What may stand in a pupil's cards.</summary>
/// <param name="Value">The value.</param>
/// <param name="Met">Whether it was introduced.</param>
/// <param name="Due">Whether it is due again.</param>
/// <param name="Said">How much of it was said in its place lately, 0 to 1; null for nothing yet.</param>
/// <param name="Clapped">The same of the hands.</param>
public sealed record ValueMet(RhythmValue Value, bool Met, bool Due, double? Said, double? Clapped);

/// <summary>Rhythm cards: said and clapped, each by itself.</summary>
[UploadLimit(WavFile.MaximumBytes, WavFile.TooLarge)]
public sealed class CountModel(Journal journal) : TakePage<CountPayload>(journal)
{
    /// <summary>Values of a stage before a teacher has chosen: the first so many that are taught (ours, editable by hand).</summary>
    private const int FirstValues = 3,
        SecondValues = 7,
        MostTaps = 400,
        TakesOfLadder = 8,
        FiguresThatCount = 400;

    /// <summary>A ladder's steps up and down, beats a minute, after two (handbook of the trade: common practice; ours, editable).</summary>
    private const double Faster = 4,
        Slower = 8,
        UsualTempo = 72;

    [BindProperty(SupportsGet = true, Name = "drill")]
    public string? DrillId { get; set; }

    [BindProperty(SupportsGet = true, Name = "tempo")]
    public double? Tempo { get; set; }

    [BindProperty(SupportsGet = true, Name = "metre")]
    public string? MetreText { get; set; }

    /// <summary>How many cards in a row.</summary>
    [BindProperty(SupportsGet = true, Name = "many")]
    public int? Many { get; set; }

    /// <summary>How many bars a card has.</summary>
    [BindProperty(SupportsGet = true, Name = "bars")]
    public int? Bars { get; set; }

    [BindProperty(SupportsGet = true, Name = "gap")]
    public int? Gap { get; set; }

    /// <summary>Cards of the teacher's own, apart by semicolons.</summary>
    [BindProperty(SupportsGet = true, Name = "own")]
    public string? Own { get; set; }

    /// <summary>What of the counts is shown: all, beats, none.</summary>
    [BindProperty(SupportsGet = true, Name = "counts")]
    public string? CountsShown { get; set; }

    public CardsView? View { get; private set; }

    public string? Trouble { get; private set; }

    public IReadOnlyList<ValueMet> Values { get; private set; } = [];

    /// <summary>The fastest tempo at which all was inside twice; null for none yet.</summary>
    public double? CleanTempo { get; private set; }

    protected override EntryKind<CountPayload> Kind => EarStop.Cards;

    protected override string KeptWords => "The cards stand in the record.";

    protected override Verdict VerdictOf(CountPayload payload) => payload.Verdict;

    protected override CountPayload WithVerdict(CountPayload payload, Verdict verdict) => payload with { Verdict = verdict };

    private double ToleranceMs => CountJudge.ToleranceMs(Pupil!.Stage, TeachersOwn);

    public async Task<IActionResult> OnGetAsync()
    {
        if (Pupil is null)
            return Page();
        var take = TakeId is null ? null : await TakeAsync(Takes());
        if (TakeId is not null && take is null)
            return NotFound();
        Values = await ValuesAsync();
        try
        {
            View = take is not null ? ViewOf(take) : ViewOf(await AskAsync());
        }
        catch (ArgumentException problem)
        {
            Trouble = problem.Message;
        }

        CleanTempo = await CleanTempoAsync();
        await LoadPastAsync();
        return Page();
    }

    /// <summary>The cards beat by beat.</summary>
    public async Task<IActionResult> OnGetPlanAsync(AskedOfCards asked) =>
        Pupil is null
            ? NotFound()
            : await RefusingAsync(() =>
            {
                var cards = AskedOf(asked);
                var counted = CountedDrill.Of(PlanOf(cards), []) with { Beats = BeatsOf(cards), TotalBeats = cards.TotalBeats };
                return cards.Ways.HasFlag(CountWays.Played)
                    ? CountedAsync(counted, PlanOf(cards))
                    : Task.FromResult<IActionResult>(new JsonResult(counted));
            });

    /// <summary>The cards said and clapped as they should be, before the pupil does them; or the practice player's take.</summary>
    public async Task<IActionResult> OnGetPracticeAsync(AskedOfCards asked, string character, int seed) =>
        Pupil is null
            ? NotFound()
            : await RefusingAsync(() =>
            {
                var cards = AskedOf(asked);
                var how = CountCharacter.Get(character);
                return PlayedInTurnAsync(cards.TotalBeats * cards.BeatSeconds, () => Played(Stand(cards, how, seed), character));
            });

    public async Task<IActionResult> OnPostHearAsync([FromForm] SentCards sent) =>
        await HearAsync(
            sent,
            async sound =>
            {
                var asked = AskedOf(sent.Asked);
                asked = sent.Finished is { } beats ? asked.UpTo(beats) : asked;
                var taps = Taps(sent.Taps);
                // A file of somebody's own begins with its first sound.
                var first = sent.FirstCue ?? First(sound);
                var heard = CountListener.Hear(sound, asked, first, ToleranceMs, taps);
                var verdict = CountTakeJudge.Judge(heard, await JudgedAsync(SoundStage.Instrument, sent.Tense));
                return Take(asked, heard, await SteppedAsync(verdict, asked, sent.Drill), sent);
            },
            OnStageAsync
        );

    /// <summary>A value is introduced by the teacher, or taken back.</summary>
    public async Task<IActionResult> OnPostValueAsync(string id, bool met)
    {
        if (Pupil is null)
            return NotFound();
        return await RefusingAsync(async () =>
        {
            var value = RhythmValue.Get(id);
            foreach (var known in await KnownAsync())
                await SetAsync(known, met: true);
            await SetAsync(value, met);
            Tell(met ? $"The {value.Name} may stand in cards now." : $"The {value.Name} stays out of cards.");
            return RedirectToPage(new { pupilId = Pupil!.Id });
        });
    }

    protected override Task<IActionResult> OnStageAsync(Shown<CountPayload> take) =>
        Task.FromResult<IActionResult>(Partial("_Cards", ViewOf(take)));

    protected override IActionResult Onward(Shown<CountPayload> take, NextStep next)
    {
        // What did not come is done once more; what came gives way to other cards.
        var again = take.Entry.Outcome != Outcome.Passed;
        return RedirectToPage(
            new
            {
                pupilId = Pupil!.Id,
                drill = take.Entry.DrillId,
                tempo = next.Tempo ?? take.Entry.Tempo,
                metre = take.Payload.Metre,
                gap = take.Payload.GapBeats,
                many = take.Payload.Cards.Count,
                own = again ? take.Entry.Subject : null,
            }
        );
    }

    protected override Task KeptAsync(Shown<CountPayload> take)
    {
        if (take.Entry is { Source: EntrySource.PracticePlayer } or { Outcome: Outcome.CannotTell })
            return Task.CompletedTask;
        var answers = take
            .Payload.Values.Where(value => value.Item != "")
            .GroupBy(value => value.Item)
            .Select(value => (value.Key, value.All(track => track.Value >= 1)))
            .ToList();
        return Journal.RecallAsync(Pupil!.Id, EarStop.OfValues, answers, onlyMissed: false);
    }

    private static double First(MonoSound sound)
    {
        var begun = ClapFinder
            .Find(sound)
            .Select(clap => clap.Seconds)
            .Concat(SyllableFinder.Find(sound).Select(said => said.Seconds))
            .ToList();
        return begun.Count == 0 ? 0 : begun.Min();
    }

    private static List<double>? Taps(string? text)
    {
        if (string.IsNullOrWhiteSpace(text))
            return [];
        var taps = text.Split(' ', StringSplitOptions.RemoveEmptyEntries);
        return taps.Length > MostTaps
            ? throw new ArgumentException("More taps came than anybody taps: a key may be stuck.")
            :
            [
                .. taps.Select(tap =>
                    double.TryParse(tap, out var at) && at is >= -10 and <= 600
                        ? at
                        : throw new ArgumentException("A tap came at no moment of the take.")
                ),
            ];
    }

    private CountAsked AskedOf(AskedOfCards asked)
    {
        var metre = Metre.Parse(asked.Metre);
        var cards = asked.Cards.Split(';', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries);
        if (cards.Length is 0 or > CountAsked.MostCards)
            throw new ArgumentException($"1 to {CountAsked.MostCards} cards stand in a row.");
        if (asked.Gap is < 0 or > CountAsked.MostGap)
            throw new ArgumentException($"0 to {CountAsked.MostGap} beats may lie between cards.");
        var (slowest, fastest) = CuePlan.TempoRange;
        if (!(asked.Tempo >= slowest && asked.Tempo <= fastest))
            throw new ArgumentException($"Cards go at {slowest:0} to {fastest:0} beats a minute, not {asked.Tempo:0}.");
        return new CountAsked(
            [.. cards.Select(card => RhythmCard.Parse(card, metre))],
            asked.Tempo,
            asked.Gap,
            CountDrill.Get(asked.Drill).Ways
        );
    }

    private static CuePlan PlanOf(CountAsked asked) =>
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

    /// <summary>The beats as they are counted: from one in each bar, and rests between cards.</summary>
    private static List<CountedBeat> BeatsOf(CountAsked asked)
    {
        var beats = new List<CountedBeat>();
        for (var card = 0; card < asked.Cards.Count; card++)
        {
            var all = (int)Math.Round(asked.Cards[card].Length.Value / asked.Metre.Beat.Value);
            beats.AddRange(Enumerable.Range(0, all).Select(beat => new CountedBeat((beat % asked.Metre.Beats) + 1, "", BeatPhase.Sound)));
            if (card + 1 < asked.Cards.Count)
                beats.AddRange(Enumerable.Range(0, asked.GapBeats).Select(beat => new CountedBeat(beat + 1, "rest", BeatPhase.Rest)));
        }

        return beats;
    }

    private MonoSound Stand(CountAsked asked, CountCharacter how, int seed)
    {
        if (!asked.Ways.HasFlag(CountWays.Played))
            return ClappingHands.Play(
                asked.Ways.HasFlag(CountWays.Tapped) ? asked with { Ways = asked.Ways | CountWays.Clapped } : asked,
                how,
                seed,
                0
            );
        var start = MeantNote.Of(
            Pupil!.Instrument,
            Pupil.Reading,
            Pupil.Reading.ToWritten(Bocca.Core.Instruments.StartNotes.Of(Pupil.Instrument).ConcertBb)
        );
        var hertz = Room.Tuning.Frequency(start.Sounding);
        var notes = asked.Cards.SelectMany(card => card.Notes).ToList();
        var row = new List<PlayedNote>();
        foreach (var note in notes)
        {
            var beats = note.Length.Value / asked.Metre.Beat.Value;
            if (note.Begins)
                row.Add(new PlayedNote(hertz, beats, 0.85, false));
            else if (row.Count > 0)
                row[^1] = row[^1] with { Beats = row[^1].Beats + beats, Share = row[^1].Share * row[^1].Beats / (row[^1].Beats + beats) };
        }

        var played = SimulatedPlayer.PlayRow(Pupil.Instrument, row, asked.Tempo, [], seed).Sound;
        return played with { Samples = played.Samples[(int)(asked.BeatSeconds * played.SampleRate)..] };
    }

    private (Entry, CountPayload) Take(CountAsked asked, HeardCount heard, Verdict verdict, SentCards sent)
    {
        var tracks = heard.Cards.SelectMany(card => new[] { card.Said, card.Clapped }).OfType<CountedTrack>().ToList();
        var entry = new Entry
        {
            PupilId = Pupil!.Id,
            Kind = Kind.Id,
            DrillId = sent.Drill,
            Subject = string.Join("; ", asked.Cards.Select(card => card.Text)),
            InstrumentId = asked.Ways.HasFlag(CountWays.Played) ? Pupil.InstrumentId : null,
            Source = sent.Source,
            Tempo = asked.Tempo,
            PlayedSeconds = asked.Ways.HasFlag(CountWays.Played) ? PlayingClock.PlayedSeconds(PlanOf(asked)) : null,
            Level = asked.Cards.Max(card => CardDifficulty.Of(card).Points),
            Came = tracks.Sum(track => track.Beats.Count(beat => Math.Abs(beat.ErrorMs ?? double.MaxValue) <= ToleranceMs)),
            Asked = tracks.Sum(track => track.Beats.Count),
            At = Clock.Now,
            Outcome = verdict.Outcome,
            Summary = verdict.Summary,
        };
        return (
            entry,
            new CountPayload(
                $"{asked.Metre}",
                asked.GapBeats,
                asked.Ways,
                ToleranceMs,
                sent.Delay is >= 0 and <= 1000 ? sent.Delay.Value : 0,
                heard.Problem is null
                    ? [.. heard.Cards.Select(card => new TracedCard(card.Card.Text, Traced(card.Said), Traced(card.Clapped)))]
                    : [.. asked.Cards.Select(card => new TracedCard(card.Text, null, null))],
                EarStop.Stored(CountFigures.Of(heard, ToleranceMs)),
                verdict
            )
        );

        static TracedTrack? Traced(CountedTrack? track) =>
            track is null
                ? null
                : new TracedTrack(
                    [
                        .. track.Beats.Select(beat => new TracedBeat(
                            beat.At.Value,
                            beat.Place,
                            beat.ErrorMs is { } off ? Math.Round(off, 1) : null
                        )),
                    ],
                    track.ExtraSeconds,
                    track.Passed
                );
    }

    /// <summary>After two in a row that were all inside the tempo goes up, after two that were not it goes down.</summary>
    private async Task<Verdict> SteppedAsync(Verdict verdict, CountAsked asked, string drill)
    {
        if (verdict.Outcome == Outcome.CannotTell)
            return verdict;
        var before = await Takes()
            .Where(take => take.DrillId == drill && take.Tempo == asked.Tempo && take.Outcome != Outcome.CannotTell)
            .Select(take => take.Outcome)
            .FirstOrDefaultAsync();
        if (before is null || (before == Outcome.Passed) != (verdict.Outcome == Outcome.Passed))
            return verdict;
        var (slowest, fastest) = CuePlan.TempoRange;
        var tempo = Math.Clamp(asked.Tempo + (verdict.Outcome == Outcome.Passed ? Faster : -Slower), slowest, fastest);
        var said =
            verdict.Outcome == Outcome.Passed
                ? $"Twice all inside: on to {tempo:0} a minute."
                : $"{verdict.Next.Cue.TrimEnd('.')}, at {tempo:0} a minute.";
        return verdict with { Next = verdict.Next with { Tempo = tempo, Cue = said } };
    }

    private async Task<double?> CleanTempoAsync()
    {
        var takes = await Takes()
            .Where(take => take.Kept && take.Outcome == Outcome.Passed && take.Source != EntrySource.PracticePlayer)
            .Take(TakesOfLadder * TakesOfLadder)
            .Select(take => take.Tempo)
            .ToListAsync();
        var twice = takes.OfType<double>().GroupBy(tempo => tempo).Where(tempo => tempo.Count() > 1).Select(tempo => tempo.Key).ToList();
        return twice.Count == 0 ? null : twice.Max();
    }

    private async Task<CountAsked> AskAsync()
    {
        var drill = CountDrill.All.FirstOrDefault(each => each.Id == DrillId) ?? CountDrill.All[0];
        var metre = Metre.Parse(MetreText ?? $"{Metre.Common}");
        var asked = new AskedOfCards(drill.Id, Tempo ?? UsualTempo, Own ?? "", $"{metre}", Gap ?? 0);
        if (!string.IsNullOrWhiteSpace(Own))
            return AskedOf(asked);
        var met = Values.Where(value => value.Met).Select(value => value.Value).ToList();
        var due = Values.Where(value => value is { Met: true, Due: true }).Select(value => value.Value).ToList();
        var many = Math.Clamp(Many ?? 1, 1, CountAsked.MostCards);
        var bars = Math.Clamp(Bars ?? 1, 1, RhythmCard.MostBars);
        var seed = Random.Shared.Next(1_000_000);
        // What is due stands in the first cards; the rest is of what was met.
        var cards = Enumerable.Range(0, many).Select(i => CardWriter.Write(metre, met, bars, seed + i, [.. due.Skip(i)]).Text);
        return AskedOf(asked with { Cards = string.Join(";", cards) });
    }

    private async Task<IReadOnlyList<RhythmValue>> KnownAsync()
    {
        var known = await Journal.RecalledOf(Pupil!.Id, EarStop.OfValues).Select(card => card.Item).ToListAsync();
        return known.Count > 0
            ? [.. RhythmValue.All.Where(value => known.Contains(value.Id))]
            : [.. RhythmValue.All.Take(Pupil!.Stage >= LearningStage.Second ? SecondValues : FirstValues)];
    }

    private async Task SetAsync(RhythmValue value, bool met)
    {
        var card = await Journal.RecalledOf(Pupil!.Id, EarStop.OfValues).FirstOrDefaultAsync(known => known.Item == value.Id);
        if (card is not null && !met)
            Db.Recalls.Remove(card);
        if (card is null && met)
            Db.Recalls.Add(
                new RecallCard
                {
                    PupilId = Pupil.Id,
                    InstrumentId = EarStop.OfValues,
                    Item = value.Id,
                    // What is new is due at once.
                    SeenAt = Clock.Now,
                    DueAt = Clock.Now,
                }
            );
        await Db.SaveChangesAsync();
    }

    private async Task<IReadOnlyList<ValueMet>> ValuesAsync()
    {
        var known = await KnownAsync();
        var now = Clock.Now;
        var due = await Journal
            .RecalledOf(Pupil!.Id, EarStop.OfValues)
            .Where(card => card.DueAt <= now)
            .Select(card => card.Item)
            .ToListAsync();
        var names = new[] { CountFigures.Said.Name, CountFigures.Clapped.Name };
        var figures = await Db
            .Figures.AsNoTracking()
            .Where(figure => figure.PupilId == Pupil.Id && names.Contains(figure.Name))
            .OrderByDescending(figure => figure.At)
            .Take(FiguresThatCount)
            .Select(figure => new
            {
                figure.Name,
                figure.Item,
                figure.Value,
                figure.Count,
            })
            .ToListAsync();
        double? Share(RhythmValue value, string name)
        {
            var own = figures.Where(figure => figure.Item == value.Id && figure.Name == name).ToList();
            return own.Count == 0 ? null : own.Sum(figure => figure.Value * figure.Count) / own.Sum(figure => figure.Count);
        }

        return
        [
            .. RhythmValue.All.Select(value => new ValueMet(
                value,
                known.Contains(value),
                due.Contains(value.Id),
                Share(value, CountFigures.Said.Name),
                Share(value, CountFigures.Clapped.Name)
            )),
        ];
    }

    private CardsView ViewOf(CountAsked asked) =>
        new(
            Pupil!,
            CountDrill.All.FirstOrDefault(each => each.Id == DrillId) ?? CountDrill.All[0],
            asked,
            Approach.Of(Points.TimeNames),
            ToleranceMs,
            CountsShown ?? "all",
            null
        );

    private CardsView ViewOf(Shown<CountPayload> take) =>
        new(
            Pupil!,
            CountDrill.Get(take.Entry.DrillId!),
            AskedOf(
                new AskedOfCards(
                    take.Entry.DrillId!,
                    take.Entry.Tempo ?? UsualTempo,
                    string.Join(";", take.Payload.Cards.Select(card => card.Card)),
                    take.Payload.Metre,
                    take.Payload.GapBeats
                )
            ),
            Approach.Of(Points.TimeNames),
            take.Payload.ToleranceMs,
            CountsShown ?? "all",
            take
        );
}

/// <summary>Cards on the stage, and what came of them once they were done.</summary>
public sealed record CardsView(
    Pupil Pupil,
    CountDrill Drill,
    CountAsked Asked,
    TimeNames Names,
    double ToleranceMs,
    string CountsShown,
    Shown<CountPayload>? Take
)
{
    /// <summary>Whether the card may be seen: read, or done already.</summary>
    public bool Shows => Take is not null || !Drill.ByEar;

    /// <summary>The cards as one text.</summary>
    public string Cards => string.Join("; ", Asked.Cards.Select(card => card.Text));

    /// <summary>A card engraved, with what is counted under it as far as it is shown.</summary>
    public string ScoreXml(RhythmCard card)
    {
        var counts = Counts.Of(card, Names);
        var onBeat = card.Onsets.Select(at => (at / card.Metre.Beat).IsWhole).ToList();
        return CardScore.Write(
            card,
            CountsShown switch
            {
                "none" => [],
                "beats" => [.. counts.Select((count, i) => onBeat[i] ? count : " ")],
                _ => counts,
            }
        );
    }

    /// <summary>The grid of a card, with its tracks where there are any.</summary>
    public GridDrawing Grid(int card) =>
        new(Asked.Cards[card], Asked.QuarterSeconds, ToleranceMs, Take?.Payload.Cards.ElementAtOrDefault(card));

    /// <summary>A dotted value to be asked of: its name, and how many half-beats it has; null where no card has one.</summary>
    public (string Name, int Halves)? HalfQuestion
    {
        get
        {
            foreach (var note in Asked.Cards.SelectMany(card => card.Notes).Where(note => note is { IsRest: false, InTriplet: false }))
                if (note.Token is "q." or "h.")
                    return (note.Token == "q." ? "dotted quarter" : "dotted half", (int)Counts.Halves(note.Length).Floor);
            return null;
        }
    }
}
