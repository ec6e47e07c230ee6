namespace Bocca.Core.Sound;

/// <summary>What was heard in one hundredth of a second.</summary>
/// <param name="TimeSeconds">The frame's centre.</param>
/// <param name="FrequencyHz">Fundamental frequency in hertz; the best guess where unvoiced, 0 where there is none.</param>
/// <param name="Voiced">Whether a tone with a pitch sounds.</param>
/// <param name="Clarity">How alike neighbouring periods are: 1 alike, 0 unrelated.</param>
/// <param name="LevelDb">Level in decibels below full scale (RMS of a full-scale square wave = 0), at least -120.</param>
public readonly record struct PitchFrame(double TimeSeconds, double FrequencyHz, bool Voiced, double Clarity, double LevelDb);
