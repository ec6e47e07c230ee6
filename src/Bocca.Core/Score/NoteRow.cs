using Bocca.Core.Music;

namespace Bocca.Core.Score;

/// <summary>Notes in a row on one staff, without metre: what a pupil is shown to read.</summary>
/// <param name="Clef">The clef.</param>
/// <param name="Written">The notes as written, in order.</param>
public sealed record NoteRow(Clef Clef, IReadOnlyList<Pitch> Written);
