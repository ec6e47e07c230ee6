using Bocca.Core.Ear;
using Bocca.Core.Embouchure;
using Bocca.Core.Fingering;
using Bocca.Core.Fingering.Class;
using Bocca.Core.Instruments;
using Bocca.Core.Judging;
using Bocca.Core.Music;
using Bocca.Core.Teaching;
using Bocca.Core.Tone;
using Bocca.Core.Tone.Drills;
using Bocca.Core.Tone.Notes;
using Bocca.Web.Pages.Notes;
using Bocca.Web.Pages.Tone;
using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Record;

/// <summary>A pupil's very instrument in the pupil's very hands, as the record has them.</summary>
/// <param name="Instrument">The instrument as its measurements have it.</param>
/// <param name="Passport">Where its partials lie.</param>
/// <param name="Hand">What the hands can do, and what is pinned.</param>
/// <param name="Weights">What ranks fingerings under the approach.</param>
/// <param name="OpenAt">When the open notes were measured; null where they never were.</param>
public sealed record PlayedInstrument(Instrument Instrument, Passport Passport, Hand Hand, FingeringWeights Weights, DateTime? OpenAt)
{
    /// <summary>Who plays it, at a tuning.</summary>
    public PlayerSituation Situation(Reading reading, Tuning tuning) =>
        new(Instrument, reading, tuning)
        {
            Passport = Passport,
            Weights = Weights,
            Hand = Hand,
        };

    /// <summary>Whose ear is asked.</summary>
    public EarPlayer Ear(Pupil pupil, Approach approach) =>
        new(Instrument, pupil.Reading, LearnersRange.Of(Instrument, pupil.Stage, approach)) { Hand = Hand };
}

/// <summary>Reads instruments as they are played.</summary>
public static class PlayedInstruments
{
    /// <summary>The last measurement of the pupil's present instrument; null where nobody measured it.</summary>
    public static IQueryable<Entry> MeasuredOf(this Journal journal, Pupil pupil) =>
        journal.Of(pupil.Id, NotesStop.Measured).Where(entry => entry.InstrumentId == pupil.InstrumentId);

    /// <summary>A pupil's instrument as it is played under an approach.</summary>
    public static async Task<PlayedInstrument> PlayedAsync(this Journal journal, Pupil pupil, Approach approach, Tuning tuning)
    {
        var (passport, openAt) = await journal.PassportAsync(pupil, tuning);
        var instrument = passport.Applied(pupil.Instrument);
        var pins = await journal
            .Db.Pins.AsNoTracking()
            .Where(pin => pin.PupilId == pupil.Id && pin.InstrumentId == pupil.InstrumentId)
            .ToListAsync();
        // The pupil's own order goes before the room's.
        var order = await journal
            .Db.FirstNoteOrders.AsNoTracking()
            .Where(each => each.InstrumentId == pupil.InstrumentId && (each.PupilId == pupil.Id || each.PupilId == null))
            .OrderByDescending(each => each.PupilId != null)
            .FirstOrDefaultAsync();
        return new PlayedInstrument(
            instrument,
            passport,
            HandOf(pupil, instrument, pins).Under(approach, pupil.Stage) with
            {
                FirstNotes = order?.Sounding,
            },
            FingeringWeights.Default.Under(approach, pupil.Stage),
            openAt
        );
    }

    /// <summary>Where the partials and slides of the pupil's very instrument lie, by its last kept measurements.</summary>
    private static async Task<(Passport Passport, DateTime? OpenAt)> PassportAsync(this Journal journal, Pupil pupil, Tuning tuning)
    {
        var drills = ToneDrill.All.Where(drill => drill.Aim == ToneAim.Tuning).Select(drill => drill.Id).ToList();
        // What was measured on another instrument says nothing of this one.
        var last = await journal
            .Of(pupil.Id, ToneStop.Takes)
            .Where(take =>
                take.Kept
                && drills.Contains(take.DrillId!)
                && take.Outcome != Outcome.CannotTell
                && (take.InstrumentId == null || take.InstrumentId == pupil.InstrumentId)
            )
            .Select(take => new { take.Id, take.At })
            .FirstOrDefaultAsync();
        var measured = await journal.MeasuredOf(pupil).Select(entry => (long?)entry.Id).FirstOrDefaultAsync();
        if (last is null && measured is null)
            return (Passport.Unmeasured, null);
        var figures = await journal
            .Db.Figures.AsNoTracking()
            .Where(figure =>
                (last != null && figure.EntryId == last.Id && figure.Name == ToneFigures.OpenNote.Name) || figure.EntryId == measured
            )
            .ToListAsync();
        var open = figures
            .Where(figure => figure.Name == ToneFigures.OpenNote.Name)
            .OrderBy(figure => int.Parse(figure.Item))
            .Select(figure => figure.Value);
        var passport = last is null ? Passport.Unmeasured : Passport.Measured(pupil.Instrument, tuning, open);
        return (measured is null ? passport : Measured(passport, figures), last?.At);
    }

    private static Passport Measured(Passport passport, List<EntryFigure> figures)
    {
        double? Value(string name) => figures.FirstOrDefault(figure => figure.Name == name)?.Value;
        return passport with
        {
            ThirdForTwoThree = Value(NotesStop.ThirdDrawn.Name) is not null,
            ValveCents = figures
                .Where(figure => figure.Name == NotesStop.ValveCents.Name)
                .ToDictionary(figure => int.Parse(figure.Item), figure => figure.Value),
            Slide =
                Value(NotesStop.SlideTube.Name) is { } metres && Value(NotesStop.SlideTravel.Name) is { } travel
                    ? new Slide(metres, travel)
                    : null,
            Marks =
                Value(NotesStop.SlideStay.Name) is var stay && Value(NotesStop.SlideEnd.Name) is var end && (stay ?? end) is not null
                    ? new SlideMarks(stay, end)
                    : null,
        };
    }

    private static Hand HandOf(Pupil pupil, Instrument instrument, List<NotePin> pins) =>
        new()
        {
            ReachCm = instrument.Slide is not null && pupil.ArmCm is { } arm ? ArmReach.Of(arm, instrument).OutCm : null,
            HighestValve = pupil.HighestValve,
            FurthestPosition = pupil.FurthestPosition,
            Pins = pins.Where(pin => Setting.TryParse(pin.Setting, instrument.Slide is not null, out _))
                .ToDictionary(
                    pin => pin.Midi,
                    pin => Setting.TryParse(pin.Setting, instrument.Slide is not null, out var setting) ? setting : default
                ),
        };
}
