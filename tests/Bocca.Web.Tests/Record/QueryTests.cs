using System.Data.Common;
using Bocca.Web.Pages.Buzz;
using Bocca.Web.Record;
using Microsoft.AspNetCore.Http;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Diagnostics;
using Microsoft.Extensions.DependencyInjection;

namespace Bocca.Web.Tests.Record;

/// <summary>
/// What pages ask of the record: lists and trends read no payload, and the Desk asks as often for forty pupils as for two.
/// </summary>
public sealed class QueryTests : IDisposable
{
    private readonly Log _log = new();
    private readonly Openings _openings = new();
    private readonly Room _room;

    public QueryTests() =>
        _room = new Room
        {
            Instead = services =>
                services
                    .AddHttpContextAccessor()
                    .ConfigureDbContext<BoccaDb>(
                        (scope, options) => options.AddInterceptors(_log.For(scope.GetRequiredService<IHttpContextAccessor>()), _openings)
                    ),
        };

    public void Dispose() => _room.Dispose();

    [Theory]
    [InlineData("/")]
    [InlineData("/record/1")]
    [InlineData("/record/1?stop=buzz")]
    [InlineData("/tone/1?drill=new-note")]
    [InlineData("/slurs/1")]
    [InlineData("/slurs/1/map")]
    [InlineData("/ear/1")]
    [InlineData("/ear/count/1")]
    [InlineData("/ear/tell/1")]
    [InlineData("/notes/1/hand")]
    [InlineData("/notes/1/chart")]
    [InlineData("/notes/1/instrument")]
    [InlineData("/breath/1")]
    [InlineData("/set-up/1/checks")]
    public async Task Lists_and_trends_read_no_payload(string address)
    {
        await FillAsync(1, takes: 6);
        var (queries, page) = await QueriesAsync(address);
        Assert.NotNull(page.QuerySelector("#stage"));
        Assert.NotEmpty(queries);
        Assert.DoesNotContain(queries, query => query.Contains("Payloads", StringComparison.Ordinal));
    }

    [Fact]
    public async Task The_desk_asks_as_often_for_forty_pupils_as_for_two()
    {
        await FillAsync(2, takes: 3);
        var few = (await QueriesAsync("/")).Queries;
        await FillAsync(38, takes: 3);
        var (queries, page) = await QueriesAsync("/");
        // In the same words too: a question that changes with the length of a list would be put into words anew each time.
        Assert.Equal(few, queries);
        Assert.Equal(30, page.QuerySelectorAll(".bench tbody tr").Length);
        Assert.InRange(few.Count, 4, 16);
    }

    [Theory]
    [InlineData("/practice/class", ".seats li")]
    [InlineData("/notes/class", "#stage tbody tr")]
    [InlineData("/slurs/class", "#stage tbody tr")]
    public async Task A_class_asks_as_often_for_twelve_pupils_as_for_two(string address, string each)
    {
        await FillAsync(2, takes: 1);
        await SeatAsync();
        var few = (await QueriesAsync(address)).Queries;
        await FillAsync(10, takes: 1);
        Assert.Equal(12, await SeatAsync());
        var (queries, page) = await QueriesAsync(address);
        Assert.Equal(few, queries);
        Assert.Equal(12, page.QuerySelectorAll(each).Length);
        Assert.InRange(few.Count, 4, 16);

        Task<int> SeatAsync() =>
            _room.InRecordAsync(db => db.Pupils.ExecuteUpdateAsync(set => set.SetProperty(pupil => pupil.ClassName, "Band")));
    }

    [Fact]
    public async Task A_request_opens_the_record_once()
    {
        await FillAsync(2, takes: 1);
        Assert.InRange((await QueriesAsync("/practice/1")).Queries.Count, 10, 40);
        _openings.Count = 0;
        await QueriesAsync("/practice/1");
        // Two requests, and what the application's own clockwork may open meanwhile.
        Assert.InRange(_openings.Count, 2, 4);
    }

    /// <summary>What is shown whole reads its payload: the take on the stage, and the samples that make the pupil's own scale.</summary>
    [Fact]
    public async Task A_stage_reads_the_payload_of_what_is_on_it_and_no_other()
    {
        await FillAsync(1, takes: 6);
        var id = await _room.InRecordAsync(db =>
            db.Entries.Where(entry => entry.Kind == BuzzStop.Takes.Id).Select(entry => entry.Id).FirstAsync()
        );
        Assert.Equal(1, await PayloadsAsync("/buzz/1?drill=sound4-rest4"));
        Assert.Equal(2, await PayloadsAsync($"/buzz/1?take={id}"));
    }

    private async Task<int> PayloadsAsync(string address) =>
        (await QueriesAsync(address)).Queries.Count(query => query.Contains("Payloads", StringComparison.Ordinal));

    private async Task<(List<string> Queries, AngleSharp.Html.Dom.IHtmlDocument Page)> QueriesAsync(string address)
    {
        var tab = new Tab(_room.CreateClient());
        await tab.OpenAsync(address);
        _log.Queries.Clear();
        var (response, page) = await tab.OpenAsync(address);
        Assert.True(response.IsSuccessStatusCode, $"{address}: {response.StatusCode}");
        return ([.. _log.Queries], page);
    }

    private async Task FillAsync(int pupils, int takes)
    {
        for (var i = 0; i < pupils; i++)
        {
            var pupil = await _room.AddAsync($"Pupil {Guid.NewGuid():N}");
            await _room.WriteAsync(async journal =>
            {
                for (var take = 0; take < takes; take++)
                {
                    var (entry, payload) = BuzzTakes.Of(pupil, DateTime.UtcNow.AddDays(take - takes), seed: take);
                    entry.Kept = true;
                    await journal.WriteAsync(BuzzStop.Takes, entry, payload, "MouthpieceFirst");
                }
            });
        }
    }

    private sealed class Openings : DbConnectionInterceptor
    {
        public int Count;

        public override void ConnectionOpened(DbConnection connection, ConnectionEndEventData eventData) =>
            Interlocked.Increment(ref Count);

        public override Task ConnectionOpenedAsync(
            DbConnection connection,
            ConnectionEndEventData eventData,
            CancellationToken cancellationToken = default
        )
        {
            Interlocked.Increment(ref Count);
            return Task.CompletedTask;
        }
    }

    /// <summary>The queries of requests; what the application's own clockwork asks meanwhile is none of them.</summary>
    private sealed class Log : DbCommandInterceptor
    {
        private IHttpContextAccessor? _requests;

        public List<string> Queries { get; } = [];

        public Log For(IHttpContextAccessor requests)
        {
            _requests = requests;
            return this;
        }

        public override InterceptionResult<DbDataReader> ReaderExecuting(
            DbCommand command,
            CommandEventData eventData,
            InterceptionResult<DbDataReader> result
        )
        {
            Add(command);
            return result;
        }

        public override ValueTask<InterceptionResult<DbDataReader>> ReaderExecutingAsync(
            DbCommand command,
            CommandEventData eventData,
            InterceptionResult<DbDataReader> result,
            CancellationToken cancellationToken = default
        )
        {
            Add(command);
            return ValueTask.FromResult(result);
        }

        private void Add(DbCommand command)
        {
            if (_requests?.HttpContext is null)
                return;
            lock (Queries)
                Queries.Add(command.CommandText);
        }
    }
}
