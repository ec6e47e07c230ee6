using System.Globalization;

namespace Bocca.Core.Simulation;

/// <summary>What the practice player can do badly.</summary>
public enum FaultKind
{
    /// <summary>Air before the tone; milliseconds.</summary>
    AirFirst,

    /// <summary>More breath noise in the tone; decibels.</summary>
    Airy,

    /// <summary>A tight, thin, bright tone; share from 0 to 1.</summary>
    Pinched,

    /// <summary>A swing of the pitch five times a second; cents to either side.</summary>
    Wobble,

    /// <summary>A steady rise, or fall if negative; cents a second.</summary>
    Drift,

    /// <summary>Aimless wandering of the pitch; cents, standard deviation.</summary>
    Wander,

    /// <summary>A hole in the middle of the tone; milliseconds.</summary>
    Break,

    /// <summary>A start after the beat; milliseconds.</summary>
    Late,

    /// <summary>A start below the pitch that slides up; cents.</summary>
    Scoop,

    /// <summary>The tone falls to the partial below after this share of its length, 0 to 1.</summary>
    PartialBelow,

    /// <summary>The level falls; decibels a second.</summary>
    Fade,

    /// <summary>Tries at different heights; cents, standard deviation.</summary>
    Uneven,

    /// <summary>The tone stops early by this share of its length, 0 to 1.</summary>
    Short,

    /// <summary>The tone swells slowly; milliseconds from the start to full level.</summary>
    SlowStart,

    /// <summary>No sound at all: 1. With air alone: 0.5.</summary>
    Silent,

    /// <summary>A stream that comes in gusts; share of its level, 0 to 1.</summary>
    Gusty,

    /// <summary>The tongue closes the note: 1; the end falls away at once.</summary>
    ClosedEnd,

    /// <summary>Recorded too loud; decibels over full scale.</summary>
    Clipped,
}

/// <summary>A fault by kind and amount, in all tries of a take or in some.</summary>
/// <param name="Kind">What goes wrong.</param>
/// <param name="Amount">How much, in the unit of its kind.</param>
/// <param name="Tries">The tries it befalls, counted from 1; null for all.</param>
public sealed record Fault(FaultKind Kind, double Amount, IReadOnlySet<int>? Tries = null)
{
    /// <summary>The least and most of each kind, and its unit.</summary>
    public static IReadOnlyDictionary<FaultKind, (double Least, double Most, string Unit)> Bounds { get; } =
        new Dictionary<FaultKind, (double, double, string)>
        {
            [FaultKind.AirFirst] = (0, 3000, "ms"),
            [FaultKind.Airy] = (0, 40, "dB"),
            [FaultKind.Pinched] = (0, 1, "share"),
            [FaultKind.Wobble] = (0, 300, "cents"),
            [FaultKind.Drift] = (-600, 600, "cents a second"),
            [FaultKind.Wander] = (0, 300, "cents"),
            [FaultKind.Break] = (0, 1000, "ms"),
            [FaultKind.Late] = (0, 3000, "ms"),
            [FaultKind.Scoop] = (0, 600, "cents"),
            [FaultKind.PartialBelow] = (0, 1, "share"),
            [FaultKind.Fade] = (0, 30, "dB a second"),
            [FaultKind.Uneven] = (0, 600, "cents"),
            [FaultKind.Short] = (0, 0.9, "share"),
            [FaultKind.SlowStart] = (0, 2000, "ms"),
            [FaultKind.Silent] = (0, 1, "share"),
            [FaultKind.Gusty] = (0, 1, "share"),
            [FaultKind.ClosedEnd] = (0, 1, "share"),
            [FaultKind.Clipped] = (0, 40, "dB"),
        };

    /// <summary>The name on the command line: <c>air-first</c> for <see cref="FaultKind.AirFirst"/>.</summary>
    public static string NameOf(FaultKind kind) =>
        string.Concat(
            kind.ToString()
                .Select(
                    (letter, i) => i > 0 && char.IsUpper(letter) ? $"-{char.ToLowerInvariant(letter)}" : $"{char.ToLowerInvariant(letter)}"
                )
        );

    /// <summary>Reads <c>NAME=AMOUNT</c>, or <c>NAME=AMOUNT@2,3</c> for some tries only.</summary>
    /// <exception cref="FormatException">It is no such fault; the message names it and what there is.</exception>
    public static Fault Parse(string text)
    {
        var equals = text.IndexOf('=', StringComparison.Ordinal);
        var name = equals < 0 ? text : text[..equals];
        var kinds = Enum.GetValues<FaultKind>();
        if (!kinds.Any(known => NameOf(known) == name))
            throw new FormatException(
                $"'{name}' is not a fault the practice player knows; it knows {string.Join(", ", kinds.Select(NameOf))}."
            );
        var kind = kinds.First(known => NameOf(known) == name);
        var parts = equals < 0 ? [] : text[(equals + 1)..].Split('@');
        var (least, most, unit) = Bounds[kind];
        if (
            parts.Length is 0 or > 2
            || !double.TryParse(parts[0], NumberStyles.Float, CultureInfo.InvariantCulture, out var amount)
            || !(amount >= least && amount <= most)
        )
            throw new FormatException($"'{text}': write {name}=AMOUNT, with {least} to {most} {unit}.");
        if (parts.Length == 1)
            return new Fault(kind, amount);
        var tries = new HashSet<int>();
        foreach (var part in parts[1].Split(','))
            if (
                !int.TryParse(part, NumberStyles.None, CultureInfo.InvariantCulture, out var number)
                || number is < 1 or > 99
                || !tries.Add(number)
            )
                throw new FormatException($"'{text}': after @ come the numbers of tries, such as 2,3.");
        return new Fault(kind, amount, tries);
    }

    /// <summary>Whether it befalls a try, counted from 1.</summary>
    public bool Befalls(int attempt) => Tries is null || Tries.Contains(attempt);
}
