using Bocca.Core.Simulation;
using Bocca.Web.Frame;
using Bocca.Web.Record;
using Microsoft.AspNetCore.Mvc;

namespace Bocca.Web.Pages.Setup;

/// <summary>How lips move, slowed: three registers beside each other, from the lip model.</summary>
public sealed class MotionModel(Journal journal) : StagePage(journal)
{
    /// <summary>A drawing's width and the height of its curve.</summary>
    public const int Width = 360,
        CurveHeight = 110;

    public IReadOnlyList<LipMotion> Registers { get; private set; } = [];

    public IActionResult OnGet()
    {
        if (Pupil is null)
            return RedirectToPage("/Setup/Index");
        Registers = LipMotion.ByRegister(Pupil.Instrument, Pupil.Reading);
        return Page();
    }

    /// <summary>The opening over time as a curve.</summary>
    public string Curve(LipMotion register) =>
        string.Join(
            ' ',
            register.Opening.Select(
                (opening, i) => $"{(double)i * Width / (register.Opening.Count - 1):0.#},{CurveHeight - (opening * (CurveHeight - 8)):0.#}"
            )
        );
}
