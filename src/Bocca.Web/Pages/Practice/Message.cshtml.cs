using Bocca.Core.Judging;
using Bocca.Core.Practice;
using Bocca.Web.Frame;
using Bocca.Web.Record;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;
using MimeKit;

namespace Bocca.Web.Pages.Practice;

/// <summary>A message as it was kept.</summary>
/// <param name="To">The pupil's address; empty for none.</param>
/// <param name="Guardian">The guardian's.</param>
/// <param name="Title">Its subject.</param>
/// <param name="Body">Its lines.</param>
public sealed record MessagePayload(string To, string Guardian, string Title, string Body);

/// <summary>A message as it was typed.</summary>
public sealed record SentMessage(string? To, string? Guardian, string? Title, string? Body);

/// <summary>The message after a lesson: drafted from the record, changed by the teacher, kept, or taken to their own mail.</summary>
public sealed class MessageModel(Journal journal) : EntriesPage(journal)
{
    private const string GreetingPath = "message.greeting",
        ClosePath = "message.close";

    /// <summary>What went well or wrong so many days back is still told (ours, editable).</summary>
    private const int DaysLookedBack = 21;

    protected override bool ChecksItself => true;

    [BindProperty(SupportsGet = true, Name = "voice")]
    public MessageVoice Voice { get; set; }

    /// <summary>The day of the next lesson; empty for a week on.</summary>
    [BindProperty(SupportsGet = true, Name = "next")]
    public string? Next { get; set; }

    public MessagePayload Draft { get; private set; } = new("", "", "", "");

    public string? Trouble { get; private set; }

    public string Greeting => Phrase(GreetingPath, LessonMessage.UsualGreeting);

    public string Close => Phrase(ClosePath, LessonMessage.UsualClose);

    public DateOnly NextDay { get; private set; }

    /// <summary>Whether a guardian is copied: for a child, or where nobody said how old somebody is.</summary>
    public bool IsChild => LessonMessage.CopiesGuardian(Pupil!.Breathing(Clock.Today, TeachersOwn).Age);

    public async Task<IActionResult> OnGetAsync()
    {
        if (Pupil is null)
            return NotFound();
        await DraftAsync();
        return Page();
    }

    /// <summary>Keeps the message with the lesson.</summary>
    public async Task<IActionResult> OnPostAsync([FromForm] SentMessage? sent)
    {
        if (Pupil is null)
            return NotFound();
        if (Wrong(sent) is { } wrong)
            return await AgainAsync(sent, wrong);
        var payload = Typed(sent);
        var entry = new Entry
        {
            PupilId = Pupil.Id,
            Kind = PracticeStop.Messages.Id,
            At = Clock.Now,
            Summary = payload.Title,
        };
        await Journal.WriteAsync(PracticeStop.Messages, entry, payload, Approach.ToString());
        Tell("The message is kept with the lesson.", "Delete", entry.Id);
        return RedirectToPage(new { pupilId = Pupil.Id });
    }

    /// <summary>The message as a file that the teacher's own mail program opens.</summary>
    public async Task<IActionResult> OnPostEmlAsync([FromForm] SentMessage? sent)
    {
        if (Pupil is null)
            return NotFound();
        if (Wrong(sent) is { } wrong)
            return await AgainAsync(sent, wrong);
        var payload = Typed(sent);
        var mail = new MimeMessage
        {
            Subject = payload.Title,
            Body = new TextPart("plain") { Text = payload.Body },
        };
        // Not sent yet: mail programs open it as a draft.
        mail.Headers.Add("X-Unsent", "1");
        if (payload.To != "")
            mail.To.Add(MailboxAddress.Parse(payload.To));
        if (payload.Guardian != "")
            (payload.To == "" ? mail.To : mail.Cc).Add(MailboxAddress.Parse(payload.Guardian));
        using var bytes = new MemoryStream();
        await mail.WriteToAsync(bytes);
        return File(bytes.ToArray(), "message/rfc822", $"message-{Clock.Today:yyyy-MM-dd}.eml");
    }

    /// <summary>The teacher's own phrases, for every message of the room.</summary>
    public async Task<IActionResult> OnPostPhrasesAsync(string? greeting, string? close)
    {
        if (Pupil is null)
            return NotFound();
        if ((greeting ?? "").Length > LessonMessage.MostOfPhrase || (close ?? "").Length > LessonMessage.MostOfPhrase)
            return Refuse($"A phrase has at most {LessonMessage.MostOfPhrase} letters.");
        string? Own(string? typed, string usual) => typed?.Trim() is { Length: > 0 } own && own != usual ? own : null;
        await Db.SetAsync(
            null,
            new Dictionary<string, string?>
            {
                [GreetingPath] = Own(greeting, LessonMessage.UsualGreeting),
                [ClosePath] = Own(close, LessonMessage.UsualClose),
            },
            Clock.Now
        );
        TempData["Told"] = "Messages begin and end so from now on.";
        return RedirectToPage(new { pupilId = Pupil.Id });
    }

