using Bocca.Core.Music;
using Bocca.Core.Sound;
using Bocca.Core.Tone.Drills;

namespace Bocca.Core.Tone.Listening;

/// <summary>What of the sounds found is one note, by what the row asks.</summary>
internal static class RowSounds
{
    /// <summary>A hole shorter than this (seconds) in one pitch (cents) is a hole, not the end of the note.</summary>
    private const double HoleSeconds = 0.3,
        SamePitchCents = 60;

    /// <summary>A flaw in a tone is no deeper (dB) and no longer (seconds).</summary>
    private const double FlawDb = 6,
        FlawSeconds = 0.05;

    /// <summary>Where no note follows itself, a flaw in a tone that stays on its pitch and its level is no new note.</summary>
    public static IReadOnlyList<SoundedNote> Undivided(RowPlan plan, IReadOnlyList<SoundedNote> sounded)
    {
        if (
            plan.Notes.Count < 2
            || plan.Notes.Zip(plan.Notes.Skip(1))
                .Any(pair => pair.First.RestBeats == 0 && pair.First.Meant.Sounding.Midi == pair.Second.Meant.Sounding.Midi)
        )
            return sounded;
        var whole = new List<SoundedNote>();
        foreach (var note in sounded)
        {
            if (
                whole.Count > 0
                && note.DipDb < FlawDb
                && note.StartSeconds - whole[^1].EndSeconds < FlawSeconds
                && Math.Abs(Tuning.Cents(whole[^1].MedianHz, note.MedianHz)) < SamePitchCents
            )
                whole[^1] = Joined(whole[^1], note);
            else
                whole.Add(note);
        }

        return whole;
    }

    /// <summary>Two sounds as one: the longer one's pitch, from the first one's start to the second one's end.</summary>
    private static SoundedNote Joined(SoundedNote first, SoundedNote second) =>
        (second.Seconds > first.Seconds ? second : first) with
        {
            StartSeconds = first.StartSeconds,
            HalfSeconds = first.HalfSeconds,
            EndSeconds = second.EndSeconds,
            RiseMs = first.RiseMs,
            FallMs = second.FallMs,
            DipDb = first.DipDb,
            GapMs = first.GapMs,
            Tongued = first.Tongued,
        };

    /// <summary>
    /// Where one note is asked in a breath, a tone with holes in it is one note: what stops for a moment and goes on at its pitch.
    /// </summary>
    public static List<SoundedNote> WithoutHoles(RowPlan plan, IReadOnlyList<SoundedNote> sounded, IReadOnlyList<double> starts)
    {
        var whole = new List<SoundedNote>();
        for (var p = 0; p < plan.Phrases.Count; p++)
        {
            var (from, to) = plan.Opening(starts, p);
            var single = plan.Phrases[p].End - plan.Phrases[p].First == 1;
            var first = whole.Count;
            foreach (var note in sounded.Where(note => note.StartSeconds >= from && note.StartSeconds < to))
            {
                if (
                    single
                    && whole.Count > first
                    && note.StartSeconds - whole[^1].EndSeconds < HoleSeconds
                    && Math.Abs(Tuning.Cents(whole[^1].MedianHz, note.MedianHz)) < SamePitchCents
                )
                    whole[^1] = Joined(whole[^1], note);
                else
                    whole.Add(note);
            }
        }

        return whole;
    }
}
