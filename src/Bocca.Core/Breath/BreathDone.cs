namespace Bocca.Core.Breath;

/// <summary>A breath drill done today, whole or stopped.</summary>
/// <param name="DrillId">Which.</param>
/// <param name="Rung">Its pattern, from 0.</param>
/// <param name="Seconds">Seconds of it that count towards the day.</param>
/// <param name="At">When.</param>
public readonly record struct BreathDone(string DrillId, int Rung, double Seconds, DateTime At);
