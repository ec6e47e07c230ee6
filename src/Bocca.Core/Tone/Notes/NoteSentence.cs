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
            NoteOutcome.OtherSetting => $"{heard} came, as on {way.Setting}: {Valves(meant.Setting, way.Setting)}.",
            NoteOutcome.SlideOff when other is { } position =>
                $"{heard} came: {position.Spoken} heard, {meant.Setting.Spoken} asked; {Slide(cm!.Value)}.",
            NoteOutcome.SlideOff =>
                $"{meant.Written} is {Math.Abs(fromMeantCents):0} cents {(fromMeantCents > 0 ? "sharp" : "flat")}: {Slide(cm!.Value)}.",
            _ => "",
        };
        return Before(sentence, isPrevious);
    }

    /// <summary>Another partial on the setting meant: <c>G3 came: one partial low; the valves were right</c>.</summary>
    public static string OfPartial(MeantNote meant, Pitch heard, int by) =>
        $"{heard} came: {Partials(by)}; the {(meant.Setting.Position > 0 ? "position was" : "valves were")} right.";

    /// <summary>How far the slide was off.</summary>
    private static string Slide(double cm) => $"{Math.Abs(cm):0.0} cm too far {(cm > 0 ? "in: move it out" : "out: move it in")}";

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
        Before($"{Came(meant, heard)}, as on {way.Setting}: {Partials(way)}.", isPrevious);

    /// <summary>The same name, an octave or two away, without its full stop: <c>E4 came: the E an octave lower</c>.</summary>
    public static string Octave(MeantNote meant, Pitch heard)
    {
        var name = $"{meant.Written}".TrimEnd('0', '1', '2', '3', '4', '5', '6', '7', '8', '9', '-');
        var by = heard.Midi - meant.Written.Midi;
        return $"{heard} came: the {name} {(Math.Abs(by) == 12 ? "an octave" : "two octaves")} {(by < 0 ? "lower" : "higher")}";
    }

    private static bool IsOctave(MeantNote meant, Pitch heard) => Math.Abs(heard.Midi - meant.Written.Midi) is 12 or 24;

    private static string Came(MeantNote meant, Pitch heard) => IsOctave(meant, heard) ? Octave(meant, heard) : $"{heard} came";

    private static string Before(string sentence, bool isPrevious) =>
        isPrevious ? $"{sentence} It is the note before, once more." : sentence;

    private static string Partials(NoteReading way) =>
        way.By == 0 ? "the right partial" : $"{Partials(way.By)}, and another {(way.Setting.Position > 0 ? "position" : "combination")}";

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

    private static string Lies(double cents) =>
        Math.Abs(cents) < InTuneCents ? "in tune" : $"{Math.Abs(cents):0} cents {(cents > 0 ? "sharp" : "flat")}";

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
