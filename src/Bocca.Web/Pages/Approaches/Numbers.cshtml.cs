using Bocca.Core.Breath;
using Bocca.Core.Buzz;
using Bocca.Core.Buzz.Drills;
using Bocca.Core.Buzz.Measures;
using Bocca.Core.Counting;
using Bocca.Core.Health;
using Bocca.Core.Slurs;
using Bocca.Core.Teaching;
using Bocca.Core.Tone.Drills;
using Bocca.Web.Pages.Buzz;
using Bocca.Web.Record;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Pages.Approaches;

/// <summary>The numbers by which is judged, played and limited: what is good enough, the drills, the limits.</summary>
public sealed class NumbersModel(Journal journal) : OwnPage(journal)
{
    /// <summary>So many takes back a pupil's tries are held against a band.</summary>
    private const int TakesLookedAt = 12;

    [FromRoute]
    public string Part { get; set; } = "bands";

    public string Title =>
        Part switch
        {
            "bands" => "What is good enough",
            "drills" => "Drills",
            _ => "Limits",
        };

    public string Lead =>
        Part switch
        {
            "bands" => "A try inside all of these is good. Every number is a choice; a take keeps the ones it was judged by.",
            "drills" => "Tempo, counts and repeats of each drill. A rest is never shorter than it ships.",
            _ => "You can only make these stricter.",
        };

    private static readonly Dictionary<string, IReadOnlyList<NumberSetting>> Parts = new()
    {
        ["bands"] = [.. BandSettings.All.Select(band => band.Setting), .. SlurBandTable.Settings, .. CountJudge.Settings],
        ["drills"] = [.. BuzzDrill.All.SelectMany(drill => drill.Settings), .. ToneDrill.All.SelectMany(drill => drill.Settings)],
        ["limits"] = [.. PlayingLimits.Settings, LipTime.Setting, .. BreathLimits.Settings],
    };

    /// <summary>All numbers, by path.</summary>
    public static IReadOnlyDictionary<string, NumberSetting> All { get; } =
        Parts.Values.SelectMany(numbers => numbers).ToDictionary(number => number.Path);

    /// <summary>The numbers of this part.</summary>
    public IReadOnlyList<NumberSetting> Numbers => Parts[Part];

    /// <summary>How many of the pupil's last tries lie inside a band, of how many; null where there is nothing to count.</summary>
    public IReadOnlyDictionary<string, (int Inside, int Of)> Inside { get; private set; } = new Dictionary<string, (int, int)>();

    public async Task<IActionResult> OnGetAsync()
    {
        await LoadAsync();
        return Page();
    }

    /// <summary>Sets the numbers that were typed; one that is what holds anyway is taken out.</summary>
    public Task<IActionResult> OnPostAsync() =>
        SetAsync(
            () =>
            {
                var values = new Dictionary<string, string?>();
                foreach (var number in Numbers.Where(number => Typed(number) is not null))
                {
                    var value = number.Read(Typed(number)!);
                    values[number.Path] = value == number.In(Under) ? null : NumberSetting.Text(value);
                }

                return values;
            },
            LoadAsync
        );

    /// <summary>Takes the own numbers of a group out.</summary>
    public Task<IActionResult> OnPostResetAsync(string group) =>
        SetAsync(() => Numbers.Where(number => number.Group == group).ToDictionary(number => number.Path, _ => (string?)null), LoadAsync);

    /// <summary>What was typed for a number; null where nothing was sent.</summary>
    public string? Typed(NumberSetting number) =>
        Request.HasFormContentType && Request.Form.TryGetValue(number.Path, out var typed) ? typed.ToString() : null;

    private async Task LoadAsync()
    {
        if (Pupil is null || !OfPupil || Part != "bands")
            return;
        var takes = await Journal
            .Of(Pupil.Id, BuzzStop.Takes)
            .Where(take => take.Kept)
            .Include(take => take.Payload)
            .Take(TakesLookedAt)
            .ToListAsync();
        var tries = takes
            .Select(take => (take.Stage, Tries: BuzzStop.Takes.Read(take).Measures.Spoken.Where(attempt => attempt.IsLevel)))
            .ToList();
        Inside = BandSettings
            .All.Where(band =>
                band.On != SoundStage.Instrument || band.Setting.Path.Contains(Pupil.Stage >= LearningStage.Second ? "second" : "first")
            )
            .Select(band =>
                (band.Setting.Path, Count: band.Inside(tries.Where(take => take.Stage == band.On).SelectMany(take => take.Tries), InForce))
            )
            .Where(each => each.Count is { Of: > 0 })
            .ToDictionary(each => each.Path, each => each.Count!.Value);
    }
}
