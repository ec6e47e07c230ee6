using System.Text;
using Bocca.Core.Buzz;
using Bocca.Core.Buzz.Measures;
using Bocca.Core.Teaching;

namespace Bocca.Web.Drawings;

/// <summary>A piece of a thread: solid where the pitch is sure, broken where it is a guess.</summary>
public sealed record ThreadPiece(string Path, bool Sure);

/// <summary>A drawn try, with where its number stands.</summary>
public sealed record DrawnThread(int Number, IReadOnlyList<ThreadPiece> Pieces, double LabelX, double LabelY);

/// <summary>Where on a thread a measure was found.</summary>
public sealed record DrawnMark(ThreadMark Mark, string Path, double X, double Y);

/// <summary>What a try did beside its cue, as bars of a row.</summary>
public sealed record StartRow(
    int Number,
    double Y,
    double AskedWidth,
    double? AirX,
    double AirWidth,
    double? ToneX,
    double ToneWidth,
    string Words
);

/// <summary>
/// The thread picture: tries laid over each other from their starts, through the gate. Heights grow like asinh of
/// cents over gate, so that the gate stays wide and a fall of an octave still fits.
/// </summary>
public sealed class ThreadDrawing
{
    public const double Width = 740;
    public const double Height = 530;
    public const double Left = 64;
    private const double Right = 44;
    private const double Top = 18;
    private const double GateBottom = 396;
    private const double RowsTop = 436;
    private const double RowHeight = 20;
    private const double LeadSeconds = 0.5;

    /// <summary>A fall of an octave still fits; what lies further is drawn at the edge.</summary>
    private const double FurthestCents = 1300;

    /// <summary>A try that is held longer than asked has so much more room.</summary>
    private const double OverShare = 1.15;
    private readonly double _seconds;
    private readonly double _reach;
    private readonly double _gate;

    /// <summary>A gate for tries that are yet to be made, with what is asked of each.</summary>
    public ThreadDrawing(double gateCents, CuePlan plan)
        : this(gateCents, plan.SoundSeconds, plan.Tempo)
    {
        Rows =
        [
            .. plan.Tries.Select(
                (cue, i) => new StartRow(i + 1, RowsTop + (i * RowHeight), RowX(plan.SecondsOf(cue)) - RowX(0), null, 0, null, 0, "")
            ),
        ];
    }

    /// <summary>The tries of a take, laid over each other.</summary>
    public ThreadDrawing(TakeThreads threads, TakeMeasures measures, double tempo)
        : this(threads.GateCents, threads.AskedSeconds, tempo)
    {
        Threads = Spread([.. threads.Threads.Select(Draw)]);
        Marks = Spread([.. threads.Marks.Select(mark => Draw(mark, threads)).OfType<DrawnMark>()]);
        Rows = [.. measures.Attempts.Select((attempt, i) => Row(attempt, i, threads.AskedSeconds))];
    }

    /// <summary>The axes follow from what is asked alone, so that a thread drawn while it sounds stays where it is.</summary>
    private ThreadDrawing(double gateCents, double askedSeconds, double tempo)
    {
        Beats = askedSeconds * OverShare * tempo / 60;
        (_gate, _seconds) = (gateCents, askedSeconds * OverShare);
        _reach = Math.Asinh(FurthestCents / _gate);
        Ticks =
        [
            .. new[] { 50.0, 100, 200, 500, 1200 }
                .Where(cents => cents > 1.6 * _gate && Math.Asinh(cents / _gate) < _reach)
                .SelectMany(cents => new[] { cents, -cents }),
        ];
        Seconds = [.. Enumerable.Range(0, (int)_seconds + 1).Select(second => (second, X(second)))];
    }

    public IReadOnlyList<DrawnThread> Threads { get; } = [];

    public IReadOnlyList<DrawnMark> Marks { get; } = [];

    public IReadOnlyList<StartRow> Rows { get; } = [];

    public IReadOnlyList<double> Ticks { get; }

    public IReadOnlyList<(int Second, double X)> Seconds { get; }

    public double PlotRight => Width - Right;

    public double PlotTop => Top;

    public double PlotBottom => GateBottom;

    public double GateTop => Y(_gate);

    public double GateLow => Y(-_gate);

    public double Middle => Y(0);

    public double Gate => _gate;

    /// <summary>Where a cue stands in the rows under the gate.</summary>
    public double CueX => RowX(0);

    /// <summary>Beats from a try's start to the right end, and gates from the middle to the edge.</summary>
    public double Beats { get; }

    public double ReachGates => FurthestCents / _gate;

    public double X(double seconds) => Left + (Math.Min(1, seconds / Math.Max(_seconds, 0.1)) * (Width - Left - Right));

    public double Y(double cents) => ((Top + GateBottom) / 2) - (Math.Asinh(cents / _gate) / _reach * (GateBottom - Top) / 2);

    private double RowX(double seconds) => Left + ((seconds + LeadSeconds) / (_seconds + (2 * LeadSeconds)) * (Width - Left - Right));

