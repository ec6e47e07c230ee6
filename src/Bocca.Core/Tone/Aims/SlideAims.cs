using Bocca.Core.Instruments;
using Bocca.Core.Judging;
using Bocca.Core.Tone.Listening;
using Bocca.Core.Tone.Notes;

namespace Bocca.Core.Tone.Aims;

/// <summary>Notes of a slide, position by position: how far from its place each was, and how loud.</summary>
internal static class SlideAims
{
    /// <summary>A slide this near to its place is there (cm; ours, editable).</summary>
    private const double ThereCm = 1.5;

    /// <summary>A note further out may be so much softer (dB; ours, editable).</summary>
    private const double SofterDb = 3;

    /// <summary>
    /// How far from its place the slide stood at each position, by what the note's pitch says; what the lips bend counts with it.
    /// </summary>
    public static List<AskedHeard> Stations(HeardRow row, PlayerSituation player) =>
        player.Instrument.Slide is not { } slide ? [] : [.. row.Notes.Select(note => Station(note, slide))];

    private static AskedHeard Station(RowNote note, Slide slide)
    {
        var (meant, judged) = (note.Asked.Meant, note.Judged);
        var what = $"{meant.Setting.Spoken}, {meant.Written}";
        var asked = $"within {ThereCm:0.0} cm";
        if (judged.Cents is not { } cents || judged.Outcome is not (NoteOutcome.Right or NoteOutcome.SlideOff))
            return new AskedHeard(what, asked, "another note, or none", false, "Look first, then play.");
        // Flat is too far out.
        var cm = -cents / SlidePlace.Of(slide, meant.Tube.SlideOutCm).CentsPerCm;
        if (!slide.CanStandAt(meant.Tube.SlideOutCm + cm))
            return new AskedHeard(
                what,
                asked,
                $"the slide at its end, {Math.Abs(cents):0} cents {(cents > 0 ? "sharp" : "flat")}",
                true,
                $"{meant.Setting.Spoken}: the tuning slide or the lips."
            );
        return new AskedHeard(
            what,
            asked,
            Math.Abs(cm) < 0.05 ? "there" : $"{Math.Abs(cm):0.0} cm too far {(cm > 0 ? "out" : "in")}",
            Math.Abs(cm) <= ThereCm,
            $"{meant.Setting.Spoken}: {Math.Abs(cm):0.0} cm {(cm > 0 ? "further in" : "further out")}; look again after the note."
        );
    }

    /// <summary>The level of each position beside the first.</summary>
    public static List<AskedHeard> ByPosition(HeardRow row)
    {
        var first = row.Notes.FirstOrDefault(note => note.Sound is not null);
        return first is null
            ? []
            :
            [
                .. row
                    .Notes.Where(note => note != first && note.Sound is not null)
                    .Select(note => (note, Db: note.Sound!.LevelDb - first.Sound!.LevelDb))
                    .Select(each => new AskedHeard(
                        $"{each.note.Asked.Meant.Setting.Spoken}, {each.note.Asked.Meant.Written}",
                        $"as loud as {first.Asked.Meant.Setting.Spoken}, within {SofterDb:0} dB",
                        $"{each.Db:+0.0;-0.0;0.0} dB",
                        each.Db >= -SofterDb,
                        "Fuller air as the slide goes out."
                    )
                    {
                        Pull = Pull.Firm,
                    }),
            ];
    }
}