    private string Phrase(string path, string usual) => TeachersOwn[path] ?? usual;

    private async Task<IActionResult> AgainAsync(SentMessage? sent, string wrong)
    {
        await DraftAsync();
        (Draft, Trouble) = (Typed(sent), wrong);
        Response.StatusCode = StatusCodes.Status422UnprocessableEntity;
        return Page();
    }

    private static MessagePayload Typed(SentMessage? sent) =>
        new(sent?.To?.Trim() ?? "", sent?.Guardian?.Trim() ?? "", sent?.Title?.Trim() ?? "", (sent?.Body ?? "").Trim());

    private string? Wrong(SentMessage? sent)
    {
        var typed = Typed(sent);
        if (
            typed.Title == ""
            || typed.Body == ""
            || typed.Body.Length > LessonMessage.MostLetters
            || typed.Title.Length > LessonMessage.MostOfPhrase
        )
            return $"A message has a subject, and 1 to {LessonMessage.MostLetters} letters.";
        if (typed.Title.Any(char.IsControl))
            return "The subject is one line of plain letters.";
        foreach (var address in new[] { typed.To, typed.Guardian }.Where(address => address != ""))
            if (!MailboxAddress.TryParse(address, out _) || address.Any(char.IsControl) || !address.Contains('@', StringComparison.Ordinal))
                return $"'{address}' is no mail address.";
        return IsChild && typed.To != "" && typed.Guardian == ""
            ? $"{Pupil!.Name} is a child: a guardian is always copied. Give an address for one."
            : null;
    }

    /// <summary>What stands in the way, in plain words: the cause behind the cue that has not helped yet; empty for none.</summary>
    private async Task<string> FaultAsync() =>
        (await Journal.CuesAsync(Pupil!.Id)).Tries is [{ Helped: false, Cue: var cue }, ..]
        && Symptoms.Find(cue.Split('.')[0]) is { Causes: [var cause, ..] }
            ? cause
            : "";

    private async Task DraftAsync()
    {
        NextDay = DateOnly.TryParseExact(Next, "yyyy-MM-dd", out var day)
            ? day
            : await Db.NextLessonAsync(Pupil!, Clock.Today) ?? Clock.Today.AddDays(7);
        var start = Clock.DayStart;
        var lesson = await Journal.ShowAsync(
            PracticeStop.Lessons,
            Journal.Of(Pupil!.Id, PracticeStop.Lessons).Where(each => each.DoneAt >= start)
        );
        var name = Pupil!.Name.Split(' ')[0];
        var takes = Stops.Kinds.Where(kind => kind.IsTake).Select(kind => kind.Id).ToList();
        var since = Clock.Now.AddDays(-DaysLookedBack);
        var recent = await Journal
            .Of(Pupil.Id)
            .Where(entry => entry.Kept && entry.At >= since && takes.Contains(entry.Kind))
            .Take(40)
            .ToListAsync();
        var step = await Journal.Of(Pupil.Id, Steps.Kind).Where(open => open.DoneAt == null).FirstOrDefaultAsync();
        var week = await Journal.ShowAsync(PracticeStop.Weeks, Journal.Of(Pupil.Id, PracticeStop.Weeks));
        var days = week?.Payload.Days.Where(each => each.Count > 0).ToList() ?? [];
        var fault = week
            ?.Payload.Days.SelectMany(each => each)
            .FirstOrDefault(round => round.Item.Kind == Core.Practice.Week.WeekKind.Fault)
            ?.Item;
        var last = await Journal.ShowAsync(PracticeStop.Messages, Journal.Of(Pupil.Id, PracticeStop.Messages));
        var lines = LessonMessage.Draft(
            new MessageFrom(
                Voice,
                name,
                Greeting,
                lesson?.Payload.Good is { Length: > 0 } good
                    ? good
                    : Wording.Spelled(recent.FirstOrDefault(take => take.Outcome == Outcome.Passed)?.Summary ?? ""),
                await FaultAsync(),
                fault is not null ? $"{fault.Name}, {fault.Amount.Words}. {fault.Why}"
                    : lesson?.Payload.Task is { Length: > 0 } task ? task
                    : step is not null ? step.Summary
                    : "",
                days.Count == 0 ? 0 : days.Average(each => each.Sum(round => round.Item.Amount.Seconds + round.RestSeconds)) / 60,
                days.Count,
                NextDay,
                Close
            )
        );
        Draft = new MessagePayload(
            last?.Payload.To ?? "",
            last?.Payload.Guardian ?? "",
            $"After the lesson of {Clock.LongDay(Clock.Now)}",
            string.Join("\n\n", lines)
        );
    }
}
