using Bocca.Core.Ear;
using Bocca.Core.Music;
using Bocca.Core.Sound;
using Bocca.Core.Tone.Notes;

namespace Bocca.Core.Simulation;

/// <summary>How a stand-in sings and plays what it has heard.</summary>
/// <param name="Id">Its name in requests.</param>
/// <param name="Name">Its name for people.</param>
public sealed record EarCharacter(string Id, string Name)
{
    /// <summary>Cents that all of its singing lies off, and octaves.</summary>
    public double SungCents { get; init; }

    /// <inheritdoc cref="SungCents"/>
    public int SungOctaves { get; init; }

    /// <summary>Which sung note, from 0, is another, and by how many semitones.</summary>
    public (int Note, int Semitones) SungOther { get; init; }

    /// <summary>Whether its voice glides up to each note.</summary>
    public bool Glides { get; init; }

    /// <summary>How its playing misses.</summary>
    public IReadOnlyList<RowMiss> Misses { get; init; } = [];

    /// <summary>All of them, the right one first.</summary>
    public static IReadOnlyList<EarCharacter> All { get; } =
    [
        new("right", "sings and plays it right"),
        new("flat", "sings 60 cents flat, plays right") { SungCents = -60 },
        new("octave", "sings an octave above") { SungOctaves = 1 },
        new("glides", "glides up to each note") { Glides = true },
        new("other", "sings the second note a tone high") { SungOther = (1, 2) },
        new("played-high", "sings right, plays 60 cents sharp") { Misses = [RowMiss.Parse("cents=60")] },
        new("partial", "plays the first note one partial high") { Misses = [RowMiss.Parse("partial=1@1")] },
    ];

    /// <summary>The one of this name.</summary>
    /// <exception cref="ArgumentException">There is none.</exception>
    public static EarCharacter Get(string id) =>
        All.FirstOrDefault(each => each.Id == id) ?? throw new ArgumentException($"The practice player does not know '{id}'.");

    /// <summary>Sings and plays a question, from its first beat on.</summary>
    /// <param name="question">The question.</param>
    /// <param name="player">Whose instrument and reading it is.</param>
    /// <param name="situation">The same for notes.</param>
    /// <param name="seed">The same seed makes the same sound.</param>
    public MonoSound Answer(EarQuestion question, EarPlayer player, PlayerSituation situation, int seed)
    {
        var (rate, beat) = (SimulatedPlayer.SampleRate, 60 / question.Drill.Tempo);
        var samples = new float[(int)(((question.Cues.TotalBeats * beat) + 0.5) * rate)];
        var random = new Random(seed);
        for (var i = 0; i < samples.Length; i++)
            samples[i] = (float)(0.0005 * ((2 * random.NextDouble()) - 1));
        if (question.Drill.Kind == EarKind.Siren)
            Mix(samples, 0, Siren(rate, random));
        if (question.Sung.Count > 0)
            Mix(
                samples,
                0,
                SungVoice.Sing([.. question.Sung.Select((note, i) => Tone(note, i, question, player, situation.Tuning))], rate, random)
            );
        if (question.Played.Count > 0)
        {
            var meant = question
                .Played.Select(note => MeantNote.Of(player.Instrument, player.Reading, note, situation.Weights, situation.Hand))
                .ToList();
            var row = PlayedNote
                .Row(meant, situation, question.NoteBeats, 0.9, Misses)
                .Select(note => note with { Hertz = note.Hertz * Math.Pow(2, question.AsideCents / 1200) })
                .ToList();
            var played = SimulatedPlayer.PlayRow(player.Instrument, row, question.Drill.Tempo, [], seed).Sound;
            Mix(samples, question.PlayedFrom * beat, played.Samples[(int)(beat * rate)..]);
        }

        return new MonoSound(samples, rate);

        void Mix(float[] into, double at, float[] from)
        {
            for (var (i, place) = (0, (int)(at * rate)); i < from.Length && place < into.Length; i++, place++)
                into[place] += 0.6f * from[i];
        }
    }

    /// <summary>Up from 220 to 523 Hz, and down again: a child's easy slide.</summary>
    private static float[] Siren(int rate, Random random) =>
        SungVoice.Sing(
            [
                new SungTone(523, 4, SungVoice.Vowels[2]) { FromCents = -1500, GlideSeconds = 3.6 },
                new SungTone(220, 4, SungVoice.Vowels[2]) { FromCents = 1500, GlideSeconds = 3.6 },
            ],
            rate,
            random
        );

    private SungTone Tone(Pitch note, int at, EarQuestion question, EarPlayer player, Tuning tuning)
    {
        // The octave in which children sing.
        const double LowestHz = 180;
        var seconds = question.SungLength(at) * 60 / question.Drill.Tempo;
        var gap = Math.Min(0.12, seconds / 3);
        var hertz = tuning.Frequency(player.Reading.ToSounding(note));
        while (hertz < LowestHz)
            hertz *= 2;
        var semitones = (at == SungOther.Note && SungOther.Semitones != 0 ? SungOther.Semitones : 0) + (12 * SungOctaves);
        return new SungTone(
            hertz * Math.Pow(2, (semitones / 12.0) + (SungCents / 1200)),
            seconds - gap,
            SungVoice.Vowels[at % SungVoice.Vowels.Count]
        )
        {
            RestSeconds = gap,
            FromCents = Glides ? -250 : 0,
        };
    }
}
