namespace Bocca.Core.Sound;

/// <summary>
/// Chooses one candidate a frame, or none, so that clear periods and smooth lines win: a Viterbi path over the
/// candidates (published: Boersma 1993) that decides a fixed number of frames late, so that a stream and a file agree.
/// </summary>
internal sealed class PitchPath
{
    private const int States = PeriodFinder.Most + 1;
    private readonly PitchTrackerSettings _settings;
    private readonly Slot[] _slots;
    private int _pushed;
    private int _decided;

    public PitchPath(PitchTrackerSettings settings)
    {
        _settings = settings;
        _slots = new Slot[settings.LookAheadFrames + 1];
        for (var i = 0; i < _slots.Length; i++)
            _slots[i] = new Slot();
    }

    /// <summary>Takes one frame's candidates in; true when an older frame has been decided.</summary>
    public bool Push(double timeSeconds, double levelDb, ReadOnlySpan<PeriodCandidate> candidates, out PitchFrame decided)
    {
        var slot = _slots[_pushed % _slots.Length];
        slot.TimeSeconds = timeSeconds;
        slot.LevelDb = levelDb;
        slot.Count = candidates.Length;
        candidates.CopyTo(slot.Candidates);
        Score(slot, _pushed == 0 ? null : _slots[(_pushed - 1) % _slots.Length]);
        _pushed++;
        decided = default;
        if (_pushed - _decided < _slots.Length)
            return false;
        decided = Decide();
        return true;
    }

    /// <summary>Decides the next frame that is still open; false when none is.</summary>
    public bool Flush(out PitchFrame decided)
    {
        decided = default;
        if (_decided == _pushed)
            return false;
        decided = Decide();
        return true;
    }

    /// <summary>Appends the frames that are still open, as they would be decided if nothing more came; they stay open.</summary>
    public void Preview(ICollection<PitchFrame> into)
    {
        Span<int> states = stackalloc int[_slots.Length];
        if (_decided == _pushed)
            return;
        states[0] = BestOfNewest();
        var open = _pushed - _decided;
        for (var back = 1; back < open; back++)
            states[back] = _slots[(_pushed - back) % _slots.Length].From[states[back - 1]];
        for (var back = open - 1; back >= 0; back--)
            into.Add(Frame(_slots[(_pushed - 1 - back) % _slots.Length], states[back]));
    }

    /// <summary>State 0 is unvoiced; state i is candidate i - 1.</summary>
    private void Score(Slot slot, Slot? before)
    {
        var best = double.NegativeInfinity;
        for (var state = 0; state <= slot.Count; state++)
        {
            var reach = 0.0;
            slot.From[state] = 0;
            if (before is not null)
            {
                reach = double.NegativeInfinity;
                for (var from = 0; from <= before.Count; from++)
                {
                    var score = before.Scores[from] - Change(before, from, slot, state);
                    if (score > reach)
                    {
                        reach = score;
                        slot.From[state] = from;
                    }
                }
            }

            slot.Scores[state] = reach + Local(slot, state);
            best = Math.Max(best, slot.Scores[state]);
        }

        for (var state = 0; state <= slot.Count; state++)
            slot.Scores[state] -= best;
    }

    private double Local(Slot slot, int state)
    {
        if (state == 0)
            return slot.LevelDb < _settings.SilenceDb ? 1.5 : _settings.VoicedClarity;
        return slot.Candidates[state - 1].Strength;
    }

    private double Change(Slot before, int from, Slot now, int to)
    {
        if (from == 0 && to == 0)
            return 0;
        if (from == 0 || to == 0)
            return _settings.VoicingChangeCost;
        return _settings.OctaveJumpCost * Math.Abs(Math.Log2(now.Candidates[to - 1].FrequencyHz / before.Candidates[from - 1].FrequencyHz));
    }

    private PitchFrame Decide()
    {
        var state = BestOfNewest();
        for (var frame = _pushed - 1; frame > _decided; frame--)
            state = _slots[frame % _slots.Length].From[state];
        return Frame(_slots[_decided++ % _slots.Length], state);
    }

    private int BestOfNewest()
    {
        var state = 0;
        var newest = _slots[(_pushed - 1) % _slots.Length];
        for (var i = 1; i <= newest.Count; i++)
            if (newest.Scores[i] > newest.Scores[state])
                state = i;
        return state;
    }

    private static PitchFrame Frame(Slot slot, int state)
    {
        var strongest = Strongest(slot);
        var chosen = state > 0 ? slot.Candidates[state - 1] : strongest;
        return new PitchFrame(slot.TimeSeconds, chosen.FrequencyHz, state > 0, Math.Max(0, chosen.Clarity), slot.LevelDb);
    }

    private static PeriodCandidate Strongest(Slot slot)
    {
        var strongest = default(PeriodCandidate);
        for (var i = 0; i < slot.Count; i++)
            if (slot.Candidates[i].Clarity > strongest.Clarity)
                strongest = slot.Candidates[i];
        return strongest;
    }

    private sealed class Slot
    {
        public PeriodCandidate[] Candidates { get; } = new PeriodCandidate[PeriodFinder.Most];

        public double[] Scores { get; } = new double[States];

        public int[] From { get; } = new int[States];

        public int Count { get; set; }

        public double TimeSeconds { get; set; }

        public double LevelDb { get; set; }
    }
}
