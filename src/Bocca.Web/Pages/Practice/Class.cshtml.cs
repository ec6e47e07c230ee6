using Bocca.Core.Fingering.Class;
using Bocca.Core.Judging;
using Bocca.Core.Practice.Class;
using Bocca.Web.Frame;
using Bocca.Web.Record;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Pages.Practice;

/// <summary>A remedy for some of a class.</summary>
/// <param name="Group">Who, and against what.</param>
/// <param name="Symptom">The symptom; null where nothing more is known.</param>
public sealed record Remedy(RemedyGroup Group, Symptom? Symptom);

/// <summary>Round the room: everybody does the same in the order of their seats, one tap each; afterwards who needs what.</summary>
public class ClassModel(Journal journal) : ClassPage(journal)
{
    /// <summary>Cues of late that say what somebody's symptoms are.</summary>
    private const int CuesLookedAt = 6;

    /// <summary>What is done, in the teacher's words.</summary>
    [BindProperty(SupportsGet = true, Name = "what")]
    public string? WhatAsked { get; set; }

    /// <summary>The concert note that everybody plays.</summary>
    [BindProperty(SupportsGet = true, Name = "start")]
    public string? Start { get; set; }

    /// <summary>Whose turn the teacher chose.</summary>
    [BindProperty(SupportsGet = true, Name = "turn")]
    public int? Turn { get; set; }

    public ClassRound? OwnRound { get; private set; }

    /// <summary>The concert note as it is asked for.</summary>
    public string StartOr => Notes.ClassModel.Starts.Contains(Start ?? "") ? Start! : "Bb";

    /// <summary>Everybody's own note, by pupil.</summary>
    public IReadOnlyDictionary<int, (ClassPart Part, ClassNote Note)> Own { get; private set; } =
        new Dictionary<int, (ClassPart, ClassNote)>();

    /// <summary>Who needs what, for the teacher only.</summary>
    public IReadOnlyList<Remedy> Remedies { get; private set; } = [];

    /// <summary>When the class is, in words; empty for no time in the timetable.</summary>
    public string When { get; private set; } = "";

    /// <summary>The round in an address.</summary>
    public string Query =>
        $"class={Uri.EscapeDataString(ClassName)}&what={Uri.EscapeDataString(OwnRound!.What)}&start={Uri.EscapeDataString(StartOr)}";

    public async Task OnGetAsync()
    {
        await LoadAsync();
        await RemediesAsync();
        When = string.Join(
            ", ",
            (await Db.TimetableAsync())
                .Slots.Where(slot => slot.Who.ClassName == ClassName && !(slot.Until < Clock.Today))
                .Select(slot => $"{slot.Day} {slot.Start:HH:mm}")
        );
    }

    /// <summary>Marks somebody, and passes the turn on; at a stop it goes on there.</summary>
    public async Task<IActionResult> OnPostMarkAsync(int pupil, RoundMark mark, string? place)
    {
        await LoadAsync();
        if (OwnRound!.Seats.FirstOrDefault(seat => seat.Pupil.Id == pupil) is not { } seat || !Enum.IsDefined(mark))
            return Refuse("Nobody of this class is that.");
        var entry = new Entry
        {
            PupilId = pupil,
            Kind = PracticeStop.Rounds.Id,
            InstrumentId = seat.Pupil.InstrumentId,
            Subject = OwnRound.What,
            Result = new EntryResult(PracticeStop.Marks[mark]),
            At = Clock.Now,
            Summary = $"{PracticeStop.WordsOf(mark)}.",
        };
        var start = Clock.DayStart;
        entry = await Journal.WriteOneAsync(
            PracticeStop.Rounds,
            entry,
            seat.Pupil.ApproachIn(Room).ToString(),
            $"{Clock.Today:yyyy-MM-dd} {mark} {OwnRound.What}",
            Journal.Of(pupil, PracticeStop.Rounds).Where(other => other.Subject == OwnRound.What && other.At >= start)
        );
        (TempData["Told"], TempData["UndoAt"]) = (
            $"{seat.Pupil.Name.Split(' ')[0]}: {PracticeStop.WordsOf(mark)}.",
            $"/practice/class?handler=Unmark&id={entry.Id}&pupil={pupil}&{Query}"
        );
        return OwnRound.After(seat.Pupil) is { } next && place is not null && Stops.At(place) is { } stop
            ? LocalRedirect(stop.Address(next.Id))
            : LocalRedirect($"/practice/class?{Query}");
    }

