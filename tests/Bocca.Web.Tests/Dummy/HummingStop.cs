using Bocca.Core.Judging;
using Bocca.Web.Frame;
using Bocca.Web.Record;
using Bocca.Web.Record.Shapes;

namespace Bocca.Web.Tests.Dummy;

/// <summary>What a hummed note has beside its columns.</summary>
public sealed record HumPayload(double Hertz) : StoredShape;

/// <summary>A stop that is not part of the product: all that a new one has to bring is here.</summary>
public static class HummingStop
{
    public static FigureKind Height { get; } = new("hummed height", "Hz", "lower", "higher");

    public static EntryKind<HumPayload> Hums { get; } =
        new("hum", "hum")
        {
            Shape = PayloadShape.Itself<HumPayload>(),
            IsTake = true,
            DueAfterDays = _ => 2,
            Title = hum => $"Hummed {hum.DrillId}",
            Opens = hum => $"/humming/{hum.PupilId}?take={hum.Id}",
            Figures = (_, hum) => [new Figure(Height, hum.Hertz)],
        };

    public static Stop Stop { get; } =
        new()
        {
            Key = 'h',
            Path = "humming",
            Name = "Humming",
            Promise = "Notes hummed.",
            Kinds = [Hums],
            Followed = [Height],
            DrillName = id => id == "low" ? "a low one" : null,
            Dues = [new StopDue(count => $"{count} to hum again", pupil => $"/humming/{pupil}", "hums") { Of = Hums }],
        };
}
