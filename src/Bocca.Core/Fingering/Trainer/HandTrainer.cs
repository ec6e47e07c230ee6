using Bocca.Core.Instruments;
using Bocca.Core.Music;

namespace Bocca.Core.Fingering.Trainer;

/// <summary>Whose hand is trained, on what.</summary>
/// <param name="Instrument">The instrument.</param>
/// <param name="Reading">How its player reads.</param>
/// <param name="Notes">The written notes in question, in the order they were learnt.</param>
/// <param name="Tuning">The reference A of the room.</param>
public sealed record TrainedHand(Instrument Instrument, Reading Reading, IReadOnlyList<Pitch> Notes, Tuning Tuning)
{
    /// <summary>What the hand can do.</summary>
    public Hand Hand { get; init; } = Hand.Free;

    /// <summary>What ranks fingerings.</summary>
    public FingeringWeights Weights { get; init; } = FingeringWeights.Default;

    /// <summary>What was answered before, any order.</summary>
    public IReadOnlyList<HandMark> Marks { get; init; } = [];

    /// <summary>Notes that are due to be recalled.</summary>
    public IReadOnlySet<string> Due { get; init; } = new HashSet<string>();
}

/// <summary>Lays out silent drills: what was slow or missed comes more often, and what is due to be recalled.</summary>
public static class HandTrainer
{
    /// <summary>The partial that sounds while a slide is found by ear: in the middle of a beginner's range (ours).</summary>
    public const int SlidePartial = 3;

    /// <summary>
    /// How much more often something comes: for being missed, for being slow, for being due, for being new (ours, editable).
    /// </summary>
    private const double Missed = 4,
        Slow = 1.5,
        IsDue = 3,
        New = 1,
        MostSlow = 3;

    /// <summary>
    /// The settings of the hand in order, a semitone each from the open tube down: seven combinations, or the positions it reaches.
    /// </summary>
    public static IReadOnlyList<Setting> Order(Instrument instrument, Hand hand)
    {
        if (instrument.Slide is not null)
            return
            [
                .. instrument
                    .Tubes.Where(tube => tube.Setting.Attachment == "" && hand.Bars(tube, null) is null)
                    .Select(tube => tube.Setting),
            ];
        int[][] valves =
        [
            [],
            [2],
            [1],
            [1, 2],
            [2, 3],
            [1, 3],
            [1, 2, 3],
        ];
        return [.. valves.Select(combination => Setting.OfValves("", combination))];
    }

    /// <summary>The prompts of a drill.</summary>
    /// <param name="drill">The drill.</param>
    /// <param name="trained">Whose hand.</param>
    /// <param name="random">Where chance comes from.</param>
    /// <exception cref="ArgumentException">The instrument has no slide for it, or there is nothing to ask yet.</exception>
    public static IReadOnlyList<HandPrompt> Prompts(HandDrill drill, TrainedHand trained, Random random)
    {
        if (drill.Slide && trained.Instrument.Slide is null)
            throw new ArgumentException($"{drill.Name} needs a slide; a {trained.Instrument.Name} has none.");
        if (drill.Task is HandTask.ByNote or HandTask.NameIt or HandTask.OneLower && trained.Notes.Count < 2)
            throw new ArgumentException("Two notes must be known before they can be asked for.");
        var order = Order(trained.Instrument, trained.Hand);
        return drill.Task switch
        {
            HandTask.InOrder =>
            [
                .. Enumerable
                    .Range(0, drill.Count)
                    .Select(i =>
                        Called(
                            order[i % order.Count],
                            i % order.Count == 0 ? (order[0].Position > 0 ? "first position" : "open") : "a semitone lower"
                        )
                    ),
            ],
            HandTask.Backward =>
            [
                .. Enumerable
                    .Range(0, drill.Count)
                    .Select(i => Called(order[^((i % order.Count) + 1)], i % order.Count == 0 ? $"{order[^1]}" : "a semitone higher")),
            ],
            HandTask.Called => Chain(order, setting => setting.ToString(), drill.Count, trained, random)
                .ConvertAll(setting => Called(setting, setting.ToString())),
            HandTask.ByNote => WithSteps(
                Chain(trained.Notes, note => note.ToString(), drill.Count, trained, random),
                trained,
                (note, ways) => new HandPrompt(note.ToString(), "", note, ways[0].Setting.ToString()) { Accepted = Playable(ways) }
            ),
            HandTask.OneLower => WithSteps(
                Chain([.. trained.Notes.Where(note => Lower(note, trained).Count > 0)], note => $"{note}-1", drill.Count, trained, random),
                trained,
                (note, _) => OneLower(note, trained)
            ),
            HandTask.NameIt => WithSteps(
                Chain(trained.Notes, note => note.ToString(), drill.Count, trained, random),
                trained,
                (note, ways) => NameIt(note, ways[0], trained, random)
            ),
            _ => Chain(order, setting => setting.ToString(), drill.Count, trained, random)
                .ConvertAll(setting => OnSlide(setting, drill, trained)),
        };
    }

