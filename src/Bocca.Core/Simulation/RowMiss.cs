using System.Globalization;
using Bocca.Core.Instruments;
using Bocca.Core.Tone.Notes;

namespace Bocca.Core.Simulation;

/// <summary>How the practice player can miss a note of a row.</summary>
public enum RowMissKind
{
    /// <summary>The lips find another partial of the tube: partials higher, negative lower.</summary>
    Partial,

    /// <summary>The slide stands elsewhere: centimetres too far in, negative too far out.</summary>
    SlideIn,

    /// <summary>Other valves or another position, with the same partial: a setting.</summary>
    Setting,

    /// <summary>One valve is down instead of up, or the other way: its number.</summary>
    Valve,

    /// <summary>The whole pitch lies off: cents.</summary>
    Cents,
}

/// <summary>A miss in all notes of a row or in some.</summary>
/// <param name="Kind">How it is missed.</param>
/// <param name="Amount">By how much, in the unit of its kind; a setting as text.</param>
/// <param name="Notes">The notes it befalls, counted from 1; null for all.</param>
public sealed record RowMiss(RowMissKind Kind, string Amount, IReadOnlySet<int>? Notes = null)
{
    private const double MostPartials = 4,
        MostCm = 60,
        MostCents = 2400;

    /// <summary>Reads <c>partial=-1@2</c>, <c>slide-in=3</c>, <c>valve=2</c>, <c>setting=1-2@1,3</c> or <c>cents=20</c>.</summary>
    /// <exception cref="FormatException">It is no such miss.</exception>
    public static RowMiss Parse(string text)
    {
        var (name, rest) = text.Split('=', 2) is [var before, var after] ? (before, after) : (text, "");
        var kinds = Enum.GetValues<RowMissKind>();
        if (!kinds.Any(known => NameOf(known) == name))
            throw new FormatException(
                $"'{name}' is not a miss the practice player knows; it knows {string.Join(", ", kinds.Select(NameOf))}."
            );
        var kind = kinds.First(known => NameOf(known) == name);
        var parts = rest.Split('@');
        var most = kind switch
        {
            RowMissKind.Partial => MostPartials,
            RowMissKind.SlideIn => MostCm,
            _ => MostCents,
        };
        if (
            parts.Length > 2
            || (
                kind != RowMissKind.Setting
                && (
                    !double.TryParse(parts[0], NumberStyles.Float, CultureInfo.InvariantCulture, out var amount)
                    || !(Math.Abs(amount) <= most)
                )
            )
        )
            throw new FormatException($"'{text}': write {name}=AMOUNT, at most {most} either way.");
        if (parts.Length == 1)
            return new RowMiss(kind, parts[0]);
        var numbers = parts[1]
            .Split(',')
            .Select(part =>
                int.TryParse(part, NumberStyles.None, CultureInfo.InvariantCulture, out var number)
                && number is >= 1 and <= MeantNote.MostNotes
                    ? number
                    : throw new FormatException($"'{text}': after @ come the numbers of notes, such as 2,3.")
            );
        return new RowMiss(kind, parts[0], numbers.ToHashSet());
    }

    /// <summary>The pitch of a note that is missed this way, hertz.</summary>
    /// <exception cref="ArgumentException">The instrument cannot do it.</exception>
    internal double Missed(MeantNote meant, PlayerSituation player, double hertz) =>
        Kind switch
        {
            RowMissKind.Partial => hertz
                * player.Hertz(meant.Tube, Math.Clamp(meant.Partial + (int)Number, 1, HarmonicSeries.Highest))
                / player.Hertz(meant.Tube, meant.Partial),
            RowMissKind.Cents => hertz * Math.Pow(2, Number / 1200),
            RowMissKind.Valve => hertz
                * player.Hertz(Toggled(meant, player.Instrument), meant.Partial)
                / player.Hertz(meant.Tube, meant.Partial),
            RowMissKind.Setting => hertz * player.Hertz(TubeOf(player.Instrument), meant.Partial) / player.Hertz(meant.Tube, meant.Partial),
            _ => player.Instrument.Slide is null
                ? throw new ArgumentException($"{player.Instrument.Id} has no slide.")
                : hertz / (1 - (InCm(meant, player.Instrument.Slide) / (50 * TubeMetres(meant, player.Instrument)))),
        };

    /// <summary>How far in the slide stands of where it belongs: it ends where it is closed, and where it is drawn whole.</summary>
    private double InCm(MeantNote meant, Slide slide) =>
        meant.Tube.SlideOutCm - Math.Clamp(meant.Tube.SlideOutCm - Number, 0, slide.TravelCm);

    private double Number => double.Parse(Amount, CultureInfo.InvariantCulture);

    private Tube TubeOf(Instrument instrument) =>
        Setting.TryParse(Amount, instrument.Slide is not null, out var setting) && instrument.TubeOf(setting) is { } tube
            ? tube
            : throw new ArgumentException($"'{Amount}' cannot be set on {instrument.Id}.");

    private Tube Toggled(MeantNote meant, Instrument instrument)
    {
        var valve = (int)Number;
        var setting = meant.Setting.Presses(valve) ? meant.Setting.Valves.Where(each => each != valve) : meant.Setting.Valves.Append(valve);
        return
            valve is >= 1 and <= 8
            && instrument.Slide is null
            && instrument.TubeOf(Instruments.Setting.OfValves(meant.Setting.Attachment, setting)) is { } tube
            ? tube
            : throw new ArgumentException($"{instrument.Id} has no valve {valve}.");
    }

    private static double TubeMetres(MeantNote meant, Instrument instrument) =>
        instrument.SlideTubeMetres(meant.Setting.Attachment) * Math.Pow(2, (meant.Setting.Position - 1) / 12.0);

    private static string NameOf(RowMissKind kind) => kind == RowMissKind.SlideIn ? "slide-in" : kind.ToString().ToLowerInvariant();
}
