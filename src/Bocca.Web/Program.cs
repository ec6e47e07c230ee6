using System.Globalization;
using System.Text.Json.Serialization;
using Bocca.Web;
using Bocca.Web.Data;
using Bocca.Web.Live;
using Microsoft.AspNetCore.DataProtection;
using Microsoft.EntityFrameworkCore;
using Serilog;
using Serilog.Events;

CultureInfo.DefaultThreadCurrentCulture = CultureInfo.CurrentCulture = CultureInfo.GetCultureInfo("");

var builder = WebApplication.CreateBuilder(args);
builder.Host.UseSerilog(
    (_, logs) =>
        logs
            .MinimumLevel.Warning()
            // The keys sign forms only; they lie beside the record, on the teacher's own machine.
            .MinimumLevel.Override("Microsoft.AspNetCore.DataProtection", LogEventLevel.Error)
            .WriteTo.Console(outputTemplate: "{Timestamp:HH:mm:ss} {Level:u3} {Message:lj}{NewLine}{Exception}")
);
builder.Services.AddRazorPages(Routes.Configure);
builder.Services.AddDbContext<BoccaDb>(options => options.UseSqlite(RecordFile.ConnectionString(builder.Configuration["data"] ?? "data")));
builder
    .Services.AddDataProtection()
    .PersistKeysToFileSystem(Directory.CreateDirectory(Path.Combine(builder.Configuration["data"] ?? "data", "keys")));
builder.Services.AddSingleton(TimeProvider.System);
builder.Services.AddResponseCompression(options => options.EnableForHttps = true);
builder.Services.AddAntiforgery(options => options.HeaderName = "X-Antiforgery");
builder.Services.AddSignalR().AddJsonProtocol(json => json.PayloadSerializerOptions.Converters.Add(new JsonStringEnumConverter()));
builder.Services.AddHttpContextAccessor();
builder.Services.AddHostedService<WarmUp>();
builder.WebHost.ConfigureKestrel(kestrel => kestrel.Limits.MaxRequestBodySize = Bocca.Core.Sound.WavFile.MaximumBytes + 1_000_000);

var app = builder.Build();
app.UseResponseCompression();
app.UseMiddleware<SecurityHeaders>();
app.UseExceptionHandler("/problem/500");
app.UseStatusCodePagesWithReExecute("/problem/{0}");
app.UseStaticFiles(new StaticFileOptions { OnPrepareResponse = file => file.Context.Response.Headers.CacheControl = "no-cache" });
app.UseRouting();
app.UseAntiforgery();
app.MapRazorPages();
app.MapHub<ListenHub>("/live/listen");

using (var scope = app.Services.CreateScope())
{
    var db = scope.ServiceProvider.GetRequiredService<BoccaDb>();
    var time = scope.ServiceProvider.GetRequiredService<TimeProvider>();
    await RecordFile.PrepareAsync(db, time.GetUtcNow().UtcDateTime);
    if (!app.Configuration.GetValue("empty", false) && !await db.Pupils.IgnoreQueryFilters().AnyAsync())
        await DemoData.FillAsync(db, time);
}

await app.RunAsync();

/// <summary>The web application; named so that tests can start it.</summary>
public partial class Program;