    /// <summary>Whether an answer is right for an item, as the finder has it: for answers that come back without their prompts.</summary>
    public static bool IsRight(HandDrill drill, TrainedHand trained, string item, string answer, string given)
    {
        switch (drill.Task)
        {
            case HandTask.ByNote:
                return Pitch.TryParse(item, out var note)
                    && Playable(
                            FingeringFinder.FindSounding(
                                trained.Instrument,
                                trained.Reading.ToSounding(note),
                                trained.Weights,
                                trained.Hand
                            )
                        )
                        .Contains(given);
            case HandTask.OneLower:
                return Pitch.TryParse(item.Split('-')[0], out var upper) && Playable(Lower(upper, trained)).Contains(given);
            case HandTask.SlideByEye or HandTask.SlideBySound:
                return Setting.TryParse(item, slide: true, out var position)
                    && trained.Instrument.TubeOf(position) is { } tube
                    && OnSlide(tube.Setting, drill, trained).Accepts(given, drill.WithinCm);
            case HandTask.NameIt:
                return given == item;
            default:
                return given == answer && answer == item;
        }
    }

    private static HandPrompt Called(Setting setting, string show) => new(setting.ToString(), show, null, setting.ToString());

    private static List<string> Playable(IReadOnlyList<Fingering> ways) =>
        [.. ways.Where((way, place) => place == 0 || way.Barred is null).Select(way => way.Setting.ToString()).Distinct()];

    private static IReadOnlyList<Fingering> Lower(Pitch note, TrainedHand trained) =>
        FingeringFinder.FindSounding(
            trained.Instrument,
            Pitch.FromMidi(trained.Reading.ToSounding(note).Midi - 1),
            trained.Weights,
            trained.Hand
        );

    private static HandPrompt OneLower(Pitch note, TrainedHand trained)
    {
        var ways = Lower(note, trained);
        return new HandPrompt($"{note}-1", "a semitone lower than", note, ways[0].Setting.ToString()) { Accepted = Playable(ways) };
    }

    /// <summary>Four notes to choose from: the right one, and others of the pupil's own that this setting does not play.</summary>
    private static HandPrompt NameIt(Pitch note, Fingering way, TrainedHand trained, Random random)
    {
        var others = trained
            .Notes.Where(other =>
                FingeringFinder
                    .FindSounding(trained.Instrument, trained.Reading.ToSounding(other), trained.Weights, trained.Hand)
                    .All(its => its.Setting != way.Setting)
            )
            .OrderBy(_ => random.Next())
            .Take(3);
        return new HandPrompt(note.ToString(), way.Setting.ToString(), null, note.ToString())
        {
            Choices = [.. others.Append(note).OrderBy(_ => random.Next())],
        };
    }

