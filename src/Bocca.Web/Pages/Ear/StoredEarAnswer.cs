using Bocca.Core.Ear;
using Bocca.Core.Music;
using Bocca.Web.Record.Shapes;

namespace Bocca.Web.Pages.Ear;

/// <summary>A written pitch.</summary>
/// <param name="Letter">A name of <see cref="StoredNames.Letters"/>.</param>
/// <param name="Alter">Semitones up or down.</param>
/// <param name="Octave">As in scientific pitch notation.</param>
public sealed record StoredPitch(string Letter, int Alter, int Octave) : StoredShape
{
    public static StoredPitch Of(Pitch pitch) => new(StoredNames.Letters[pitch.Letter], pitch.Alter, pitch.Octave);

    public Pitch Read() => new(StoredNames.Letters.Read(Letter), Alter, Octave);
}

/// <summary>A note of an answer, as it was heard.</summary>
/// <param name="Target">What was to sound.</param>
/// <param name="Octaves">Octaves between the two.</param>
/// <param name="Outcome">A name of <see cref="StoredNames.EarOutcomes"/>.</param>
/// <param name="Sentence">What is said of it.</param>
public sealed record StoredEarHeard(StoredPitch Target, int Octaves, string Outcome, string Sentence) : StoredShape
{
    public double? HeardHz { get; init; }

    public double? Cents { get; init; }

    public double? Cm { get; init; }

    public double? SteadinessCents { get; init; }

    public double? BeginCents { get; init; }

    public double? EndCents { get; init; }

    public static StoredEarHeard Of(EarHeard note) =>
        new(StoredPitch.Of(note.Target), note.Octaves, StoredNames.EarOutcomes[note.Outcome], note.Sentence)
        {
            HeardHz = note.HeardHz,
            Cents = note.Cents,
            Cm = note.Cm,
            SteadinessCents = note.SteadinessCents,
            BeginCents = note.BeginCents,
            EndCents = note.EndCents,
        };

    public EarHeard Read() =>
        new(Target.Read(), HeardHz, Cents, Octaves, Cm, SteadinessCents, StoredNames.EarOutcomes.Read(Outcome), Sentence)
        {
            BeginCents = BeginCents,
            EndCents = EndCents,
        };
}

/// <summary>A figure as it was found.</summary>
public sealed record StoredFigure(string Name, double Value, int Count, string Item) : StoredShape
{
    public static StoredFigure Of(EarFigure figure) => new(figure.Name, figure.Value, figure.Count, figure.Item);

    public EarFigure Read() => new(Name, Value, Count, Item);
}

/// <summary>An answer of the ear as the record holds it.</summary>
/// <param name="Level">The level of the question, from 0.</param>
/// <param name="Seed">What it was drawn by.</param>
/// <param name="Line">The line it came from; empty for none.</param>
/// <param name="Answer">What would have been right.</param>
/// <param name="Tapped">What was tapped.</param>
/// <param name="Sung">What was sung.</param>
/// <param name="Played">What was played.</param>
/// <param name="NoteBeats">How long a note was, beats.</param>
/// <param name="AsideCents">How far the singer's own tuning lay aside.</param>
/// <param name="FirstSeconds">Where the first note was due.</param>
/// <param name="Midi">The pitch over time; null where nothing sounded.</param>
/// <param name="Values">The figures.</param>
/// <param name="Verdict">What was said of it.</param>
public sealed record StoredEarAnswer(
    int Level,
    int Seed,
    string Line,
    IReadOnlyList<string> Answer,
    IReadOnlyList<string> Tapped,
    IReadOnlyList<StoredEarHeard> Sung,
    IReadOnlyList<StoredEarHeard> Played,
    double NoteBeats,
    double AsideCents,
    double FirstSeconds,
    IReadOnlyList<double?> Midi,
    IReadOnlyList<StoredFigure> Values,
    StoredVerdict Verdict
) : StoredShape
{
    public static PayloadShape<EarPayload, StoredEarAnswer> Shape { get; } = new(Of, stored => stored.Read());

    private static StoredEarAnswer Of(EarPayload answer) =>
        new(
            answer.Level,
            answer.Seed,
            answer.Line,
            answer.Answer,
            answer.Tapped,
            [.. answer.Sung.Select(StoredEarHeard.Of)],
            [.. answer.Played.Select(StoredEarHeard.Of)],
            answer.NoteBeats,
            answer.AsideCents,
            answer.FirstSeconds,
            answer.Midi,
            [.. answer.Values.Select(StoredFigure.Of)],
            StoredVerdict.Of(answer.Verdict)
        );

    private EarPayload Read() =>
        new(
            Level,
            Seed,
            Line,
            Answer,
            Tapped,
            [.. Sung.Select(each => each.Read())],
            [.. Played.Select(each => each.Read())],
            NoteBeats,
            AsideCents,
            FirstSeconds,
            Midi,
            [.. Values.Select(each => each.Read())],
            Verdict.Read()
        );
}
