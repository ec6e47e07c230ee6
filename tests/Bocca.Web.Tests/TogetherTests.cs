using System.Net;
using AngleSharp.Html.Dom;
using Bocca.Web.Pages.Breath;
using Bocca.Web.Pages.Ear;
using Bocca.Web.Pages.Practice;
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
    public async Task Changes_at_once_to_one_lesson_all_stand()
    {
        var pupil = await _room.AddAsync("Ada");
        await BeginAsync(pupil.Id);
        var pages = await Task.WhenAll(Enumerable.Range(0, 12).Select(_ => OpenedAsync($"/practice/{pupil.Id}/lesson")));
        await Task.WhenAll(
            pages.Select(
                async (opened, i) =>
                {
                    using var part = new FormUrlEncodedContent([new("to", $"{i % 2}")]);
                    var answer = await opened.Tab.PostAsync(opened.Page, $"/practice/{pupil.Id}/lesson?handler=Part", part);
                    Assert.Equal(HttpStatusCode.OK, answer.StatusCode);
                }
            )
        );
        Assert.Equal(1 + 12, (await _room.OnlyAsync(PracticeStop.Lessons)).Payload.Begun.Count);
    }

    [Theory]
    [InlineData("one page")]
    [InlineData("many pages")]
    public async Task A_lesson_begun_twenty_times_is_one(string from)
    {
        var pupil = await _room.AddAsync("Ada");
        var one = await OpenedAsync($"/practice/{pupil.Id}");
        await Task.WhenAll(
            Enumerable
                .Range(0, 20)
                .Select(async _ =>
                {
                    var (tab, page) = from == "one page" ? one : await OpenedAsync($"/practice/{pupil.Id}");
                    await BeginAsync(pupil.Id, tab, page);
                })
        );
        Assert.Equal(1, await _room.CountAsync(PracticeStop.Lessons));
    }

    [Theory]
    [InlineData("the same key", 1)]
    [InlineData("other words", 2)]
    [InlineData("another key", 2)]
    public async Task A_form_sent_again_with_its_key_saves_once(string again, int stand)
    {
        var opened = await OpenedAsync("/pupils/new");
        var (key, name) = ($"{Guid.NewGuid()}", "Ada");
        foreach (var isSecond in (bool[])[false, true])
        {
            using var form = new FormUrlEncodedContent([
                new("Form.Name", isSecond && again == "other words" ? "Bo" : name),
                new("Form.Instrument", "trumpet-bb"),
                new("Form.Stage", "Lips"),
                new("Form.Started", "2026-09-01"),
                new("Form.SameName", "true"),
                new("once", isSecond && again == "another key" ? $"{Guid.NewGuid()}" : key),
            ]);
            var answer = await opened.Tab.PostAsync(opened.Page, "/pupils/new", form);
            Assert.Equal(HttpStatusCode.OK, answer.StatusCode);
            Assert.StartsWith("/buzz/", answer.RequestMessage!.RequestUri!.AbsolutePath);
        }

        Assert.Equal(stand, await _room.InRecordAsync(db => db.Pupils.CountAsync()));
    }

    [Theory]
    [InlineData("/approach", "form.points", "point.mp.share", "b", "a")]
    [InlineData("/approach/limits", "#stage form", "limits.lipsSeconds", "100", "90")]
    public async Task A_page_of_settings_that_was_changed_in_another_tab_is_asked_about(
        string address,
        string form,
        string field,
        string mine,
        string theirs
    )
    {
        var (first, second) = (await OpenedAsync(address), await OpenedAsync(address));
        Assert.Equal(HttpStatusCode.OK, (await second.Tab.SendAsync(second.Page, form, (field, theirs))).Response.StatusCode);

        var (clash, _) = await first.Tab.SendAsync(first.Page, form, (field, mine));

        Assert.Equal(HttpStatusCode.Conflict, clash.StatusCode);
        Assert.Contains("was changed in another tab", await clash.Content.ReadAsStringAsync(TestContext.Current.CancellationToken));
        // Shown again, it stands as the other left it, and may be put over it.
        var again = await OpenedAsync(address);
        Assert.Equal(HttpStatusCode.OK, (await again.Tab.SendAsync(again.Page, form, (field, mine))).Response.StatusCode);
    }

    [Fact]
    public async Task A_mark_and_a_week_sent_twenty_times_are_one()
    {
        var pupil = await _room.AddAsync("Ada");
        await _room.InRecordAsync(async db =>
        {
            (await db.Pupils.FirstAsync()).ClassName = "Thursday";
            return await db.SaveChangesAsync();
        });
        var round = await OpenedAsync("/practice/class?class=Thursday&what=scale");
        var week = await OpenedAsync($"/practice/{pupil.Id}/week");
        async Task MarkAsync(string mark)
        {
            using var sent = new FormUrlEncodedContent([new("pupil", $"{pupil.Id}"), new("mark", mark)]);
            var answer = await round.Tab.PostAsync(round.Page, "/practice/class?handler=Mark&class=Thursday&what=scale", sent);
            Assert.Equal(HttpStatusCode.OK, answer.StatusCode);
        }

        await Task.WhenAll(Enumerable.Range(0, 20).Select(_ => MarkAsync("Came")));
        Assert.Equal(1, await _room.CountAsync(PracticeStop.Rounds));
        // Marked otherwise, and as before: the last stands, alone.
        await MarkAsync("Partly");
        await MarkAsync("Came");
        Assert.Equal(1, await _room.CountAsync(PracticeStop.Rounds));
        await Task.WhenAll(
            Enumerable
                .Range(0, 20)
                .Select(async _ =>
                {
                    using var none = new FormUrlEncodedContent([]);
                    var answer = await week.Tab.PostAsync(week.Page, $"/practice/{pupil.Id}/week", none);
                    Assert.Equal(HttpStatusCode.OK, answer.StatusCode);
                })
        );
        Assert.Equal(1, await _room.CountAsync(PracticeStop.Weeks));
    }

    private async Task BeginAsync(int pupil, Tab? tab = null, IHtmlDocument? page = null)
    {
        if (tab is null || page is null)
            (tab, page) = await OpenedAsync($"/practice/{pupil}");
        using var begin = new FormUrlEncodedContent([new("minutes", "30")]);
        Assert.Equal(HttpStatusCode.OK, (await tab.PostAsync(page, $"/practice/{pupil}/lesson?handler=Begin", begin)).StatusCode);
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

    /// <summary>A script whose answer was lost sends again with the same key: it was heard once, and is told the same.</summary>
    [Fact]
    public async Task What_a_script_sends_twenty_times_with_its_key_is_done_once()
    {
        var pupil = await _room.AddAsync("Ada");
        var (tab, page) = await OpenedAsync($"/ear/{pupil.Id}");
        async Task<(HttpStatusCode Code, string Text)> AnswerAsync(string tempo, string key)
        {
            using var body = new FormUrlEncodedContent(
                Microsoft
                    .AspNetCore.WebUtilities.QueryHelpers.ParseQuery(
                        $"drill=steps-leaps&tempo={tempo}&level=0&seed=7&character=right&line=&tapped=steps"
                    )
                    .ToDictionary(field => field.Key, field => field.Value.ToString())
            );

            var answer = await tab.PostAsync(page, $"/ear/{pupil.Id}?handler=Answer", body, key);
            return (answer.StatusCode, await answer.Content.ReadAsStringAsync(TestContext.Current.CancellationToken));
        }

        var once = $"{Guid.NewGuid()}";
        var answers = await Task.WhenAll(Enumerable.Range(0, 20).Select(_ => AnswerAsync("80", once)));
        Assert.Equal(HttpStatusCode.OK, Assert.Single(answers.Distinct()).Code);
        Assert.Equal(1, await _room.CountAsync(EarStop.Answers));

        // A refusal is none: what was refused is tried anew, and another key is another answer.
        var again = $"{Guid.NewGuid()}";
        Assert.Equal(HttpStatusCode.UnprocessableEntity, (await AnswerAsync("NaN", again)).Code);
        Assert.Equal(HttpStatusCode.OK, (await AnswerAsync("80", again)).Code);
        Assert.Equal(2, await _room.CountAsync(EarStop.Answers));
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
