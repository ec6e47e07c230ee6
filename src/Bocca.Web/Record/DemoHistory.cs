using Bocca.Core.Breath;
using Bocca.Core.Buzz;
using Bocca.Core.Buzz.Drills;
using Bocca.Core.Buzz.Measures;
using Bocca.Core.Counting;
using Bocca.Core.Ear;
using Bocca.Core.Embouchure;
using Bocca.Core.Fingering;
using Bocca.Core.Fingering.Class;
using Bocca.Core.Fingering.Trainer;
using Bocca.Core.Instruments;
using Bocca.Core.Judging;
using Bocca.Core.Music;
using Bocca.Core.Practice;
using Bocca.Core.Score;
using Bocca.Core.Simulation;
using Bocca.Core.Slurs;
using Bocca.Core.Teaching;
using Bocca.Core.Tone;
using Bocca.Core.Tone.Drills;
using Bocca.Core.Tone.Listening;
using Bocca.Core.Tone.Notes;
using Bocca.Web.Pages.Breath;
using Bocca.Web.Pages.Buzz;
using Bocca.Web.Pages.Ear;
using Bocca.Web.Pages.Notes;
using Bocca.Web.Pages.Setup;
using Bocca.Web.Pages.Slurs;
using Bocca.Web.Pages.Tone;
using Bocca.Web.Record.Requests;

namespace Bocca.Web.Record;

/// <summary>One entry of an invented history.</summary>
/// <param name="Name">Its name, the same at every start.</param>
/// <param name="Order">Items of a lower order are written first.</param>
/// <param name="Play">Makes it: the entry, and how it is written.</param>
public sealed record DemoItem(string Name, int Order, Func<(Entry Entry, Func<Journal, Task> Write)> Play);

/// <summary>The history of an invented pupil, entry by entry.</summary>
public sealed class DemoHistory(DemoPupil demo, Pupil pupil, DateTime now, RoomClock clock)
{
    private readonly Approach _approach = pupil.ApproachIn(new RoomSettings());
    private OwnScale? _scale;

    private TakeTerms Terms => new(pupil.Stage, _approach, OwnSettings.None);

    private PlayerSituation Player => new(pupil.Instrument, pupil.Reading, PlayingConditions.Usual.Tuning);

    private SoundingPupil Judged => new(_approach, OwnSound.Unknown) { Scale = _scale };

    /// <summary>Everything in it, each kind the oldest first.</summary>
    public IEnumerable<DemoItem> Items()
    {
        DemoItem Item(string kind, int i, int order, Func<(Entry, Func<Journal, Task>)> play) =>
            new($"{demo.Name} {kind} {i}", order, play);
        foreach (var (i, note) in demo.Notes.Index())
            yield return Item("note", i, 0, () => Note(note, i));
        foreach (var item in Placements().Concat(Hands()))
            yield return item;
        if (pupil.Instrument.Slide is not null)
            yield return Item("slide lock", 0, 0, Unlocked);
        // Later takes are placed between the pupil's own samples, which come first.
        if (demo.Takes.FirstOrDefault(take => BuzzDrill.Get(take.Drill).Aim == DrillAim.Reference) is { } samples)
            _scale = OwnScale.From(Buzzed(samples, 0).Payload.Measures);
        foreach (var (i, take) in demo.Takes.Index())
            yield return Item("buzz", i, 1, () => Kept(BuzzStop.Takes, Buzzed(take, i)));
        foreach (var (i, tone) in demo.Tones.Index())
            yield return Item("tone", i, 2, () => Kept(ToneStop.Takes, Played(tone, (pupil.Id * 10) + i)));
        foreach (var (i, slur) in demo.Slurs.Index())
            yield return Item("slur", i, 2, () => Kept(SlursStop.Takes, Slurred(slur, (pupil.Id * 20) + i)));
        foreach (var (i, breath) in demo.Breaths.Index())
            yield return Item("breath", i, 2, () => Kept(BreathStop.Drills, Breathed(breath, (pupil.Id * 50) + i)));
        foreach (var (i, ear) in demo.Ears.Index())
            yield return Item("ear", i, 2, () => Kept(EarStop.Answers, Answered(ear, (pupil.Id * 60) + i)));
        foreach (var (i, cards) in demo.Cards.Index())
            yield return Item("cards", i, 2, () => Kept(EarStop.Cards, Counted(cards, (pupil.Id * 70) + i)));
        foreach (var (i, take) in demo.Takes.Index().Where(take => take.Item.Accepted))
            yield return Item("step", i, 3, () => Step(Buzzed(take, i)));
    }

