using Bocca.Stress.Kills;

namespace Bocca.Stress.Hostile;

/// <summary>What a room in use has sent: takes, remarks, a class, lesson times, a lesson, a week, a piece.</summary>
public static class Fill
{
    /// <summary>The requests for one pupil, in order.</summary>
    /// <param name="pupil">The pupil.</param>
    /// <param name="number">Which one of the room it is, from 0.</param>
    /// <param name="score">A score to bring in.</param>
    public static IEnumerable<HttpRequestMessage> Of(int pupil, int number, byte[] score)
    {
        foreach (var writer in Writers.All.Where(writer => writer is { Before: null, Kind: not ("pupil" or "room") }))
            yield return writer.Request(pupil, 1 + number);
        yield return Writers.Form($"/notes/{pupil}/instrument?handler=Look", [new("found", "missing"), new("missing", "a cork")]);
        foreach (var (note, setting) in new[] { ("E4", "1-2"), ("Bb2", "1") })
            yield return Writers.Form($"/notes/{pupil}?handler=Pin", [new("note", note), new("setting", setting)]);
        yield return Writers.Form($"/practice/{pupil}/week", []);
        if (number % 2 == 0)
            yield return Writers.Form($"/practice/{pupil}/lesson?handler=Begin", [new("minutes", "30"), new("other", "both")]);
        yield return Writers.Form(
            "/practice/timetable?handler=Add",
            [new("who", $"pupil {pupil}"), new("day", $"{(DayOfWeek)(number % 7)}"), new("start", $"1{number}:00"), new("minutes", "20")]
        );
        if (number == 0)
            yield return Writers.Form(
                $"/pieces/{pupil}/write",
                [new("title", "Once more"), new("text", "4/4 q D4 D4 D4 D4"), new("piece", "1")]
            );
        yield return new HttpRequestMessage(HttpMethod.Post, $"/pieces/{pupil}")
        {
            Content = new MultipartFormDataContent { { new ByteArrayContent(score), "score", "piece.musicxml" } },
        };
    }
}
