using Bocca.Web.Frame;

namespace Bocca.Web.Pages.Pieces;

/// <summary>The Pieces stop: the library, and what a piece asks before it is played.</summary>
public static class PiecesStop
{
    public static Stop Stop { get; } =
        new()
        {
            Key = '9',
            Path = "pieces",
            Name = "Pieces",
            Promise = "A piece read, fingered, breathed and studied before it is played.",
            Styles = ["pieces"],
            KeyPlaces = ["piece"],
        };
}
