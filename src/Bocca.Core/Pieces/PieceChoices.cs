using System.Globalization;
using Bocca.Core.Instruments;

namespace Bocca.Core.Pieces;

/// <summary>
/// What a teacher settles for a piece by hand. As text, for records: a word and its notes or bars, as in
/// <c>pin 3=1-2 8=0; breath 12; hold 20; end 12; join 16; chart 4</c>.
/// </summary>
public sealed record PieceChoices
{
    /// <summary>The longest text of them.</summary>
    public const int MostLetters = 4000;

    /// <summary>Nothing.</summary>
    public static PieceChoices None { get; } = new();

    /// <summary>The settings that are pinned, by the note's place.</summary>
    public IReadOnlyDictionary<int, Setting> Pins { get; init; } = new SortedDictionary<int, Setting>();

    /// <summary>Bars that are fingered by the chart, by their places.</summary>
    public IReadOnlySet<int> ByChart { get; init; } = new HashSet<int>();

    /// <summary>Whether all of it is fingered by the chart.</summary>
    public bool AllByChart { get; init; }

    /// <summary>Notes after which a breath is asked for.</summary>
    public IReadOnlySet<int> Breaths { get; init; } = new HashSet<int>();

    /// <summary>Notes after which none is taken.</summary>
    public IReadOnlySet<int> NoBreaths { get; init; } = new HashSet<int>();

    /// <summary>Notes after which a phrase ends.</summary>
    public IReadOnlySet<int> PhraseEnds { get; init; } = new HashSet<int>();

    /// <summary>Notes after which none ends.</summary>
    public IReadOnlySet<int> PhraseJoins { get; init; } = new HashSet<int>();

    /// <summary>Whether nothing is settled.</summary>
    public bool IsEmpty =>
        !AllByChart && Pins.Count + ByChart.Count + Breaths.Count + NoBreaths.Count + PhraseEnds.Count + PhraseJoins.Count == 0;

    /// <summary>The same with a setting pinned on a note; null lets it go.</summary>
    public PieceChoices Pin(int note, Setting? setting)
    {
        var pins = new SortedDictionary<int, Setting>(Pins.ToDictionary());
        if (setting is { } pinned)
            pins[note] = pinned;
        else
            pins.Remove(note);
        return this with { Pins = pins };
    }

    /// <summary>The same with a breath after a note asked for (true), forbidden (false) or left to the plan (null).</summary>
    public PieceChoices Breath(int note, bool? wanted) =>
        this with
        {
            Breaths = With(Breaths, note, wanted == true),
            NoBreaths = With(NoBreaths, note, wanted == false),
        };

    /// <summary>The same with a phrase ending after a note (true), none ending there (false), or as it is found (null).</summary>
    public PieceChoices PhraseEnd(int note, bool? ends) =>
        this with
        {
            PhraseEnds = With(PhraseEnds, note, ends == true),
            PhraseJoins = With(PhraseJoins, note, ends == false),
        };

    /// <summary>The same with a bar by the chart, or not.</summary>
    public PieceChoices Chart(int bar, bool byChart) => this with { ByChart = With(ByChart, bar, byChart) };

    /// <summary>Reads what <see cref="ToString"/> writes.</summary>
    /// <param name="text">The text; empty for nothing.</param>
    /// <param name="slide">Whether settings are positions of a slide.</param>
    /// <exception cref="FormatException">It is none.</exception>
    public static PieceChoices Parse(string text, bool slide)
    {
        var choices = None;
        foreach (var part in text.Split(';', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries))
        {
            var words = part.Split(' ', StringSplitOptions.RemoveEmptyEntries);
            choices = words[0] switch
            {
                "pin" => words[1..].Aggregate(choices, (all, pin) => WithPin(all, pin, slide)),
                "breath" => choices with { Breaths = Places(words) },
                "hold" => choices with { NoBreaths = Places(words) },
                "end" => choices with { PhraseEnds = Places(words) },
                "join" => choices with { PhraseJoins = Places(words) },
                "chart" when words is [_, "all"] => choices with { AllByChart = true },
                "chart" => choices with { ByChart = Places(words) },
                _ => throw new FormatException($"'{words[0]}' settles nothing of a piece."),
            };
        }

        return choices;
    }

    /// <summary>As text, for records.</summary>
    public override string ToString() =>
        string.Join(
            "; ",
            new[]
            {
                Pins.Count == 0 ? "" : $"pin {string.Join(' ', Pins.OrderBy(pin => pin.Key).Select(pin => $"{pin.Key}={pin.Value}"))}",
                Written("breath", Breaths),
                Written("hold", NoBreaths),
                Written("end", PhraseEnds),
                Written("join", PhraseJoins),
                AllByChart ? "chart all" : "",
                Written("chart", ByChart),
            }.Where(part => part != "")
        );

    private static string Written(string word, IReadOnlySet<int> places) =>
        places.Count == 0 ? "" : $"{word} {string.Join(' ', places.Order())}";

    private static HashSet<int> With(IReadOnlySet<int> places, int place, bool isIn)
    {
        var changed = new HashSet<int>(places);
        if (isIn)
            changed.Add(place);
        else
            changed.Remove(place);
        return changed;
    }

    private static HashSet<int> Places(string[] words) => [.. words[1..].Select(Number)];

    private static PieceChoices WithPin(PieceChoices choices, string pin, bool slide) =>
        pin.Split('=') is [var place, var setting] && Setting.TryParse(setting, slide, out var pinned)
            ? choices.Pin(Number(place), pinned)
            : throw new FormatException($"'{pin}' is no pin such as 12=1-3.");

    private static int Number(string text) =>
        int.TryParse(text, NumberStyles.None, CultureInfo.InvariantCulture, out var number)
            ? number
            : throw new FormatException($"'{text}' is no place in a piece.");
}
