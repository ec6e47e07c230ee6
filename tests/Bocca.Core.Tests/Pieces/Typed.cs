using Bocca.Core.Instruments;
using Bocca.Core.Pieces;
using Bocca.Core.Pieces.Lines;

namespace Bocca.Core.Tests.Pieces;

/// <summary>Lines for tests, typed.</summary>
internal static class Typed
{
    public static PieceLine Line(string text, string instrument = "trumpet-bb", double? tempo = null, string? reading = null)
    {
        var read = Catalogue.Get(instrument).ReadingOf(reading);
        var source = PieceSource.OfText(text, "Test", read);
        return PieceLine.Of(source.Score, LineChoice.Choose(source.Score, null), read, tempo);
    }
}
