using Bocca.Core;
using Bocca.Core.Judging;
using Bocca.Core.Practice.Lesson;
using Bocca.Web.Frame;
using Bocca.Web.Record;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Pages.Practice;

/// <summary>The lesson: what is done now and for how long, what was seen and said, how it ends.</summary>
public sealed class LessonModel(Journal journal) : EntriesPage(journal)
{
    private const int MostLetters = 400,
        MostCues = 4,
        MostShown = 20;

    /// <summary>What was written down and kept in the lesson.</summary>
    public IReadOnlyList<Entry> Kept { get; private set; } = [];

    /// <summary>Minutes by part, playing and otherwise.</summary>
    public IReadOnlyList<PartTime> Times { get; private set; } = [];

    /// <summary>The lesson that is on, or the one that ended today.</summary>
    public Shown<LessonPayload>? Shown { get; private set; }

    /// <summary>Cues that can be given with one tap: those of what was worked on last.</summary>
    public IReadOnlyList<(string Id, string Cue)> Cues { get; private set; } = [];

    /// <summary>One good thing with its number, as it is proposed.</summary>
    public string Good { get; private set; } = "";

    /// <summary>The next task, as it is proposed.</summary>
    public string Task { get; private set; } = "";

    public async Task<IActionResult> OnGetAsync()
    {
        if (Pupil is null)
            return NotFound();
        // One that ran past midnight is of this evening still.
        var (day, evening) = (Clock.DayStart, Clock.Now.AddHours(-LessonTimes.LongestHours));
        Shown =
            Lesson
            ?? await Journal.ShowAsync(
                PracticeStop.Lessons,
                Journal.Of(Pupil.Id, PracticeStop.Lessons).Where(lesson => lesson.DoneAt >= day || lesson.DoneAt >= evening)
            );
        if (Shown is not { Entry: var entry, Payload: var payload })
            return Page();
        var until = entry.DoneAt ?? Clock.Now;
        Kept = await Journal
            .Of(Pupil.Id)
            .Where(each => each.Kept && each.At >= entry.At && each.At <= until && each.Id != entry.Id)
            .Take(MostShown)
            .ToListAsync();
        Times = LessonTimes.Of(payload.Begun, await Journal.SoundedAsync(Pupil.Id, entry.At), until);
        var step = await Journal.Of(Pupil.Id, Steps.Kind).Where(open => open.DoneAt == null).FirstOrDefaultAsync();
        Cues = await CuesAsync(step);
        Good = Wording.Spelled(Kept.FirstOrDefault(take => take.Outcome == Outcome.Passed && Stops.Kind(take.Kind).IsTake)?.Summary ?? "");
        Task = Wording.Spelled(step?.Summary ?? "");
        return Page();
    }

    /// <summary>
    /// Begins a lesson on its first part; one that is on goes on. While one is on with somebody else, it is asked first what becomes of it.
    /// </summary>
    /// <param name="minutes">How long it is to be.</param>
    /// <param name="other">What becomes of the other one: <c>end</c> or <c>both</c>; null for not asked yet.</param>
    public async Task<IActionResult> OnPostBeginAsync(int minutes = Agenda.UsualMinutes, string? other = null)
    {
        if (Pupil is null)
            return NotFound();
        if (Lesson is not null)
            return Redirect(Here);
        if (other != "both" && await Journal.OtherLessonAsync(Pupil.Id) is { Pupil: var beside })
        {
            if (other != "end")
                return RedirectToPage("/Practice/Index", new { pupilId = Pupil.Id, minutes });
            await Journal.EndLessonAsync(beside.Id, "", "", "");
        }

        try
        {
            var before = await BeforeLesson.ReadAsync(Journal, Pupil, Room, this);
            var payload = new LessonPayload(minutes, Agenda.Of(minutes, before.Parts), [new PartBegun(0, Clock.Now)]);
            await Journal.BeginLessonAsync(Made(PracticeStop.Lessons, ""), payload, Approach.ToString());
            return Redirect(Here);
        }
        catch (ArgumentException problem)
        {
            return Refuse(OneLine.Of(problem));
        }
    }

    /// <summary>Goes to a part of the lesson, and to where it is done.</summary>
    public async Task<IActionResult> OnPostPartAsync(int to)
    {
        if (Pupil is null)
            return NotFound();
        var lesson = await Journal.ChangeLessonAsync(
            Pupil.Id,
            (_, payload) =>
                to >= 0 && to < payload.Parts.Count ? payload with { Begun = [.. payload.Begun, new PartBegun(to, Clock.Now)] } : payload
        );
        if (lesson is null)
            return Refuse("No lesson is on.");
        return LocalRedirect(Stops.Mending(lesson.Payload.Now?.Address, Pupil, Approach, Clock.Today)?.Address ?? Here);
    }

