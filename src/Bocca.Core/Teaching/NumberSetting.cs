using System.Globalization;

namespace Bocca.Core.Teaching;

/// <summary>A number that a teacher may set otherwise.</summary>
/// <param name="Path">Where it stands among <see cref="OwnSettings"/>.</param>
/// <param name="Group">What it belongs to, for people: a stage, a drill.</param>
/// <param name="Name">Its name for people.</param>
/// <param name="Unit">Its unit.</param>
/// <param name="Means">What it does.</param>
/// <param name="Shipped">The value that ships.</param>
/// <param name="Least">The least it may be.</param>
/// <param name="Most">The most it may be; of a cap, the value that ships.</param>
/// <param name="IsWhole">Whether it counts something.</param>
public sealed record NumberSetting(
    string Path,
    string Group,
    string Name,
    string Unit,
    string Means,
    double Shipped,
    double Least,
    double Most,
    bool IsWhole = false
)
{
    /// <summary>The number that holds.</summary>
    public double In(OwnSettings own) => own.Number(Path) ?? Shipped;

    /// <summary>A number as it is stored and typed.</summary>
    public static string Text(double value) => value.ToString("0.####", CultureInfo.InvariantCulture);

    /// <summary>Reads what was typed.</summary>
    /// <exception cref="ArgumentException">It is no such number, in a sentence.</exception>
    public double Read(string typed)
    {
        if (!double.TryParse(typed.Trim().Replace(',', '.'), CultureInfo.InvariantCulture, out var value) || !double.IsFinite(value))
            throw new ArgumentException($"'{typed}' is not a number for {Name} ({Group}).");
        if (value < Least || value > Most)
            throw new ArgumentException($"{Name} ({Group}) must be {Text(Least)} to {Text(Most)} {Unit}, not {Text(value)}.");
        return !IsWhole || value == Math.Round(value)
            ? value
            : throw new ArgumentException($"{Name} ({Group}) must be a whole number, not {Text(value)}.");
    }
}

/// <summary>A number that a teacher may set otherwise, with the place in what ships that it is put into.</summary>
/// <typeparam name="T">What it stands in.</typeparam>
/// <param name="Setting">The number.</param>
/// <param name="Put">The same with another value there.</param>
public sealed record NumberIn<T>(NumberSetting Setting, Func<T, double, T> Put);