    private DrawnThread Draw(TakeThread thread)
    {
        var unsure = thread.Unsure.ToHashSet();
        var pieces = new List<ThreadPiece>();
        var path = new StringBuilder();
        var sure = true;
        var last = (X: Left, Y: Middle);
        void Close()
        {
            if (path.Length > 0)
                pieces.Add(new ThreadPiece(path.ToString(), sure));
            path.Clear();
        }

        for (var i = 0; i < thread.Cents.Count; i++)
        {
            if (thread.Cents[i] is not { } cents)
            {
                Close();
                continue;
            }

            var at = (X: X(i * 0.01), Y: Y(Math.Clamp(cents, -FurthestCents, FurthestCents)));
            if (path.Length > 0 && sure == unsure.Contains(i))
            {
                Close();
                path.Append($"M{last.X:0.#} {last.Y:0.#}");
            }

            sure = !unsure.Contains(i);
            path.Append(path.Length == 0 ? $"M{at.X:0.#} {at.Y:0.#}" : $"L{at.X:0.#} {at.Y:0.#}");
            last = at;
        }

        Close();
        return new DrawnThread(thread.Number, pieces, last.X + 14, last.Y);
    }

    /// <summary>
    /// Marks in shapes: a hook for a slid start, a line for a drift, a bracket over a swing, a ring at a break, a foot at the end.
    /// </summary>
    private DrawnMark? Draw(ThreadMark mark, TakeThreads threads)
    {
        if (threads.Threads.FirstOrDefault(thread => thread.Number == mark.Try) is not { Cents.Count: > 0 } line)
            return null;
        double Height(double seconds)
        {
            var at = Math.Clamp((int)(seconds * 100), 0, line.Cents.Count - 1);
            return Y(
                Enumerable.Range(0, line.Cents.Count).OrderBy(i => Math.Abs(i - at)).Select(i => line.Cents[i]).OfType<double>().First()
            );
        }

        var (x1, x2) = (X(mark.From), X(mark.To));
        var (y1, y2) = (Height(mark.From), Height(mark.To));
        var over = Math.Min(y1, y2) - 14;
        return mark.Kind switch
        {
            MarkKind.Scoop => new DrawnMark(mark, $"M{x1 - 4:0.#} {y1 - 9:0.#}v18h{Math.Max(10, x2 - x1):0.#}", x1 + 16, y1 + 18),
            MarkKind.Drift => new DrawnMark(mark, $"M{x1:0.#} {y1:0.#}L{x2:0.#} {y2:0.#}", (x1 + x2) / 2, ((y1 + y2) / 2) - 10),
            MarkKind.Wobble => new DrawnMark(mark, $"M{x1:0.#} {over + 8:0.#}v-8H{x2:0.#}v8", (x1 + x2) / 2, over - 6),
            MarkKind.Break => new DrawnMark(mark, $"M{x1 - 9:0.#} {y1:0.#}a9 9 0 1 0 18 0a9 9 0 1 0 -18 0", x1 + 12, y1 - 12),
            _ => new DrawnMark(
                mark,
                mark.Words switch
                {
                    "closed" => $"M{x2:0.#} {y2 - 8:0.#}v16",
                    "tapered" => $"M{x2 - 12:0.#} {y2 - 6:0.#}l14 6l-14 6",
                    _ => $"M{x2 - 8:0.#} {y2:0.#}q8 0 8 9",
                },
                x2 - 16,
                y2 + 16
            ),
        };
    }

    /// <summary>Moves the words of marks apart where they would lie over each other.</summary>
    private static List<DrawnMark> Spread(List<DrawnMark> marks)
    {
        var placed = new List<DrawnMark>();
        foreach (var mark in marks)
        {
            var here = mark with { Y = Math.Clamp(mark.Y, Top + 14, GateBottom - 4) };
            for (var i = 0; i < 12 && placed.Exists(other => Math.Abs(other.Y - here.Y) < 16 && Math.Abs(other.X - here.X) < 130); i++)
                here = here with { Y = here.Y + 17 > GateBottom ? Top + 14 : here.Y + 17 };
            placed.Add(here);
        }

        return placed;
    }

    /// <summary>Moves the numbers at the threads' ends apart, so that each can be read.</summary>
    private static List<DrawnThread> Spread(List<DrawnThread> threads)
    {
        const double Apart = 19;
        var byHeight = threads.OrderBy(thread => thread.LabelY).ToList();
        for (var i = 1; i < byHeight.Count; i++)
            if (byHeight[i].LabelY - byHeight[i - 1].LabelY < Apart)
                byHeight[i] = byHeight[i] with { LabelY = byHeight[i - 1].LabelY + Apart };
        var over = byHeight.Count == 0 ? 0 : Math.Max(0, byHeight[^1].LabelY - GateBottom);
        return [.. byHeight.Select(thread => thread with { LabelY = thread.LabelY - over }).OrderBy(thread => thread.Number)];
    }

    private StartRow Row(AttemptMeasures attempt, int place, double asked)
    {
        var y = RowsTop + (place * RowHeight);
        var width = RowX(asked) - RowX(0);
        if (!attempt.Spoke)
            return new StartRow(
                attempt.Number,
                y,
                width,
                attempt.AirOnly ? RowX(0) : null,
                attempt.AirOnly ? width : 0,
                null,
                0,
                attempt.AirOnly ? "air, no tone" : "no sound"
            );
        var start = Math.Clamp((attempt.OnsetDelayMs ?? 0) / 1000, -LeadSeconds, _seconds);
        var air = Math.Min((attempt.AirBeforeToneMs ?? 0) / 1000, start + LeadSeconds);
        var tone = Math.Min(attempt.EndSeconds!.Value - attempt.StartSeconds!.Value, _seconds + LeadSeconds - start);
        return new StartRow(
            attempt.Number,
            y,
            width,
            RowX(start - air),
            RowX(start) - RowX(start - air),
            RowX(start),
            RowX(start + tone) - RowX(start),
            ""
        );
    }
}
