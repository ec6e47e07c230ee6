using Bocca.Core;
using Bocca.Core.Counting;
using Bocca.Core.Judging;
using Bocca.Core.Score;
using Bocca.Core.Simulation;
using Bocca.Core.Sound;
using Bocca.Core.Teaching;
using Bocca.Core.Tone.Notes;
using Bocca.Web.Frame;
using Bocca.Web.Frame.Takes;
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

/// <summary>Rhythm cards: said and clapped, each by itself.</summary>
[UploadLimit(WavFile.MaximumBytes, WavFile.TooLarge)]
public sealed class CountModel(Journal journal) : TakePage<CountPayload>(journal)
{
    private const int MostTaps = 400,
        TakesOfLadder = 64;

    private const double UsualTempo = 72;

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

    protected override TakeRules<CountPayload> Rules =>
        new(EarStop.Cards, OnStageAsync, Onward)
        {
            KeptWords = "The cards are saved.",
            IsPlaying = drill => CountDrill.All.FirstOrDefault(each => each.Id == drill)?.Ways.HasFlag(CountWays.Played) != false,
            Kept = KeptAsync,
        };

    private double ToleranceMs => CountJudge.ToleranceMs(Pupil!.Stage, TeachersOwn);

    public async Task<IActionResult> OnGetAsync()
    {
        if (Pupil is null)
            return Page();
        var take = await AskedTakeAsync();
        if (TakeId is not null && take is null)
            return NotFound();
        Values = await Journal.ValuesMetAsync(Pupil);
        try
        {
            View = take is not null ? ViewOf(take) : ViewOf(await AskAsync());
        }
        catch (ArgumentException problem)
        {
            Trouble = OneLine.Of(problem);
        }

        CleanTempo = await CleanTempoAsync();
        await LoadPastAsync();
        return Page();
    }

    /// <summary>The cards beat by beat.</summary>
    public async Task<IActionResult> OnGetBeginAsync(AskedOfCards asked) =>
        Pupil is null
            ? NotFound()
            : await RefusingAsync(async () =>
            {
                var cards = AskedOf(asked);
                var counted = Asking(
                    CountedDrill.Of(EarStop.PlanOf(cards), []) with
                    {
                        Beats = cards.CountedBeats,
                        TotalBeats = cards.TotalBeats,
                    },
                    CardsRequest.Kind,
                    await RequestOfAsync(asked.Drill, cards)
                );
                return cards.Ways.HasFlag(CountWays.Played) ? await CountedAsync(counted, EarStop.PlanOf(cards)) : new JsonResult(counted);
            });

    /// <summary>The cards said and clapped as they should be, before the pupil does them; or the practice player's take.</summary>
    public async Task<IActionResult> OnGetPracticeAsync(AskedOfCards asked, string? request, string character, int seed) =>
        Pupil is null
            ? NotFound()
            : await RefusingAsync(async () =>
            {
                var frozen = await FrozenAsync(CardsRequest.Kind, request, () => RequestOfAsync(asked.Drill, AskedOf(asked)));
                var (cards, player, how) = (frozen.Asked.Asked(), frozen.Asked.On.Read(), CountCharacter.Get(character));
                return await PlayedInTurnAsync(
                    cards.TotalBeats * cards.BeatSeconds,
                    () => Played(Stand(cards, player, how, seed), character)
                );
            });

    public async Task<IActionResult> OnPostHearAsync([FromForm] SentCards sent) =>
        await HearAsync(
            sent,
            async take =>
            {
                var frozen = await FrozenAsync(CardsRequest.Kind, sent.Request, () => RequestOfAsync(sent.Drill, AskedOf(sent.Asked)));
                var request = frozen.Asked;
                var asked = request.Asked();
                var (tolerance, whole) = (request.ToleranceMs, asked.Cards.Count);
                asked = sent.Finished is { } beats ? asked.UpTo(beats) : asked;
                var taps = Taps(sent.Taps);
                var heard = CountListener.Hear(
                    take.Sound,
                    asked,
                    sent.FirstCue,
                    tolerance,
                    taps,
                    asked.Ways.HasFlag(CountWays.OnNotes) ? request.On.Read() : null
                );
                var verdict = CountTakeJudge.Judge(
                    heard,
                    await Takes.JudgedAsync(frozen.Terms, SoundStage.Instrument, sent.Tense, take.Before)
                );
                verdict = CountTakeJudge.Stepped(verdict, asked.Tempo, await BeforeAsync(request.Drill, asked.Tempo));
                var drill = CountDrill.Get(request.Drill);
                var (entry, payload) = EarStop.Counted(Pupil!, drill, asked, heard, verdict, tolerance, sent.Source, Clock.Now);
                payload = payload with { DelayMs = sent.Delay is >= 0 and <= 1000 ? sent.Delay.Value : 0 };
                return WrittenTake.Of(frozen, (entry, payload), asked.Cards.Count, whole);
            }
        );

    /// <summary>A value is introduced by the teacher, or taken back.</summary>
    public async Task<IActionResult> OnPostValueAsync(string id, bool met)
    {
        if (Pupil is null)
            return NotFound();
        return await RefusingAsync(async () =>
        {
            var value = RhythmValue.Get(id);
            await Journal.IntroduceAsync(Pupil, value, met);
            Tell(met ? $"The {value.Name} may stand in cards now." : $"The {value.Name} stays out of cards.");
            return RedirectToPage(new { pupilId = Pupil!.Id });
        });
    }

    private Task<IActionResult> OnStageAsync(Shown<CountPayload> take) => Task.FromResult<IActionResult>(Partial("_Cards", ViewOf(take)));

    private RedirectToPageResult Onward(Shown<CountPayload> take, NextStep next)
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

