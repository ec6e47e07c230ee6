using System.Net;
using AngleSharp.Html.Dom;
using Bocca.Web.Pages.Breath;
using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Tests;

/// <summary>The same thing saved from several tabs at the same moment: nobody meets an error, and one state stands.</summary>
public sealed class TogetherTests : IDisposable
{
    private const int Tabs = 8;
    private readonly Room _room = new();

    public void Dispose() => _room.Dispose();

    [Fact]
    public async Task The_approach_of_the_room_and_of_a_pupil()
    {
        var pupil = await _room.AddAsync("Ada");
        await AllAtOnceAsync("/approach", "form[method=post]");
        Assert.Equal(1, await _room.InRecordAsync(db => db.Rooms.CountAsync()));
        await AllAtOnceAsync($"/approach/{pupil.Id}", "form[method=post]");
    }

    [Fact]
    public async Task The_pitch_of_the_room_and_a_pin()
    {
        var pupil = await _room.AddAsync("Ada");
        await AllAtOnceAsync($"/notes/{pupil.Id}/instrument", "form[action*=Room]");
        await AllAtOnceAsync($"/notes/{pupil.Id}?note=E4&way=3", "form[action*=Pin]");
        Assert.Equal(1, await _room.InRecordAsync(db => db.Pins.CountAsync()));
    }

    [Fact]
    public async Task The_first_that_is_ever_written()
    {
        var pupil = await _room.AddAsync("Ada");
        await AllAtOnceAsync($"/notes/{pupil.Id}?note=E4", "form[action*=Save]");
        Assert.Equal(Tabs, await _room.CountAsync(Pages.Notes.NotesStop.Notes));
    }

    [Fact]
    public async Task A_pupil_edited_beside_being_deleted()
    {
        var pupil = await _room.AddAsync("Ada");
        var (edits, deletes) = (new Tab(_room.CreateClient()), new Tab(_room.CreateClient()));
        var (_, page) = await edits.OpenAsync($"/pupils/{pupil.Id}");
        var (_, other) = await deletes.OpenAsync($"/pupils/{pupil.Id}");
        await deletes.SendAsync(other, "form[action*=Delete]");
        Assert.Equal(HttpStatusCode.NotFound, (await edits.SendAsync(page, "form.sheet")).Response.StatusCode);
    }

    [Fact]
    public async Task A_breath_sent_twice_is_one()
    {
        var pupil = await _room.AddAsync("Ada");
        var key = Guid.NewGuid();
        var pages = await Task.WhenAll(Enumerable.Range(0, Tabs).Select(_ => OpenedAsync($"/breath/{pupil.Id}")));
        var answers = await Task.WhenAll(
            pages.Select(async opened =>
            {
                using var body = new MultipartFormDataContent
                {
                    { new StringContent($"{key}"), "key" },
                    { new StringContent("even-stream"), "drill" },
                    { new StringContent("0"), "rung" },
                    { new StringContent("80"), "tempo" },
                    { new StringContent("true"), "even" },
                    { new StringContent("false"), "stopped" },
                };
                return (await opened.Tab.PostAsync(opened.Page, $"/breath/{pupil.Id}?handler=Keep", body)).StatusCode;
            })
        );
        Assert.All(answers, code => Assert.Equal(HttpStatusCode.OK, code));
        Assert.Equal(1, await _room.CountAsync(BreathStop.Drills));
    }

    private async Task AllAtOnceAsync(string address, string form)
    {
        var pages = await Task.WhenAll(Enumerable.Range(0, Tabs).Select(_ => OpenedAsync(address)));
        var answers = await Task.WhenAll(pages.Select(opened => opened.Tab.SendAsync(opened.Page, form)));
        Assert.All(answers, answer => Assert.Equal(HttpStatusCode.OK, answer.Response.StatusCode));
    }

    private async Task<(Tab Tab, IHtmlDocument Page)> OpenedAsync(string address)
    {
        var tab = new Tab(_room.CreateClient());
        return (tab, (await tab.OpenAsync(address)).Page);
    }
}
