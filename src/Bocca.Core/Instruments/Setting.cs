using System.Diagnostics.CodeAnalysis;

namespace Bocca.Core.Instruments;

/// <summary>
/// What the hand does for one note: the valves pressed, or the slide position, with the thumb valve or a trigger.
/// Written <c>0</c>, <c>1-3</c>, <c>T-1-2</c> (thumb valve; alone <c>T-0</c>) on valves, and <c>1</c> to <c>7</c>,
/// <c>T1</c> to <c>T6</c> on a slide; a bass trombone's second trigger is <c>S</c>, both together <c>TS</c>.
/// Whether an instrument can do it is the instrument's to say: see <see cref="Instrument.TubeOf"/>.
/// </summary>
public readonly record struct Setting
{
    private readonly byte _valves;

    private Setting(byte valves, string attachment, int position)
    {
        _valves = valves;
        Attachment = attachment;
        Position = position;
    }

    /// <summary>The open instrument: no valve pressed.</summary>
    public static Setting Open { get; } = new(0, "", 0);

    /// <summary>The thumb valve or trigger in use: empty, <c>T</c>, <c>S</c> or <c>TS</c>.</summary>
    public string Attachment { get; }

    /// <summary>The slide position, 1 the closed slide; 0 on an instrument without a slide.</summary>
    public int Position { get; }

    /// <summary>The numbers of the valves pressed by the fingers, ascending.</summary>
    public IEnumerable<int> Valves
    {
        get
        {
            for (var valve = 1; valve <= 8; valve++)
                if (Presses(valve))
                    yield return valve;
        }
    }

    /// <summary>How many fingers and thumbs are down.</summary>
    public int Pressed => System.Numerics.BitOperations.PopCount(_valves) + (Attachment ?? "").Length;

    /// <summary>A valve combination.</summary>
    /// <param name="attachment">Empty, or <c>T</c> for the thumb valve.</param>
    /// <param name="valves">Valve numbers, 1 to 8.</param>
    public static Setting OfValves(string attachment, params IEnumerable<int> valves)
    {
        byte mask = 0;
        foreach (var valve in valves)
        {
            ArgumentOutOfRangeException.ThrowIfLessThan(valve, 1);
            ArgumentOutOfRangeException.ThrowIfGreaterThan(valve, 8);
            mask |= (byte)(1 << (valve - 1));
        }

        return new Setting(mask, attachment, 0);
    }

    /// <summary>A slide position, 1 to 7, with the trigger in use or none.</summary>
    public static Setting OfSlide(int position, string attachment = "")
    {
        ArgumentOutOfRangeException.ThrowIfLessThan(position, 1);
        ArgumentOutOfRangeException.ThrowIfGreaterThan(position, 7);
        return new Setting(0, attachment, position);
    }

    /// <summary>
    /// Reads a setting in the notation above; false if the text is none. <paramref name="slide"/> tells which <c>1</c> is meant.
    /// </summary>
    public static bool TryParse([NotNullWhen(true)] string? text, bool slide, out Setting setting)
    {
        setting = Open;
        if (string.IsNullOrEmpty(text) || text.Length > 20)
            return false;
        var attachment = string.Concat(text.TakeWhile(char.IsAsciiLetter));
        if (attachment is not ("" or "T" or "S" or "TS"))
            return false;
        var rest = text[attachment.Length..].TrimStart('-');
        if (slide)
        {
            if (rest.Length != 1 || rest[0] is < '1' or > '7')
                return false;
            setting = OfSlide(rest[0] - '0', attachment);
            return true;
        }

        if (rest == "0")
        {
            setting = OfValves(attachment);
            return true;
        }

        var parts = rest.Split('-');
        if (parts.Any(part => part.Length != 1 || part[0] is < '1' or > '8') || parts.Distinct().Count() != parts.Length)
            return false;
        setting = OfValves(attachment, parts.Select(part => part[0] - '0'));
        return true;
    }

    /// <summary>Whether a finger valve is down.</summary>
    public bool Presses(int valve) => (_valves & (1 << (valve - 1))) != 0;

    /// <summary>As it is said: <c>open</c>, <c>1-3</c>, <c>4th</c>.</summary>
    public string Spoken =>
        Position > 0 && string.IsNullOrEmpty(Attachment) ? OrdinalOf(Position)
        : Position == 0 && _valves == 0 && string.IsNullOrEmpty(Attachment) ? "open"
        : ToString();

    /// <summary>A position as it is said: <c>1st</c> to <c>7th</c>.</summary>
    public static string OrdinalOf(int position) =>
        position switch
        {
            1 => "1st",
            2 => "2nd",
            3 => "3rd",
            _ => $"{position}th",
        };

    /// <summary>The notation above.</summary>
    public override string ToString()
    {
        if (Position > 0)
            return $"{Attachment}{Position}";
        var fingers = _valves == 0 ? "0" : string.Join('-', Valves);
        return string.IsNullOrEmpty(Attachment) ? fingers : $"{Attachment}-{fingers}";
    }
}