    /// <summary>The teacher has seen that the slide is handled safely.</summary>
    private (Entry, Func<Journal, Task>) Unlocked()
    {
        var tick = new Entry
        {
            PupilId = pupil.Id,
            Kind = SetupStop.Ticks.Id,
            DrillId = SetupCheck.SlideLock,
            InstrumentId = pupil.InstrumentId,
            At = now.AddDays(-demo.DaysPlaying),
        };
        return (tick, journal => journal.WriteAsync(SetupStop.Ticks, tick, _approach.ToString()));
    }

    private (Entry, Func<Journal, Task>) Kept<T>(EntryKind<T> kind, (Entry Entry, T Payload) made)
        where T : class => (made.Entry, journal => journal.WriteAsync(kind, made.Entry, made.Payload, _approach.ToString()));

    /// <summary>A take with what it was asked to be.</summary>
    private static (Entry, T) Asked<TRequest, T>(RequestKind<TRequest> kind, TRequest asked, (Entry Entry, T Payload) take)
        where TRequest : AskedUnder
    {
        take.Entry.Request = kind.Write(asked);
        return take;
    }

    private (Entry Entry, BuzzPayload Payload) Buzzed(DemoTake take, int i)
    {
        var drill = BuzzDrill.Get(take.Drill);
        var asked = new AskedTake(drill, drill.Plan.At(80), SoundStage.Mouthpiece, pupil.Stage);
        Fault[] faults = [.. $"{drill.Played} {take.Faults}".Split(' ', StringSplitOptions.RemoveEmptyEntries).Select(Fault.Parse)];
        var sound = SimulatedPlayer
            .Play(pupil.Instrument, asked.On, asked.Plan, faults, (pupil.Id * 100) + i, PlayingConditions.Usual.Tuning)
            .Sound;
        var heard = TakeListener.Hear(sound, asked, Judged);
        return Asked(
            BuzzRequest.Kind,
            BuzzRequest.Of(drill, asked.Plan, asked.On, Player, startHz: null, Terms),
            BuzzStop.Take(pupil, asked, EntrySource.Microphone, heard, now.AddDays(-take.DaysAgo))
        );
    }

    private (Entry, EarPayload) Answered(DemoEar ear, int seed)
    {
        var situation = Player;
        var player = new EarPlayer(pupil.Instrument, pupil.Reading, LearnersRange.Of(pupil.Instrument, pupil.Stage, _approach));
        var question = EarWriter.Write(EarDrill.Get(ear.Drill), ear.Level, seed % 100, player, situation.Tuning);
        var sound = EarCharacter.Get(ear.Character).Answer(question, player, situation, seed);
        var heard = EarHearing.Hear(question, question.Answer, sound, 0, player, situation.Tuning);
        var verdict = EarJudge.Judge(heard, new JudgedPupil(_approach));
        return Asked(
            EarRequest.Kind,
            EarRequest.Of(question, line: null, situation, Terms),
            EarStop.Answer(pupil, question, heard, verdict, EntrySource.Microphone, "", now.AddDays(-ear.DaysAgo))
        );
    }

