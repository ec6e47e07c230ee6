using Bocca.Core.Fingering.Class;
using Bocca.Core.Fingering.Passage;
using Bocca.Core.Fingering.Trainer;
using Bocca.Core.Instruments;
using Bocca.Core.Judging;
using Bocca.Core.Pieces;
using Bocca.Core.Practice;
using Bocca.Core.Teaching;
using Bocca.Core.Tone;
using Bocca.Web.Pages.Ear;
using Bocca.Web.Record;
using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Pages.Pieces;

/// <summary>A piece worked out for a pupil as the record has both.</summary>
/// <param name="Piece">The piece.</param>
/// <param name="Version">The version in use.</param>
/// <param name="Source">What was read of it.</param>
/// <param name="Played">How the pupil plays it.</param>
/// <param name="Planned">The plan, and the part as it is drawn.</param>
/// <param name="BreathWords">Where the breath that is planned with comes from.</param>
/// <param name="Studied">What the record says of the pupil.</param>
/// <param name="Player">Who fingers it.</param>
public sealed record WorkedPiece(
    Piece Piece,
    PieceVersion Version,
    PieceSource Source,
    PieceFor Played,
    PlannedLine Planned,
    string BreathWords,
    StudyPupil Studied,
    PassagePlayer Player
)
{
    /// <summary>The plan.</summary>
    public PiecePlan Plan => Planned.Plan;
}

/// <summary>Works pieces out.</summary>
public static class WorkedPieces
{
    /// <summary>Changes of the last so many drills of the hand tell which are slow.</summary>
    private const int HandFiguresThatCount = 400;

    private const int NotesThatCount = 2000;

    /// <summary>A piece worked out for a pupil.</summary>
    /// <param name="journal">The record.</param>
    /// <param name="plans">What was worked out lately.</param>
    /// <param name="pupil">The pupil.</param>
    /// <param name="approach">The approach in force.</param>
    /// <param name="tuning">The room's A.</param>
    /// <param name="piece">The piece.</param>
    /// <param name="version">Its version.</param>
    /// <param name="played">How the pupil plays it.</param>
    /// <exception cref="ArgumentException">It cannot be played so, or a choice not be kept; the message says which bar.</exception>
    /// <exception cref="InvalidDataException">The score has no such line.</exception>
    public static async Task<WorkedPiece> WorkOutAsync(
        this Journal journal,
        PiecePlans plans,
        Pupil pupil,
        Approach approach,
        Core.Music.Tuning tuning,
        Piece piece,
        PieceVersion version,
        PieceFor played
    )
    {
        var source = await plans.SourceAsync(version);
        var choice =
            PieceLibrary.LineOf(source.Score, played.Line)
            ?? throw new InvalidDataException("The score has no such line any more: choose another.");
        var own = await journal.PlayedAsync(pupil, approach, tuning);
        var breath = await journal.NoteBreathAsync(pupil);
        var player = PiecePlayer.Of(own.Instrument, approach, pupil.Stage, own.Hand) with
        {
            Weights = own.Weights,
            Passport = own.Passport,
            SlowChanges = await journal.SlowChangesAsync(pupil),
        };
        var studied = await journal.StudiedAsync(pupil, approach, own.Instrument);
        var breather = PiecePlayer.Breather(breath.Seconds, approach) with { QuickestSeconds = await journal.QuickestAsync(pupil) };
        var planned = await plans.PlannedAsync(version, choice, pupil.Reading, played, player, breather, studied);
        return new WorkedPiece(piece, version, source, played, planned, breath.Words, studied, player);
    }

    /// <summary>Changes of the hand that are slower than the pupil's usual one, and by how much.</summary>
    private static async Task<Dictionary<(Setting, Setting), double>> SlowChangesAsync(this Journal journal, Pupil pupil)
    {
        var figures = await journal
            .FiguresOf(pupil.Id, HandFigures.Change)
            .Where(figure => figure.InstrumentId == pupil.InstrumentId)
            .Take(HandFiguresThatCount)
            .Select(figure => new
            {
                figure.Item,
                figure.Value,
                figure.Count,
            })
            .ToListAsync();
        if (figures.Count == 0)
            return [];
        var usual = HandOutcome.Median(figures.SelectMany(figure => Enumerable.Repeat(figure.Value, figure.Count)));
        var slide = pupil.Instrument.Slide is not null;
        var slow = new Dictionary<(Setting, Setting), double>();
        foreach (
            var change in HandFigures.Changes(
                figures.Select(each => new Figure(HandFigures.Change, each.Value, Count: each.Count, Item: each.Item))
            )
        )
            if (
                change.Seconds > HandChange.SlowTimes * usual
                && Setting.TryParse(change.From, slide, out var from)
                && Setting.TryParse(change.To, slide, out var to)
            )
                slow[(from, to)] = change.Seconds - usual;
        return slow;
    }

    /// <summary>The pupil's quickest full breath; null where none is known.</summary>
    private static async Task<double?> QuickestAsync(this Journal journal, Pupil pupil)
    {
        var since = journal.Clock.Now - Core.Breath.UsableBreath.Fresh;
        var passes = await journal
            .Of(pupil.Id, Breath.BreathStop.Drills)
            .Where(drill => drill.At >= since && drill.Outcome == Outcome.Passed)
            .ToListAsync();
        return Core.Breath.RestForBreath.Quickest(passes.Select(Breath.BreathStop.Pass));
    }

    private static async Task<StudyPupil> StudiedAsync(this Journal journal, Pupil pupil, Approach approach, Instrument instrument)
    {
        var met = await journal.RecalledOf(pupil.Id, EarStop.OfValues).Select(card => card.Item).ToListAsync();
        var notes = await journal
            .FiguresOf(pupil.Id, ToneFigures.Note)
            .Where(figure => figure.InstrumentId == pupil.InstrumentId)
            .Take(NotesThatCount)
            .Select(figure => new
            {
                figure.Item,
                figure.Value,
                figure.Count,
            })
            .ToListAsync();
        return new StudyPupil
        {
            Range = LearnersRange.Of(instrument, pupil.Stage, approach),
            Met = met.Count == 0 ? Core.Counting.RhythmValue.MetBy(pupil.Stage).Select(value => value.Id).ToHashSet() : met.ToHashSet(),
            Missed = notes
                .Where(note => Core.Music.Pitch.TryParse(note.Item.Split(' ')[0], out _))
                .GroupBy(note => pupil.Reading.ToSounding(Core.Music.Pitch.Parse(note.Item.Split(' ')[0])).Midi)
                .Where(note => note.Sum(each => each.Count) >= LeastTries)
                .ToDictionary(note => note.Key, note => 1 - (note.Sum(each => each.Value * each.Count) / note.Sum(each => each.Count))),
        };
    }

    /// <summary>A note that was tried fewer times says nothing.</summary>
    private const int LeastTries = 4;
}
