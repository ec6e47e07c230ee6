using AngleSharp;
using AngleSharp.Html.Dom;
using Bocca.Web.Record;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;

namespace Bocca.Web.Tests;

/// <summary>The application on a real SQLite file of its own, with no demo pupils.</summary>
public sealed class Room : IDisposable, IAsyncDisposable
{
    private RoomApplication? _application;

    public bool KeepFolder { get; init; }

    public string? UseFolder { get; init; }

    /// <summary>What a test puts in place of the application's own, such as its clock.</summary>
    public Action<IServiceCollection>? Instead { get; init; }

    /// <summary>Whether the invented pupils are there.</summary>
    public bool Demo { get; init; }

    public string Folder => Application.Folder;

    public IServiceProvider Services => Application.Services;

    /// <summary>Whether nothing is out of the ordinary, so that the next test may have the same application with an empty record.</summary>
    private bool IsUsual => !KeepFolder && !Demo && UseFolder is null && Instead is null;

    private RoomApplication Application =>
        _application ??= IsUsual ? RoomApplication.Free() : new RoomApplication(UseFolder, Demo, KeepFolder, Instead);

    public HttpClient CreateClient() => Application.CreateClient();

    public async Task<Pupil> AddAsync(string name, string instrument = "trumpet-bb", string reading = "treble")
    {
        using var scope = Services.CreateScope();
        var db = scope.ServiceProvider.GetRequiredService<BoccaDb>();
        var pupil = new Pupil
        {
            Name = name,
            InstrumentId = instrument,
            ReadingId = reading,
            Started = new DateOnly(2026, 9, 1),
        };
        db.Pupils.Add(pupil);
        await db.SaveChangesAsync();
        return pupil;
    }

    /// <summary>How many entries of a kind stand in the record.</summary>
    public Task<int> CountAsync(EntryKind kind) => InRecordAsync(db => db.Entries.CountAsync(entry => entry.Kind == kind.Id));

    /// <summary>The only entry of a kind, with its payload.</summary>
    public Task<Shown<T>> OnlyAsync<T>(EntryKind<T> kind)
        where T : class =>
        InRecordAsync(async db =>
        {
            var entry = await db
                .Entries.Include(each => each.Payload)
                .Include(each => each.Approach)
                .SingleAsync(each => each.Kind == kind.Id);
            return new Shown<T>(entry, kind.Read(entry));
        });

    /// <summary>Writes through the journal, as a page does.</summary>
    public async Task WriteAsync(Func<Journal, Task> write)
    {
        using var scope = Services.CreateScope();
        await write(scope.ServiceProvider.GetRequiredService<Journal>());
    }

    public async Task<T> InRecordAsync<T>(Func<BoccaDb, Task<T>> read)
    {
        using var scope = Services.CreateScope();
        return await read(scope.ServiceProvider.GetRequiredService<BoccaDb>());
    }

    public void Dispose()
    {
        if (IsUsual)
            _application?.Leave();
        else
            _application?.Dispose();
    }

    public async ValueTask DisposeAsync()
    {
        if (IsUsual || _application is null)
            Dispose();
        else
            await _application.DisposeAsync();
    }
}

/// <summary>A browser tab without a screen: keeps cookies, reads pages, sends their forms.</summary>
public sealed class Tab(HttpClient client)
{
    public async Task<(HttpResponseMessage Response, IHtmlDocument Page)> OpenAsync(string address) =>
        await ReadAsync(await client.GetAsync(address));

    /// <summary>Sends a form of a page with some fields changed.</summary>
    public async Task<(HttpResponseMessage Response, IHtmlDocument Page)> SendAsync(
        IHtmlDocument page,
        string selector,
        params (string Field, string Value)[] changes
    )
    {
        var form = (IHtmlFormElement)page.QuerySelector(selector)!;
        var fields = form
            .Elements.OfType<AngleSharp.Dom.IElement>()
            .Select(element =>
                element switch
                {
                    IHtmlInputElement { Type: "radio" or "checkbox", IsChecked: false } => (null, null),
                    IHtmlInputElement input => (input.Name, (string?)input.Value),
                    IHtmlSelectElement select => (select.Name, select.Value),
                    IHtmlTextAreaElement area => (area.Name, area.Value),
                    _ => (null, null),
                }
            )
            .Where(field => field.Item1 is not null)
            .Where(field => changes.All(change => change.Field != field.Item1))
            .Select(field => KeyValuePair.Create(field.Item1!, field.Item2 ?? ""))
            .Concat(changes.GroupBy(change => change.Field).Select(change => KeyValuePair.Create(change.Key, change.Last().Value)));
        return await ReadAsync(await client.PostAsync(form.GetAttribute("action"), new FormUrlEncodedContent(fields)));
    }

    /// <summary>Sends a recording the way the page's script does.</summary>
    public async Task<HttpResponseMessage> HearAsync(
        IHtmlDocument page,
        int pupil,
        byte[] wav,
        string drill = "sound4-rest4",
        double? firstCue = null,
        string name = "take.wav",
        double missing = 0
    )
    {
        using var body = new MultipartFormDataContent
        {
            { new ByteArrayContent(wav), "sound", name },
            { new StringContent(drill), "drill" },
            { new StringContent("120"), "tempo" },
            { new StringContent("Mouthpiece"), "on" },
            { new StringContent("File"), "source" },
            { new StringContent("false"), "tense" },
            { new StringContent($"{missing}"), "missing" },
        };
        if (firstCue is { } cue)
            body.Add(new StringContent($"{cue}"), "firstCue");
        return await PostAsync(page, $"/buzz/{pupil}?handler=Hear", body);
    }

    /// <summary>Posts a body the way a page's script does, with the page's token.</summary>
    public async Task<HttpResponseMessage> PostAsync(IHtmlDocument page, string address, HttpContent body, string? once = null)
    {
        using var request = new HttpRequestMessage(HttpMethod.Post, address) { Content = body };
        if (once is not null)
            request.Headers.Add("X-Once", once);
        request.Headers.Add("X-Antiforgery", page.QuerySelector("meta[name=antiforgery]")!.GetAttribute("content"));
        return await client.SendAsync(request);
    }

    public static async Task<(HttpResponseMessage Response, IHtmlDocument Page)> ReadAsync(HttpResponseMessage response)
    {
        var html = await response.Content.ReadAsStringAsync();
        var page = await BrowsingContext.New(AngleSharp.Configuration.Default).OpenAsync(request => request.Content(html));
        return (response, (IHtmlDocument)page);
    }
}