    private (Entry, CountPayload) Counted(DemoCards cards, int seed)
    {
        const double Lead = 0.5;
        var drill = CountDrill.Get("said-clapped");
        var asked = new CountAsked([RhythmCard.Parse(cards.Card, Metre.Common)], cards.Tempo, 0, drill.Ways);
        var tolerance = CountJudge.ToleranceMs(pupil.Stage);
        var heard = CountListener.Hear(ClappingHands.Play(asked, CountCharacter.Get(cards.Character), seed, Lead), asked, Lead, tolerance);
        var verdict = CountTakeJudge.Judge(heard, new JudgedPupil(_approach));
        return Asked(
            CardsRequest.Kind,
            CardsRequest.Of(drill.Id, asked, tolerance, Player, Terms),
            EarStop.Counted(pupil, drill, asked, heard, verdict, tolerance, EntrySource.Microphone, now.AddDays(-cards.DaysAgo))
        );
    }

    private (Entry, TonePayload) Played(DemoTone tone, int seed)
    {
        var (drill, player) = (ToneDrill.Get(tone.Drill), Player);
        var notes = tone.Notes == "" ? null : MeantNote.Row(player.Instrument, player.Reading, tone.Notes);
        var asked = new AskedRow(drill.Plan(player, _approach, 96, notes), player, pupil.Stage) { Drill = drill };
        var how = RowCharacter.Get(tone.Character);
        var sound = SimulatedPlayer
            .PlayRow(pupil.Instrument, PlayedNote.Row(asked.Plan, player, how), asked.Plan.Tempo, how.Faults, seed)
            .Sound;
        asked = asked with { FirstCueSeconds = sound.CueSeconds![0] };
        var heard = RowTake.Hear(sound, asked, Judged with { Scale = null });
        return Asked(
            ToneRequest.Kind,
            ToneRequest.Of(drill.Id, (tone.Notes, ""), asked.Plan, player, Terms),
            ToneStop.Take(pupil, heard, (tone.Notes, ""), EntrySource.Microphone, now.AddDays(-tone.DaysAgo))
        );
    }

    private (Entry, SlurPayload) Slurred(DemoSlur slur, int seed)
    {
        var player = SlurPlayer.Of(pupil.Instrument, pupil.Reading, pupil.Stage, _approach);
        var sheet = SlurWriter.Sheet(player, SlurShape.Get(slur.Shape), slur.FirstPartial).Slurs;
        var asked = new AskedSlur(sheet[slur.Tube], 80, 1, Player, pupil.Stage);
        var sound = SimulatedPlayer.PlayRow(pupil.Instrument, SlurCharacter.Get(slur.Character).Play(asked), asked.Tempo, [], seed).Sound;
        var onward = SlurWriter.Onward(player, asked.Slur);
        var heard = SlurTake.Hear(sound, asked, Judged with { Scale = null }, onward, sound.CueSeconds![0]);
        return Asked(
            SlurRequest.Kind,
            SlurRequest.Of(asked, Terms),
            SlursStop.Take(pupil, heard, player, EntrySource.Microphone, now.AddDays(-slur.DaysAgo))
        );
    }

    private (Entry, BreathPayload) Breathed(DemoBreath breath, int seed)
    {
        var drill = BreathDrill.Get("even-stream");
        var plan =
            BreathPlan
                .Make(drill, drill.Rungs[breath.Rung], 80, pupil.Breathing(DateOnly.FromDateTime(now), OwnSettings.None), BreathDay.Fresh)
                .Plan
            ?? throw new InvalidOperationException($"The demo asks too much of {pupil.Name}.");
        Fault[] faults = [.. breath.Faults.Split(' ', StringSplitOptions.RemoveEmptyEntries).Select(Fault.Parse)];
        var verdict = BreathJudge.Judge(plan, BreathJudge.Streams(plan, SimulatedBreath.Play(plan, faults, seed), 0));
        return BreathStop.Drill(pupil, plan, breath.Rung, verdict, EntrySource.Microphone, Guid.Empty, now.AddDays(-breath.DaysAgo));
    }

