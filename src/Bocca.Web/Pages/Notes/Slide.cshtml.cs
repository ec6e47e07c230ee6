using System.Text.Json;
using Bocca.Core;
using Bocca.Core.Embouchure;
using Bocca.Core.Instruments;
using Bocca.Core.Teaching;
using Bocca.Web.Drawings;
using Bocca.Web.Record;
using Microsoft.AspNetCore.Mvc;

namespace Bocca.Web.Pages.Notes;

/// <summary>The slide to scale: positions, landmarks and reach, measured on the pupil's own.</summary>
public sealed class SlideModel(Journal journal) : NotesPage(journal)
{
    private const double PointCm = 0.25;

    public SlideDrawing? Drawing { get; private set; }

    public ArmReach? Reach { get; private set; }

    /// <summary>Whether this very slide was measured.</summary>
    public bool IsMeasured => Played!.Passport.Slide is not null;

    [BindProperty]
    public int Nearer { get; set; } = 1;

    [BindProperty]
    public int Further { get; set; } = 4;

    [BindProperty]
    public double? ApartCm { get; set; }

    [BindProperty]
    public double? TravelCm { get; set; }

    public string? Trouble { get; private set; }

    public string? MarksTrouble { get; private set; }

    /// <summary>What lies under the pointer, every quarter centimetre: centimetres, cents under the closed slide, in words.</summary>
    public string Points =>
        JsonSerializer.Serialize(
            Enumerable.Range(0, (int)(Played!.Instrument.Slide!.TravelCm / PointCm) + 1).Select(i => Point(i * PointCm))
        );

    public IActionResult OnGet() => Load() ? Page() : NotFound();

    public async Task<IActionResult> OnPostAsync()
    {
        if (!Load())
            return NotFound();
        try
        {
            var slide = SlideCalibration.Of(Nearer, Further, ApartCm ?? double.NaN, TravelCm ?? Played!.Instrument.Slide!.TravelCm);
            return await KeepAsync(
                before => before with { SlideTubeMetres = slide.TubeMetres, SlideTravelCm = slide.TravelCm },
                $"position {Nearer} to {Further}: {ApartCm:0.#} cm",
                $"The slide is calibrated: a tube of {slide.TubeMetres:0.00} m. All positions follow it."
            );
        }
        catch (ArgumentException problem)
        {
            Trouble = double.IsNaN(ApartCm ?? double.NaN) ? "Measure the centimetres between the two positions." : OneLine.Of(problem);
            return Page();
        }
    }

    /// <summary>Keeps what the eye finds third and fourth by; both empty for the usual.</summary>
    public async Task<IActionResult> OnPostMarksAsync(double? stayCm, double? endCm)
    {
        if (!Load())
            return NotFound();
        try
        {
            var marks = (stayCm ?? endCm) is null ? null : SlideMarks.Measured(stayCm, endCm);
            return await KeepAsync(before => before with { Marks = marks }, "", "The marks of this slide are kept.");
        }
        catch (ArgumentException problem)
        {
            MarksTrouble = OneLine.Of(problem);
            return Page();
        }
    }

    private async Task<IActionResult> KeepAsync(Func<MeasuredPayload, MeasuredPayload> change, string remark, string told)
    {
        var before = (await Journal.ShowAsync(NotesStop.Measured, Journal.MeasuredOf(Pupil!)))?.Payload;
        var payload = change(before ?? new MeasuredPayload(null, null, false, new Dictionary<int, double>()));
        var entry = NotesStop.Measurement(Pupil!, payload, remark, Clock.Now);
        await Journal.WriteAsync(NotesStop.Measured, entry, payload, Approach.ToString());
        Tell(told, "Delete", entry.Id);
        return RedirectToPage(new { pupilId = Pupil!.Id });
    }

    private bool Load()
    {
        if (Pupil is null || Played!.Instrument.Slide is null)
            return false;
        Drawing = new SlideDrawing(Played.Instrument, Played.Instrument.Tubes[0], Played.Hand.ReachCm);
        Reach = Pupil.ArmCm is { } arm ? ArmReach.Of(arm, Played.Instrument) : null;
        return true;
    }

    private object Point(double cm)
    {
        var place = SlidePlace.Of(Played!.Instrument.Slide!, cm);
        return new
        {
            cm,
            cents = -Math.Round(place.CentsDown),
            perCm = Math.Round(place.CentsPerCm, 1),
            words = place.Words,
            far = cm > Played.Hand.ReachCm,
        };
    }
}
