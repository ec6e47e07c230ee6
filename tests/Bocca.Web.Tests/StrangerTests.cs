using System.Collections.Concurrent;
using System.Net;
using System.Text.Json;
using Bocca.Core.Sound;
using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Tests;

/// <summary>What a stranger may try from a page of another name, and what a name may hold.</summary>
public sealed class StrangerTests : IDisposable
{
    private readonly Room _room = new();

    public void Dispose() => _room.Dispose();

    [Theory]
    [InlineData("localhost", null, HttpStatusCode.OK)]
    [InlineData("127.0.0.1:5080", null, HttpStatusCode.OK)]
    [InlineData("[::1]:5080", null, HttpStatusCode.OK)]
    [InlineData("localhost", "http://localhost", HttpStatusCode.OK)]
    [InlineData("music.example", null, HttpStatusCode.BadRequest)]
    [InlineData("localhost.example", null, HttpStatusCode.BadRequest)]
    [InlineData("192.168.1.20:5080", null, HttpStatusCode.BadRequest)]
    [InlineData("localhost", "http://music.example", HttpStatusCode.BadRequest)]
    [InlineData("localhost", "http://localhost:3000", HttpStatusCode.BadRequest)]
    [InlineData("localhost", "null", HttpStatusCode.BadRequest)]
    public async Task Only_this_machine_is_answered(string host, string? origin, HttpStatusCode expected)
    {
        foreach (var path in (string[])["/", "/live/listen/negotiate?negotiateVersion=1"])
        {
            using var request = new HttpRequestMessage(path == "/" ? HttpMethod.Get : HttpMethod.Post, path);
            request.Headers.Host = host;
            if (origin is not null)
                request.Headers.Add("Origin", origin);
            var response = await _room.CreateClient().SendAsync(request, TestContext.Current.CancellationToken);
            Assert.Equal(expected, response.StatusCode);
            Assert.Contains("nosniff", response.Headers.GetValues("X-Content-Type-Options"));
        }
    }

    [Fact]
    public async Task Other_origins_and_traces_learn_nothing()
    {
        var client = _room.CreateClient();
        var answer = await client.GetAsync("/", TestContext.Current.CancellationToken);
        Assert.Equal("same-origin", answer.Headers.GetValues("Cross-Origin-Opener-Policy").Single());
        Assert.Equal("same-origin", answer.Headers.GetValues("Cross-Origin-Resource-Policy").Single());
        using var trace = new HttpRequestMessage(HttpMethod.Trace, "/");
        Assert.Equal(HttpStatusCode.MethodNotAllowed, (await client.SendAsync(trace, TestContext.Current.CancellationToken)).StatusCode);
    }

    [Fact]
    public async Task A_recording_is_never_laid_into_the_systems_temporary_folder()
    {
        var ada = await _room.AddAsync("Ada");
        var tab = new Tab(_room.CreateClient());
        var (_, page) = await tab.OpenAsync($"/buzz/{ada.Id}");
        var seen = new ConcurrentQueue<string>();
        using var watched = new FileSystemWatcher(Path.GetTempPath(), "ASPNETCORE_*");
        watched.Created += (_, made) => seen.Enqueue(made.FullPath);
        watched.EnableRaisingEvents = true;

        // Four tries at 120 are over in 16 seconds; far more than what a form may hold in memory as it ships (64 kB).
        using var wav = new MemoryStream();
        WavFile.Write(wav, new MonoSound(new float[16 * 44100], 44100));
        await tab.HearAsync(page, ada.Id, wav.ToArray());

        await Task.Delay(200, TestContext.Current.CancellationToken);
        Assert.Empty(seen);
    }

