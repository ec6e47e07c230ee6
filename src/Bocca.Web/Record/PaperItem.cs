using System.ComponentModel.DataAnnotations;
using Bocca.Core.Practice.Week;
using Bocca.Core.Teaching;

namespace Bocca.Web.Record;

/// <summary>
/// Something in a book of the teacher's own: where it stands, in the teacher's words what it is good for, and how much of it is done.
/// What is in the book stays in the book.
/// </summary>
public sealed class PaperItem
{
    public const int LongestBook = 80,
        LongestNumber = 20,
        LongestWords = 200;

    public int Id { get; set; }

    /// <summary>What the teacher calls the book.</summary>
    [MaxLength(LongestBook)]
    public required string Book { get; set; }

    public int? Page { get; set; }

    [MaxLength(LongestNumber)]
    public string Number { get; set; } = "";

    /// <summary>What it is good for.</summary>
    [MaxLength(LongestWords)]
    public string Words { get; set; } = "";

    /// <summary>The symptom it is against; empty for none.</summary>
    [MaxLength(40)]
    public string SymptomId { get; set; } = "";

    /// <summary>The stage from which on it is for somebody.</summary>
    public LearningStage From { get; set; }

    /// <summary>Counts on and off, so many times, at so many a minute.</summary>
    public double On { get; set; } = 16;

    /// <inheritdoc cref="On"/>
    public double Off { get; set; } = 8;

    /// <inheritdoc cref="On"/>
    public int Times { get; set; } = 4;

    /// <inheritdoc cref="On"/>
    public double Tempo { get; set; } = 72;

    public DateTime? DeletedAt { get; set; }

    /// <summary>Where it stands, such as <c>The red book, page 12, 4</c>.</summary>
    public string Name => string.Join(", ", new[] { Book, Page is { } page ? $"page {page}" : "", Number }.Where(part => part != ""));

    /// <summary>Its name in a week.</summary>
    public string ItemId => $"paper:{Id}";

    /// <summary>The same as something that a week may hold.</summary>
    /// <param name="urgency">How much it wants doing, 0 to 10.</param>
    /// <param name="why">Why it is there.</param>
    public WeekItem AsItem(double urgency, string why) =>
        new(ItemId, Name, WeekKind.Paper, Amount.Of(On, Off, Times, Tempo), urgency, "As it stands, twice without a stop.", why);
}
