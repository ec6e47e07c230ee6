using Bocca.Core.Judging;

namespace Bocca.Core.Ear;

/// <summary>Judges answers of the ear, the voice and the instrument apart, and says which of them to work on.</summary>
public static class EarJudge
{
    /// <summary>Judges.</summary>
    /// <param name="heard">What was answered.</param>
    /// <param name="pupil">Who is judged.</param>
    public static Verdict Judge(EarHearing heard, JudgedPupil pupil)
    {
        var drill = heard.Question.Drill;
        if (heard.Problem is { } problem)
            return new Verdict(
                Outcome.CannotTell,
                $"Cannot tell: {problem}",
                [],
                [],
                Again(drill, "Once more, with only your own sound in the room.", problem)
            );
        if (drill.Kind == EarKind.Siren)
            return Siren(heard, drill);
        var all = heard.Sung.Concat(heard.Played).ToList();
        if (all.Count > 0 && all.TrueForAll(note => note.Outcome is EarOutcome.Nothing or EarOutcome.CannotTell))
        {
            const string Quiet = "no tone was long and steady enough to be told.";
            return new Verdict(
                Outcome.CannotTell,
                $"Cannot tell: {Quiet}",
                [],
                [],
                Again(drill, "Hold each note, close to the microphone.", Quiet)
            );
        }

        var findings = Findings(heard, pupil.Symptoms);
        var summary = Summary(heard);
        var outcome = findings.Count == 0 ? Outcome.Passed : Outcome.Repeat;
        var next =
            outcome == Outcome.Passed
                ? Again(drill, "Go on: the next one.", summary)
                : AdvisedStep.Of(pupil, findings, AdvisedStep.IsTense(pupil, findings), EarDrill.Place, drill.Id);
        return new Verdict(outcome, summary, Numbers(heard), findings, next);
    }

    private static Verdict Siren(EarHearing heard, EarDrill drill)
    {
        const double Least = 5;
        if (heard.Voice is not { } voice)
            return new Verdict(
                Outcome.CannotTell,
                "Cannot tell: no voice was heard.",
                [],
                [],
                Again(drill, "Slide on ah, close to the microphone.", "No voice was heard.")
            );
        var said = $"The voice reached over {voice.Semitones:0} semitones, {voice.LowestHz:0} to {voice.HighestHz:0} Hz.";
        return voice.Semitones >= Least
            ? new Verdict(Outcome.Passed, said, [], [], new NextStep(EarDrill.Place, "sing-target", "Go on: find the note.", said))
            : new Verdict(Outcome.Repeat, said, [], [], Again(drill, "Once more: lower first, then as high as it goes.", said));
    }

    /// <summary>What was heard in a sentence or two: <c>Ear right; first note one partial high.</c></summary>
    public static string Summary(EarHearing heard)
    {
        var (ear, sung, played) = (heard.EarRight, Part(heard.Sung), Part(heard.Played));
        var parts = new List<string>();
        if (ear is { } right)
            parts.Add(right ? "ear right" : $"it was {string.Join(" ", heard.Question.Answer)}");
        if (heard.Sung.Count > 0)
            parts.Add(sung is null ? "sung right" : $"sung: {sung}");
        if (heard.Played.Count > 0)
            parts.Add(
                played is null ? "played right"
                : heard.Sung.Count > 0 ? $"played: {played}"
                : played
            );
        return parts.Count == 0 ? "Nothing was asked." : $"{Capital(string.Join("; ", parts))}.{Bottleneck(heard)}{Shape(heard)}";
    }

    /// <summary>Whether a note came: right, or brought nearer while it sounded.</summary>
    public static bool Came(EarHeard note) => note.Outcome == EarOutcome.Right || note.CameCloser;

    /// <summary>Which of the two is behind; empty where neither is, or both.</summary>
    private static string Bottleneck(EarHearing heard)
    {
        if (heard.Played.Count == 0)
            return "";
        var ear = heard.EarRight != false && heard.Sung.All(Came);
        var lip = heard.Played.All(Came);
        var before = heard.EarRight is not null || heard.Sung.Count > 0;
        return (before, ear, lip) switch
        {
            (true, true, false) => " Work on the instrument: the ear has it.",
            (true, false, true) => " Work on the ear: the instrument found it.",
            (true, false, false) => " Hear it again first: both went otherwise.",
            _ => "",
        };
    }

