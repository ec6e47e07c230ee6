using Bocca.Core.Buzz;
using Bocca.Core.Buzz.Aims;
using Bocca.Web.Record.Shapes;

namespace Bocca.Web.Pages.Buzz;

/// <summary>The pitch of one try over time.</summary>
/// <param name="Number">The try, from 1.</param>
/// <param name="Cents">From the middle of the take; null where nothing sounded.</param>
/// <param name="Unsure">Where the pitch is unsure, as places in <paramref name="Cents"/>.</param>
public sealed record StoredThread(int Number, IReadOnlyList<double?> Cents, IReadOnlyList<int> Unsure) : StoredShape;

/// <summary>A mark on a thread.</summary>
/// <param name="Kind">A name of <see cref="StoredNames.MarkKinds"/>.</param>
/// <param name="Try">The try, from 1.</param>
/// <param name="From">Where it begins, seconds.</param>
/// <param name="To">Where it ends.</param>
/// <param name="Outside">Whether it lies outside the limit.</param>
/// <param name="Words">What stands beside it.</param>
public sealed record StoredMark(string Kind, int Try, double From, double To, bool Outside, string Words) : StoredShape
{
    public static StoredMark Of(ThreadMark mark) =>
        new(StoredNames.MarkKinds[mark.Kind], mark.Try, mark.From, mark.To, mark.Outside, mark.Words);

    public ThreadMark Read() => new(StoredNames.MarkKinds.Read(Kind), Try, From, To, Outside, Words);
}

/// <summary>What was asked over a span of time.</summary>
public sealed record StoredSpan(double Seconds, double Length, IReadOnlyList<double> Heights, bool Glides, string Label) : StoredShape
{
    public static StoredSpan Of(AskedSpan span) => new(span.Seconds, span.Length, span.Heights, span.Glides, span.Label);

    public AskedSpan Read() => new(Seconds, Length, Heights, Glides, Label);
}

/// <summary>A take against what was asked, over time.</summary>
/// <param name="Seconds">How long it lasted.</param>
/// <param name="Asked">What was asked.</param>
/// <param name="Heard">Semitones from the middle at every step of <see cref="TakeStrip.StepSeconds"/>; null where nothing sounded.</param>
public sealed record StoredStrip(double Seconds, IReadOnlyList<StoredSpan> Asked, IReadOnlyList<double?> Heard) : StoredShape
{
    public static StoredStrip Of(TakeStrip strip) => new(strip.Seconds, [.. strip.Asked.Select(StoredSpan.Of)], strip.Heard);

    public TakeStrip Read() => new(Seconds, [.. Asked.Select(each => each.Read())], Heard);
}

/// <summary>The pitch of a take of buzzes.</summary>
/// <param name="GateCents">How far either way counts as steady.</param>
/// <param name="MiddleHz">The middle of the take.</param>
/// <param name="AskedSeconds">How long each try was to sound.</param>
/// <param name="Threads">The tries.</param>
public sealed record StoredThreads(double GateCents, double MiddleHz, double AskedSeconds, IReadOnlyList<StoredThread> Threads)
    : StoredShape
{
    public IReadOnlyList<StoredMark>? Marks { get; init; }

    public StoredStrip? Strip { get; init; }

    public static StoredThreads Of(TakeThreads take) =>
        new(
            take.GateCents,
            take.MiddleHz,
            take.AskedSeconds,
            [.. take.Threads.Select(thread => new StoredThread(thread.Number, thread.Cents, thread.Unsure))]
        )
        {
            Marks = [.. take.Marks.Select(StoredMark.Of)],
            Strip = take.Strip is { } strip ? StoredStrip.Of(strip) : null,
        };

    public TakeThreads Read() =>
        new(GateCents, MiddleHz, AskedSeconds, [.. Threads.Select(thread => new TakeThread(thread.Number, thread.Cents, thread.Unsure))])
        {
            Marks = [.. (Marks ?? []).Select(each => each.Read())],
            Strip = Strip?.Read(),
        };
}
