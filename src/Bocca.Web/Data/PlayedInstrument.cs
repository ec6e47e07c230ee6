using Bocca.Core.Embouchure;
using Bocca.Core.Fingering;
using Bocca.Core.Instruments;
using Bocca.Core.Music;
using Bocca.Core.Practice;
using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Data;

/// <summary>A pupil's very instrument in the pupil's very hands, as the record has them.</summary>
/// <param name="Instrument">The instrument as its measurements have it.</param>
/// <param name="Passport">Where its partials lie.</param>
/// <param name="Hand">What the hands can do, and what is pinned.</param>
/// <param name="Weights">What ranks fingerings under the approach.</param>
public sealed record PlayedInstrument(Instrument Instrument, Passport Passport, Hand Hand, FingeringWeights Weights);

/// <summary>Reads instruments as they are played.</summary>
public static class PlayedInstruments
{
    /// <summary>The last measurement of the pupil's present instrument; null where nobody measured it.</summary>
    public static Task<MeasuredInstrument?> MeasuredAsync(this BoccaDb db, Pupil pupil) =>
        db
            .Measured.AsNoTracking()
            .Where(entry => entry.PupilId == pupil.Id && entry.InstrumentId == pupil.InstrumentId)
            .OrderByDescending(entry => entry.At)
            .ThenByDescending(entry => entry.Id)
            .FirstOrDefaultAsync();

    /// <summary>Where the partials and slides of the pupil's very instrument lie, by its last kept measurements.</summary>
    public static async Task<Passport> PassportAsync(this BoccaDb db, Pupil pupil, Tuning tuning)
    {
        // What was measured on another instrument says nothing of this one.
        var open =
            await db.TuningTakeAsync(pupil.Id) is { Trace: var trace } && (trace.InstrumentId ?? pupil.InstrumentId) == pupil.InstrumentId
                ? Passport.Measured(
                    pupil.Instrument,
                    tuning,
                    trace.Notes.Where(note => note.Outcome == Core.Tone.NoteOutcome.Right).Select(note => note.HeardHz).OfType<double>()
                )
                : Passport.Unmeasured;
        return await db.MeasuredAsync(pupil) is { } measured
            ? open with
            {
                ThirdForTwoThree = measured.ThirdForTwoThree,
                ValveCents = measured.ValveCents,
                Slide = measured.Slide,
            }
            : open;
    }

    /// <summary>A pupil's instrument as it is played under an approach.</summary>
    public static async Task<PlayedInstrument> PlayedAsync(this BoccaDb db, Pupil pupil, Approach approach, Tuning tuning)
    {
        var passport = await db.PassportAsync(pupil, tuning);
        var instrument = passport.Applied(pupil.Instrument);
        var pins = await db
            .Pins.AsNoTracking()
            .Where(pin => pin.PupilId == pupil.Id && pin.InstrumentId == pupil.InstrumentId)
            .ToListAsync();
        return new PlayedInstrument(
            instrument,
            passport,
            HandOf(pupil, instrument, pins).Under(approach, pupil.Stage),
            FingeringWeights.Default.Under(approach, pupil.Stage)
        );
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
