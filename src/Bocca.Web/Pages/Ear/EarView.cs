using System.Text;
using Bocca.Core.Ear;
using Bocca.Core.Music;
using Bocca.Core.Score;
using Bocca.Core.Teaching;
using Bocca.Core.Tone.Listening;
using Bocca.Core.Tone.Notes;
using Bocca.Web.Drawings;
using Bocca.Web.Frame;
using Bocca.Web.Record;

namespace Bocca.Web.Pages.Ear;

/// <summary>A question on the stage, and its answer once there is one.</summary>
public sealed record EarView(
    Pupil Pupil,
    EarQuestion Question,
    EarPlayer Player,
    PlayerSituation Situation,
    Tuning Tuning,
    Shown<EarPayload>? Take
)
{
    /// <summary>What sounds before, in hertz and beats.</summary>
    public IReadOnlyList<ModelNote> Heard { get; init; } = [];

    /// <summary>By how many octaves the model is moved for the voice; null where no octave lies within its reach.</summary>
    public int? Octaves { get; init; } = 0;

    /// <summary>The same in words; empty for where it is written.</summary>
    public string OctaveWords =>
        Octaves switch
        {
            0 => "",
            null => " It lies beyond the voice: any octave will do.",
            { } by => $" It sounds {(Math.Abs(by) == 1 ? "an octave" : $"{Math.Abs(by)} octaves")} {(by > 0 ? "higher" : "lower")}.",
        };

    /// <summary>The pitch of a siren as a line on the picture; empty before.</summary>
    public string SirenPath
    {
        get
        {
            var path = new StringBuilder();
            var pen = false;
            foreach (var (i, midi) in (Take?.Payload.Midi ?? []).Index())
            {
                if (midi is { } height)
                {
                    var x = SirenX((i * RowTrace.StepSeconds) - Take!.Payload.FirstSeconds);
                    path.Append($"{(pen ? "L" : "M")}{x:0.#} {SirenY(height):0.#} ");
                }

                pen = midi is not null;
            }

            return path.ToString();
        }
    }

    /// <summary>The ends of the picture of a siren, MIDI numbers.</summary>
    public const double SirenLow = 45,
        SirenHigh = 88;

    private double SirenX(double seconds) => 96 + (Math.Clamp(seconds / (EarQuestion.SirenBeats * 60 / Question.Drill.Tempo), 0, 1) * 612);

    private static double SirenY(double midi) => 420 - (Math.Clamp((midi - SirenLow) / (SirenHigh - SirenLow), 0, 1) * 400);

    /// <summary>How the approach has it sung.</summary>
    public Singing Sings { get; init; }

    /// <summary>Whether it is answered by a tap alone.</summary>
    public bool TapOnly => Question.TapOnly;

    /// <summary>Whether its notes may be seen: read, or answered already.</summary>
    public bool Shows => Question.IsRead || Take is not null;

    /// <summary>The notes that are read, as music; null where nothing is read.</summary>
    public string? ScoreXml => !Shows || Notes.Count == 0 ? null : MusicXmlWriter.Write(new NoteRow(Player.Reading, Notes));

    private IReadOnlyList<Pitch> Notes => Question.Sung.Count > 0 ? Question.Sung : Question.Played;

    /// <summary>What is sung and played on one drawing; null where nothing is.</summary>
    public (RowDrawing Row, string Words)? Drawing
    {
        get
        {
            if (TapOnly || Question.Drill.Kind == EarKind.Siren)
                return null;
            var trace = EarTrace.Of(Question, Situation, Take?.Payload);
            var words = Take is null ? "What is to be sung and played." : string.Join(' ', trace.Notes.Select(note => note.Sentence));
            return (
                new RowDrawing(trace, Player.Instrument, Player.Reading, Question.Drill.Tempo, Tuning, heard: false, named: Shows),
                words
            );
        }
    }

    /// <summary>Position or combination of each note played: shown only once it was.</summary>
    public IReadOnlyList<string> Settings =>
        Take is null || Question.Played.Count == 0
            ? []
            : [.. Question.Played.Distinct().Select(note => $"{Wording.Pitch(note)} {Meant(note).Setting.Spoken}")];

    private MeantNote Meant(Pitch note) => MeantNote.Of(Player.Instrument, Player.Reading, note, Situation.Weights, Situation.Hand);

    /// <summary>What the page plays, as text: hertz, start and length of each note in beats, accents marked.</summary>
    public string Model =>
        string.Join(
            ' ',
            Heard.Select(
                (note, i) => $"{note.Hertz:0.##}:{note.StartBeat:0.###}:{note.Beats:0.###}{(Question.Accents.Contains(i) ? ":1" : "")}"
            )
        );
}
