using Bocca.Core.Buzz.Measures;
using Bocca.Core.Judging;

namespace Bocca.Core.Buzz;

/// <summary>
/// What a sound may be where the pupil has no samples of their own to hold it against: airy, or tight. It is said with care, a teacher's
/// ear or the samples decide, and until then it is not passed as ready.
/// </summary>
public static class MaybeSound
{
    /// <summary>Noise of the room hides the tone's own noise unless the tone lies so far over it (dB; ours, editable).</summary>
    private const double OverRoomDb = 30;

    /// <summary>The symptom that a take may show; null where it shows none, or where it is known.</summary>
    /// <param name="take">The take.</param>
    /// <param name="bands">What is good enough.</param>
    /// <param name="pupil">Who played.</param>
    public static Symptom? Of(TakeMeasures take, StageBands bands, SoundingPupil pupil)
    {
        if (pupil.Scale is not null || pupil.Own.HarmonicToNoiseDb is not null)
            return null;
        if (take.Median(attempt => attempt.HarmonicToNoiseDb) is not { } ratio || take.Median(attempt => attempt.LevelDb) is not { } level)
            return null;
        if (bands.MaybeAiryDb > 0 && ratio < bands.MaybeAiryDb && level - take.RoomDb > OverRoomDb)
            return Unless(pupil, "airy");
        return bands.MaybeTightDb > 0 && ratio > bands.MaybeTightDb ? Unless(pupil, "pinched") : null;
    }

    /// <summary>The same as found, where the teacher has said today that it is so; null where nobody has.</summary>
    public static Finding? Confirmed(Symptom symptom, TakeMeasures take, StageBands bands, SoundingPupil pupil) =>
        pupil.Known.Any(item => item.Signal == $"yes.{symptom.Confirm!.Id}")
            ? new Finding(
                symptom,
                [.. take.Spoken.Select(attempt => attempt.Number)],
                take.Median(attempt => attempt.HarmonicToNoiseDb) ?? 0,
                symptom.Id == "airy" ? bands.MaybeAiryDb : bands.MaybeTightDb,
                "dB",
                symptom.Id == "airy" ? "There is air in the tone, your teacher says." : "It sounds tight, your teacher says."
            )
            : null;

    /// <summary>What is said of it.</summary>
    public static string Words(Symptom symptom) => symptom.Id == "airy" ? "There may be air in the tone." : "It may be tight.";

    /// <summary>What to do: the teacher's ear, then samples of one's own.</summary>
    public static NextStep Next(Symptom symptom, Place place, string drillId) =>
        new(
            place,
            drillId,
            symptom.Id == "airy" ? "Ask your teacher: is there air in it?" : "Ask your teacher: does it sound tight?",
            "Without samples of your own this is no more than likely; a teacher's ear decides."
        )
        {
            Mends = "buzz:three-samples",
        };

    /// <summary>The symptom, unless a teacher has said today that it is not so.</summary>
    private static Symptom? Unless(SoundingPupil pupil, string id) =>
        pupil.Symptoms.Get(id) is { Confirm: { } confirm } symptom && pupil.Known.All(item => item.Signal != $"no.{confirm.Id}")
            ? symptom
            : null;
}
