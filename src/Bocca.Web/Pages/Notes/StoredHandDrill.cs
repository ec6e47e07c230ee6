using Bocca.Core.Fingering.Trainer;
using Bocca.Web.Record.Shapes;

namespace Bocca.Web.Pages.Notes;

/// <summary>An answer of the hand.</summary>
/// <param name="Item">What was asked.</param>
/// <param name="Answer">What was right.</param>
/// <param name="From">What the hand came from; empty for nothing.</param>
/// <param name="Given">What was given.</param>
/// <param name="Seconds">How long it took.</param>
/// <param name="Right">Whether it was right.</param>
public sealed record StoredHandMark(string Item, string Answer, string From, string Given, double Seconds, bool Right) : StoredShape
{
    public static StoredHandMark Of(HandMark mark) => new(mark.Item, mark.Answer, mark.From, mark.Given, mark.Seconds, mark.Right);

    public HandMark Read() => new(Item, Answer, From, Given, Seconds, Right);
}

/// <summary>A silent drill as the record holds it.</summary>
/// <param name="Marks">The answers.</param>
/// <param name="MedianSeconds">The median time of a right one.</param>
public sealed record StoredHandDrill(IReadOnlyList<StoredHandMark> Marks, double MedianSeconds) : StoredShape
{
    public static PayloadShape<HandPayload, StoredHandDrill> Shape { get; } =
        new(
            drill => new StoredHandDrill([.. drill.Marks.Select(StoredHandMark.Of)], drill.MedianSeconds),
            stored => new HandPayload([.. stored.Marks.Select(each => each.Read())], stored.MedianSeconds)
        );
}