    private static string Shape(EarHearing heard) =>
        heard.Question.Drill.Kind != EarKind.Line || heard.Tapped is not [var marked] ? ""
        : heard.Loudest is not { } loudest ? " No note of the line stood out in loudness."
        : marked == $"{loudest + 1}" ? $" It led to note {loudest + 1}, as you marked."
        : $" You marked note {marked}; note {loudest + 1} was the loudest.";

    private static string? Part(IReadOnlyList<EarHeard> notes)
    {
        var off = notes.Select((note, i) => (note, i)).Where(each => !Came(each.note)).ToList();
        if (off.Count == 0)
            return null;
        var (first, at) = off[0];
        var which = notes.Count == 1 ? "" : $"{Ordinal(at)} note ";
        var said = first.Outcome switch
        {
            EarOutcome.Nothing => "not heard",
            EarOutcome.CannotTell => "too unsteady to be told",
            _ => first.Sentence[(first.Sentence.IndexOf(':', StringComparison.Ordinal) + 2)..].TrimEnd('.'),
        };
        return $"{which}{said}{(off.Count > 1 ? $", {off.Count - 1} more" : "")}";
    }

    private static List<HeardNumber> Numbers(EarHearing heard)
    {
        var numbers = new List<HeardNumber>();
        if (heard.EarRight is { } right)
            numbers.Add(
                new HeardNumber(
                    "tapped",
                    string.Join(" ", heard.Tapped),
                    right ? "as it sounded" : $"{string.Join(" ", heard.Question.Answer)} sounded",
                    right
                )
            );
        if (heard.Sung.Count > 0 && heard.Sung.Count == heard.Played.Count)
            numbers.AddRange(heard.Sung.Zip(heard.Played, Beside));
        else
            foreach (var (who, notes) in new[] { ("sung", heard.Sung), ("played", heard.Played) })
                numbers.AddRange(notes.Select(note => new HeardNumber($"{who}, {note.Target}", Cents(note), Meaning(note), Came(note))));
        return numbers;
    }

    /// <summary>Both errors of a note side by side.</summary>
    private static HeardNumber Beside(EarHeard sung, EarHeard played) =>
        new($"{sung.Target}", $"{Signed(sung)} / {Signed(played)}", "cents sung / played", Came(sung) && Came(played));

    private static string Cents(EarHeard note) => note.Cents is null ? "–" : $"{Signed(note)} cents";

    private static string Signed(EarHeard note) => note.Cents is { } cents ? $"{cents:+0;−0;0}" : "–";

    private static string Meaning(EarHeard note) =>
        note.Outcome switch
        {
            EarOutcome.Nothing => "nothing heard",
            EarOutcome.CannotTell => "cannot tell",
            EarOutcome.OtherNote => "another note",
            _ when note.CameCloser && note.Outcome != EarOutcome.Right => $"closer than before: {note.EndCents:+0;−0;0} at its end",
            EarOutcome.Flat => Slide(note, "flat"),
            EarOutcome.Sharp => Slide(note, "sharp"),
            _ when note.Octaves != 0 => "right, an octave apart",
            _ => "right",
        };

    private static string Slide(EarHeard note, string word) =>
        note.Cm is { } cm ? $"{word}: slide {Math.Abs(cm):0.0} cm {(cm > 0 ? "out" : "in")}" : word;

    private static List<Finding> Findings(EarHearing heard, SymptomTable symptoms)
    {
        var findings = new List<Finding>();
        if (heard.EarRight == false)
            findings.Add(new Finding(symptoms.Get("earLost"), [], 0, 0, "", $"{string.Join(" ", heard.Question.Answer)} sounded."));
        foreach (var (id, notes) in new[] { ("sungOff", heard.Sung), ("playedOff", heard.Played) })
        {
            var off = notes.Where(note => !Came(note)).ToList();
            if (off.Count > 0)
                findings.Add(
                    new Finding(
                        symptoms.Get(id),
                        [.. notes.Select((note, i) => (note, i)).Where(each => !Came(each.note)).Select(each => each.i + 1)],
                        off.Max(note => Math.Abs(note.Cents ?? 100)),
                        EarListener.RightCents,
                        "cents",
                        off[0].Sentence
                    )
                );
        }

        return findings;
    }

    private static NextStep Again(EarDrill drill, string cue, string reason) => new(EarDrill.Place, drill.Id, cue, reason);

    private static string Ordinal(int at) =>
        at switch
        {
            0 => "first",
            1 => "second",
            2 => "third",
            _ => $"{at + 1}th",
        };

    private static string Capital(string words) => char.ToUpperInvariant(words[0]) + words[1..];
}