    [Fact]
    public async Task What_may_have_a_pupil_in_it_is_stored_nowhere_and_an_error_keeps_its_headers()
    {
        var pupil = await _room.AddAsync("Ada");
        var client = _room.CreateClient();
        foreach (var path in (string[])[$"/record/{pupil.Id}", $"/notes/{pupil.Id}", "/pupils/find?name=a", "/nowhere"])
            Assert.Contains(
                "no-store",
                (await client.GetAsync(path, TestContext.Current.CancellationToken)).Headers.CacheControl!.ToString()
            );
        await _room.InRecordAsync(db => db.Database.ExecuteSqlRawAsync("DROP TABLE Recalls"));
        var broken = await client.GetAsync("/", TestContext.Current.CancellationToken);
        Assert.Equal(HttpStatusCode.InternalServerError, broken.StatusCode);
        Assert.Contains("script-src 'self'", string.Concat(broken.Headers.GetValues("Content-Security-Policy")));
        Assert.Contains("no-store", broken.Headers.CacheControl!.ToString());
    }

    [Fact]
    public async Task Signs_that_cannot_be_shown_are_refused_at_the_door_and_harmless_in_what_is_stored()
    {
        var tab = new Tab(_room.CreateClient());
        var (_, form) = await tab.OpenAsync("/pupils/new");
        var (_, refused) = await tab.SendAsync(form, "form[method=post]", ("Form.Name", "Ada\u0001"), ("Form.Instrument", "trumpet-bb"));
        Assert.Contains("signs that cannot be shown", refused.Body!.TextContent);

        var ada = await _room.AddAsync("Ada\u0001\u000b");
        var (response, page) = await tab.OpenAsync($"/notes/class?shape=FiveNotes&who={ada.Id}");
        Assert.Equal(HttpStatusCode.OK, response.StatusCode);
        var score = JsonSerializer.Deserialize<string>(page.QuerySelector("[data-score]")!.TextContent)!;
        Assert.Contains("<part-name>Ada</part-name>", score);
    }

    [Theory]
    [InlineData("/buzz/{0}?handler=Begin&drill=steady-line&tempo=NaN&on=Mouthpiece", "'NaN' cannot be the tempo.")]
    [InlineData("/buzz/{0}?handler=Begin&drill=steady-line&tempo=80&on=77", "'77' cannot be the on.")]
    [InlineData(
        "/buzz/{0}?handler=Practice&drill=steady-line&tempo=Infinity&on=Mouthpiece&character=good&seed=1",
        "'Infinity' cannot be the tempo."
    )]
    [InlineData(
        "/buzz/{0}?handler=Practice&drill=steady-line&tempo=80&on=Mouthpiece&character=good&seed=many",
        "'many' cannot be the seed."
    )]
    [InlineData("/tone/{0}?handler=Begin&drill=what-came&tempo=-Infinity", "'-Infinity' cannot be the Tempo.")]
    [InlineData("/slurs/{0}?handler=Begin&tempo=80", "The Drill is missing.")]
    [InlineData("/breath/{0}?handler=Practice&drill=even-stream&rung=0&tempo=NaN&seed=1", "'NaN' cannot be the tempo.")]
    public async Task What_is_no_number_or_no_choice_is_refused_in_a_sentence(string address, string told)
    {
        var pupil = await _room.AddAsync("Ada");
        var answer = await _room.CreateClient().GetAsync(string.Format(address, pupil.Id), TestContext.Current.CancellationToken);
        Assert.Equal(HttpStatusCode.UnprocessableEntity, answer.StatusCode);
        Assert.Equal(told, await answer.Content.ReadAsStringAsync(TestContext.Current.CancellationToken), ignoreCase: true);
    }

    [Theory]
    [InlineData("/tone/{0}?tempo=NaN")]
    [InlineData("/slurs/{0}?tempo=1e999")]
    [InlineData("/buzz/{0}?on=99")]
    [InlineData("/record/{0}?before=yesterday")]
    public async Task A_page_opened_with_such_a_value_is_a_page_that_says_so(string address)
    {
        var pupil = await _room.AddAsync("Ada");
        var (response, page) = await new Tab(_room.CreateClient()).OpenAsync(string.Format(address, pupil.Id));
        Assert.Equal(HttpStatusCode.BadRequest, response.StatusCode);
        Assert.NotNull(page.QuerySelector("nav.path"));
    }

