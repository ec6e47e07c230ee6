using Bocca.Core.Fingering.Passage;
using Bocca.Core.Instruments;
using Bocca.Core.Pieces.Breathing;
using Bocca.Core.Pieces.Lines;
using Bocca.Core.Pieces.Study;
using Bocca.Core.Score;

namespace Bocca.Core.Pieces;

/// <summary>A piece worked out for a player: read, fingered, breathed, studied.</summary>
/// <param name="Line">The line.</param>
/// <param name="Fingered">Its settings.</param>
/// <param name="Breathed">Its breaths.</param>
/// <param name="Phrases">Its phrases.</param>
/// <param name="Returns">What comes again in it.</param>
/// <param name="Runs">Its runs.</param>
/// <param name="Articulation">How its bars are begun.</param>
/// <param name="Hidden">Steps with a change of partial.</param>
/// <param name="Hard">Where it is likely to go wrong.</param>
/// <param name="Use">How far it goes, and what it uses most.</param>
public sealed record PiecePlan(
    PieceLine Line,
    PassagePlan Fingered,
    AirPlan Breathed,
    IReadOnlyList<Phrase> Phrases,
    IReadOnlyList<Return> Returns,
    IReadOnlyList<ScaleRun> Runs,
    IReadOnlyList<BarArticulation> Articulation,
    IReadOnlyList<HiddenChange> Hidden,
    IReadOnlyList<HardSpot> Hard,
    NoteUse Use
)
{
    /// <summary>Passages that return and are fingered otherwise, in words: the dearer way is worth it.</summary>
    public IReadOnlyList<string> Deviating =>
        [
            .. Fingered.Deviating.Select(each =>
            {
                var (note, like) = (each.Note, each.Repeat.Like + each.Note - each.Repeat.From);
                var (own, other) = (Fingered.Notes[note].Fingering.Setting, Fingered.Notes[like].Fingering.Setting);
                return $"{own} in {Line.PlaceOf(note)}, and {other} in {Line.PlaceOf(like)}: what stands beside it is otherwise.";
            }),
        ];

    /// <summary>Works a line out.</summary>
    /// <param name="line">The line.</param>
    /// <param name="player">Who plays.</param>
    /// <param name="breather">Who breathes; what the choices ask for is added.</param>
    /// <param name="choices">What the teacher has settled.</param>
    /// <param name="pupil">What the record says of the pupil.</param>
    /// <exception cref="ArgumentException">A note cannot be played or a choice not be kept; the message says which bar.</exception>
    public static PiecePlan Of(
        PieceLine line,
        PassagePlayer player,
        PieceBreather breather,
        PieceChoices? choices = null,
        StudyPupil? pupil = null
    )
    {
        choices ??= PieceChoices.None;
        Check(line, choices);
        var returns = Study.Returns.Of(line);
        var phrases = Study.Phrases.Of(line, returns, choices.PhraseEnds, choices.PhraseJoins);
        var fingered = Finger(line, player, choices, returns, phrases);
        var breathed = AirPlanner.Plan(
            line,
            breather with
            {
                Asked = choices.Breaths,
                Forbidden = choices.NoBreaths,
                SecondPartialMidi = player.Instrument.PartialOne.Midi + HarmonicSeries.Semitones(2),
            },
            phrases,
            returns
        );
        return new PiecePlan(
            line,
            fingered,
            breathed,
            phrases,
            returns,
            ScaleRun.Of(line),
            BarArticulation.Of(line),
            HiddenChange.Of(line, fingered),
            new HardSpots(line, player, fingered, breathed, pupil ?? StudyPupil.Unknown).Find(),
            NoteUse.Of(line, fingered)
        );
    }

    private static PassagePlan Finger(
        PieceLine line,
        PassagePlayer player,
        PieceChoices choices,
        IReadOnlyList<Return> returns,
        IReadOnlyList<Phrase> phrases
    )
    {
        var ends = phrases.Select(phrase => phrase.To).ToHashSet();
        var notes = line
            .Notes.Select(note => new PassageNote(note.Sounding, note.Seconds, note.Held)
            {
                IsSlurred = note.Slurred,
                IsExposed = note.Marks.HasFlag(NoteMarks.Fermata) || ends.Contains(note.Index),
                Pin =
                    choices.Pins.TryGetValue(note.Index, out var pin) ? pin
                    : choices.AllByChart || choices.ByChart.Contains(note.Bar) ? Chart(player, note)
                    : null,
            })
            .ToList();
        try
        {
            return PassagePlanner.Plan(
                player,
                notes,
                [.. returns.Where(each => each.Same > 0).Select(each => new PassageRepeat(each.From, each.Like, each.Same))]
            );
        }
        catch (PassageException problem)
        {
            throw new ArgumentException($"Bar {line.BarOf(problem.Note)}, {line.Notes[problem.Note].Written}: {problem.Message}", problem);
        }
    }

    private static Setting? Chart(PassagePlayer player, LineNote note) =>
        Bocca
            .Core.Fingering.FingeringFinder.FindSounding(player.Instrument, note.Sounding, player.Weights, player.Hand, player.Passport)
            .FirstOrDefault(way => way.Barred is null)
            ?.Setting;

    private static void Check(PieceLine line, PieceChoices choices)
    {
        if (line.Notes.Count == 0)
            throw new ArgumentException("The line has no note: there are rests alone.");
        if (line.Notes.Count > PassagePlanner.MostNotes)
            throw new ArgumentException($"The line has {line.Notes.Count} notes; {PassagePlanner.MostNotes} are planned at most.");
        foreach (var pin in choices.Pins.Keys)
            if (pin < 0 || pin >= line.Notes.Count)
                throw new ArgumentException($"A setting is pinned on note {pin}; the notes go from 0 to {line.Notes.Count - 1}.");
    }
}
