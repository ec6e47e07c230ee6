using Bocca.Core.Instruments;
using Bocca.Core.Music;
using Bocca.Core.Score;
using Bocca.Core.Tone.Drills;
using Bocca.Core.Tone.Listening;
using Bocca.Core.Tone.Notes;
using Bocca.Web.Drawings;
using Bocca.Web.Frame.Takes;
using Bocca.Web.Record;

namespace Bocca.Web.Pages.Tone;

/// <summary>Where the pupil's very instrument lies, and since when that is known.</summary>
public sealed record MeasuredPassport(Passport Passport, DateTime At)
{
    public string Words =>
        Math.Abs(Passport.LiesCents) < 5
            ? "in tune as a whole."
            : $"{Math.Abs(Passport.LiesCents):0} cents {(Passport.LiesCents > 0 ? "sharp" : "flat")} as a whole.";
}

/// <summary>A take of notes on the stage, or what will be asked.</summary>
public sealed record ToneView(
    Pupil Pupil,
    Shown<TonePayload>? Take,
    ToneDrill Drill,
    RowPlan Plan,
    string Notes,
    string Settings,
    Entry? Open,
    MeasuredPassport? Passport
)
{
    private const int MostShown = 10;

    public required RoomClock Clock { get; init; }

    /// <summary>The take that the pupil is to guess at first; null for none.</summary>
    public GuessAsked? Guessing { get; init; }

    /// <summary>Who plays it on what, as it was asked.</summary>
    public required PlayerSituation Player { get; init; }

    /// <summary>What to do, in the approach's words.</summary>
    public string Ask { get; init; } = Drill.Ask;

    /// <summary>The words an experiment's ways had in the take on the stage.</summary>
    public string Ways => Take is null ? "" : string.Join(", ", Take.Payload.Trace.Notes.Select(note => note.Label).Distinct());

    /// <summary>The notes meant, each once, as many as are engraved.</summary>
    public IReadOnlyList<MeantNote> Shown { get; } =
    [
        .. (
            Drill.TakesNotes && Plan.Phrases is [var first, ..] ? Plan.Meant.Take(first.End) : Plan.Meant.DistinctBy(note => note.Written)
        ).Take(MostShown),
    ];

    public IReadOnlyList<Pitch> Written => [.. Shown.Select(note => note.Written)];

    public string RowXml => MusicXmlWriter.Write(new NoteRow(Player.Reading.Clef, Written));

    /// <summary>Where in the take it went otherwise first, seconds into it; null where it did not.</summary>
    public string? Place => RowDrawing.Place(Take?.Payload.Trace);

    /// <summary>What is asked, and what was heard upon it.</summary>
    public (RowDrawing Row, string Words) Drawing
    {
        get
        {
            var trace = Take?.Payload.Trace ?? RowTrace.Meant(Plan);
            var words = Take is null ? $"What is written: {string.Join(", ", Written)}." : RowDrawing.Words(trace);
            return (
                new RowDrawing(
                    trace,
                    Player.Instrument,
                    Player.Reading,
                    Take?.Entry.Tempo ?? Plan.Tempo,
                    Player.Tuning,
                    heard: Take is not null
                ),
                words
            );
        }
    }

    public double Hertz => Player.Tuning.Frequency(Shown[0].Sounding);
}