    private async Task KeptAsync(Shown<CountPayload> take)
    {
        if (take.Entry.Outcome == Outcome.CannotTell)
            return;
        var answers = take
            .Payload.Values.Where(value => value.Item != "")
            .GroupBy(value => value.Item)
            .Select(value => (value.Key, value.All(track => track.Value >= 1)))
            .ToList();
        await Journal.NameIntroducedAsync(Pupil!);
        await Journal.RecallAsync(Pupil!.Id, EarStop.OfValues, answers, onlyMissed: false);
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

    private static CountAsked AskedOf(AskedOfCards asked) =>
        CountAsked.Of(TextsOf(asked.Cards), Metre.Parse(asked.Metre), asked.Tempo, asked.Gap, CountDrill.Get(asked.Drill).Ways);

    private static string[] TextsOf(string cards) =>
        cards.Split(';', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries);

    private async Task<CardsRequest> RequestOfAsync(string drill, CountAsked asked)
    {
        var player = (await Journal.PlayedAsync(Pupil!, Approach, Room.Conditions.Tuning)).Situation(Pupil!.Reading, Room.Tuning);
        return CardsRequest.Of(drill, asked, ToleranceMs, player, Terms);
    }

    private static string OnNotes(string cards, Metre metre, IReadOnlyList<Core.Music.Pitch> scale) =>
        string.Join(
            ";",
            CardPitches.OnNotes(TextsOf(cards).Select(text => RhythmCard.Parse(text, metre)), scale).Select(card => card.Text)
        );

    /// <summary>Do to so as this pupil reads and reaches it.</summary>
    private async Task<IReadOnlyList<Core.Music.Pitch>> ScaleAsync()
    {
        var player = (await Journal.PlayedAsync(Pupil!, Approach, Room.Conditions.Tuning)).Ear(Pupil!, Approach);
        return [.. player.DoToSo.Select(player.Reading.ToWritten)];
    }

    private static MonoSound Stand(CountAsked asked, PlayerSituation player, CountCharacter how, int seed) =>
        asked.Ways.HasFlag(CountWays.Played)
            ? PlayedCards.Play(asked, player.Instrument, player.Reading, player.Tuning, seed)
            // What is tapped is heard as claps.
            : ClappingHands.Play(
                asked.Ways.HasFlag(CountWays.Tapped) ? asked with { Ways = asked.Ways | CountWays.Clapped } : asked,
                how,
                seed,
                0
            );

    /// <summary>What came of the take before at a tempo.</summary>
    private Task<Outcome?> BeforeAsync(string drill, double tempo) =>
        Takes
            .All.Where(take => take.DrillId == drill && take.Tempo == tempo && take.Outcome != Outcome.CannotTell)
            .Select(take => take.Outcome)
            .FirstOrDefaultAsync();

    private async Task<double?> CleanTempoAsync() =>
        TempoLadder.Clean(
            await Takes
                .All.Where(take => take.Kept && take.Outcome == Outcome.Passed && take.Tempo != null)
                .Take(TakesOfLadder)
                .Select(take => take.Tempo!.Value)
                .ToListAsync()
        );

    private async Task<CountAsked> AskAsync()
    {
        var drill = CountDrill.All.FirstOrDefault(each => each.Id == DrillId) ?? CountDrill.All[0];
        var metre = Metre.Parse(MetreText ?? $"{Metre.Common}");
        var asked = new AskedOfCards(drill.Id, Tempo ?? UsualTempo, Own ?? "", $"{metre}", Gap ?? 0);
        var scale = drill.Ways.HasFlag(CountWays.OnNotes) ? await ScaleAsync() : [];
        if (!string.IsNullOrWhiteSpace(Own))
            return AskedOf(scale.Count == 0 ? asked : asked with { Cards = OnNotes(Own, metre, scale) });
        var met = Values.Where(value => value.Met).Select(value => value.Value).ToList();
        var due = Values.Where(value => value is { Met: true, Due: true }).Select(value => value.Value).ToList();
        var many = Math.Clamp(Many ?? 1, 1, CountAsked.MostCards);
        var bars = Math.Clamp(Bars ?? 1, 1, RhythmCard.MostBars);
        var seed = Random.Shared.Next(1_000_000);
        // What is due stands in the first cards; the rest is of what was met.
        var cards = Enumerable
            .Range(0, many)
            .Select(i => (Seed: seed + i, Card: CardWriter.Write(metre, met, bars, seed + i, [.. due.Skip(i)])))
            .Select(each => (scale.Count > 0 ? CardPitches.Written(each.Card, scale, each.Seed) : each.Card).Text);
        return AskedOf(asked with { Cards = string.Join(";", cards) });
    }

    private CardsView ViewOf(CountAsked asked) =>
        new(
            Pupil!,
            Pupil!.Reading,
            CountDrill.All.FirstOrDefault(each => each.Id == DrillId) ?? CountDrill.All[0],
            asked,
            Approach.Of(Points.TimeNames),
            ToleranceMs,
            CountsShown ?? "all",
            null
        );

    private CardsView ViewOf(Shown<CountPayload> take)
    {
        var request = AskedIn(CardsRequest.Kind, take);
        var asked = new AskedOfCards(
            take.Entry.DrillId!,
            take.Entry.Tempo ?? UsualTempo,
            string.Join(";", take.Payload.Cards.Select(card => card.Card)),
            take.Payload.Metre,
            take.Payload.GapBeats
        );
        return new CardsView(
            Pupil!,
            request?.On.Read().Reading ?? Pupil!.Reading,
            CountDrill.Get(take.Entry.DrillId!),
            AskedOf(asked),
            (request is null ? Approach : Approach.Parse(request.Approach)).Of(Points.TimeNames),
            take.Payload.ToleranceMs,
            CountsShown ?? "all",
            take
        );
    }
}
