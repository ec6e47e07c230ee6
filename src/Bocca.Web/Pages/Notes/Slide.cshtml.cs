using System.Text.Json;
using Bocca.Core.Embouchure;
using Bocca.Core.Instruments;
using Bocca.Web.Data;
using Bocca.Web.Drawings;
using Microsoft.AspNetCore.Mvc;

namespace Bocca.Web.Pages.Notes;

/// <summary>The slide to scale: positions, landmarks and reach, measured on the pupil's own.</summary>
public sealed class SlideModel(BoccaDb db, TimeProvider time) : NotesPage(db)
{
    private const double PointCm = 0.25;

    public SlideDrawing? Drawing { get; private set; }

    public ArmReach? Reach { get; private set; }

    public MeasuredInstrument? Measured { get; private set; }

    [BindProperty]
    public int Nearer { get; set; } = 1;

    [BindProperty]
    public int Further { get; set; } = 4;

    [BindProperty]
    public double? ApartCm { get; set; }

    [BindProperty]
    public double? TravelCm { get; set; }

    public string? Trouble { get; private set; }

    /// <summary>What lies under the pointer, every quarter centimetre: centimetres, cents under the closed slide, in words.</summary>
    public string Points =>
        JsonSerializer.Serialize(
            Enumerable.Range(0, (int)(Played!.Instrument.Slide!.TravelCm / PointCm) + 1).Select(i => Point(i * PointCm))
        );

    public async Task<IActionResult> OnGetAsync() => await LoadAsync() ? Page() : NotFound();

    public async Task<IActionResult> OnPostAsync()
    {
        if (!await LoadAsync())
            return NotFound();
        try
        {
            var slide = SlideCalibration.Of(Nearer, Further, ApartCm ?? double.NaN, TravelCm ?? Played!.Instrument.Slide!.TravelCm);
            var entry = new MeasuredInstrument
            {
                PupilId = Pupil!.Id,
                InstrumentId = Pupil.InstrumentId,
                At = time.GetUtcNow().UtcDateTime,
                SlideTubeMetres = slide.TubeMetres,
                SlideTravelCm = slide.TravelCm,
                Remark = $"position {Nearer} to {Further}: {ApartCm:0.#} cm",
            };
            Db.Measured.Add(entry);
            await Db.SaveChangesAsync();
            TempData["Told"] = $"The slide is calibrated: a tube of {slide.TubeMetres:0.00} m. All positions follow it.";
            TempData["UndoAt"] = $"/notes/{PupilId}/instrument?handler=Forget&id={entry.Id}";
            return RedirectToPage(new { pupilId = PupilId });
        }
        catch (ArgumentException problem)
        {
            Trouble = double.IsNaN(ApartCm ?? double.NaN) ? "Measure the centimetres between the two positions." : problem.Message;
            return Page();
        }
    }

    private async Task<bool> LoadAsync()
    {
        if (Pupil is null || Played!.Instrument.Slide is null)
            return false;
        Drawing = new SlideDrawing(Played.Instrument, Played.Instrument.Tubes[0], Played.Hand.ReachCm);
        Reach = Pupil.ArmCm is { } arm ? ArmReach.Of(arm, Played.Instrument) : null;
        Measured = await Db.MeasuredAsync(Pupil);
        return true;
    }

    private object Point(double cm)
    {
        var place = SlidePlace.Of(Played!.Instrument.Slide!, cm);
        var words =
            Math.Abs(place.OffCm) < PointCm
                ? $"position {place.Position}"
                : $"{Math.Abs(place.OffCm):0.0} cm {(place.OffCm > 0 ? "out from" : "in from")} position {place.Position}";
        return new
        {
            cm,
            cents = -Math.Round(place.CentsDown),
            perCm = Math.Round(place.CentsPerCm, 1),
            words,
            far = cm > Played.Hand.ReachCm,
        };
    }
}
