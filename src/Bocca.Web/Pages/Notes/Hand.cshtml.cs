using System.ComponentModel.DataAnnotations;
using System.Text.Json;
using Bocca.Core;
using Bocca.Core.Fingering;
using Bocca.Core.Fingering.Trainer;
using Bocca.Core.Health;
using Bocca.Core.Instruments;
using Bocca.Core.Judging;
using Bocca.Core.Music;
using Bocca.Core.Practice;
using Bocca.Core.Score;
using Bocca.Core.Teaching;
using Bocca.Web.Record;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Pages.Notes;

/// <summary>An answer as the page sends it.</summary>
public sealed record SentAnswer(string Item, string Answer, string From, string Given, double Seconds, double? Cm);

/// <summary>The answers of a drill.</summary>
public sealed record SentHand([MaxLength(40)] string Drill, IReadOnlyList<SentAnswer?> Answers);

/// <summary>The hand: silent drills until valves and slide need no thought.</summary>
public sealed class HandModel(Journal journal) : NotesPage(journal)
{
    protected override bool ChecksItself => HttpMethods.IsPost(Request.Method);

    private const int PastTakes = 12,
        TakesForNeeds = 20,
        MostAnswers = 60,
        MostWeak = 6;
    private const double LongestSeconds = 120;

    [BindProperty(SupportsGet = true, Name = "drill")]
    public string? DrillId { get; set; }

    public HandDrill Drill { get; private set; } = HandDrill.All[0];

    public IReadOnlyList<HandDrill> Offered => HandDrill.For(Played!.Instrument);

    public IReadOnlyList<Entry> Past { get; private set; } = [];

    public IReadOnlyList<HandChange> Weakest { get; private set; } = [];

    /// <summary>How many notes are due to be recalled.</summary>
    public int Due { get; private set; }

    public int Recalled { get; private set; }

    public async Task<IActionResult> OnGetAsync()
    {
        if (Pupil is null)
            return NotFound();
        if (DrillId is not null && Offered.All(drill => drill.Id != DrillId))
            return NotFound();
        var now = Clock.Now;
        Past = await Takes().Take(PastTakes).ToListAsync();
        Weakest = [.. (await ChangesAsync()).Where(change => change.Times > 1).Take(MostWeak)];
        Due = await Cards().CountAsync(card => card.DueAt <= now);
        Recalled = await Cards().CountAsync();
        Drill = DrillId is null
            ? HandDrill.First(Played!.Instrument, Due > 0, Past.Count > 0 ? Past[0].DrillId : null)
            : HandDrill.Get(DrillId);
        return Page();
    }

    /// <summary>The prompts of a drill, drawn for this hand.</summary>
    public async Task<IActionResult> OnGetPromptsAsync(string drill, int seed)
    {
        if (Health.Refusal(HealthActivity.Hands, Clock.Now) is { } ended)
            return Refuse(ended);
        if (Pupil is null)
            return NotFound();
        try
        {
            var asked = HandDrill.Get(drill);
            var trained = await TrainedAsync();
            var prompts = HandTrainer.Prompts(asked, trained, new Random(seed));
            return new JsonResult(
                new
                {
                    asked.WithinCm,
                    Prompts = prompts.Select(prompt => new
                    {
                        prompt.Item,
                        prompt.Show,
                        prompt.Answer,
                        prompt.Accepted,
                        prompt.Words,
                        prompt.Cm,
                        prompt.Hertz,
                        Note = prompt.Written is { } written ? MusicXmlWriter.Write(new NoteRow(Reading, [written])) : null,
                        Name = prompt.Written is { } read ? Frame.Wording.Pitch(read) : null,
                        Choices = prompt.Choices.Select(choice => new
                        {
                            Id = choice.ToString(),
                            Name = Frame.Wording.Pitch(choice),
                            Note = MusicXmlWriter.Write(new NoteRow(Reading, [choice])),
                        }),
                    }),
                }
            );
        }
        catch (ArgumentException problem)
        {
            return Refuse(OneLine.Of(problem));
        }
    }

    /// <summary>Judges the answers and keeps them; notes go into the recall schedule.</summary>
    public async Task<IActionResult> OnPostAsync([FromBody] SentHand sent)
    {
        if (Health.Refusal(HealthActivity.Hands, Clock.Now) is { } ended)
            return Refuse(ended);
        if (Pupil is null)
            return NotFound();
        if (
            !ModelState.IsValid
            || sent.Answers is not { Count: > 0 and <= MostAnswers }
            || HandDrill.All.FirstOrDefault(drill => drill.Id == sent.Drill) is not { } drill
            || sent.Answers.Any(answer =>
                answer is null
                || !(answer.Seconds >= 0 && answer.Seconds <= LongestSeconds)
                || answer.Item.Length > 20
                || answer.Answer.Length > 20
                || answer.From.Length > 20
                || answer.Given.Length > 20
            )
        )
            return Refuse("The answers did not arrive whole. Do the drill once more.");
        var trained = await TrainedAsync();
        var marks = sent
            .Answers.OfType<SentAnswer>()
            .Select(answer => new HandMark(
                answer.Item,
                answer.Answer,
                answer.From,
                answer.Given,
                answer.Seconds,
                HandTrainer.IsRight(drill, trained, answer.Item, answer.Answer, answer.Given)
            ))
            .ToList();
        var outcome = HandOutcome.Of(drill, marks);
        var now = Clock.Now;
        var take = NotesStop.Hand(Pupil, drill, outcome, now);
        await Journal.WriteAsync(NotesStop.Hands, take, new HandPayload(marks, outcome.MedianSeconds), Approach.ToString());
        if (drill.IsRecalled)
            await Db.SavingAsync(() => RecallAsync(marks, outcome.MedianSeconds));
        var onward = outcome.Passed ? drill.Next(Played!.Instrument) : null;
        return new JsonResult(
            new
            {
                take.Id,
                outcome.Summary,
                outcome.Next,
                outcome.Passed,
                Onward = onward is null ? null : new { onward.Id, onward.Name },
                Weakest = outcome.Weakest.Select(change => change.Words),
            }
        );
    }