    /// <summary>Takes a mark back.</summary>
    public async Task<IActionResult> OnPostUnmarkAsync(long id, int pupil)
    {
        await LoadAsync();
        if (
            await Db.Entries.AnyAsync(entry => entry.Id == id && entry.Kind == PracticeStop.Rounds.Id)
            && await Journal.MarkAsync(pupil, id, true) is not null
        )
            TempData["Told"] = PracticeStop.Rounds.Gone;
        return LocalRedirect($"/practice/class?{Query}");
    }

    /// <summary>Lets every stop know whose turn it is, and goes to the first.</summary>
    public async Task<IActionResult> OnPostBeginAsync()
    {
        await LoadAsync();
        if (OwnRound!.Turn is not { } first)
            return Refuse("Everybody has had a turn. Give the round other words for a new one.");
        Response.Cookies.Append(
            ClassRound.Cookie,
            OwnRound.AsCookie,
            new CookieOptions
            {
                HttpOnly = true,
                SameSite = SameSiteMode.Strict,
                IsEssential = true,
                MaxAge = TimeSpan.FromHours(3),
            }
        );
        return LocalRedirect($"/tone/{first.Id}");
    }

    /// <summary>Ends the round at the stops.</summary>
    public async Task<IActionResult> OnPostEndAsync()
    {
        await LoadAsync();
        Response.Cookies.Delete(ClassRound.Cookie);
        return LocalRedirect($"/practice/class?{Query}");
    }

    /// <summary>Keeps who sits where.</summary>
    public async Task<IActionResult> OnPostSeatsAsync(int[] id, int?[] seat)
    {
        await LoadAsync();
        if (id.Length != seat.Length || seat.Any(each => each is < 1 or > 99))
            return Refuse("A seat is 1 to 99, or none.");
        foreach (var (pupil, at) in id.Zip(seat))
            await Db
                .Pupils.Where(each => each.Id == pupil && each.ClassName == ClassName)
                .ExecuteUpdateAsync(to => to.SetProperty(each => each.Seat, at).SetProperty(each => each.Version, Guid.NewGuid()));
        TempData["Told"] = "Everybody sits so from now on.";
        return LocalRedirect($"/practice/class?{Query}");
    }

    protected async Task LoadAsync()
    {
        await LoadMembersAsync();
        var what = WhatAsked?.Trim() is { Length: > 0 and <= ClassRound.MostLetters } said
            ? said
            : $"Concert {Wording.Spelled(StartOr)}, one long note";
        OwnRound = await ClassRound.OfAsync(Journal, ClassName, Members, what, Turn);
        var line = ConcertLine.Of(ConcertShape.LongNote, StartOr);
        List<Pupil> seated = [.. OwnRound.Seats.Select(seat => seat.Pupil)];
        Own = seated.Zip(await PartsAsync(seated, line)).ToDictionary(own => own.First.Id, own => (own.Second, own.Second.Notes[0]));
    }

    private async Task RemediesAsync()
    {
        var needs = new List<ClassNeed>();
        foreach (var seat in OwnRound!.Seats.Where(seat => seat.Marked is RoundMark.Partly or RoundMark.NotYet))
        {
            var tries = (await Journal.CuesAsync(seat.Pupil.Id)).Tries.Take(CuesLookedAt);
            needs.Add(
                new ClassNeed(
                    seat.Pupil.Name,
                    seat.Marked,
                    [.. tries.GroupBy(each => each.Cue.Split('.')[0]).Where(each => !each.First().Helped).Select(each => each.Key)]
                )
            );
        }

        Remedies = [.. RemedyGroups.Of(needs).Select(group => new Remedy(group, Symptoms.Find(group.Symptom)))];
    }
}
