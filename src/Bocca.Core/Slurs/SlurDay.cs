namespace Bocca.Core.Slurs;

/// <summary>A slur chosen for a day, with its reason.</summary>
/// <param name="Slur">The slur.</param>
/// <param name="Tempo">Beats a minute.</param>
/// <param name="Difficulty">How hard it is.</param>
/// <param name="Likelihood">How likely it comes clean, 0 to 1.</param>
/// <param name="Reason">Why it was chosen, in words.</param>
public sealed record ChosenSlur(Slur Slur, double Tempo, SlurDifficulty Difficulty, double Likelihood, string Reason);

/// <summary>The slurs for a day: what is due, what is nearly there, and one that is new and harder.</summary>
/// <param name="Slurs">Three to five, the easiest first; none where nothing fits.</param>
/// <param name="Seconds">How long they take with their rests.</param>
/// <param name="Note">What limits the day, in words; empty for nothing.</param>
public sealed record SlurDay(IReadOnlyList<ChosenSlur> Slurs, double Seconds, string Note)
{
    /// <summary>How likely slurs come for this pupil.</summary>
    public required SlurSuccess Success { get; init; }

    /// <summary>Each slur is played so often, with a rest of its own length after each (common practice).</summary>
    public const int Times = 2;

    /// <summary>Likelihoods that are safe, nearly there, hard and too far (ours, editable).</summary>
    private const double Safe = SlurSuccess.Easy,
        Nearly = 0.65,
        Hard = SlurSuccess.Right,
        TooFar = 0.25;

    /// <summary>Safe slurs are due again after so many days.</summary>
    public const double DueDays = 3;

    /// <summary>Above what is comfortable not longer than this a day (limit, editable downward only).</summary>
    private const double MostSecondsAbove = 120;

    private const int Most = 5;

    /// <summary>A slur that one breath carries only faster than this has to wait (beats a minute; ours, editable).</summary>
    private const double FastestTempo = 120;

    /// <summary>Chooses the slurs of a day.</summary>
    /// <param name="player">Who slurs.</param>
    /// <param name="tries">Tries so far.</param>
    /// <param name="now">The moment.</param>
    /// <param name="tempo">Beats a minute.</param>
    /// <param name="minutes">How long it may take, rests included.</param>
    /// <param name="tired">Whether the lips are tired: then nothing above what is comfortable, and nothing hard.</param>
    public static SlurDay Of(
        SlurPlayer player,
        IReadOnlyList<SlurTry> tries,
        DateTime now,
        double tempo,
        double minutes,
        bool tired = false
    )
    {
        var success = SlurSuccess.From(tries);
        var tubes = player.Tubes();
        var played = tries.ToLookup(each => each.SlurId);
        var candidates = SlurWriter
            .All(player)
            .Where(slur => InOneBreath(slur, player, tempo) <= FastestTempo && (!tired || Top(slur) <= player.Comfortable.Midi))
            .Select(slur =>
            {
                var own = InOneBreath(slur, player, tempo);
                var difficulty = SlurDifficulty.Of(slur, player, tubes, own);
                return new Candidate(
                    slur,
                    own,
                    difficulty,
                    success.Likelihood(difficulty.Points, [.. slur.Pairs]),
                    played[slur.Id].ToList()
                );
            })
            .ToList();
        var chosen = new List<ChosenSlur>();
        var (seconds, above) = (0.0, 0.0);
        void Take(IEnumerable<Candidate> from, Func<Candidate, string> reason)
        {
            foreach (var next in from)
            {
                var length = 2 * Times * next.Slur.Seconds(next.Tempo);
                var high = Top(next.Slur) > player.Comfortable.Midi ? length / 2 : 0;
                if (
                    chosen.Count >= Most
                    || seconds + length > 60 * minutes
                    || above + high > MostSecondsAbove
                    || chosen.Any(known =>
                        known.Slur.Id == next.Slur.Id
                        || (known.Slur.Shape.Neighbours && next.Slur.Shape.Neighbours)
                        || (known.Slur.Shape == next.Slur.Shape && known.Slur.Setting == next.Slur.Setting)
                    )
                )
                    continue;
                chosen.Add(new ChosenSlur(next.Slur, next.Tempo, next.Difficulty, next.Likely, reason(next)));
                (seconds, above) = (seconds + length, above + high);
                return;
            }
        }

        var due = candidates
            .Where(each => each.Tries.Count > 0 && each.Likely >= Safe && (now - each.Tries.Max(its => its.At)).TotalDays >= DueDays)
            .OrderBy(each => each.Tries.Max(its => its.At));
        Take(due, each => $"Due: last played {(now - each.Tries.Max(its => its.At)).TotalDays:0} days ago.");
        if (chosen.Count == 0)
            Take(
                candidates
                    .Where(each => each.Likely >= Safe)
                    .OrderBy(each => each.Slur.Shape.Neighbours)
                    .ThenByDescending(each => each.Likely),
                _ => "To start with: this one is safe."
            );
        for (var i = 0; i < 2; i++)
            Take(
                candidates
                    .Where(each => each.Likely is >= Hard and < 0.9)
                    .OrderBy(each => Math.Abs(each.Likely - Nearly))
                    .ThenByDescending(each => each.Tries.Count),
                each => $"Nearly there: {100 * each.Likely:0} % likely to come clean."
            );
        Take(due, each => $"Due: last played {(now - each.Tries.Max(its => its.At)).TotalDays:0} days ago.");
        if (!tired)
            Take(
                candidates.Where(each => each.Likely is >= TooFar and < 0.6).OrderBy(each => Math.Abs(each.Likely - Hard)),
                each => $"New and harder: {each.Difficulty.Parts.MaxBy(part => part.Points).Words}."
            );
        for (var i = chosen.Count; i < 3; i++)
            Take(candidates.OrderByDescending(each => each.Likely), _ => "One more that comes.");
        var note =
            candidates.Count == 0 && player.Met is not null
                ? "Slurs use notes you can already play. First: low note or the next one up (Tone)."
            : candidates.Count == 0 ? "No slur fits this range in one breath yet: first a longer stream, or a wider range."
            : tired ? "Tired lips: nothing high, nothing new today."
            : chosen.Count < 3 ? $"{minutes:0.#} minutes hold no more."
            : "";
        return new SlurDay([.. chosen.OrderBy(each => each.Difficulty.Points)], seconds, note) { Success = success };
    }

    /// <summary>The tempo asked, or the slowest above it at which one breath carries the slur.</summary>
    private static double InOneBreath(Slur slur, SlurPlayer player, double tempo) =>
        Math.Max(tempo, Math.Ceiling(60 * slur.Beats / player.BreathSeconds));

    private sealed record Candidate(Slur Slur, double Tempo, SlurDifficulty Difficulty, double Likely, List<SlurTry> Tries);

    private static int Top(Slur slur) => slur.Notes.Max(note => note.Sounding.Midi);
}
