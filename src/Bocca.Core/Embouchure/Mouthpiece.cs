namespace Bocca.Core.Embouchure;

/// <summary>A kind of mouthpiece, as far as a picture needs it (<c>mouthpieces.json</c>).</summary>
/// <param name="Family">The instruments that take it.</param>
/// <param name="RimMm">Outer diameter of its rim, mm; a ruler across one's own is better.</param>
/// <param name="Basis">Where that comes from.</param>
public sealed record Mouthpiece(string Family, double RimMm, string Basis)
{
    private static readonly Lazy<IReadOnlyList<Mouthpiece>> Shipped = new(() => EmbeddedData.Read<List<Mouthpiece>>("mouthpieces.json"));

    /// <summary>The usual one of a family.</summary>
    public static Mouthpiece Of(string family) => Shipped.Value.First(mouthpiece => mouthpiece.Family == family);
}
