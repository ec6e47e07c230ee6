using Bocca.Core.Buzz.Measures;
using Bocca.Core.Health;
using Bocca.Core.Judging;
using Bocca.Core.Sound;
using Bocca.Core.Teaching;
using Bocca.Web.Pages.Practice;
using Bocca.Web.Record;
using Bocca.Web.Record.Requests;
using Bocca.Web.Record.Shapes;
using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Frame.Takes;

/// <summary>The takes of a pupil at a stop: heard and written, guessed at, kept, and led on from.</summary>
/// <param name="pupil">Whose they are.</param>
/// <param name="journal">The record.</param>
/// <param name="health">What today's complaints leave.</param>
/// <param name="rules">What is the stop's own.</param>
public sealed class StopTakes<T>(Pupil pupil, Journal journal, HealthDay health, TakeRules<T> rules)
    where T : class, IJudgedPayload<T>
{
    /// <summary>For so long what is played after a cue says something of it (ours, editable).</summary>
    private static readonly TimeSpan CueHolds = TimeSpan.FromDays(2);

    /// <summary>All of them, the newest first.</summary>
    public IQueryable<Entry> All => journal.Of(pupil.Id, rules.Kind);

    /// <summary>One by its number, with its payload and what it was asked to be; null where it is none of this page's.</summary>
    public async Task<Entry?> FindAsync(long id) =>
        await journal
            .Db.Entries.Include(entry => entry.Payload)
            .Include(entry => entry.Request)
            .FirstOrDefaultAsync(entry => entry.Id == id && entry.PupilId == pupil.Id && entry.Kind == rules.Kind.Id)
            is { } entry
        && rules.IsShownHere(entry.DrillId)
            ? entry
            : null;

    /// <summary>The same as it is shown.</summary>
    public async Task<Shown<T>?> ShownAsync(long id, IQueryable<Entry> takes) =>
        await Journal.ShowAsync(rules.Kind, takes.Include(take => take.Request).Where(take => take.Id == id)) is { } take
        && rules.IsShownHere(take.Entry.DrillId)
            ? take
            : null;

    /// <summary>The drill of the last take kept; null for none.</summary>
    public Task<string?> LastDrillAsync() => All.Where(take => take.Kept).Select(take => take.DrillId).FirstOrDefaultAsync();

    /// <summary>The step that is open for the pupil at this stop; null for none.</summary>
    public Task<Entry?> OpenStepAsync()
    {
        var place = journal.Stops.OfKind(rules.Kind.Id).Place;
        return journal.Of(pupil.Id, Steps.Kind).Where(step => step.DoneAt == null && step.Subject == place).FirstOrDefaultAsync();
    }

    /// <summary>Takes the pupil's guess down.</summary>
    /// <returns>The take with it; null where it was told already.</returns>
    public async Task<Shown<T>?> GuessAsync(Entry entry, HeardAs said)
    {
        var payload = rules.Kind.Read(entry);
        if (payload.Verdict is not { HeardAs: { } was, Guessed: null } verdict || entry.Kept || !Guess.Choices(was).Contains(said))
            return null;
        payload = payload.With(verdict with { Guessed = said });
        rules.Kind.Rewrite(entry, payload);
        await journal.Db.SaveChangesAsync();
        return new Shown<T>(entry, payload);
    }

    /// <summary>Keeps a take.</summary>
    public async Task KeepAsync(Entry entry)
    {
        var stands = entry.Kept;
        await journal.KeepAsync(entry);
        if (!stands)
            await rules.Kept(new Shown<T>(entry, rules.Kind.Read(entry)));
    }

    /// <summary>Accepts what a take leads to. That keeps the take too: it is the reason for the step.</summary>
    public async Task<Shown<T>> AcceptAsync(Entry entry, Approach approach)
    {
        await KeepAsync(entry);
        var take = new Shown<T>(entry, rules.Kind.Read(entry));
        await journal.AcceptAsync(entry, take.Payload.Verdict.Next, approach.ToString());
        return take;
    }

    /// <summary>
    /// Hears a sound out and writes what was heard, not yet kept; nothing stays of its sound. A demonstration, and what its player keeps
    /// private, is not written.
    /// </summary>
    public async Task<Shown<T>> HearAsync(
        SentSound sent,
        MonoSound sound,
        Func<TakeToHear, Task<WrittenTake<T>>> hear,
        Shown<LessonPayload>? lesson
    )
    {
        var moment = sent.Moment(journal.Clock);
        var before = sent.IsDemonstration ? null : await BeforeAsync(sent.Drill, moment, lesson is not null);
        var heard = await hear(new TakeToHear(sound, before));
        var (frozen, entry, payload) = (heard.Frozen, heard.Entry, heard.Payload);
        if (before is not null)
            payload = payload.With(payload.Verdict with { Came = CueHistory.Came(before, payload.Verdict) });
        if (heard.Length.Played < heard.Length.Asked)
        {
            var again = (new Place(journal.Stops.OfKind(rules.Kind.Id).Place), entry.DrillId);
            payload = payload.With(payload.Verdict.StoppedAfter(heard.Length.Played, heard.Length.Asked, again));
            (entry.Outcome, entry.Summary) = (payload.Verdict.Outcome, payload.Verdict.Summary);
        }

        // Nobody played it before Start was pressed, whatever the browser's clock says: rests are counted from here.
        entry.At = frozen.Made is { } made && made > moment ? made : moment;
        if (entry.InstrumentId is not null)
            entry.InstrumentId = frozen.Under.On.Instrument;
        if (!sent.IsPlayedHere)
            (entry.PlayedSeconds, entry.HighSeconds) = (null, null);
        (entry.Request, entry.Rebuilt) = (frozen.Stored, frozen.Rebuilt);
        // Where lips were at work, their minutes have to be counted whatever is kept.
        if (sent.IsDemonstration || (sent.Private == true && entry.PlayedSeconds is null))
            return new Shown<T>(entry, payload);
        return await journal.WriteAsync(rules.Kind, entry, payload, frozen.Terms.Approach.ToString());
    }

    /// <summary>The verdict that the take of the same drill before this one ended with, and its cue; null for none lately.</summary>
    private async Task<Verdict?> BeforeAsync(string drill, DateTime moment, bool isLesson)
    {
        var since = moment - CueHolds;
        if (
            await Journal.ShowAsync(rules.Kind, All.Where(take => take.DrillId == drill && take.At >= since && take.At < moment))
            is not { } before
        )
            return null;
        var verdict = before.Payload.Verdict;
        // A cue that the teacher gave after it is the one that was tried.
        var given = isLesson
            ? await journal
                .Of(pupil.Id, PracticeStop.Cues)
                .Where(cue => cue.At > before.Entry.At && cue.At < moment)
                .Select(cue => cue.Subject)
                .FirstOrDefaultAsync()
            : null;
        return given is null ? verdict : verdict with { Next = verdict.Next with { Given = given } };
    }

    /// <summary>Who is judged, with all that the record knows.</summary>
    /// <param name="terms">How the teacher wants it.</param>
    /// <param name="on">What was played on.</param>
    /// <param name="tense">Whether the teacher has ticked tension.</param>
    /// <param name="before">What the take before ended with; null for none.</param>
    public async Task<SoundingPupil> JudgedAsync(TakeTerms terms, SoundStage on, bool tense, Verdict? before = null)
    {
        var (scale, own) = await journal.OwnSoundAsync(pupil.Id, on);
        var bands = BandTable.Shipped.With(terms.Own);
        return new SoundingPupil(terms.Approach, own, tense || health.Softens || await journal.TenseTodayAsync(pupil.Id))
        {
            Symptoms = terms.Own.Symptoms(),
            Bands = health.Softens ? bands.Wider : bands,
            Scale = scale,
            Known = await journal.KnownAsync(pupil.Id),
            LooksFirst = on == SoundStage.Instrument && !await journal.LookedTodayAsync(pupil),
            Cues = await journal.CuesAsync(pupil.Id),
            Before = before,
            Day = journal.Clock.Today,
        };
    }
}
