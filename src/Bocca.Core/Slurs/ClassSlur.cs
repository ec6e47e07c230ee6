using Bocca.Core.Fingering.Class;
using Bocca.Core.Instruments;
using Bocca.Core.Teaching;

namespace Bocca.Core.Slurs;

/// <summary>One slur at concert pitch, as one player of a mixed class has it.</summary>
/// <param name="Member">The player.</param>
/// <param name="Slur">The slur on the player's own tube; null where no tube of theirs has all its notes.</param>
/// <param name="Instead">A slur of the same shape on the nearest tube of theirs, where there is none; else null.</param>
/// <param name="WhyNot">Why there is none; null where there is.</param>
public sealed record ClassSlur(ClassMember Member, Slur? Slur, Slur? Instead, string? WhyNot)
{
    /// <summary>Beats a minute of slurs for a class: slow enough to hear each change (ours, editable).</summary>
    public const double Tempo = 72;

    /// <summary>The instrument whose open tube gives the concert notes: B flat, as most beginners' tubes are (common practice).</summary>
    private const string ModelInstrument = "trumpet-bb";

    /// <summary>Where most begin: up and back from the third partial (common practice).</summary>
    private const string UsualShape = "pair";
    private const int UsualPartial = 3;

    /// <summary>
    /// The slur that a class is offered until another is chosen: one that most of it can share; of those the usual one first, then the
    /// shapes in their order, from the lowest partial up.
    /// </summary>
    /// <param name="members">The class.</param>
    /// <param name="approach">The room's approach.</param>
    public static Slur Offered(IReadOnlyList<SlurMember> members, Approach approach)
    {
        var usual = Concert(UsualShape, UsualPartial, approach);
        return SlurShape
            .AlongTube.SelectMany(shape => SlurWriter.OnTube(Model(approach), shape, Catalogue.Get(ModelInstrument).Tubes[0]))
            .Prepend(usual)
            .MaxBy(slur => SharedBy(slur.Melody))!;

        int SharedBy(string melody) => members.Count(member => member.Plays(melody));
    }

    private static SlurPlayer Model(Approach approach)
    {
        var instrument = Catalogue.Get(ModelInstrument);
        return SlurPlayer.Of(instrument, instrument.Readings[0], LearningStage.Pieces, approach);
    }

    /// <summary>The slur whose concert notes a class plays, on an open tube in B flat.</summary>
    /// <param name="shape">Its shape by id.</param>
    /// <param name="firstPartial">The partial it goes from.</param>
    /// <param name="approach">The room's approach.</param>
    /// <exception cref="ArgumentException">There is no such shape, or it does not go from there; the message says why.</exception>
    public static Slur Concert(string shape, int firstPartial, Approach approach)
    {
        var player = Model(approach);
        var asked = SlurShape.Get(shape);
        return SlurWriter.OnTube(player, asked, player.Instrument.Tubes[0]).FirstOrDefault(slur => slur.Notes[0].Partial == firstPartial)
            ?? throw new ArgumentException(
                $"{asked.Name} does not go from partial {firstPartial}: {SlurWriter.Sheet(player, asked, firstPartial).StoppedBecause}"
            );
    }

    /// <summary>A concert slur for a player: on one tube, in the octave that lies best; else the same shape where it goes.</summary>
    /// <param name="member">The player.</param>
    /// <param name="model">The slur whose concert pitches everybody plays.</param>
    public static ClassSlur Of(SlurMember member, Slur model)
    {
        var instrument = member.Player.Instrument;
        var start = StartNotes.Of(instrument);
        var home = (start.ConcertBb.Midi + start.ConcertF.Midi) / 2.0;
        double Away(Slur slur) => Math.Abs(slur.Notes.Average(note => note.Sounding.Midi) - home);
        if (member.Sharing(model).OrderBy(Away).ThenBy(slur => slur.Notes[0].Tube.Semitones).FirstOrDefault() is { } same)
            return new ClassSlur(member.Member, same with { Shape = model.Shape }, null, null);
        var instead = member
            .Of(model.Shape)
            .OrderBy(slur => Math.Abs(((slur.Notes[0].Sounding.Midi - model.Notes[0].Sounding.Midi) % 12 + 18) % 12 - 6))
            .ThenBy(Away)
            .FirstOrDefault();
        var names = string.Join(" ", model.Notes.Select(note => note.Sounding.ToString()[..^1]).Distinct());
        return new ClassSlur(
            member.Member,
            null,
            instead,
            $"No one setting of the {instrument.Name} has concert {names} inside the range."
        );
    }
}
