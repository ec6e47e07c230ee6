using Bocca.Core.Practice.Lesson;
using Bocca.Web.Record.Shapes;

namespace Bocca.Web.Pages.Practice;

/// <summary>A part of an agenda.</summary>
/// <param name="Part">A name of <see cref="StoredNames.LessonParts"/>.</param>
/// <param name="What">What is done.</param>
/// <param name="Why">Why.</param>
public sealed record StoredAgendaPart(string Part, string What, string Why) : StoredShape
{
    /// <summary>Where it is done; null for nowhere in Bocca.</summary>
    public string? Address { get; init; }

    public int? Minutes { get; init; }

    public static StoredAgendaPart Of(AgendaPart part) =>
        new(StoredNames.LessonParts[part.Part], part.What, part.Why) { Address = part.Address, Minutes = part.Minutes };

    public AgendaPart Read() => new(StoredNames.LessonParts.Read(Part), What, Why, Address, Minutes ?? 0);
}

/// <summary>When a part was begun, UTC.</summary>
public sealed record StoredPartBegun(int Part, DateTime At) : StoredShape;

/// <summary>A lesson as the record holds it.</summary>
/// <param name="Minutes">Minutes that were planned.</param>
/// <param name="Parts">Its agenda.</param>
/// <param name="Begun">When each part was begun.</param>
public sealed record StoredLesson(int Minutes, IReadOnlyList<StoredAgendaPart> Parts, IReadOnlyList<StoredPartBegun> Begun) : StoredShape
{
    public static PayloadShape<LessonPayload, StoredLesson> Shape { get; } = new(Of, stored => stored.Read());

    /// <summary>A name of <see cref="StoredNames.LessonMoods"/>.</summary>
    public string? Mood { get; init; }

    public string? Good { get; init; }

    public string? Task { get; init; }

    private static StoredLesson Of(LessonPayload lesson) =>
        new(
            lesson.Minutes,
            [.. lesson.Parts.Select(StoredAgendaPart.Of)],
            [.. lesson.Begun.Select(begun => new StoredPartBegun(begun.Part, begun.At))]
        )
        {
            Mood = StoredNames.LessonMoods[lesson.Mood],
            Good = lesson.Good,
            Task = lesson.Task,
        };

    private LessonPayload Read() =>
        new(
            Minutes,
            [.. Parts.Select(each => each.Read())],
            [.. Begun.Select(each => new PartBegun(each.Part, each.At))],
            StoredNames.LessonMoods.ReadIf(Mood) ?? LessonMood.Fine,
            Good ?? "",
            Task ?? ""
        );
}
