using Bocca.Core.Instruments;
using Bocca.Core.Music;

namespace Bocca.Core.Tone.Notes;

/// <summary>What was heard against what was meant, in the trade's words.</summary>
internal static class NoteSentence
{
    /// <summary>Within this a note is simply there (cents).</summary>
    private const double InTuneCents = 10;

    public static string Of(
        MeantNote meant,
        NoteOutcome outcome,
        NoteReading way,
        Pitch heard,
        double fromMeantCents,
        double? cm,
        Setting? other,
        bool isPrevious
    )
    {
        var sentence = outcome switch
        {
            NoteOutcome.Right => $"{meant.Written} came, {Lies(fromMeantCents)}.",
            NoteOutcome.PartialLow or NoteOutcome.PartialHigh when IsOctave(meant, heard) =>
                $"{Octave(meant, heard)}, {Partials(way.By)} on {meant.Setting}.",
            NoteOutcome.PartialLow or NoteOutcome.PartialHigh => OfPartial(meant, heard, way.By),
            NoteOutcome.OtherSetting => $"{Instead(meant, heard)}: {Valves(meant.Setting, way.Setting)}.",
            NoteOutcome.SlideOff when other is { } position =>
                $"{Instead(meant, heard)}: {position.Spoken} position, not {meant.Setting.Spoken}. The slide is {Slide(cm!.Value)}.",
            NoteOutcome.SlideOff => $"{meant.Written} is {Off(fromMeantCents)}: the slide is {Slide(cm!.Value)}.",
            _ => "",
        };
        return Before(sentence, isPrevious);
    }

    /// <summary>Another partial on the setting meant: <c>D4 came out as G3: one partial low. Valves right.</c></summary>
    public static string OfPartial(MeantNote meant, Pitch heard, int by) =>
        $"{Instead(meant, heard)}: {Partials(by)}. {(meant.Setting.Position > 0 ? "Position" : "Valves")} right.";

    /// <summary>How far the slide was off.</summary>
    private static string Slide(double cm) => $"{Math.Abs(cm):0.0} cm too far {(cm > 0 ? "in. Move it out" : "out. Move it in")}";

    /// <summary>The note meant, as far off as its tube is, and what mends that.</summary>
    public static string OfTube(MeantNote meant, double cents, string? remedy) =>
        $"{meant.Written} came, {Lies(cents)}: {meant.Setting} is always {(cents > 0 ? "sharp" : "flat")} on this instrument."
        + (remedy is null ? "" : $" {remedy}");

    /// <summary>The note meant, off where the slide is at its end.</summary>
    public static string OfSlideAtEnd(MeantNote meant, double cents, string remedy) => $"{meant.Written} came, {Lies(cents)}. {remedy}";

    /// <summary>Two ways as likely, of which one is a miss of the hand and one of the lips.</summary>
    public static string OfTwo(MeantNote meant, NoteReading one, NoteReading other, Pitch heard, bool isPrevious) =>
        Before(
            $"{Came(meant, heard)}. Too close to call: {Way(meant, one)}, or {Way(meant, other)}. Which "
                + $"{(meant.Setting.Position > 0 ? "position" : "valves")}?",
            isPrevious
        );

    /// <summary>The same miss on either of two settings.</summary>
    public static string OfEither(MeantNote meant, NoteReading one, NoteReading other, Pitch heard, bool isPrevious) =>
        Before($"{Came(meant, heard)}. Another combination: {one.Setting}, or {other.Setting}.", isPrevious);

    /// <summary>Another note, and the only way to it.</summary>
    public static string OfOne(MeantNote meant, NoteReading way, Pitch heard, bool isPrevious) =>
        Before(way.By == 0 ? Hand(meant, way, heard) : $"{Came(meant, heard)}: {Partials(way)}.", isPrevious);

    /// <summary>The same name, an octave or two away, without its full stop: <c>E4 came out as E3: an octave lower</c>.</summary>
    public static string Octave(MeantNote meant, Pitch heard)
    {
        var by = heard.Midi - meant.Written.Midi;
        return $"{Instead(meant, heard)}: {(Math.Abs(by) == 12 ? "an octave" : "two octaves")} {(by < 0 ? "lower" : "higher")}";
    }

    private static bool IsOctave(MeantNote meant, Pitch heard) => Math.Abs(heard.Midi - meant.Written.Midi) is 12 or 24;

    private static string Instead(MeantNote meant, Pitch heard) => $"{meant.Written} came out as {heard}";

    /// <summary>How far off the note was, and the hand it belongs to: <c>D4 came out as Eb4: a semitone sharp, valves 2-3</c>.</summary>
    private static string Hand(MeantNote meant, NoteReading way, Pitch heard)
    {
        var by = heard.Midi - meant.Written.Midi;
        return $"{Instead(meant, heard)}: {Interval.About(100 * by)} {(by > 0 ? "sharp" : "flat")}, {Held(way.Setting)}.";
    }

    private static string Held(Setting setting) =>
        setting.Position > 0 ? $"{setting.Spoken} position"
        : setting.Spoken == "open" ? "no valve"
        : $"{setting}".Length == 1 ? $"valve {setting}"
        : $"valves {setting}";

    private static string Came(MeantNote meant, Pitch heard) => IsOctave(meant, heard) ? Octave(meant, heard) : Instead(meant, heard);

    private static string Before(string sentence, bool isPrevious) => isPrevious ? $"{sentence} The note did not change." : sentence;

    private static string Partials(NoteReading way) =>
        $"{Partials(way.By)}, and another {(way.Setting.Position > 0 ? "position" : "combination")}";

    private static string Way(MeantNote meant, NoteReading way) =>
        way.Setting == meant.Setting ? $"{Partials(way.By)} on {way.Setting}" : $"partial {way.Partial} on {way.Setting}";

    /// <summary>How far off, in partials: one partial low.</summary>
    internal static string Partials(int by) =>
        by switch
        {
            1 => "one partial high",
            -1 => "one partial low",
            > 0 => $"{Count(by)} partials high",
            _ => $"{Count(-by)} partials low",
        };

    private static string Lies(double cents) => Math.Abs(cents) < InTuneCents ? "in tune" : Off(cents);

    private static string Off(double cents) => $"{Math.Abs(cents):0} cents {(cents > 0 ? "sharp" : "flat")}";

    /// <summary>Which valve was up or down: <c>valve 2 was up</c>.</summary>
    private static string Valves(Setting meant, Setting heard)
    {
        var parts = new List<string>();
        for (var valve = 1; valve <= 8; valve++)
            if (meant.Presses(valve) != heard.Presses(valve))
                parts.Add($"valve {valve} was {(heard.Presses(valve) ? "down" : "up")}");
        if (meant.Attachment != heard.Attachment)
            parts.Add($"the thumb was {(heard.Attachment == "" ? "up" : "down")}");
        return string.Join(", ", parts);
    }

    private static string Count(int count) =>
        count switch
        {
            2 => "two",
            3 => "three",
            4 => "four",
            5 => "five",
            _ => $"{count}",
        };
}
