using Bocca.Core.Fingering.Class;

namespace Bocca.Core.Slurs;

/// <summary>A player of a mixed class with every slur the player has.</summary>
public sealed class SlurMember
{
    private readonly List<Slur> _slurs;
    private readonly ILookup<string, Slur> _byMelody;

    /// <summary>Writes the player's slurs, once for all that is asked of them.</summary>
    /// <param name="member">The player.</param>
    /// <param name="player">The same as slurs see one.</param>
    public SlurMember(ClassMember member, SlurPlayer player)
    {
        (Member, Player) = (member, player);
        _slurs = [.. SlurWriter.All(player)];
        _byMelody = _slurs.ToLookup(slur => slur.Melody);
    }

    /// <summary>The player.</summary>
    public ClassMember Member { get; }

    /// <summary>The same as slurs see one.</summary>
    public SlurPlayer Player { get; }

    /// <summary>The player's slurs of a shape, in the order of the tubes.</summary>
    public IEnumerable<Slur> Of(SlurShape shape) => _slurs.Where(slur => slur.Shape.Id == shape.Id);

    /// <summary>The player's slurs with the concert notes of another, octaves apart or together.</summary>
    public IEnumerable<Slur> Sharing(Slur model) => _byMelody[model.Melody];
}