    /// <summary>Takes down the mood that the teacher sees.</summary>
    public async Task<IActionResult> OnPostMoodAsync(LessonMood mood, string? back)
    {
        if (Pupil is null)
            return NotFound();
        return await Journal.ChangeLessonAsync(Pupil.Id, (_, payload) => payload with { Mood = mood }) is null
            ? Refuse("No lesson is on.")
            : Back(back);
    }

    /// <summary>Writes a remark down: for the pupil too, or for the teacher alone.</summary>
    public async Task<IActionResult> OnPostRemarkAsync(string? words, bool alone, string? back)
    {
        if (Pupil is null)
            return NotFound();
        if (words?.Trim() is not { Length: > 0 and <= MostLetters } said)
            return Refuse($"A remark has 1 to {MostLetters} letters.");
        var entry = Made(PracticeStop.Remarks, said);
        entry.Subject = alone ? PracticeStop.Private : "";
        await Journal.WriteAsync(PracticeStop.Remarks, entry, Approach.ToString());
        Tell(alone ? "Noted, for you alone." : "Noted.", "Delete", entry.Id);
        return Back(back);
    }

    /// <summary>Takes down that a cue was given.</summary>
    public async Task<IActionResult> OnPostCueAsync(string? id, string? back)
    {
        if (Pupil is null)
            return NotFound();
        if (
            id?.Split('.') is not [var symptom, var rung]
            || Symptoms.Find(symptom)?.Fixes.FirstOrDefault(each => each.Id == rung) is not { } fix
        )
            return Refuse($"'{id}' is no cue.");
        var entry = Made(PracticeStop.Cues, fix.Cue);
        entry.Subject = id;
        await Journal.WriteAsync(PracticeStop.Cues, entry, Approach.ToString());
        Tell($"Given: {fix.Cue}", "Delete", entry.Id);
        return Back(back);
    }

    /// <summary>Ends the lesson that is on: with one good thing and the next task.</summary>
    public async Task<IActionResult> OnPostEndAsync(string? good, string? task, bool stowed, bool latched)
    {
        if (Pupil is null)
            return NotFound();
        if ((good ?? "").Length > MostLetters || (task ?? "").Length > MostLetters)
            return Refuse($"{MostLetters} letters are the most for each.");
        if (Lesson is null)
            return Refuse("No lesson is on.");
        await Journal.EndLessonAsync(
            Pupil.Id,
            good?.Trim() ?? "",
            task?.Trim() ?? "",
            $"{(stowed ? "; mouthpiece stowed" : "")}{(latched ? "; case latched" : "")}"
        );
        TempData["Told"] = "The lesson is over. Now the week.";
        return Redirect($"/practice/{Pupil.Id}/week");
    }

    private string Here => $"/practice/{Pupil!.Id}/lesson";

    private RedirectResult Back(string? back) => Redirect(back is { Length: > 0 } && Url.IsLocalUrl(back) ? back : Here);

    protected override IActionResult ReadOn(Entry entry) => Redirect(Here);

    /// <summary>The ladder of what was worked on last, or of the open step's cue; the rungs that helped first.</summary>
    private async Task<IReadOnlyList<(string, string)>> CuesAsync(Entry? step)
    {
        var cues = await Journal.CuesAsync(Pupil!.Id);
        var symptom = cues.Tries is [var last, ..]
            ? Symptoms.Find(last.Cue.Split('.')[0])
            : Symptoms.All.FirstOrDefault(each => each.Fixes.Any(fix => fix.Cue == step?.Summary));
        return symptom is null
            ? []
            :
            [
                .. symptom
                    .Fixes.Where(fix => fix.IsFor(Approach))
                    .OrderByDescending(fix => cues.Count(symptom.Id, fix).Helped)
                    .Take(MostCues)
                    .Select(fix => (CueHistory.NameOf(symptom.Id, fix), fix.Cue)),
            ];
    }

    private Entry Made(EntryKind kind, string summary) =>
        new()
        {
            PupilId = Pupil!.Id,
            Kind = kind.Id,
            InstrumentId = Pupil.InstrumentId,
            At = Clock.Now,
            Summary = summary,
        };
}
