using System.Globalization;
using System.Text.Json.Serialization;
using Bocca.Web;
using Bocca.Web.Frame;
using Bocca.Web.Live;
using Bocca.Web.Pages.Breath;
using Bocca.Web.Pages.Buzz;
using Bocca.Web.Pages.Ear;
using Bocca.Web.Pages.Notes;
using Bocca.Web.Pages.Pieces;
using Bocca.Web.Pages.Practice;
using Bocca.Web.Pages.Setup;
using Bocca.Web.Pages.Slurs;
using Bocca.Web.Pages.Tone;
using Bocca.Web.Record;
using Bocca.Web.Record.Requests;
using Microsoft.AspNetCore.DataProtection;
using Microsoft.AspNetCore.Http.Connections;
using Microsoft.AspNetCore.Http.Features;
using Microsoft.EntityFrameworkCore;
using Serilog;
using Serilog.Events;

CultureInfo.DefaultThreadCurrentCulture = CultureInfo.CurrentCulture = CultureInfo.GetCultureInfo("");

var builder = WebApplication.CreateBuilder(args);
var data = builder.Configuration["data"] ?? "data";
builder.Host.UseSerilog(
    (_, logs) =>
        logs
            .MinimumLevel.Warning()
            // The keys sign forms only; they lie beside the record, on the teacher's own machine.
            .MinimumLevel.Override("Microsoft.AspNetCore.DataProtection", LogEventLevel.Error)
            .WriteTo.Console(outputTemplate: "{Timestamp:HH:mm:ss} {Level:u3} {Message:lj}{NewLine}{Exception}")
);
builder
    .Services.AddRazorPages(Routes.Configure)
    .AddMvcOptions(mvc =>
    {
        mvc.ModelBinderProviders.Insert(0, new FiniteNumbers());
        mvc.Filters.AddService<SentOnce>();
        mvc.Filters.AddService<SavesInTurn>();
    });
builder.Services.AddDbContext<BoccaDb>(options =>
    options
        // A list is one parameter, however long: the same question is put into words once, not anew for each length.
        .UseSqlite(RecordFile.ConnectionString(data), sqlite => sqlite.UseParameterizedCollectionMode(ParameterTranslationMode.Parameter))
        .AddInterceptors(new KeptOpen())
);
builder.Services.AddDataProtection().PersistKeysToFileSystem(new DirectoryInfo(RecordFolder.KeysIn(data)));
builder.Services.AddSingleton(_ => RecordFolder.Open(data, builder.Configuration.GetValue("anew", false)));
builder.Services.AddSingleton<RequestSeal>();
builder.Services.AddSingleton<Copies>();
builder.Services.AddSingleton<Erasing>();
builder.Services.AddSingleton(TimeProvider.System);
foreach (
    var stop in (Stop[])
        [
            Desk.Stop,
            BreathStop.Stop,
            SetupStop.Stop,
            BuzzStop.Stop,
            ToneStop.Stop,
            NotesStop.Stop,
            SlursStop.Stop,
            EarStop.Stop,
            PiecesStop.Stop,
            PracticeStop.Stop,
        ]
)
    builder.Services.AddSingleton(stop);
builder.Services.AddSingleton<Stops>();
builder.Services.AddScoped(services => RoomClock.For(services.GetRequiredService<BoccaDb>(), services.GetRequiredService<TimeProvider>()));
builder.Services.AddScoped<Journal>();
builder.Services.AddSingleton<Assets>();
builder.Services.AddSingleton<RefusedForms>();
builder.Services.AddSingleton<SentOnce>();
builder.Services.AddSingleton<SavesInTurn>();
builder.Services.AddSingleton<FirstPage>();
builder.Services.AddSingleton<HeavyWork>();
builder.Services.AddSingleton<PiecePlans>();
builder.Services.AddSingleton<DemoFilling>();
builder.Services.AddHostedService<Tidy>();
builder.Services.AddHostedService<WeekFollows>();
builder.Services.AddHostedService<DailyCopy>();
builder.Services.AddHostedService<ErasesDeleted>();
builder.Services.Configure<FormOptions>(form => form.MemoryBufferThreshold = (int)UploadLimitAttribute.Usual);
builder.Services.AddResponseCompression(options => options.EnableForHttps = true);
builder.Services.AddAntiforgery(options => options.HeaderName = "X-Antiforgery");
builder
    .Services.AddSignalR()
    .AddMessagePackProtocol()
    .AddJsonProtocol(json => json.PayloadSerializerOptions.Converters.Add(new JsonStringEnumConverter()));
builder.Services.AddHttpContextAccessor();
if (builder.Configuration.GetValue("warm-up", true))
    builder.Services.AddHostedService<WarmUp>();
var lines = new LiveLines();
builder.WebHost.ConfigureKestrel(kestrel =>
{
    kestrel.Limits.MaxRequestBodySize = UploadLimitAttribute.Usual;
    kestrel.AddServerHeader = false;
    kestrel.ConfigureEndpointDefaults(endpoint => endpoint.Use(lines.Hold));
});

var app = builder.Build();
var first = app.Services.GetRequiredService<FirstPage>();
app.Use(
    async (context, next) =>
    {
        await next(context);
        first.Answered();
    }
);
app.UseMiddleware<SecurityHeaders>();
app.UseMiddleware<LoopbackOnly>();
app.UseResponseCompression();
app.UseExceptionHandler("/problem/500");
app.UseStatusCodePagesWithReExecute("/problem/{0}");
app.Services.GetRequiredService<Assets>().Serve(app);
app.UseWhen(context => context.Request.Path.StartsWithSegments(ListenHub.Path), live => live.Use(lines.HoldAsync));
app.UseRouting();
app.UseMiddleware<UploadLimits>();
app.UseAntiforgery();
app.MapRazorPages();
app.MapHub<ListenHub>(ListenHub.Path, hub => hub.Transports = HttpTransportType.WebSockets);

try
{
    if (app.Configuration["backup"] is { Length: > 0 } copy)
    {
        RecordFolder.Backup(data, copy);
        return 0;
    }

    if (app.Configuration["restore"] is { Length: > 0 } put)
    {
        Console.WriteLine(RecordRestore.Restore(data, put));
        return 0;
    }

    if (app.Configuration.GetValue("undo-restore", false))
    {
        Console.WriteLine(RecordRestore.Undo(data));
        return 0;
    }

    app.Services.GetRequiredService<RecordFolder>();
    using var scope = app.Services.CreateScope();
    var db = scope.ServiceProvider.GetRequiredService<BoccaDb>();
    var filling = app.Services.GetRequiredService<DemoFilling>();
    await RecordFile.PrepareAsync(db, app.Services.GetRequiredService<Stops>(), Console.WriteLine);
    await app.Services.GetRequiredService<Erasing>().FinishAsync(db);
    if (filling.IsOpen)
        filling.GoOn(app.Lifetime.ApplicationStopping);
    else if (!app.Configuration.GetValue("empty", false) && !await db.Pupils.IgnoreQueryFilters().AnyAsync())
        await filling.BeginAsync(app.Lifetime.ApplicationStopping);
}
catch (StartRefusedException problem)
{
    await Console.Error.WriteLineAsync($"start: {problem.Message}");
    await app.DisposeAsync();
    return 1;
}
catch
{
    // The folder is free again for whoever tries next.
    await app.DisposeAsync();
    throw;
}

await app.RunAsync();
return 0;

/// <summary>The web application; named so that tests can start it.</summary>
public partial class Program;
