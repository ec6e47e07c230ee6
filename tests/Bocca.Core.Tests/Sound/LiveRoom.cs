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

    /// <summary>Both halves of the sound at once, one as the real and one as the imaginary part: the response is real.</summary>
    private static float[] Convolved(float[] samples, double[] response)
    {
        var half = (samples.Length + 1) / 2;
        var length = (int)BitOperations.RoundUpToPowerOf2((uint)(half + response.Length));
        var (one, other) = (new Complex[length], new Complex[length]);
        for (var i = 0; i < half; i++)
            one[i] = new Complex(samples[i], half + i < samples.Length ? samples[half + i] : 0);
        for (var i = 0; i < response.Length; i++)
            other[i] = response[i];
        Fourier.Forward(one, FourierOptions.AsymmetricScaling);
        Fourier.Forward(other, FourierOptions.AsymmetricScaling);
        for (var i = 0; i < length; i++)
            one[i] *= other[i];
        Fourier.Inverse(one, FourierOptions.AsymmetricScaling);
        var whole = new double[samples.Length];
        for (var i = 0; i < length; i++)
        {
            if (i < whole.Length)
                whole[i] += one[i].Real;
            if (half + i < whole.Length)
                whole[half + i] += one[i].Imaginary;
        }

        var most = whole.Max(Math.Abs);
        return [.. whole.Select(each => (float)(0.5 * each / most))];
    }
}
