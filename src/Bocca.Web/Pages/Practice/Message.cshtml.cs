using Bocca.Core.Practice;
using Bocca.Core.Practice.Lesson;
using Bocca.Core.Practice.Week;
using Bocca.Web.Frame;
using Bocca.Web.Record;
using Bocca.Web.Record.Shapes;
using Microsoft.AspNetCore.Mvc;
using MimeKit;

namespace Bocca.Web.Pages.Practice;

/// <summary>A message as it was kept.</summary>
/// <param name="To">The pupil's address; empty for none.</param>
/// <param name="Guardian">The guardian's.</param>
/// <param name="Title">Its subject.</param>
/// <param name="Body">Its lines.</param>
public sealed record MessagePayload(string To, string Guardian, string Title, string Body) : StoredShape;

/// <summary>A message as it was typed.</summary>
public sealed record SentMessage(string? To, string? Guardian, string? Title, string? Body);

/// <summary>The message after a lesson: drafted from the record, changed by the teacher, kept, or taken to their own mail.</summary>
public sealed class MessageModel(Journal journal) : EntriesPage(journal)
{
    private const string GreetingPath = "message.greeting",
        ClosePath = "message.close";

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

    /// <summary>The lesson that it is about: the one that ended today; null for none.</summary>
    public Shown<LessonPayload>? Ended { get; private set; }

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
        if ((Wrong(sent) ?? WrongToMail(Typed(sent))) is { } wrong)
            return await AgainAsync(sent, wrong);
        var payload = Typed(sent);
        var mail = new MimeMessage
        {
            Subject = payload.Title,
            Body = new TextPart("plain") { Text = payload.Body },
        };
        // Whoever sends it gives it a number; one made here would tell this machine's name.
        mail.Headers.Remove(HeaderId.MessageId);
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
        // Encoded words (RFC 2047) would be read by a mail program as other letters than those seen here.
        if (typed.Title.Any(char.IsControl) || typed.Title.Contains("=?", StringComparison.Ordinal))
            return "The subject is one line of plain letters.";
        foreach (var address in new[] { typed.To, typed.Guardian }.Where(address => address != ""))
            if (!MailboxAddress.TryParse(address, out _) || address.Any(char.IsControl) || !address.Contains('@', StringComparison.Ordinal))
                return $"'{address}' is no mail address.";
        if (!IsChild || typed.To == "")
            return null;
        return typed.Guardian == "" ? $"{Pupil!.Name} is a child: a guardian is always copied. Give an address for one."
            : Mailbox(typed.To) is { } to && Mailbox(typed.Guardian) is { } guardian && LessonMessage.IsSameBox(to, guardian)
                ? $"A guardian is always copied, and '{typed.Guardian}' is {Pupil!.Name}'s own address."
            : null;
    }

    /// <summary>A child whose guardian has no address gets no mail: whoever opens the file would address it to the child alone.</summary>
    private string? WrongToMail(MessagePayload typed) =>
        IsChild && typed.Guardian == "" ? $"{Pupil!.Name} is a child: give a guardian's address, or hand the message over on paper." : null;

    private static string? Mailbox(string address) => MailboxAddress.TryParse(address, out var box) ? box.Address : null;

    /// <summary>What stands in the way: the cause behind the lesson's cue that has not helped yet; empty for none.</summary>
    private async Task<string> FaultAsync(Entry lesson) =>
        (await Journal.CuesAsync(Pupil!.Id, lesson.At)).Tries is [{ Helped: false, Cue: var cue }, ..]
        && Symptoms.Find(cue.Split('.')[0]) is { Causes: [var cause, ..] }
            ? cause
            : "";

    /// <summary>The lesson that ended last, today or this evening; null for none.</summary>
    private Task<Shown<LessonPayload>?> EndedAsync()
    {
        var (day, evening) = (Clock.DayStart, Clock.Now.AddHours(-LessonTimes.LongestHours));
        return Journal.ShowAsync(
            PracticeStop.Lessons,
            Journal.Of(Pupil!.Id, PracticeStop.Lessons).Where(each => each.DoneAt >= day || each.DoneAt >= evening)
        );
    }

    private async Task DraftAsync()
    {
        NextDay = DateOnly.TryParseExact(Next, "yyyy-MM-dd", out var day)
            ? day
            : await Db.NextLessonAsync(Pupil!, Clock.Today) ?? Clock.Today.AddDays(7);
        Ended = await EndedAsync();
        var (entry, lesson) = (Ended?.Entry, Ended?.Payload);
        var handed = await Journal.ShowAsync(PracticeStop.Weeks, Journal.Of(Pupil!.Id, PracticeStop.Weeks));
        // A week of before the lesson, or one that is over, is no news of today.
        var week = handed?.Payload is { } planned && planned.First.AddDays(WeekAsked.Days) > Clock.Today ? planned : null;
        var mended =
            handed?.Entry.At >= entry?.DoneAt
                ? week?.Days.SelectMany(each => each).FirstOrDefault(round => round.Item.Kind == WeekKind.Fault)?.Item
                : null;
        var last = await Journal.ShowAsync(PracticeStop.Messages, Journal.Of(Pupil.Id, PracticeStop.Messages));
        var lines = LessonMessage.Draft(
            new MessageFrom(
                Voice,
                Pupil.Name.Split(' ')[0],
                Greeting,
                lesson?.Good ?? "",
                entry is null ? "" : await FaultAsync(entry),
                string.Join(
                    " ",
                    new[] { Ends(lesson?.Task), mended is null ? "" : $"{mended.Name}: {mended.Amount.Words}." }.Where(part => part != "")
                ),
                PieceOf(lesson),
                week is null ? [] : [.. Enumerable.Range(0, WeekAsked.Days).Select(week.MinutesOn).Where(minutes => minutes > 0)],
                NextDay,
                Close
            )
        );
        Draft = new MessagePayload(
            last?.Payload.To ?? "",
            last?.Payload.Guardian ?? "",
            entry is null ? $"{Clock.LongDay(Clock.Now)}" : $"After the lesson of {Clock.LongDay(entry.At)}",
            string.Join("\n\n", lines)
        );
    }

    /// <summary>What was played for its own sake in a lesson, where that part was begun.</summary>
    private static string PieceOf(LessonPayload? lesson) =>
        lesson?.Parts.Where((part, i) => part.Part == LessonPart.Piece && lesson.Begun.Any(begun => begun.Part == i)).FirstOrDefault()
            is { } piece
            ? Wording.Spelled(piece.What)
            : "";

    private static string Ends(string? sentence) =>
        sentence is { Length: > 0 } said && char.IsLetterOrDigit(said[^1]) ? $"{said}." : sentence ?? "";
}
