using Bocca.Core.Music;

namespace Bocca.Core.Instruments;

/// <summary>The instruments that Bocca knows, read once from <c>catalogue.json</c>.</summary>
public static class Catalogue
{
    private static readonly Lazy<IReadOnlyList<Instrument>> Loaded = new(() => Read(EmbeddedData.Text("catalogue.json")));

    /// <summary>All instruments, in the order of the catalogue.</summary>
    public static IReadOnlyList<Instrument> All => Loaded.Value;

    /// <summary>The instrument with this id.</summary>
    /// <exception cref="ArgumentException">There is none; the message names those there are.</exception>
    public static Instrument Get(string id) =>
        TryGet(id)
        ?? throw new ArgumentException(
            $"'{id}' is not an instrument Bocca knows; it knows {string.Join(", ", All.Select(known => known.Id))}."
        );

    /// <summary>The instrument with this id, or null.</summary>
    public static Instrument? TryGet(string? id) => All.FirstOrDefault(instrument => instrument.Id == id);

    /// <summary>Reads a catalogue: a JSON array of instruments in the form of the one that ships.</summary>
    /// <exception cref="InvalidDataException">An entry makes no instrument; the message names it.</exception>
    public static IReadOnlyList<Instrument> Read(string json)
    {
        var entries = EmbeddedData.Parse<List<Entry>>(json);
        var instruments = entries.ConvertAll(entry => Build(entry).WithTubes());
        var twice = instruments.GroupBy(instrument => instrument.Id).FirstOrDefault(group => group.Count() > 1);
        return twice is null ? instruments : throw new InvalidDataException($"The catalogue names '{twice.Key}' twice.");
    }

    private static Instrument Build(Entry entry)
    {
        try
        {
            var readings = entry.Readings.ConvertAll(reading => new Reading(
                reading.Id,
                reading.Clef switch
                {
                    "treble" => Clef.Treble,
                    "bass" => Clef.Bass,
                    "tenor" => Clef.Tenor,
                    _ => throw new FormatException($"'{reading.Clef}' is not a clef."),
                },
                new Interval(reading.Steps, reading.Semitones)
            ));
            if ((entry.Valves.Count == 0) == (entry.Slide is null))
                throw new FormatException("it needs either valves or a slide.");
            Pitch Sounding(string written) => readings[0].ToSounding(Pitch.Parse(written));
            return new Instrument
            {
                Id = entry.Id,
                Name = entry.Name,
                Family = entry.Family,
                Basis = entry.Basis,
                PartialOne = Pitch.Parse(entry.PartialOne),
                Valves =
                [
                    .. entry.Valves.Select((semitones, index) => new Valve(index + 1, semitones, ShareOf(entry, index + 1, semitones))),
                ],
                Compensation = Enum.Parse<Compensation>(entry.Compensation, ignoreCase: true),
                MovableSlides =
                [
                    .. entry
                        .Movable.Select(slide => new MovableSlide(int.Parse(slide.Key), slide.Value))
                        .OrderByDescending(slide => slide.Valve),
                ],
                HandInBell = entry.HandInBell,
                Slide = entry.Slide is { } slide ? new Slide(slide.TubeMetres, slide.TravelCm) : null,
                Triggers = [.. entry.Triggers.Select(trigger => new Trigger(trigger.Key, trigger.Value))],
                ThumbSide = entry.ThumbSide is { } side
                    ? new ThumbSide(side.RaisesSemitones, Sounding(side.From), Costs(side.PartialCosts))
                    : null,
                Readings = readings,
                Range = (Sounding(entry.Range[0]), Sounding(entry.Range[1])),
                FirstNotes = [.. entry.FirstNotes.Select(Sounding)],
                PartialCosts = Costs(entry.PartialCosts),
            };
        }
        catch (Exception problem)
            when (problem is FormatException or ArgumentException or NullReferenceException or InvalidOperationException)
        {
            throw new InvalidDataException($"Instrument '{entry.Id}' in the catalogue: {problem.Message}", problem);
        }
    }

    private static Dictionary<int, double> Costs(Dictionary<string, double>? costs) =>
        costs?.ToDictionary(cost => int.Parse(cost.Key), cost => cost.Value) ?? [];

    private static double ShareOf(Entry entry, int valve, int semitones) =>
        valve == 3 && entry.ThirdTunedForTwoThree ? Tubing.ThirdForTwoThreeShare(semitones) : Tubing.AddedShare(semitones);

    private sealed record Entry
    {
        public string Id { get; init; } = "";

        public string Name { get; init; } = "";

        public string Family { get; init; } = "";

        public string Basis { get; init; } = "";

        public string PartialOne { get; init; } = "";

        public List<int> Valves { get; init; } = [];

        public bool ThirdTunedForTwoThree { get; init; }

        public string Compensation { get; init; } = "none";

        public Dictionary<string, double> Movable { get; init; } = [];

        public bool HandInBell { get; init; }

        public SlideEntry? Slide { get; init; }

        public Dictionary<string, int> Triggers { get; init; } = [];

        public ThumbEntry? ThumbSide { get; init; }

        public List<ReadingEntry> Readings { get; init; } = [];

        public List<string> Range { get; init; } = [];

        public List<string> FirstNotes { get; init; } = [];

        public Dictionary<string, double> PartialCosts { get; init; } = [];
    }

    private sealed record SlideEntry(double TubeMetres, double TravelCm);

    private sealed record ThumbEntry(int RaisesSemitones, string From, Dictionary<string, double>? PartialCosts);

    private sealed record ReadingEntry(string Id, string Clef, int Steps, int Semitones);
}
