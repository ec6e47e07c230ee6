using Bocca.Core.Pieces;
using Bocca.Core.Pieces.Lines;
using Bocca.Web.Pages.Pieces;
using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Record;

/// <summary>The invented room's own tunes, and who plays them.</summary>
public static class DemoPieces
{
    private const string Maker = "The Lantern Street Brass Room";

    /// <summary>A tune as it is typed, for the pupil who reads it so.</summary>
    private sealed record Tune(string Title, string For, int Level, string Tags, string Text);

    private static readonly Tune[] Tunes =
    [
        new(
            "Ferry Bell",
            "Tomas Oduya",
            1,
            "first tune",
            "4/4 =84 mf \"Gently rocking\" h C4 D4 | E4 D4 | q E4 E4 D4 D4 | w C4 | h E4 F4 | G4 F4 | q E4 D4 E4 D4 | w C4 |"
        ),
        new(
            "Low Tide Round",
            "Kofi Lindqvist",
            3,
            "round, slurs",
            "3/4 Bb: =96 p (q Bb2 C3 D3) | (Eb3 D3) C3 | (D3 Eb3 F3) | h F3 q r | mf (q F3 G3 F3) | (Eb3 F3) Eb3 | (D3 C3) D3 | h. Bb2 | "
                + "p (q Bb2 C3 D3) | (Eb3 D3) C3 | (D3 Eb3 F3) | h F3 q r | f F3 e F3 Eb3 D3 C3 | q D3 C3 A2 | h. Bb2@ |"
        ),
        new(
            "Lantern Parade",
            "Rafi Delacroix-Menon",
            4,
            "march, exam",
            "4/4 F: =112 mf q C4 | e F4. F4. G4 A4 q Bb4 A4 | e G4. G4. A4 Bb4 q C5 A4 | "
                + "(e Bb4 A4) G4. F4. (G4 A4) F4. D4. | h C4 q r C4 | "
                + "e F4. F4. G4 A4 q Bb4 A4 | e G4. G4. A4 Bb4 q C5 A4 | p (e Bb4 A4) G4. F4. (E4 F4) G4. E4. | h. F4 , q F4 | "
                + "f e D5 C5 Bb4 A4 q Bb4 G4 | e C5 Bb4 A4 G4 q A4 F4 | < e D4 E4 F#4 G4 A4 B4 C5 D5 | h. C5@ = q C4 | "
                + "mf e F4. F4. G4 A4 q Bb4 A4 | (e G4 F4) E4. D4. (C4 D4) E4. F4. | h. F4 |"
        ),
        new(
            "Seven Steps Down",
            "Ines Calloway",
            3,
            "slide, semitones",
            "4/4 Bb: =80 mf q F3 E3 Eb3 D3 | Db3 C3 h B2 | q F3 E3 Eb3 D3 | h Db3 q F3 r | p (q Bb3 A3) (Ab3 G3) | (F#3 F3) h F3 | "
                + "q Bb3 A3 Ab3 G3 | (F#3 G3) h Bb3 | f q F4 G4 F4 r | (D4 Bb3) (F3 Eb3) | w F3 |"
        ),
        new(
            "Harbour Pieces: Mist, Rigging, Homeward",
            "Sunniva Achterberg",
            7,
            "exam",
            "3/4 C: =66 p \"Mist\" (q E4 G4 A4 | h B4) q A4 | (q G4 E4 D4 | h. E4) , | (q E4 G4 A4 | h C5) q B4 | "
                + "< (q A4 B4 C5 | h. D5) = , | "
                + "mf (q E5 D5 C5) | (B4 C5 A4) | p (q G4 A4 F4 | h. E4) || "
                + "6/8 F: =76 f \"Rigging\" e F4. A4. C5. C5. A4. F4. | (s G4 A4 Bb4 C5) e D5. (s C5 Bb4 A4 G4) e F4. | "
                + "e E4. G4. C5. C5. Bb4. G4. | "
                + "q. A4 q F4 e r | f e F4. A4. C5. C5. A4. F4. | (s G4 A4 Bb4 C5) e D5. (s E5 D5 C5 B4) e C5. | "
                + "p e G4. Ab4. A4. Bb4. B4. C5. | q. F5 q F4 e r || "
                + "4/4 C: =92 mf \"Homeward\" q. C5 e B4 q A4 G4 | (q F4 E4) h D4 | 3{e G4 A4 B4} q C5 3{e B4 C5 D5} q E5 | h. D5 q r | "
                + "q. C5 e B4 q A4 G4 | (q F4 E4) h D4 | p e G4 F#4 F4 E4 Eb4 D4 q G4 | w C4@ |"
        ),
    ];

    /// <summary>Adds the tunes that are not there yet, and gives each to its pupil.</summary>
    public static async Task AddAsync(Journal journal)
    {
        if (await journal.Db.Pieces.IgnoreQueryFilters().AnyAsync())
            return;
        foreach (var tune in Tunes)
        {
            if (await journal.Db.Pupils.FirstOrDefaultAsync(each => each.Name == tune.For) is not { } pupil)
                continue;
            var source = PieceSource.OfText(tune.Text, tune.Title, pupil.Reading);
            var came = await journal.BringInAsync(source, source.Document.Write(), "", tune.Text);
            (came.Piece.Composer, came.Piece.Level, came.Piece.Tags) = (Maker, tune.Level, tune.Tags);
            await journal.Db.SaveChangesAsync();
            var line = LineChoice.Choose(source.Score, null);
            await journal.GiveAsync(pupil, came.Piece.Id, new PartOffer(line, FromConcert: false, 0));
        }
    }
}
