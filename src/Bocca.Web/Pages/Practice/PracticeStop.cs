using Bocca.Core.Practice.Week;
using Bocca.Web.Frame;
using Bocca.Web.Record;

namespace Bocca.Web.Pages.Practice;

/// <summary>A round of a week as it is kept.</summary>
public sealed record KeptRound(WeekItem Item, double RestSeconds);

/// <summary>A week as it was planned and approved.</summary>
/// <param name="First">Its first day.</param>
/// <param name="Days">The rounds of each day, the first day first.</param>
/// <param name="Minutes">Minutes that were free on each day.</param>
/// <param name="Left">What found no day, and why, in sentences.</param>
public sealed record WeekPayload(
    DateOnly First,
    IReadOnlyList<IReadOnlyList<KeptRound>> Days,
    IReadOnlyList<double> Minutes,
    IReadOnlyList<string> Left
);

/// <summary>The Practice stop: before the lesson, the lesson, the week after it.</summary>
public static class PracticeStop
{
    /// <summary>A week that was handed over; its subject is its first day.</summary>
    public static EntryKind<WeekPayload> Weeks { get; } =
        new("week", "week")
        {
            Title = week => $"Week from {week.Subject}",
            Opens = week => $"/practice/{week.PupilId}/week?from={week.Subject}",
            Gone = "The week is gone.",
            Back = "The week is back.",
        };

    /// <summary>What the pupil says of the days since: came of asked days, minutes, and how the lips felt as its subject.</summary>
    public static PlainKind Reports { get; } =
        new("report", "report")
        {
            Title = report => $"Practised on {report.Came} {(report.Came == 1 ? "day" : "days")}, {report.ElapsedSeconds / 60:0} minutes",
            Opens = report => $"/practice/{report.PupilId}",
            Gone = "The report is gone.",
        };

    /// <summary>A lesson; open until it is done.</summary>
    public static PlainKind Lessons { get; } =
        new("lesson", "lesson")
        {
            Title = lesson => lesson.DoneAt is null ? "A lesson, not ended" : $"A lesson of {(lesson.ElapsedSeconds ?? 0) / 60:0} minutes",
            Opens = lesson => $"/practice/{lesson.PupilId}",
            Gone = "The lesson is gone; what was kept in it stays.",
        };

    /// <summary>A remark of a lesson; its subject says whether it is for the teacher alone.</summary>
    public static PlainKind Remarks { get; } =
        new("remark", "remark")
        {
            Title = remark => remark.Subject == Private ? "A note for the teacher" : remark.Summary,
            Opens = remark => $"/practice/{remark.PupilId}",
            Gone = "The remark is gone.",
        };

    /// <summary>A message after a lesson; its summary is its subject.</summary>
    public static EntryKind<MessagePayload> Messages { get; } =
        new("message", "message")
        {
            Title = message => $"Message: {message.Summary}",
            Opens = message => $"/practice/{message.PupilId}/message",
            Gone = "The message is gone.",
        };

    /// <summary>The subject of a remark that the pupil does not see.</summary>
    public const string Private = "private";

    public static Stop Stop { get; } =
        new()
        {
            Key = '0',
            Path = "practice",
            Name = "Practice",
            Promise = "What happened since last time, the lesson, and a week that adds up.",
            Kinds = [Weeks, Reports, Lessons, Remarks, Messages],
        };
}
