using Bocca.Core.Fingering.Class;
using Bocca.Core.Instruments;

namespace Bocca.Core.Slurs;

/// <summary>One slur at concert pitch, as one player of a mixed class has it.</summary>
/// <param name="Member">The player.</param>
/// <param name="Slur">The slur on the player's own tube; null where no tube of theirs has all its notes.</param>
/// <param name="Instead">A slur of the same shape on the nearest tube of theirs, where there is none; else null.</param>
/// <param name="WhyNot">Why there is none; null where there is.</param>
public sealed record ClassSlur(ClassMember Member, Slur? Slur, Slur? Instead, string? WhyNot)
{
    /// <summary>A concert slur for a player: on one tube, in the octave that lies best; else the same shape where it goes.</summary>
    /// <param name="member">The player.</param>
    /// <param name="player">The same as slurs see one.</param>
    /// <param name="model">The slur whose concert pitches everybody plays.</param>
    public static ClassSlur Of(ClassMember member, SlurPlayer player, Slur model)
    {
        var start = StartNotes.Of(member.Instrument);
        var home = (start.ConcertBb.Midi + start.ConcertF.Midi) / 2.0;
        var away = model.Notes.Select(note => note.Sounding.Midi).ToList();
        var own = SlurWriter
            .All(player)
            .Where(slur => slur.Shape.Neighbours == model.Shape.Neighbours && slur.Notes.Count == away.Count)
            .ToList();
        var same = own.Where(slur =>
                slur.Notes.Select((note, i) => note.Sounding.Midi - away[i]).Distinct().ToList() is [var apart] && apart % 12 == 0
            )
            .OrderBy(slur => Math.Abs(slur.Notes.Average(note => note.Sounding.Midi) - home))
            .ThenBy(slur => slur.Notes[0].Tube.Semitones)
            .FirstOrDefault();
        if (same is not null)
            return new ClassSlur(member, same with { Shape = model.Shape }, null, null);
        var instead = own.Where(slur => slur.Shape.Id == model.Shape.Id)
            .OrderBy(slur => Math.Abs(((slur.Notes[0].Sounding.Midi - away[0]) % 12 + 18) % 12 - 6))
            .ThenBy(slur => Math.Abs(slur.Notes.Average(note => note.Sounding.Midi) - home))
            .FirstOrDefault();
        var names = string.Join(" ", model.Notes.Select(note => note.Sounding.ToString()[..^1]).Distinct());
        return new ClassSlur(member, null, instead, $"No one tube of the {member.Instrument.Name} has concert {names} inside the range.");
    }
}
