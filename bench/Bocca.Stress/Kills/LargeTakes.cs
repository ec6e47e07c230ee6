using System.Diagnostics;
using Bocca.Core.Sound;

namespace Bocca.Stress.Kills;

/// <summary>Sends takes as large as they may be, one and then six at once; prints how long they took and what memory they cost.</summary>
public static class LargeTakes
{
    private const int Many = 6,
        Rate = 48000,
        GivenBackSeconds = 30;

    /// <summary>The longest take that is read, at the usual rate.</summary>
    private const double Seconds = WavFile.MaximumSeconds - 5;

    public static async Task<int> RunAsync()
    {
        var folder = Directory.CreateTempSubdirectory("bocca-large").FullName;
        using var app = new KilledApp(folder);
        app.Start();
        await app.AnswersAsync();
        using var client = await app.ClientAsync();
        using var made = await client.SendAsync(Writers.Form("/pupils/new", Writers.NewPupil("Large")));
        var wav = Take();
        Console.WriteLine($"{wav.Length / 1e6:0} MB a take, {Seconds:0} s of sound; {app.Memory:0} MB before.");
        foreach (var count in (int[])[1, Many])
        {
            var clock = Stopwatch.StartNew();
            var most = 0.0;
            var answers = Task.WhenAll(Enumerable.Range(0, count).Select(_ => SendAsync(client, wav)));
            while (!answers.IsCompleted)
            {
                most = Math.Max(most, app.Memory);
                await Task.Delay(20);
            }

            Console.WriteLine(
                $"{count} at once: {string.Join(", ", await answers)}; {clock.Elapsed.TotalSeconds:0.0} s; {most:0} MB at most."
            );
            await Task.Delay(TimeSpan.FromSeconds(GivenBackSeconds));
            Console.WriteLine($"{GivenBackSeconds} s after: {app.Memory:0} MB.");
        }

        app.Kill();
        Directory.Delete(folder, recursive: true);
        return 0;
    }

    private static async Task<int> SendAsync(HttpClient client, byte[] wav)
    {
        using var form = new MultipartFormDataContent { { new ByteArrayContent(wav), "sound", "take.wav" } };
        foreach (var field in "drill=sound4-rest4&tempo=60&on=Mouthpiece&source=File&missing=0&tense=false".Split('&'))
            form.Add(new StringContent(field.Split('=')[1]), field.Split('=')[0]);
        using var answer = await client.PostAsync("/buzz/1?handler=Hear", form);
        return (int)answer.StatusCode;
    }

    /// <summary>A buzz of four seconds in eight, over and over.</summary>
    private static byte[] Take()
    {
        var random = new Random(1);
        var samples = new float[(int)(Rate * Seconds)];
        for (var i = 0; i < samples.Length; i++)
        {
            var t = (double)i / Rate;
            var tone = t % 8 < 4 ? Enumerable.Range(1, 5).Sum(k => Math.Sin(2 * Math.PI * 233 * k * t) / k) : 0;
            samples[i] = (float)((0.15 * tone) + (0.002 * ((2 * random.NextDouble()) - 1)));
        }

        var wav = new MemoryStream();
        WavFile.Write(wav, new MonoSound(samples, Rate));
        return wav.ToArray();
    }
}
