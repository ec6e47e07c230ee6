using Bocca.Core.Slurs;
using Bocca.Core.Teaching;
using Bocca.Core.Tone.Drills;
using Bocca.Core.Tone.Notes;
using Bocca.Web.Record.Requests;
using Bocca.Web.Record.Shapes;

namespace Bocca.Web.Pages.Slurs;

/// <summary>A slur as it was asked, once through.</summary>
/// <param name="Shape">The way it goes, by its id.</param>
/// <param name="Name">What that way is called.</param>
/// <param name="Notes">Its notes; their labels are the vowels.</param>
public sealed record StoredSlur(string Shape, string Name, IReadOnlyList<StoredNote> Notes) : StoredShape
{
    /// <summary>Whether it goes by semitones instead of along one tube; null for no.</summary>
    public bool? Neighbours { get; init; }

    public static StoredSlur Of(Slur slur) =>
        new(slur.Shape.Id, slur.Shape.Name, [.. slur.Notes.Select((note, i) => Of(slur, note, i))])
        {
            Neighbours = slur.Shape.Neighbours ? true : null,
        };

    private static StoredNote Of(Slur slur, SlurNote note, int at) =>
        new(
            $"{note.Written}",
            $"{note.Sounding}",
            $"{note.Tube.Setting}",
            note.Partial,
            slur.Notes.Take(at).Sum(before => before.Beats),
            note.Beats
        )
        {
            Label = note.Vowel == "" ? null : note.Vowel,
        };

    /// <summary>The slur on an instrument.</summary>
    /// <exception cref="InvalidDataException">It has fewer than two notes, or one that the instrument has not.</exception>
    public Slur Read(Core.Instruments.Instrument instrument)
    {
        if (Notes.Count is < 2 or > SlurShape.MostOwnNotes)
            throw new InvalidDataException($"{Notes.Count} notes are no slur.");
        SlurNote Note(AskedNote note) =>
            new(note.Meant.Tube, note.Meant.Partial, note.Meant.Sounding, note.Meant.Written, note.Beats, note.Label);
        List<SlurNote> notes = [.. Notes.Select(note => Note(note.Read(instrument)))];
        int Height(SlurNote note) => Neighbours == true ? note.Sounding.Midi : note.Partial;
        List<int> steps = [.. notes.Select(note => Height(note) - Height(notes[0]))];
        List<double> lengths = [.. notes.Select(note => note.Beats)];
        var shape = new SlurShape(Shape, Name, steps, lengths[0], lengths[^1], "", Neighbours ?? false) { Lengths = lengths };
        return new Slur(shape, notes);
    }
}

/// <summary>What a take of a slur was asked to be.</summary>
/// <param name="Slur">The slur.</param>
/// <param name="Tempo">Beats a minute.</param>
/// <param name="Times">How often it is played.</param>
/// <param name="On">What it is played on.</param>
/// <param name="Stage">How far the pupil had come: the name of the stage.</param>
/// <param name="Approach">The teacher's approach, as it is stored.</param>
public sealed record SlurRequest(StoredSlur Slur, double Tempo, int Times, StoredInstrument On, string Stage, string Approach)
    : AskedUnder(On, Stage, Approach)
{
    public static RequestKind<SlurRequest> Kind { get; } = new("slur") { Resolve = asked => _ = asked.Asked(asked.On.Read()).Plan.Cues };

    /// <summary>A slur as it is asked now.</summary>
    public static SlurRequest Of(AskedSlur asked, TakeTerms terms) =>
        new(StoredSlur.Of(asked.Slur), asked.Tempo, asked.Times, StoredInstrument.Of(asked.Player), terms.StageName, terms.ApproachText)
        {
            Own = terms.OwnText,
        };

    /// <summary>The same as the core hears it.</summary>
    /// <param name="player">Who plays it, on the instrument of the request.</param>
    /// <exception cref="InvalidDataException">It is no slur that can be played.</exception>
    public AskedSlur Asked(PlayerSituation player)
    {
        var (slowest, fastest) = CuePlan.TempoRange;
        if (!(Tempo >= slowest && Tempo <= fastest && Times is >= 1 and <= AskedSlur.MostTimes))
            throw new InvalidDataException($"{Times} times at {Tempo} is no take of a slur.");
        var stage = ReadStage();
        return new AskedSlur(Slur.Read(player.Instrument), Tempo, Times, player, stage)
        {
            Bands = SlurBandTable.Shipped.With(ReadOwn()).For(stage),
        };
    }
}
