using System.Net;
using Bocca.Web.Record;
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

        await _room.AddAsync("Ada\u0001\u000b");
        var (response, page) = await tab.OpenAsync("/notes/class?shape=FiveNotes");
        Assert.Equal(HttpStatusCode.OK, response.StatusCode);
        var score = page.QuerySelector("[data-score]")!.TextContent;
        Assert.Contains("<part-name>Ada</part-name>", score);
    }
}
