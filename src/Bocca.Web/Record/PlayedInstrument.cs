using Bocca.Core.Ear;
using Bocca.Core.Embouchure;
using Bocca.Core.Fingering;
using Bocca.Core.Fingering.Class;
using Bocca.Core.Instruments;
using Bocca.Core.Judging;
using Bocca.Core.Music;
using Bocca.Core.Teaching;
using Bocca.Core.Tone;
using Bocca.Core.Tone.Notes;
using Bocca.Web.Pages.Notes;
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
    public static async Task<PlayedInstrument> PlayedAsync(this Journal journal, Pupil pupil, Approach approach, Tuning tuning) =>
        (await journal.PlayedAsync([pupil], _ => approach, tuning))[pupil.Id];

    /// <summary>The instruments of several pupils as played, by pupil; the record is asked as often for a class as for one.</summary>
    /// <param name="journal">The record.</param>
    /// <param name="pupils">Whose.</param>
    /// <param name="approachOf">The approach of each.</param>
    /// <param name="tuning">What their open notes are held against.</param>
    public static async Task<IReadOnlyDictionary<int, PlayedInstrument>> PlayedAsync(
        this Journal journal,
        IReadOnlyList<Pupil> pupils,
        Func<Pupil, Approach> approachOf,
        Tuning tuning
    )
    {
        var ids = pupils.Select(pupil => pupil.Id).ToList();
        var passports = await journal.PassportsAsync(pupils, tuning);
        var pins = (await journal.Db.Pins.AsNoTracking().Where(pin => ids.Contains(pin.PupilId)).ToListAsync()).ToLookup(pin =>
            (pin.PupilId, pin.InstrumentId)
        );
        var instruments = pupils.Select(pupil => pupil.InstrumentId).Distinct().ToList();
        var orders = await journal
            .Db.FirstNoteOrders.AsNoTracking()
            .Where(each => instruments.Contains(each.InstrumentId) && (each.PupilId == null || ids.Contains(each.PupilId.Value)))
            .ToListAsync();
        return pupils.ToDictionary(pupil => pupil.Id, Played);

        PlayedInstrument Played(Pupil pupil)
        {
            var ((passport, openAt), approach) = (passports[pupil.Id], approachOf(pupil));
            var instrument = passport.Applied(pupil.Instrument);
            // The pupil's own order goes before the room's.
            var own = orders.Where(each => each.InstrumentId == pupil.InstrumentId && (each.PupilId ?? pupil.Id) == pupil.Id);
            return new PlayedInstrument(
                instrument,
                passport,
                HandOf(pupil, instrument, pins[(pupil.Id, pupil.InstrumentId)]).Under(approach, pupil.Stage) with
                {
                    FirstNotes = own.MaxBy(each => each.PupilId)?.Sounding,
                },
                FingeringWeights.Default.Under(approach, pupil.Stage),
                openAt
            );
        }
    }

    /// <summary>Where the partials and slides of each pupil's very instrument lie, by its last kept measurements.</summary>
    private static async Task<Dictionary<int, (Passport Passport, DateTime? OpenAt)>> PassportsAsync(
        this Journal journal,
        IReadOnlyList<Pupil> pupils,
        Tuning tuning
    )
    {
        var newest = await journal.NewestMeasurementsAsync([.. pupils.Select(pupil => pupil.Id)]);
        var takes = newest.Values.Select(own => own.Take).OfType<long>().ToList();
        var measures = newest.Values.Select(own => own.Measured).OfType<long>().ToList();
        var figures =
            takes.Count + measures.Count == 0
                ? []
                : await journal
                    .Db.Figures.AsNoTracking()
                    .Where(figure =>
                        (takes.Contains(figure.EntryId) && figure.Name == ToneFigures.OpenNote.Name) || measures.Contains(figure.EntryId)
                    )
                    .ToListAsync();
        return pupils.ToDictionary(pupil => pupil.Id, Own);

        (Passport, DateTime?) Own(Pupil pupil)
        {
            var (take, measured) = newest[pupil.Id];
            var open = figures.FindAll(figure => figure.EntryId == take && figure.Name == ToneFigures.OpenNote.Name);
            var passport =
                open.Count == 0
                    ? Passport.Unmeasured
                    : Passport.Measured(
                        pupil.Instrument,
                        tuning,
                        open.OrderBy(figure => int.Parse(figure.Item)).Select(figure => figure.Value)
                    );
            return (
                measured is null ? passport : Measured(passport, figures.FindAll(figure => figure.EntryId == measured)),
                open is [var first, ..] ? first.At : null
            );
        }
    }

    /// <summary>
    /// The newest kept take in which open notes came, and the newest measured entry, of each pupil's present instrument, by their ids: what
    /// was measured on another instrument says nothing of this one. Open notes are looked up by their figures, which only such takes have.
    /// </summary>
    private static async Task<Dictionary<int, (long? Take, long? Measured)>> NewestMeasurementsAsync(this Journal journal, List<int> pupils)
    {
        var newest = await journal
            .Db.Pupils.IgnoreQueryFilters()
            .Where(pupil => pupils.Contains(pupil.Id))
            .Select(pupil => new
            {
                pupil.Id,
                Take = journal
                    .Db.Figures.Where(open =>
                        open.PupilId == pupil.Id
                        && open.Name == ToneFigures.OpenNote.Name
                        && (open.InstrumentId == null || open.InstrumentId == pupil.InstrumentId)
                    )
                    .Join(
                        journal.Db.Entries.Where(take => take.DeletedAt == null && take.Kept && take.Outcome != Outcome.CannotTell),
                        open => open.EntryId,
                        take => take.Id,
                        (open, take) => open
                    )
                    .OrderByDescending(open => open.At)
                    .ThenByDescending(open => open.EntryId)
                    .Select(open => (long?)open.EntryId)
                    .FirstOrDefault(),
                Measured = journal
                    .Db.Entries.Where(entry =>
                        entry.PupilId == pupil.Id
                        && entry.Kind == NotesStop.Measured.Id
                        && entry.DeletedAt == null
                        && entry.InstrumentId == pupil.InstrumentId
                    )
                    .OrderByDescending(entry => entry.At)
                    .ThenByDescending(entry => entry.Id)
                    .Select(entry => (long?)entry.Id)
                    .FirstOrDefault(),
            })
            .ToListAsync();
        return newest.ToDictionary(own => own.Id, own => (own.Take, own.Measured));
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

    private static Hand HandOf(Pupil pupil, Instrument instrument, IEnumerable<NotePin> pins) =>
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
