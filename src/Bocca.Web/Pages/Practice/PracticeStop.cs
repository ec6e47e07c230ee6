using Bocca.Core.Practice.Class;
using Bocca.Core.Practice.Lesson;
using Bocca.Core.Practice.Week;
using Bocca.Web.Frame;
using Bocca.Web.Record;
using Bocca.Web.Record.Shapes;

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
)
{
    /// <summary>Minutes of a day, rests included, in whole ones as they are told everywhere; 0 for a free day.</summary>
    public int MinutesOn(int day) => WeekDay.WholeMinutes(Days[day].Sum(round => round.Item.Amount.Seconds + round.RestSeconds));

    /// <summary>The only note of the week, as it is written; null where there is no such rule.</summary>
    public string? OnlyNote { get; init; }

    /// <summary>The day of an exam that it was planned for; null for none.</summary>
    public string? Exam { get; init; }
}

/// <summary>A lesson as it is run.</summary>
/// <param name="Minutes">Minutes that were planned.</param>
/// <param name="Parts">Its agenda.</param>
/// <param name="Begun">When each part was begun, in that order.</param>
/// <param name="Mood">The mood that the teacher last saw.</param>
/// <param name="Good">One good thing with its number; empty until it is over.</param>
/// <param name="Task">The next task.</param>
public sealed record LessonPayload(
    int Minutes,
    IReadOnlyList<AgendaPart> Parts,
    IReadOnlyList<PartBegun> Begun,
    LessonMood Mood = LessonMood.Fine,
    string Good = "",
    string Task = ""
)
{
    /// <summary>The part that is on; null where there is no agenda.</summary>
    public AgendaPart? Now => Begun is [.., { Part: var at }] && at < Parts.Count ? Parts[at] : null;

    /// <summary>The part after it; null where it is the last.</summary>
    public AgendaPart? Next => Begun is [.., { Part: var at }] && at + 1 < Parts.Count ? Parts[at + 1] : null;
}

/// <summary>The Practice stop: before the lesson, the lesson, the week after it.</summary>
public static class PracticeStop
{
    /// <summary>A week that was handed over; its subject is its first day.</summary>
    public static EntryKind<WeekPayload> Weeks { get; } =
        new("week", "week")
        {
            Shape = StoredWeek.Shape,
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
    public static EntryKind<LessonPayload> Lessons { get; } =
        new("lesson", "lesson")
        {
            Shape = StoredLesson.Shape,
            Title = lesson => lesson.DoneAt is null ? "A lesson, not ended" : $"A lesson of {(lesson.ElapsedSeconds ?? 0) / 60:0} minutes",
            Opens = lesson => $"/practice/{lesson.PupilId}",
            Gone = "The lesson is gone; what was kept in it stays.",
        };

    /// <summary>Marks of a round by their names in the record.</summary>
    public static Names<RoundMark> Marks { get; } =
        new((RoundMark.Came, "came"), (RoundMark.Partly, "partly"), (RoundMark.NotYet, "not-yet"), (RoundMark.Absent, "absent"));

    /// <summary>The mark that an entry of a round holds; null where it holds none.</summary>
    public static RoundMark? MarkOf(Entry round) => Marks.ReadIf(round.Result.Code);

    /// <summary>A mark in a round of a class; its subject is what was done.</summary>
    public static PlainKind Rounds { get; } =
        new("round", "mark")
        {
            OfOlderLevel = level =>
                Enum.IsDefined((RoundMark)(int)level) ? new EntryResult(Marks[(RoundMark)(int)level]) : EntryResult.None,
            Title = round => $"In the class: {WordsOf(MarkOf(round) ?? RoundMark.Came)}{(round.Subject == "" ? "" : $", {round.Subject}")}",
            Opens = round => $"/practice/class?turn={round.PupilId}",
            Gone = "The mark is taken back.",
            Back = "The mark stands again.",
        };

    /// <summary>A mark in words.</summary>
    public static string WordsOf(RoundMark mark) =>
        mark switch
        {
            RoundMark.Came => "came",
            RoundMark.Partly => "partly",
            RoundMark.NotYet => "not yet",
            _ => "absent",
        };

    /// <summary>A remark of a lesson; its subject says whether it is for the teacher alone.</summary>
    public static PlainKind Remarks { get; } =
        new("remark", "remark")
        {
            Title = remark => remark.Subject == Private ? "A note for the teacher" : remark.Summary,
            Opens = remark => $"/practice/{remark.PupilId}",
            Gone = "The remark is gone.",
        };

    /// <summary>A cue that a teacher gave in a lesson; its subject names it, its summary says it.</summary>
    public static PlainKind Cues { get; } =
        new("cue", "cue")
        {
            Title = cue => $"Cue given: {cue.Summary}",
            Opens = cue => $"/practice/{cue.PupilId}",
            Gone = "The cue is gone from the lesson.",
        };

    /// <summary>A message after a lesson; its summary is its subject.</summary>
    public static EntryKind<MessagePayload> Messages { get; } =
        new("message", "message")
        {
            Shape = PayloadShape.Itself<MessagePayload>(),
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
            Kinds = [Weeks, Reports, Lessons, Remarks, Cues, Messages, Rounds],
            Styles = ["notes", "practice"],
            KeyPlaces = ["week"],
        };
}