    [Theory]
    [InlineData("same-origin", "cors", "empty", "/buzz/{0}?handler=Begin&drill=steady-line&tempo=80&on=Mouthpiece", HttpStatusCode.OK)]
    [InlineData(
        "cross-site",
        "no-cors",
        "image",
        "/buzz/{0}?handler=Begin&drill=steady-line&tempo=80&on=Mouthpiece",
        HttpStatusCode.BadRequest
    )]
    [InlineData(
        "same-site",
        "navigate",
        "document",
        "/buzz/{0}?handler=Begin&drill=steady-line&tempo=80&on=Mouthpiece",
        HttpStatusCode.BadRequest
    )]
    [InlineData("cross-site", "navigate", "iframe", "/record/{0}", HttpStatusCode.BadRequest)]
    [InlineData("cross-site", "navigate", "document", "/record/{0}", HttpStatusCode.OK)]
    [InlineData("none", "navigate", "document", "/record/{0}", HttpStatusCode.OK)]
    public async Task Another_page_may_lead_here_and_nothing_else(
        string site,
        string mode,
        string wanted,
        string address,
        HttpStatusCode expected
    )
    {
        var pupil = await _room.AddAsync("Ada");
        using var request = new HttpRequestMessage(HttpMethod.Get, string.Format(address, pupil.Id));
        request.Headers.Add("Sec-Fetch-Site", site);
        request.Headers.Add("Sec-Fetch-Mode", mode);
        request.Headers.Add("Sec-Fetch-Dest", wanted);
        Assert.Equal(expected, (await _room.CreateClient().SendAsync(request, TestContext.Current.CancellationToken)).StatusCode);
    }

    [Theory]
    [InlineData("/buzz/{0}?handler=Hear", 62_000_000, "That recording is larger than 60 MB. Cut it into takes of at most 10 minutes.")]
    [InlineData("/slurs/{0}/own", 7_000_000, "The file is larger than 5 MB; split the piece.")]
    [InlineData("/notes/{0}/hand", 1_100_000, "That is more than this page takes. Send less of it.")]
    public async Task What_is_too_large_is_refused_in_a_sentence_before_it_is_read(string address, int bytes, string told)
    {
        var pupil = await _room.AddAsync("Ada");
        var tab = new Tab(_room.CreateClient());
        var (_, page) = await tab.OpenAsync($"/buzz/{pupil.Id}");
        var answer = await tab.PostAsync(page, string.Format(address, pupil.Id), new ByteArrayContent(new byte[bytes]));
        Assert.Equal(HttpStatusCode.RequestEntityTooLarge, answer.StatusCode);
        Assert.Equal(told, await answer.Content.ReadAsStringAsync(TestContext.Current.CancellationToken));
    }

    [Fact]
    public async Task What_is_done_to_a_pupil_names_the_pupil_whoever_was_chosen_last_in_another_tab()
    {
        var (ada, ben) = (await _room.AddAsync("Ada"), await _room.AddAsync("Ben"));
        var tab = new Tab(_room.CreateClient());
        var page = (await tab.OpenAsync($"/practice/{ada.Id}")).Page;
        await tab.OpenAsync($"/practice/{ben.Id}");
        async Task<HttpStatusCode> ReportAsync(string address)
        {
            using var form = new FormUrlEncodedContent([new("minutes", "50"), new("days", "5"), new("lips", "tired")]);
            return (await tab.PostAsync(page, $"{address}?handler=Report", form)).StatusCode;
        }

        Assert.Equal(HttpStatusCode.NotFound, await ReportAsync("/practice"));
        Assert.Equal(0, await _room.InRecordAsync(db => db.Entries.CountAsync()));
        Assert.NotEqual(HttpStatusCode.NotFound, await ReportAsync($"/practice/{ada.Id}"));
        Assert.Equal(ada.Id, await _room.InRecordAsync(db => db.Entries.Select(entry => entry.PupilId).SingleAsync()));
    }

