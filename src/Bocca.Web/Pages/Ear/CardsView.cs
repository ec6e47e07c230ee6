using Bocca.Core.Counting;
using Bocca.Core.Music;
using Bocca.Core.Teaching;
using Bocca.Web.Drawings;
using Bocca.Web.Record;

namespace Bocca.Web.Pages.Ear;

/// <summary>Cards on the stage, and what came of them once they were done.</summary>
public sealed record CardsView(
    Pupil Pupil,
    Reading Reading,
    CountDrill Drill,
    CountAsked Asked,
    TimeNames Names,
    double ToleranceMs,
    string CountsShown,
    Shown<CountPayload>? Take
)
{
    /// <summary>Whether the card may be seen: read, or done already.</summary>
    public bool Shows => Take is not null || !Drill.ByEar;

    /// <summary>The cards as one text.</summary>
    public string Cards => string.Join("; ", Asked.Cards.Select(card => card.Text));

    /// <summary>A card engraved, with what is counted under it as far as it is shown.</summary>
    public string ScoreXml(RhythmCard card)
    {
        var counts = Counts.Of(card, Names);
        var onBeat = card.Onsets.Select(at => (at / card.Metre.Beat).IsWhole).ToList();
        return CardScore.Write(
            card,
            CountsShown switch
            {
                "none" => [],
                "beats" => [.. counts.Select((count, i) => onBeat[i] ? count : " ")],
                _ => counts,
            },
            Reading.Clef
        );
    }

    /// <summary>The grid of a card, with its tracks where there are any.</summary>
    public GridDrawing Grid(int card) =>
        new(Asked.Cards[card], Asked.QuarterSeconds, ToleranceMs, Take?.Payload.Cards.ElementAtOrDefault(card));

    /// <summary>A dotted value to be asked of: its name, and how many half-beats it has; null where no card has one.</summary>
    public (string Name, int Halves)? HalfQuestion
    {
        get
        {
            foreach (var note in Asked.Cards.SelectMany(card => card.Notes).Where(note => note is { IsRest: false, InTriplet: false }))
                if (note.Token is "q." or "h.")
                    return (note.Token == "q." ? "dotted quarter" : "dotted half", (int)Counts.Halves(note.Length).Floor);
            return null;
        }
    }
}
