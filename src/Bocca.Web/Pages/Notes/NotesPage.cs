using Bocca.Core.Music;
using Bocca.Web.Frame;
using Bocca.Web.Record;
using Microsoft.AspNetCore.Mvc.Filters;

namespace Bocca.Web.Pages.Notes;

/// <summary>A page about written notes on the pupil's very instrument.</summary>
public abstract class NotesPage(Journal journal) : EntriesPage(journal)
{
    /// <summary>The instrument as the pupil has it; null while nobody is chosen.</summary>
    public PlayedInstrument? Played { get; private set; }

    protected Reading Reading => Pupil!.Reading;

    public override Task OnPageHandlerExecutionAsync(PageHandlerExecutingContext context, PageHandlerExecutionDelegate next) =>
        base.OnPageHandlerExecutionAsync(
            context,
            async () =>
            {
                Played = Pupil is null ? null : await Journal.PlayedAsync(Pupil, Approach, Room.Conditions.Tuning);
                return await next();
            }
        );
}