    [Fact]
    public async Task A_page_that_has_nothing_for_what_is_sent_is_not_there()
    {
        var pupil = await _room.AddAsync("Ada");
        var tab = new Tab(_room.CreateClient());
        var (_, page) = await tab.OpenAsync($"/notes/{pupil.Id}");
        foreach (var address in (string[])["/notes/class?handler=Restore", $"/record/{pupil.Id}?handler=None"])
        {
            using var none = new FormUrlEncodedContent([]);
            Assert.Equal(HttpStatusCode.NotFound, (await tab.PostAsync(page, address, none)).StatusCode);
        }
    }

    [Theory]
    [InlineData("/approach/cues?symptom=late", "application/x-www-form-urlencoded", 3000)]
    [InlineData("/approach/cues?symptom=late&handler=Reset", "multipart/form-data; boundary=x", 0)]
    public async Task A_form_that_cannot_be_read_is_refused_in_a_sentence(string address, string type, int fields)
    {
        var tab = new Tab(_room.CreateClient());
        var (_, page) = await tab.OpenAsync("/approach");
        var sent =
            fields > 0
                ? string.Join('&', Enumerable.Range(0, fields).Select(i => $"a{i}=1"))
                : "--x\r\nContent-Disposition: form-data; name=\"sound\"; filename=\"a.wav\"\r\n\r\nRIFF";
        using var body = new StringContent(sent, System.Net.Http.Headers.MediaTypeHeaderValue.Parse(type));
        var answer = await tab.PostAsync(page, address, body);
        Assert.Equal(HttpStatusCode.UnprocessableEntity, answer.StatusCode);
        Assert.Contains("could not be read", await answer.Content.ReadAsStringAsync(TestContext.Current.CancellationToken));

        // Without a page's token it is refused for that alone.
        using var again = new StringContent(sent, System.Net.Http.Headers.MediaTypeHeaderValue.Parse(type));
        var stranger = await _room.CreateClient().PostAsync(address, again, TestContext.Current.CancellationToken);
        Assert.Equal(HttpStatusCode.BadRequest, stranger.StatusCode);
    }

    [Fact]
    public async Task Nothing_that_is_no_form_of_ours_ends_in_a_fault()
    {
        var pupil = await _room.AddAsync("Ada");
        var tab = new Tab(_room.CreateClient());
        var (_, page) = await tab.OpenAsync($"/buzz/{pupil.Id}");
        async Task<HttpStatusCode> SendAsync(string address, HttpContent body) =>
            (await tab.PostAsync(page, string.Format(address, pupil.Id), body)).StatusCode;

        FormUrlEncodedContent Form(string name, string value) => new([new(name, value)]);
        Assert.Equal(HttpStatusCode.UnprocessableEntity, await SendAsync("/buzz/{0}?handler=Hear", new StringContent("a")));
        Assert.Equal(HttpStatusCode.UnprocessableEntity, await SendAsync("/approach/{0}", new StringContent("a")));
        Assert.Equal(HttpStatusCode.NotFound, await SendAsync("/breath/{0}?handler=Balloon&drill=sneeze", Form("cm", "50")));
        Assert.Equal(HttpStatusCode.UnprocessableEntity, await SendAsync("/pupils/{0}", Form("Form.EasyBreaths", "-1")));
        Assert.Equal(HttpStatusCode.OK, await SendAsync("/notes/{0}/instrument", Form("third", "true")));
        // The pupil stands in the address; a field of that name is none.
        Assert.Equal(HttpStatusCode.OK, await SendAsync("/notes/{0}/instrument?handler=Room", Form("pupilId", "")));
        // A method of that name stands in every page's own class, and is none of its handlers.
        using var request = new HttpRequestMessage(new HttpMethod("PAGE"), $"/buzz/{pupil.Id}?handler=HandlerExecution");
        request.Headers.Add("X-Antiforgery", page.QuerySelector("meta[name=antiforgery]")!.GetAttribute("content"));
        var answer = await _room.CreateClient().SendAsync(request, TestContext.Current.CancellationToken);
        Assert.True((int)answer.StatusCode < 500, $"{answer.StatusCode}");
    }
}
