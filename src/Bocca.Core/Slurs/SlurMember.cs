using Bocca.Core.Fingering.Class;

namespace Bocca.Core.Slurs;

/// <summary>A player of a mixed class with every slur the player has.</summary>
/// <param name="member">The player.</param>
/// <param name="player">The same as slurs see one.</param>
public sealed class SlurMember(ClassMember member, SlurPlayer player)
{
    private readonly ILookup<string, Slur> _byMelody = SlurWriter.All(player).ToLookup(slur => slur.Melody);

    /// <summary>The player.</summary>
    public ClassMember Member => member;

    /// <summary>The same as slurs see one.</summary>
    public SlurPlayer Player => player;

    /// <summary>The player's slurs of a shape.</summary>
    public IEnumerable<Slur> Of(SlurShape shape) => _byMelody.SelectMany(slurs => slurs).Where(slur => slur.Shape.Id == shape.Id);

    /// <summary>The player's slurs with the concert notes of another, octaves apart or together.</summary>
    public IEnumerable<Slur> Sharing(Slur model) => _byMelody[model.Melody];
}
