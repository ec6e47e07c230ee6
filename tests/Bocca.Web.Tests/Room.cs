using AngleSharp;
using AngleSharp.Html.Dom;
using Bocca.Web.Frame;
using Bocca.Web.Record;
using Microsoft.AspNetCore.Hosting;
using Microsoft.AspNetCore.Mvc.ModelBinding;
using Microsoft.AspNetCore.Mvc.Razor;
using Microsoft.AspNetCore.Mvc.RazorPages.Infrastructure;
using Microsoft.AspNetCore.Mvc.Testing;
using Microsoft.AspNetCore.TestHost;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.Hosting;

namespace Bocca.Web.Tests;

/// <summary>The application on a real SQLite file of its own, with no demo pupils.</summary>
public sealed class Room : WebApplicationFactory<Program>
{
    /// <summary>An empty record as the application makes one; made once, since every room begins with it.</summary>
    private static readonly Lazy<string> EmptyRecord = new(MakeEmptyRecord);

    /// <summary>What the framework knows about every page's fields: the same for every room, and most of what starting one takes.</summary>
    private static IModelMetadataProvider? _fields;

    /// <summary>The scripts and styles with their fingerprint: no test changes them.</summary>
    private static Assets? _assets;

    /// <summary>The pages and views as they were found and made ready: the same for every room.</summary>
    private static PageLoader? _pages;
    private static IRazorViewEngine? _views;

    public string Folder { get; } = Directory.CreateTempSubdirectory("bocca-web").FullName;

    public bool KeepFolder { get; init; }

    public string? UseFolder { get; init; }

    /// <summary>What a test puts in place of the application's own, such as its clock.</summary>
    public Action<IServiceCollection>? Instead { get; init; }

    /// <summary>Whether the invented pupils are there.</summary>
    public bool Demo { get; init; }

    protected override void ConfigureWebHost(IWebHostBuilder builder)
    {
        if (!Demo && UseFolder is null)
            File.Copy(EmptyRecord.Value, Path.Combine(Folder, "bocca.db"));
        builder
            .UseSetting("data", UseFolder ?? Folder)
            .UseSetting("empty", Demo ? "false" : "true")
            .UseSetting("warm-up", "false")
            .ConfigureTestServices(services =>
            {
                if (_fields is not null)
                    services.AddSingleton(_fields);
                if (_assets is not null)
                    services.AddSingleton(_assets);
                if (_pages is not null && _views is not null)
                    services.AddSingleton(_pages).AddSingleton(_views);
                Instead?.Invoke(services);
            });
    }

    protected override IHost CreateHost(IHostBuilder builder)
    {
        var host = base.CreateHost(builder);
        _fields ??= host.Services.GetRequiredService<IModelMetadataProvider>();
        _assets ??= host.Services.GetRequiredService<Assets>();
        _pages ??= host.Services.GetRequiredService<PageLoader>();
        _views ??= host.Services.GetRequiredService<IRazorViewEngine>();
        return host;
    }

    private static string MakeEmptyRecord()
    {
        var folder = Directory.CreateTempSubdirectory("bocca-web").FullName;
        using (var db = new BoccaDb(new DbContextOptionsBuilder<BoccaDb>().UseSqlite(RecordFile.ConnectionString(folder)).Options))
        {
            RecordFile.PrepareAsync(db, new Frame.Stops([Frame.Desk.Stop])).GetAwaiter().GetResult();
            db.Database.ExecuteSqlRaw("PRAGMA wal_checkpoint(TRUNCATE);");
        }

        return Path.Combine(folder, "bocca.db");
    }

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

    protected override void Dispose(bool disposing)
    {
        base.Dispose(disposing);
        if (!disposing || KeepFolder || !Directory.Exists(Folder))
            return;
        Microsoft.Data.Sqlite.SqliteConnection.ClearAllPools();
        Directory.Delete(Folder, recursive: true);
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
    public async Task<HttpResponseMessage> PostAsync(IHtmlDocument page, string address, HttpContent body)
    {
        using var request = new HttpRequestMessage(HttpMethod.Post, address) { Content = body };
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
