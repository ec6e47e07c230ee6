using Bocca.Core.Fingering;
using Bocca.Core.Fingering.Class;

namespace Bocca.Core.Slurs;

/// <summary>A player of a mixed class with every slur along one tube that the player has.</summary>
public sealed class SlurMember
{
    private readonly ILookup<string, Slur> _byMelody;
    private readonly ILookup<string, Slur> _byShape;

    private SlurMember(ClassMember member, SlurPlayer player, (ILookup<string, Slur> ByMelody, ILookup<string, Slur> ByShape) slurs)
    {
        (Member, Player) = (member, player);
        (_byMelody, _byShape) = slurs;
    }

    /// <summary>The player.</summary>
    public ClassMember Member { get; }

    /// <summary>The same as slurs see one.</summary>
    public SlurPlayer Player { get; }

    /// <summary>The members of a class, in their order. Slurs are written once for all who are alike to slurs.</summary>
    /// <param name="players">The players, and how slurs see them.</param>
    public static IReadOnlyList<SlurMember> Of(IEnumerable<(ClassMember Member, SlurPlayer Player)> players)
    {
        var written = new Dictionary<SlurPlayer, (ILookup<string, Slur>, ILookup<string, Slur>)>();
        return
        [
            .. players.Select(each =>
            {
                // What a teacher pinned to a note, and the order of first notes, choose among tubes: a slur along one asks for neither.
                var alike = each.Player with
                {
                    Hand = each.Player.Hand with { Pins = Hand.Free.Pins, FirstNotes = null },
                };
                if (!written.TryGetValue(alike, out var slurs))
                {
                    var all = SlurWriter.AllAlongTubes(alike).ToList();
                    slurs = written[alike] = (all.ToLookup(slur => slur.Melody), all.ToLookup(slur => slur.Shape.Id));
                }

                return new SlurMember(each.Member, each.Player, slurs);
            }),
        ];
    }

    /// <summary>The player's slurs of a shape, in the order of the tubes.</summary>
    public IEnumerable<Slur> Of(SlurShape shape) => _byShape[shape.Id];

    /// <summary>Whether the player has a slur of this melody.</summary>
    internal bool Plays(string melody) => _byMelody.Contains(melody);

    /// <summary>The player's slurs with the concert notes of another, octaves apart or together.</summary>
    public IEnumerable<Slur> Sharing(Slur model) => _byMelody[model.Melody];
}
