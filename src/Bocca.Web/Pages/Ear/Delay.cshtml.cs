using Bocca.Core.Counting;
using Bocca.Core.Sound;
using Bocca.Web.Frame;
using Bocca.Web.Record;
using Microsoft.AspNetCore.Mvc;

namespace Bocca.Web.Pages.Ear;

/// <summary>How late this machine hears: measured by clicks through the loudspeaker, or by taps. The browser remembers it.</summary>
[UploadLimit(WavFile.MaximumBytes, WavFile.TooLarge)]
public sealed class DelayModel(Journal journal) : StagePage(journal)
{
    private const int MostClicks = 32;

    public IActionResult OnGet() => Page();

    /// <summary>The delay from what the microphone heard of the clicks.</summary>
    public async Task<IActionResult> OnPostClicksAsync([FromForm] IFormFile? sound, [FromForm] string? clicks) =>
        sound is null
            ? Refuse("The recording did not arrive. Measure once more.")
            : await RefusingAsync(() =>
                InTurnAsync(
                    sound,
                    () =>
                    {
                        using var stream = sound.OpenReadStream();
                        return Task.FromResult<IActionResult>(
                            Told(MachineDelay.OfClicks(WavFile.Read(stream, "clicks.wav"), Moments(clicks)))
                        );
                    }
                )
            );

    /// <summary>The delay from taps, and the tapper's own habit where the machine's way out is known.</summary>
    public IActionResult OnPostTaps([FromForm] string? clicks, [FromForm] string? taps, [FromForm] double? outMs) =>
        Refusing(() =>
        {
            var delay = MachineDelay.OfTaps(Moments(clicks), Moments(taps));
            return Told(delay, outMs is >= 0 and <= 1000 ? delay.HabitMs(outMs.Value) : null);
        });

    private static JsonResult Told(MachineDelay delay, double? habit = null) =>
        new(
            new
            {
                delay.Milliseconds,
                delay.SpreadMs,
                delay.Count,
                HabitMs = habit,
            }
        );

    private static IReadOnlyList<double> Moments(string? text)
    {
        var parts = text?.Split(' ', StringSplitOptions.RemoveEmptyEntries) ?? [];
        return parts.Length is 0 or > MostClicks
            ? throw new ArgumentException($"1 to {MostClicks} clicks or taps are needed.")
            :
            [
                .. parts.Select(part =>
                    double.TryParse(part, out var at) && at is >= -10 and <= 600
                        ? at
                        : throw new ArgumentException("A click or tap came at no moment.")
                ),
            ];
    }
}
