using System.Numerics;
using Bocca.Core.Sound;
using MathNet.Numerics.IntegralTransforms;

namespace Bocca.Core.Tests.Sound;

/// <summary>
/// A room put on a sound: the sound itself, and after it noise that dies away by 60 dB in the reverberation time, as loud in all as the
/// direct sound or softer by so much (statistical model of a diffuse field; published: Schroeder 1962).
/// </summary>
internal static class LiveRoom
{
    /// <param name="sound">The sound without a room.</param>
    /// <param name="reverberation">Seconds in which the room falls by 60 dB.</param>
    /// <param name="directDb">How much louder the direct sound is than all that follows (decibels).</param>
    public static MonoSound On(MonoSound sound, double reverberation, double directDb = 3)
    {
        var (random, rate) = (new Random(5), sound.SampleRate);
        var tail = new double[(int)(1.2 * reverberation * rate)];
        for (var i = rate / 200; i < tail.Length; i++)
            tail[i] = Gauss(random) * Math.Pow(10, -3 * i / (reverberation * rate));
        var loud = Math.Sqrt(tail.Sum(each => each * each));
        for (var i = 0; i < tail.Length; i++)
            tail[i] *= Math.Pow(10, -directDb / 20) / loud;
        tail[0] = 1;
        return new MonoSound(Convolved(sound.Samples, tail), rate);
    }

    private static double Gauss(Random random) =>
        Math.Sqrt(-2 * Math.Log(1 - random.NextDouble())) * Math.Cos(2 * Math.PI * random.NextDouble());

    private static float[] Convolved(float[] samples, double[] response)
    {
        var length = 1;
        while (length < samples.Length + response.Length)
            length *= 2;
        var (one, other) = (new Complex[length], new Complex[length]);
        for (var i = 0; i < samples.Length; i++)
            one[i] = samples[i];
        for (var i = 0; i < response.Length; i++)
            other[i] = response[i];
        Fourier.Forward(one, FourierOptions.AsymmetricScaling);
        Fourier.Forward(other, FourierOptions.AsymmetricScaling);
        for (var i = 0; i < length; i++)
            one[i] *= other[i];
        Fourier.Inverse(one, FourierOptions.AsymmetricScaling);
        var most = one.Max(each => Math.Abs(each.Real));
        return [.. one.Take(samples.Length).Select(each => (float)(0.5 * each.Real / most))];
    }
}