    private static HandPrompt OnSlide(Setting setting, HandDrill drill, TrainedHand trained)
    {
        var tube = trained.Instrument.TubeOf(setting)!.Value;
        return new HandPrompt(
            setting.ToString(),
            drill.Task == HandTask.SlideBySound ? "" : $"position {setting.Position}",
            null,
            setting.ToString()
        )
        {
            Cm = tube.SlideOutCm,
            Hertz = drill.Task == HandTask.SlideBySound ? trained.Instrument.Frequency(tube, SlidePartial, trained.Tuning) : null,
        };
    }

    /// <summary>Prompts for notes, marked where a step hides another partial.</summary>
    private static List<HandPrompt> WithSteps(
        List<Pitch> notes,
        TrainedHand trained,
        Func<Pitch, IReadOnlyList<Fingering>, HandPrompt> make
    )
    {
        var prompts = new List<HandPrompt>();
        (Pitch Note, int Partial)? before = null;
        foreach (var note in notes)
        {
            var ways = FingeringFinder.Find(trained.Instrument, trained.Reading, note, trained.Weights, trained.Hand);
            prompts.Add(
                make(note, ways) with
                {
                    HidesChange = before is { } last && Math.Abs(last.Note.Midi - note.Midi) is 1 or 2 && last.Partial != ways[0].Partial,
                }
            );
            before = (note, ways[0].Partial);
        }

        return prompts;
    }

    /// <summary>A chain in which nothing follows itself, drawn by how much each needs.</summary>
    private static List<T> Chain<T>(IReadOnlyList<T> from, Func<T, string> item, int count, TrainedHand trained, Random random)
    {
        if (from.Count < 2)
            throw new ArgumentException("There is only one to ask for yet.");
        var needs = HandNeeds.Of(trained);
        var chain = new List<T>();
        for (var i = 0; i < count; i++)
        {
            var before = chain.Count > 0 ? item(chain[^1]) : "";
            var open = from.Where(candidate => item(candidate) != before).ToList();
            var weights = open.ConvertAll(candidate => needs.Weight(item(candidate), before));
            var at = random.NextDouble() * weights.Sum();
            var chosen = 0;
            while (chosen < open.Count - 1 && (at -= weights[chosen]) > 0)
                chosen++;
            chain.Add(open[chosen]);
        }

        return chain;
    }

    /// <summary>How much each item, and each way from one to the next, needs practice.</summary>
    private sealed class HandNeeds
    {
        private readonly Dictionary<string, double> _items;
        private readonly Dictionary<(string, string), double> _ways;
        private readonly IReadOnlySet<string> _due;

        private HandNeeds(Dictionary<string, double> items, Dictionary<(string, string), double> ways, IReadOnlySet<string> due) =>
            (_items, _ways, _due) = (items, ways, due);

        public static HandNeeds Of(TrainedHand trained)
        {
            var usual = HandOutcome.Median(trained.Marks.Where(mark => mark.Right).Select(mark => mark.Seconds));
            double Need(IEnumerable<HandMark> marks)
            {
                var all = marks.ToList();
                var slow =
                    usual > 0
                        ? Math.Clamp(
                            (HandOutcome.Median(all.Where(mark => mark.Right).Select(mark => mark.Seconds)) / usual) - 1,
                            0,
                            MostSlow
                        )
                        : 0;
                return (Missed * all.Count(mark => !mark.Right) / all.Count) + (Slow * slow);
            }

            return new HandNeeds(
                trained.Marks.GroupBy(mark => mark.Item).ToDictionary(group => group.Key, Need),
                trained
                    .Marks.Where(mark => mark.From != "")
                    .GroupBy(mark => (mark.From, mark.Answer))
                    .ToDictionary(group => group.Key, Need),
                trained.Due
            );
        }

        public double Weight(string item, string before) =>
            1 + _items.GetValueOrDefault(item, New) + _ways.GetValueOrDefault((before, item)) + (_due.Contains(item) ? IsDue : 0);
    }
}
