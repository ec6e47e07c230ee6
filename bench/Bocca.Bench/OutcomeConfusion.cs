using Bocca.Core.Fingering;
using Bocca.Core.Instruments;
using Bocca.Core.Music;
using Bocca.Core.Tone.Notes;

namespace Bocca.Bench;

/// <summary>
/// How often the decision on a note is right: every note of every instrument's chart, played as meant or missed in known
/// ways, with the player anywhere within 25 cents of the place. Prints a table of instruments and one of what was taken for what.
/// </summary>
public static class OutcomeConfusion
{
    private const double SpreadCents = 25;

    /// <summary>Misses and how often they are played for one played right (ours: beginners miss by lips more than by fingers).</summary>
    private static readonly (string Name, int Weight)[] Cases =
    [
        ("right", 6),
        ("one low", 3),
        ("one high", 3),
        ("other setting", 2),
        ("slide off", 2),
        ("an octave low", 1),
        ("an octave high", 1),
        ("equal setting", 1),
    ];

    public static void Run(int seeds)
    {
        Console.WriteLine("| instrument | notes | right | too close to call | wrong |");
        Console.WriteLine("| --- | --- | --- | --- | --- |");
        var table = new Dictionary<(string, string), int>();
        foreach (var instrument in Catalogue.All)
        {
            Score(instrument, instrument.Id, _ => true, seeds, table);
            if (instrument.Family == "horn" && instrument.Id != "tenor-horn-eb")
                Score(instrument, $"{instrument.Id}, above the 8th partial", note => note.Partial > 8, seeds, null);
        }

        Console.WriteLine();
        var outcomes = table.Keys.Select(key => key.Item2).Distinct().Order().ToList();
        Console.WriteLine($"| played | {string.Join(" | ", outcomes)} |");
        Console.WriteLine($"| --- |{string.Concat(outcomes.Select(_ => " --- |"))}");
        foreach (var (name, _) in Cases)
        {
            var all = table.Where(cell => cell.Key.Item1 == name).Sum(cell => cell.Value);
            Console.WriteLine(
                $"| {name} | "
                    + string.Join(
                        " | ",
                        outcomes.Select(outcome => $"{100.0 * table.GetValueOrDefault((name, outcome)) / Math.Max(1, all):0.0} %")
                    )
                    + " |"
            );
        }
    }

    private static void Score(
        Instrument instrument,
        string name,
        Func<MeantNote, bool> counts,
        int seeds,
        Dictionary<(string, string), int>? table
    )
    {
        var player = new PlayerSituation(instrument, instrument.Readings[0], Tuning.Standard);
        var meant = FingeringChart
            .Of(instrument, player.Reading)
            .Select(note => MeantNote.Of(instrument, player.Reading, note.Written))
            .Where(counts)
            .ToList();
        var (right, close, all) = (0, 0, 0);
        for (var seed = 0; seed < seeds; seed++)
        {
            var random = new Random(seed);
            foreach (var note in meant)
            {
                foreach (var (played, weight) in Cases)
                {
                    for (var time = 0; time < weight; time++)
                    {
                        if (Play(player, note, played, random) is not { } heard)
                            continue;
                        var judged = NoteDecider.Decide(
                            note,
                            heard.Hertz * Math.Pow(2, SpreadCents * ((2 * random.NextDouble()) - 1) / 1200),
                            player
                        );
                        all++;
                        var (correct, told) = (Correct(played, heard, judged), judged.Outcome == NoteOutcome.TwoReadings);
                        right += correct ? 1 : 0;
                        close += told ? 1 : 0;
                        if (table is not null)
                            table[(played, $"{judged.Outcome}")] = table.GetValueOrDefault((played, $"{judged.Outcome}")) + 1;
                    }
                }
            }
        }

        Console.WriteLine(
            $"| {name} | {meant.Count} | {100.0 * right / Math.Max(1, all - close):0.0} % | {100.0 * close / all:0.0} % | "
                + $"{100.0 * (all - right - close) / all:0.0} % |"
        );
    }