    private (Entry, Func<Journal, Task>) Step((Entry Entry, BuzzPayload Payload) take)
    {
        var next = take.Payload.Verdict.Next;
        var step = Steps.Entry(pupil.Id, next, take.Entry.At);
        return (step, journal => journal.WriteAsync(Steps.Kind, step, new StepPayload(next.Reason), _approach.ToString()));
    }

    private (Entry, Func<Journal, Task>) Note(string note, int i)
    {
        var written = Pitch.Parse(note);
        var way = FingeringFinder.Find(pupil.Instrument, pupil.Reading, written)[0];
        return Kept(NotesStop.Notes, NotesStop.Note(pupil, written, way, now.AddDays(-demo.Notes.Count + i)));
    }

    private IEnumerable<DemoItem> Placements()
    {
        var rim = Mouthpiece.Of(pupil.Instrument.Family).RimMm;
        var earlier = new List<double>();
        foreach (var (i, placed) in demo.Placements.Index())
        {
            var marks = new DrawnFace(placed.Share, placed.OffsetMm, placed.Tilt, rim).Marks();
            var made = SetupStop.Placement(pupil, EntrySource.Drawing, marks, rim, _approach, [.. earlier], now.AddDays(-placed.DaysAgo));
            earlier.Add(made.Payload.Measures.ShareAbove);
            yield return new DemoItem($"{demo.Name} placement {i}", 0, () => Kept(SetupStop.Placements, made));
        }
    }

    /// <summary>Silent drills with one change that stays slow, and what they left to be recalled.</summary>
    private IEnumerable<DemoItem> Hands()
    {
        var cards = new Dictionary<string, RecallCard>();
        foreach (var (i, hand) in demo.Hands.Index())
        {
            var random = new Random((pupil.Id * 30) + hand.DaysAgo);
            var (drill, at) = (HandDrill.Get(hand.Drill), now.AddDays(-hand.DaysAgo));
            var trained = new TrainedHand(
                pupil.Instrument,
                pupil.Reading,
                FirstNotes.Of(pupil.Instrument, pupil.Reading, _approach),
                PlayingConditions.Usual.Tuning
            );
            var prompts = HandTrainer.Prompts(drill, trained, random);
            var marks = prompts
                .Select(
                    (prompt, at) =>
                    {
                        var from = at == 0 ? "" : prompts[at - 1].Answer;
                        var slow = $"{from} {prompt.Answer}" == hand.SlowChange;
                        var missed = slow && random.NextDouble() < 0.3;
                        var seconds = hand.Seconds * (slow ? 2.2 : 0.8 + (0.4 * random.NextDouble()));
                        return new HandMark(prompt.Item, prompt.Answer, from, missed ? from : prompt.Answer, seconds, !missed);
                    }
                )
                .ToList();
            var outcome = HandOutcome.Of(drill, marks);
            var recalled = new List<RecallCard>();
            foreach (var mark in marks.Where(_ => drill.IsRecalled).DistinctBy(mark => mark.Item))
            {
                if (!cards.TryGetValue(mark.Item, out var card))
                    recalled.Add(
                        cards[mark.Item] = card =
                            new RecallCard
                            {
                                PupilId = pupil.Id,
                                InstrumentId = pupil.InstrumentId,
                                Item = mark.Item,
                            }
                    );
                card.Answer(HandRecall.Grade(mark, outcome.MedianSeconds), at, clock);
            }

            yield return new DemoItem($"{demo.Name} hand {i}", 0, () => Hand(drill, marks, outcome, recalled, at));
        }
    }

    private (Entry, Func<Journal, Task>) Hand(
        HandDrill drill,
        List<HandMark> marks,
        HandOutcome outcome,
        List<RecallCard> recalled,
        DateTime at
    )
    {
        var entry = NotesStop.Hand(pupil, drill, outcome, at);
        return (
            entry,
            journal =>
            {
                journal.Db.Recalls.AddRange(recalled);
                return journal.WriteAsync(NotesStop.Hands, entry, new HandPayload(marks, outcome.MedianSeconds), _approach.ToString());
            }
        );
    }
}
