namespace Bocca.Core.Breath;

/// <summary>A breath drill that was done.</summary>
/// <param name="DrillId">The drill.</param>
/// <param name="Rung">Its pattern, from 0.</param>
/// <param name="Tempo">Beats a minute.</param>
/// <param name="Seconds">Seconds of the out-breath, heard or, without a microphone, asked.</param>
/// <param name="Even">Whether it passed.</param>
/// <param name="Measured">Whether a microphone heard it.</param>
/// <param name="At">When.</param>
public sealed record BreathPass(string DrillId, int Rung, double Tempo, double Seconds, bool Even, bool Measured, DateTime At);
