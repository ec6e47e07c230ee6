using Bocca.Core.Music;
using Bocca.Core.Sound;

namespace Bocca.Core.Ear;

/// <summary>A question with its answers: tapped, sung and played, each by itself.</summary>
/// <param name="Question">The question.</param>
/// <param name="Tapped">What was tapped, in order; empty where nothing was asked.</param>
/// <param name="Sung">What was sung against what was meant.</param>
/// <param name="Played">What was played.</param>
public sealed record EarHearing(
    EarQuestion Question,
    IReadOnlyList<string> Tapped,
    IReadOnlyList<EarHeard> Sung,
    IReadOnlyList<EarHeard> Played
)
{
    /// <summary>How far the voice reached in a siren; null where none was asked or heard.</summary>
    public VoiceRange? Voice { get; init; }

    /// <summary>Why nothing can be judged, in a sentence; null where it can.</summary>
    public string? Problem { get; init; }

    /// <summary>When the first to be sung or played was due, seconds into the sound.</summary>
    public double FirstSeconds { get; init; }

    /// <summary>The pitch heard, MIDI number with its fraction every 20 ms; null where no tone sounds.</summary>
    public IReadOnlyList<double?> Midi { get; init; } = [];

    /// <summary>The sung note that was loudest, by its place from 0; null where none stands out.</summary>
    public int? Loudest { get; init; }

    /// <summary>Whether what was tapped is right; null where nothing was asked.</summary>
    public bool? EarRight => Question.Answer.Count == 0 ? null : IsRight(Question, Tapped);

    /// <summary>Whether an answer is right; other names of the same notes are.</summary>
    public static bool IsRight(EarQuestion question, IReadOnlyList<string> tapped) =>
        question.Answer.Count == tapped.Count
        && question
            .Answer.Zip(tapped)
            .All(pair =>
                pair.First == pair.Second
                || (
                    Pitch.TryParse(pair.First, out var meant)
                    && Pitch.TryParse(pair.Second, out var said)
                    && meant.Midi % 12 == said.Midi % 12
                )
            );

    /// <summary>Hears a take of a question.</summary>
    /// <param name="question">The question.</param>
    /// <param name="tapped">What was tapped before.</param>
    /// <param name="sound">The sound; null where nothing was to be sung or played.</param>
    /// <param name="firstSeconds">When its first note was due, seconds into it; null where nobody knows: then at its first tone.</param>
    /// <param name="player">Who is heard.</param>
    /// <param name="tuning">The room's A.</param>
    public static EarHearing Hear(
        EarQuestion question,
        IReadOnlyList<string> tapped,
        MonoSound? sound,
        double? firstSeconds,
        EarPlayer player,
        Tuning tuning
    )
    {
        if (sound is null || question.TapOnly)
            return new EarHearing(question, tapped, [], []);
        var track = PitchTrack.Of(sound);
        var first = firstSeconds ?? track.Frames.FirstOrDefault(frame => frame.Voiced).TimeSeconds;
        if (
            Disturbance.Find(sound, track, [(0, Math.Max(0, first - 0.3))], voiceAsked: true) is
            { Kind: not DisturbanceKind.Narrow } problem
        )
            return new EarHearing(question, tapped, [], []) { Problem = $"{problem.Why} {problem.Remedy}" };
        if (question.Drill.Kind == EarKind.Siren)
            return new EarHearing(question, tapped, [], [])
            {
                FirstSeconds = first,
                Midi = Curve(VoiceRange.Slid(sound), tuning),
                Voice = VoiceRange.Of(sound),
            };
        // What is sung ends in the middle of the rest before what is played.
        var beat = 60 / question.Drill.Tempo;
        var border = first + (beat * (question.PlayedFrom - (EarQuestion.BetweenBeats / 2)));
        var (voice, horn) =
            question.Sung.Count == 0 ? (null, sound)
            : question.Played.Count == 0 ? (sound, null)
            : Cut(sound, border);
        var sung = voice is null ? [] : Of(voice, question.Sung, EarBy.Voice);
        var played = horn is null ? [] : Of(horn, question.Played, EarBy.Instrument).Select(each => Named(each, player)).ToList();
        return new EarHearing(question, tapped, sung, played)
        {
            FirstSeconds = first,
            Midi = Curve(track, tuning),
            Loudest = question.Drill.Kind == EarKind.Line ? LoudestOf(track, first, beat, question) : null,
        };

        IReadOnlyList<EarHeard> Of(MonoSound part, IReadOnlyList<Pitch> targets, EarBy by) =>
            EarListener.Hear(part, targets, player.Instrument, player.Reading, tuning, by, question.AsideCents);
    }

    private static (MonoSound? Before, MonoSound? After) Cut(MonoSound sound, double seconds)
    {
        var at = Math.Clamp((int)(seconds * sound.SampleRate), 0, sound.Samples.Length);
        return (sound with { Samples = sound.Samples[..at] }, sound with { Samples = sound.Samples[at..] });
    }

    /// <summary>A played note that is another: on open notes, by how many partials.</summary>
    private static EarHeard Named(EarHeard heard, EarPlayer player)
    {
        if (heard is not { Outcome: EarOutcome.OtherNote, HeardHz: not null })
            return heard;
        var off = heard.Cents!.Value + (1200 * heard.Octaves);
        var open = player.OpenNotes;
        var meant = player.Reading.ToSounding(heard.Target);
        var (from, to) = (Place(open, meant.Midi), Place(open, meant.Midi + (off / 100)));
        if (from is not { } of || to is not { } came || of == came)
            return heard;
        var by = Math.Abs(came - of);
        return heard with
        {
            Sentence = $"{heard.Target}: {(by == 1 ? "one partial" : $"{Judging.Words.Of(by)} partials")} {(came > of ? "high" : "low")}.",
        };
    }

    private static int? Place(IReadOnlyList<Pitch> open, double midi)
    {
        const double Near = 0.8;
        for (var i = 0; i < open.Count; i++)
            if (Math.Abs(open[i].Midi - midi) < Near)
                return i;
        return null;
    }

    private static List<double?> Curve(PitchTrack track, Tuning tuning) =>
        [
            .. track
                .Frames.Where((_, i) => i % 2 == 0)
                .Select(frame =>
                    frame is { Voiced: true, FrequencyHz: > 0 } ? Math.Round(tuning.Midi(frame.FrequencyHz), 2) : (double?)null
                ),
        ];

    private static int? LoudestOf(PitchTrack track, double first, double beat, EarQuestion question)
    {
        var count = question.Sung.Count;
        var levels = Enumerable
            .Range(0, count)
            .Select(i => (From: first + (beat * question.SungFrom(i)), To: first + (beat * question.SungFrom(i + 1))))
            .Select(span =>
                track
                    .Frames.Where(frame => frame.Voiced && frame.TimeSeconds >= span.From && frame.TimeSeconds < span.To)
                    .Select(frame => frame.LevelDb)
                    .DefaultIfEmpty(-120)
                    .Average()
            )
            .ToList();
        var order = levels.OrderDescending().ToList();
        const double StandsOut = 1.5;
        return count < 2 || order[0] - order[1] < StandsOut ? null : levels.IndexOf(order[0]);
    }
}