    protected override IActionResult ReadOn(Entry entry) =>
        entry.Kind == NotesStop.Hands.Id ? RedirectToPage(new { pupilId = Pupil!.Id, drill = entry.DrillId }) : base.ReadOn(entry);

    /// <summary>The slide as drawn: where each centimetre is, what it sounds.</summary>
    public string SlidePoints =>
        Played!.Instrument.Slide is not { } slide
            ? "[]"
            : JsonSerializer.Serialize(
                Enumerable
                    .Range(0, (int)(slide.TravelCm * 2) + 1)
                    .Select(i => i / 2.0)
                    .Select(cm => new
                    {
                        cm,
                        hertz = Math.Round(SlidePlace.Of(slide, cm).Hertz(Played.Instrument, HandTrainer.SlidePartial, Room.Tuning), 3),
                    })
            );

    private async Task<TrainedHand> TrainedAsync()
    {
        var now = Clock.Now;
        var takes = await Takes().Take(TakesForNeeds).Include(take => take.Payload).ToListAsync();
        var marks = takes.SelectMany(take => NotesStop.Hands.Read(take).Marks).ToList();
        var due = await Cards().Where(card => card.DueAt <= now).Select(card => card.Item).ToListAsync();
        return new TrainedHand(Played!.Instrument, Reading, await NotesAsync(), Room.Tuning)
        {
            Hand = Played.Hand,
            Weights = Played.Weights,
            Marks = marks,
            Due = due.ToHashSet(),
        };
    }

    /// <summary>
    /// The notes asked for: those saved in the record, the first notes of the instrument, and what the recall schedule knows.
    /// </summary>
    private async Task<IReadOnlyList<Pitch>> NotesAsync()
    {
        var saved = await Journal
            .Of(Pupil!.Id, NotesStop.Notes)
            .Where(note => note.DrillId == Pupil.ReadingId)
            .Select(note => note.Subject)
            .ToListAsync();
        var cards = await Cards().Select(card => card.Item).ToListAsync();
        var names = FirstNotes
            .Of(Played!.Instrument, Reading, Approach, Played.Hand, Played.Weights)
            .Select(note => note.ToString())
            .Concat(saved)
            .Concat(cards)
            .Distinct();
        return
        [
            .. names
                .Select(name => Pitch.TryParse(name, out var pitch) ? pitch : (Pitch?)null)
                .OfType<Pitch>()
                .Where(note =>
                    FingeringFinder.FindSounding(Played!.Instrument, Reading.ToSounding(note), Played.Weights, Played.Hand)
                        is [{ Barred: null }, ..]
                ),
        ];
    }

    /// <summary>The first answer a note gets in a drill counts; the rest of the drill is practice.</summary>
    private async Task RecallAsync(List<HandMark> marks, double usual)
    {
        foreach (var mark in marks.DistinctBy(mark => mark.Item))
        {
            var card = await Cards().AsTracking().FirstOrDefaultAsync(known => known.Item == mark.Item);
            if (card is null)
                Db.Recalls.Add(
                    card = new RecallCard
                    {
                        PupilId = Pupil!.Id,
                        InstrumentId = Pupil.InstrumentId,
                        Item = mark.Item,
                    }
                );
            card.Answer(HandRecall.Grade(mark, usual), Clock.Now, Clock);
        }
    }

    private IQueryable<Entry> Takes() => Journal.Of(Pupil!.Id, NotesStop.Hands).Where(take => take.InstrumentId == Pupil.InstrumentId);

    /// <summary>The changes of setting in the last drills, the weakest first.</summary>
    private async Task<IReadOnlyList<HandChange>> ChangesAsync()
    {
        var takes = Past.Select(take => take.Id).ToList();
        FigureKind[] kinds = [HandFigures.Change, HandFigures.Missed];
        var names = kinds.Select(kind => kind.Name).ToList();
        var figures = await Db.Figures.Where(figure => takes.Contains(figure.EntryId) && names.Contains(figure.Name)).ToListAsync();
        return HandFigures.Changes(
            figures.Select(figure => new Figure(
                kinds.First(kind => kind.Name == figure.Name),
                figure.Value,
                figure.Spread,
                figure.Count,
                figure.Item
            ))
        );
    }

    private IQueryable<RecallCard> Cards() =>
        Db.Recalls.AsNoTracking().Where(card => card.PupilId == Pupil!.Id && card.InstrumentId == Pupil.InstrumentId);
}
