using System.Globalization;
using CsvHelper;
using CsvHelper.Configuration;

namespace Bocca.Core;

/// <summary>
/// Writes comma-separated values (published: RFC 4180) that a spreadsheet takes for what they are: a cell that would begin a formula there
/// is escaped, by the library's own means; a number stays one, also below zero.
/// </summary>
/// <param name="text">Where they are written.</param>
public sealed class TableWriter(TextWriter text) : CsvWriter(text, Harmless)
{
    private static CsvConfiguration Harmless { get; } = new(CultureInfo.InvariantCulture) { InjectionOptions = InjectionOptions.Escape };

    /// <summary>What a cell holds in the end.</summary>
    protected override string? SanitizeForInjection(string? field) =>
        double.TryParse(field, NumberStyles.Float, CultureInfo.InvariantCulture, out _) ? field : base.SanitizeForInjection(field);
}
