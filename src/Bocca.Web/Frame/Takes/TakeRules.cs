using Bocca.Core.Judging;
using Bocca.Web.Record;
using Microsoft.AspNetCore.Mvc;

namespace Bocca.Web.Frame.Takes;

/// <summary>What is a page's own about the takes of its stop.</summary>
/// <typeparam name="T">What a take has beside its columns.</typeparam>
/// <param name="Kind">What its takes are in the record.</param>
/// <param name="Show">A take as it is shown on the stage.</param>
/// <param name="Onward">Where an accepted step leads.</param>
public sealed record TakeRules<T>(
    EntryKind<T> Kind,
    Func<Shown<T>, Task<IActionResult>> Show,
    Func<Shown<T>, NextStep, IActionResult> Onward
)
    where T : class, IJudgedPayload<T>
{
    /// <summary>What the page says of a take that was kept.</summary>
    public string KeptWords { get; init; } = $"The {Kind.Noun} is saved.";

    /// <summary>Whether takes of a drill are shown on this page, where several pages keep takes of one kind.</summary>
    public Func<string?, bool> IsShownHere { get; init; } = _ => true;

    /// <summary>Whether a drill is played, so that what hurts ends it; who sings, says or claps wears no lips out.</summary>
    public Func<string, bool> IsPlaying { get; init; } = _ => true;

    /// <summary>What follows from a take that has just been kept.</summary>
    public Func<Shown<T>, Task> Kept { get; init; } = _ => Task.CompletedTask;
}