    private sealed record Played(double Hertz, int By, Setting Setting, double SlideCents);

    /// <summary>What is played; null where the instrument cannot miss so, or where the miss sounds like the note itself.</summary>
    private static Played? Play(PlayerSituation player, MeantNote note, string played, Random random)
    {
        var own = player.Hertz(note.Tube, note.Partial);
        switch (played)
        {
            case "right":
                return new Played(own, 0, note.Setting, 0);
            case "one low" or "one high":
                var by = played == "one low" ? -1 : 1;
                return note.Partial + by < 1 ? null : new Played(player.Hertz(note.Tube, note.Partial + by), by, note.Setting, 0);
            case "an octave low" or "an octave high":
                var octave = played == "an octave low" ? 0.5 : 2;
                return new Played(own * octave, 0, note.Setting, 0);
            case "equal setting" when player.Instrument.Slide is null:
                // Meant on the setting itself, one fingered otherwise that sounds within a fifth of a semitone: nobody can hear which.
                var alike = player
                    .Instrument.Tubes.Where(tube =>
                        tube.Setting != note.Setting && Math.Abs(Tuning.Cents(own, player.Hertz(tube, note.Partial))) < 20
                    )
                    .ToList();
                return alike.Count == 0 ? null : new Played(player.Hertz(alike[0], note.Partial), 0, alike[0].Setting, 0);
            case "slide off" when player.Instrument.Slide is { } slide:
                // From two to twelve centimetres either way, as far as the slide goes.
                var cm = (2 + (10 * random.NextDouble())) * (random.Next(2) == 0 ? 1 : -1);
                if (note.Tube.SlideOutCm + cm < 0 || note.Tube.SlideOutCm + cm > slide.TravelCm)
                    return null;
                var tube = slide.TubeMetres * note.Tube.LengthRatio;
                var cents = -1200 * Math.Log2(1 + (cm / (50 * tube)));
                return Math.Abs(cents) < 55 ? null : new Played(own * Math.Pow(2, cents / 1200), 0, note.Setting, cents);
            case "other setting" when player.Instrument.Slide is null:
                var near = player.Instrument.Tubes.Where(other => Fingers(other.Setting, note.Setting) == 1).ToList();
                var other = near[random.Next(near.Count)];
                var hertz = player.Hertz(other, note.Partial);
                return Math.Abs(Tuning.Cents(own, hertz)) < 80 ? null : new Played(hertz, 0, other.Setting, 0);
            default:
                return null;
        }
    }

    /// <summary>A setting that sounds alike is as good: the ear cannot tell them apart.</summary>
    private static bool Correct(string played, Played heard, JudgedNote judged) =>
        played switch
        {
            // The note's own name, said at its own octave, whatever partial that is.
            "an octave low" => Octaves(judged) == -12,
            "an octave high" => Octaves(judged) == 12,
            "right" or "equal setting" => judged.Outcome == NoteOutcome.Right,
            "one low" => judged.Outcome == NoteOutcome.PartialLow && judged.By == heard.By,
            "one high" => judged.Outcome == NoteOutcome.PartialHigh && judged.By == heard.By,
            "slide off" => judged.Outcome == NoteOutcome.SlideOff,
            _ => judged.Outcome == NoteOutcome.OtherSetting,
        };

    private static int? Octaves(JudgedNote judged) =>
        judged.Outcome is NoteOutcome.TwoReadings or NoteOutcome.Right ? null : judged.HeardWritten?.Midi - judged.Meant.Written.Midi;

    private static int Fingers(Setting one, Setting other) =>
        Enumerable.Range(1, 8).Count(valve => one.Presses(valve) != other.Presses(valve)) + (one.Attachment == other.Attachment ? 0 : 1);
}
