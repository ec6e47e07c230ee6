using System.ComponentModel.DataAnnotations;
using Bocca.Core.Breath;
using Bocca.Core.Embouchure;
using Bocca.Core.Health;
using Bocca.Core.Instruments;
using Bocca.Core.Teaching;
using Bocca.Web.Frame;
using Bocca.Web.Record;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.ModelBinding;
using Microsoft.AspNetCore.Mvc.RazorPages;
using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Pages.Pupils;

/// <summary>Adds and edits a pupil.</summary>
public sealed class EditModel(Journal journal) : StagePage(journal)
{
    /// <summary>What was typed is shown again with what is wrong; a tick is there or it is not.</summary>
    protected override bool ChecksItself => HttpMethods.IsPost(Request.Method) && !ModelState.Any(sent => IsTick(sent.Key, sent.Value!));

    private static bool IsTick(string name, ModelStateEntry sent) =>
        sent.Errors.Count > 0
        && typeof(PupilForm).GetProperty(name.Split('.')[^1])?.PropertyType is { } type
        && (type == typeof(bool) || type.IsArray);

    [BindProperty]
    public PupilForm Form { get; set; } = new();

    /// <summary>What another tab has saved meanwhile, field by field.</summary>
    public IReadOnlyList<(string Field, string Theirs)> Clash { get; private set; } = [];

    public bool IsNew => PupilId is null;

    /// <summary>Who has the name that was typed for a new pupil; null for nobody.</summary>
    public Pupil? AlikeNamed { get; private set; }

    /// <summary>The classes there are.</summary>
    public IReadOnlyList<string> Classes { get; private set; } = [];

    [NonHandler]
    public override async Task OnPageHandlerExecutionAsync(
        Microsoft.AspNetCore.Mvc.Filters.PageHandlerExecutingContext context,
        Microsoft.AspNetCore.Mvc.Filters.PageHandlerExecutionDelegate next
    )
    {
        Classes = await Db.ClassNamesAsync();
        await base.OnPageHandlerExecutionAsync(context, next);
    }

    /// <param name="instrument">An instrument offered in place of the pupil's; nothing changes before it is saved.</param>
    public async Task OnGetAsync(string? instrument = null)
    {
        Form = IsNew ? new PupilForm { Started = Clock.Today, Stage = await UsualStageAsync() } : PupilForm.Of(Pupil!);
        if (Catalogue.All.FirstOrDefault(known => known.Id == instrument) is not { } offered)
            return;
        Form.Instrument = offered.Id;
        if (!offered.Readings.Any(reading => reading.Id == Form.Reading))
            Form.Reading = offered.Readings[0].Id;
    }

    public async Task<IActionResult> OnPostAsync()
    {
        Check();
        await AskOfTheSameNameAsync();
        if (!ModelState.IsValid)
            return Page();
        if (IsNew)
        {
            var added = new Pupil
            {
                Name = Form.Name!.Trim(),
                InstrumentId = Form.Instrument!,
                ReadingId = Form.ReadingOrUsual(),
            };
            Form.WriteTo(added);
            Db.Pupils.Add(added);
            await Db.SaveChangesAsync();
            TempData["Told"] = $"{added.Name} is on the Desk.";
            return RedirectToPage("/Buzz/Index", new { pupilId = added.Id });
        }

        if (await Db.Pupils.FirstOrDefaultAsync(pupil => pupil.Id == PupilId) is not { } stored)
            return NotFound();
        if (stored.Version != Form.Version)
            return Clashed(stored);
        Form.WriteTo(stored);
        stored.Version = Guid.NewGuid();
        try
        {
            await Db.SaveChangesAsync();
        }
        catch (DbUpdateConcurrencyException)
        {
            Db.ChangeTracker.Clear();
            return await Db.Pupils.FirstOrDefaultAsync(pupil => pupil.Id == PupilId) is { } theirs ? Clashed(theirs) : NotFound();
        }

        TempData["Told"] = $"{stored.Name} is saved.";
        return Redirect($"/pupils/{PupilId}");
    }

    public async Task<IActionResult> OnPostDeleteAsync()
    {
        if (await Db.Pupils.FirstOrDefaultAsync(pupil => pupil.Id == PupilId) is not { } stored)
            return NotFound();
        stored.DeletedAt = Clock.Now;
        await Db.SaveChangesAsync();
        TempData["Told"] = $"{stored.Name} is deleted, with the record.";
        TempData["UndoAt"] = $"/pupils/restore/{PupilId}";
        return RedirectToPage("/Index");
    }

    /// <summary>Shows both sides; what was typed stays in the form, and saving again puts it over the other.</summary>
    private PageResult Clashed(Pupil stored)
    {
        Response.StatusCode = StatusCodes.Status409Conflict;
        var theirs = PupilForm.Of(stored);
        Clash = [.. Form.DifferencesFrom(theirs)];
        Form.Version = stored.Version;
        ModelState.Remove("Form.Version");
        ModelState.AddModelError(
            "",
            $"{stored.Name} was changed in another tab meanwhile. What you typed is still here: save again to put it over the other, "
                + $"or reload to take the other."
        );
        return Page();
    }

    /// <summary>The stage that most of the room's pupils are at, of several the earliest; the first stage in an empty room.</summary>
    private async Task<LearningStage> UsualStageAsync() =>
        (await Db.Pupils.Where(pupil => pupil.DeletedAt == null).Select(pupil => pupil.Stage).ToListAsync())
            .GroupBy(stage => stage)
            .OrderByDescending(alike => alike.Count())
            .ThenBy(alike => alike.Key)
            .Select(alike => alike.Key)
            .FirstOrDefault();

    /// <summary>A name that somebody has already is asked about once: two of one name are told apart by it nowhere.</summary>
    private async Task AskOfTheSameNameAsync()
    {
        if (!IsNew || Form.SameName || string.IsNullOrWhiteSpace(Form.Name))
            return;
        var name = Form.Name.Trim();
        var others = await Db.Pupils.Where(pupil => pupil.DeletedAt == null).ToListAsync();
        AlikeNamed = others.FirstOrDefault(pupil => string.Equals(pupil.Name, name, StringComparison.CurrentCultureIgnoreCase));
        if (AlikeNamed is { } other)
            ModelState.AddModelError("Form.Name", $"{other.Name} ({other.Instrument.Name}) is here already. Is this another pupil?");
    }

    private void Check()
    {
        foreach (var (field, why) in Form.Problems(Clock.Today, keepsReasons: !IsNew && Form.KeepsReasons(Pupil!)))
            ModelState.AddModelError(field == "" ? "" : $"Form.{field}", why);
    }
}

/// <summary>What is typed about a pupil.</summary>
public sealed class PupilForm
{
    /// <summary>With the leap days.</summary>
    private const double DaysOfYear = 365.25;

    /// <summary>What names are made of: nothing that cannot be shown.</summary>
    internal const string NamePattern = @"[^\p{Cc}\p{Cs}\uFFFE\uFFFF]*";

    [Required(ErrorMessage = "A pupil needs a name.")]
    [StringLength(80, ErrorMessage = "A name has at most 80 letters.")]
    [RegularExpression(NamePattern, ErrorMessage = "A name is made of letters; this one has signs that cannot be shown.")]
    public string? Name { get; set; }

    [Required(ErrorMessage = "Choose an instrument.")]
    public string? Instrument { get; set; }

    public string? Reading { get; set; }

    /// <summary>Whether this is another pupil of a name that is here already.</summary>
    public bool SameName { get; set; }

    [EnumDataType(typeof(ApproachPreset))]
    public ApproachPreset? Preset { get; set; }

    public int? BornIn { get; set; }

    /// <summary>Easy breaths only, for a reason that is not noted.</summary>
    public bool EasyBreaths { get; set; }

    /// <summary>Reasons to heed in breath drills.</summary>
    public BreathHealth[] Reasons { get; set; } = [];

    public MouthNote[] Mouth { get; set; } = [];

    /// <summary>Whether reasons that are noted and not shown go.</summary>
    public bool ForgetReasons { get; set; }

    [StringLength(80, ErrorMessage = "A name has at most 80 letters.")]
    [RegularExpression(NamePattern, ErrorMessage = "The name has signs that cannot be shown.")]
    public string? ConsentBy { get; set; }

    public DateOnly? ConsentOn { get; set; }

    public DateOnly? ConsentUntil { get; set; }

    [StringLength(200, ErrorMessage = "What for has at most 200 letters.")]
    [RegularExpression(NamePattern, ErrorMessage = "What for has signs that cannot be shown.")]
    public string? ConsentFor { get; set; }

    public bool ConsentSaysWhy { get; set; }

    public bool DoctorAgrees { get; set; }

    public double? ArmCm { get; set; }

    [Range(1, 4, ErrorMessage = "The highest valve in use is 1 to 4.")]
    public int? HighestValve { get; set; }

    [Range(1, 7, ErrorMessage = "The furthest position taught is 1 to 7.")]
    public int? FurthestPosition { get; set; }

    [EnumDataType(typeof(LearningStage))]
    public LearningStage Stage { get; set; }

    [StringLength(40, ErrorMessage = "A class has at most 40 letters.")]
    [RegularExpression(NamePattern, ErrorMessage = "The class has signs that cannot be shown.")]
    public string? ClassName { get; set; }

    [Required(ErrorMessage = "Give the day of the first lesson.")]
    public DateOnly? Started { get; set; }

    [StringLength(500, ErrorMessage = "A remark has at most 500 letters.")]
    [RegularExpression(@"(?:[\r\n\t]|[^\p{Cc}\p{Cs}\uFFFE\uFFFF])*", ErrorMessage = "The remark has signs that cannot be shown.")]
    public string? Remark { get; set; }

    public Guid Version { get; set; }

    /// <summary>The reasons that may be noted.</summary>
    public static IReadOnlyList<BreathHealth> AllReasons { get; } =
    [.. Enum.GetValues<BreathHealth>().Where(each => each is not (BreathHealth.None or BreathHealth.Unsaid))];

    public static IReadOnlyList<MouthNote> AllMouth { get; } = [MouthNote.Braces, MouthNote.LooseTooth];

    /// <summary>The consent as typed; null where it is not whole.</summary>
    public HealthConsent? Consent =>
        ConsentBy?.Trim() is { Length: > 0 } by && ConsentOn is { } on && ConsentUntil is { } until
            ? new HealthConsent(by, on, until, ConsentFor?.Trim() ?? "", ConsentSaysWhy)
            : null;

    /// <summary>Whether a reason is typed.</summary>
    public bool NotesHealth => Reasons.Length > 0 || Mouth.Length > 0;

    /// <summary>Whether reasons that are noted and not shown stay as they are.</summary>
    public bool KeepsReasons(Pupil pupil) => Hides(pupil) && !ForgetReasons && !NotesHealth;

    /// <summary>Whether reasons are noted that the consent does not let be shown.</summary>
    public static bool Hides(Pupil pupil) =>
        pupil.Consent is not { SaysWhy: true } && ((pupil.Health & ~BreathHealth.Unsaid) != 0 || pupil.Mouth != MouthNote.None);

    /// <summary>What is wrong with it beside what its fields say of themselves: by field, empty for none of them.</summary>
    /// <param name="today">The day.</param>
    /// <param name="keepsReasons">Whether reasons of health that are noted already are to stay.</param>
    public IEnumerable<(string Field, string Why)> Problems(DateOnly today, bool keepsReasons = false)
    {
        if (Catalogue.TryGet(Instrument) is not { } instrument)
            yield return (nameof(Instrument), "Choose an instrument.");
        else if (!string.IsNullOrEmpty(Reading) && instrument.Readings.All(reading => reading.Id != Reading))
            yield return (nameof(Reading), $"A {instrument.Name} does not read that; choose one of its own readings.");
        if (!Reasons.All(AllReasons.Contains) || !Mouth.All(AllMouth.Contains))
            yield return ("", "What was sent about health is none of the list.");
        if (BornIn is { } born && (born > today.Year - 3 || born < today.Year - 100))
            yield return (nameof(BornIn), $"Nobody born in {born} is between 3 and 100 years old.");
        if (ArmCm is { } arm && !(arm >= ArmReach.ArmCm.Least && arm <= ArmReach.ArmCm.Most))
            yield return (
                nameof(ArmCm),
                $"An arm of {arm} cm cannot be: measure from the shoulder joint to the grip, {ArmReach.ArmCm.Least} to "
                    + $"{ArmReach.ArmCm.Most} cm."
            );
        foreach (var problem in ConsentProblems(today, NotesHealth || keepsReasons))
            yield return problem;
        if (Started > today.AddYears(1))
            yield return (nameof(Started), "That start lies more than a year ahead.");
    }

    /// <summary>Something about health is kept only with a guardian's consent that is in force.</summary>
    private IEnumerable<(string Field, string Why)> ConsentProblems(DateOnly today, bool isNeeded)
    {
        if (isNeeded && Consent is null)
            yield return (
                nameof(ConsentBy),
                "A reason is kept only with a guardian's consent: who, when, until when. Without it, easy breaths only can be ticked."
            );
        else if (isNeeded && !Consent!.InForce(today))
            yield return (nameof(ConsentUntil), "This consent is not in force today: note a new one, or take the reasons out.");
        if (Consent is { } given && given.Until < given.On)
            yield return (nameof(ConsentUntil), "The consent would end before it begins.");
        if (Consent is { } noted && noted.Until.DayNumber - noted.On.DayNumber > DaysOfYear * HealthConsent.MostYears)
            yield return (
                nameof(ConsentUntil),
                $"A consent is noted for {HealthConsent.MostYears} years at most; then it is asked for anew."
            );
    }

    private string Noted =>
        $"{string.Join(", ", Reasons.Select(Wording.Health).Concat(Mouth.Select(Wording.Mouth)))}{(EasyBreaths ? ", easy breaths" : "")}"
        + $"{(DoctorAgrees ? ", doctor agrees" : "")}";

    private string Consented => Consent is { } given ? $"{given.By}, {given.On:d MMM yyyy} to {given.Until:d MMM yyyy}" : "none";

    public static PupilForm Of(Pupil pupil) =>
        new()
        {
            Name = pupil.Name,
            Instrument = pupil.InstrumentId,
            Reading = pupil.ReadingId,
            Preset = pupil.Preset,
            BornIn = pupil.BornIn,
            EasyBreaths = pupil.Health.HasFlag(BreathHealth.Unsaid),
            Reasons = Hides(pupil) ? [] : [.. AllReasons.Where(reason => pupil.Health.HasFlag(reason))],
            Mouth = Hides(pupil) ? [] : [.. AllMouth.Where(note => pupil.Mouth.HasFlag(note))],
            ConsentBy = pupil.ConsentBy,
            ConsentOn = pupil.ConsentOn,
            ConsentUntil = pupil.ConsentUntil,
            ConsentFor = pupil.ConsentFor,
            ConsentSaysWhy = pupil.ConsentSaysWhy,
            DoctorAgrees = pupil.DoctorAgrees,
            ArmCm = pupil.ArmCm,
            HighestValve = pupil.HighestValve,
            FurthestPosition = pupil.FurthestPosition,
            Stage = pupil.Stage,
            ClassName = pupil.ClassName,
            Started = pupil.Started,
            Remark = pupil.Remark,
            Version = pupil.Version,
        };

    public string ReadingOrUsual() => string.IsNullOrEmpty(Reading) ? Catalogue.Get(Instrument!).Readings[0].Id : Reading;

    public void WriteTo(Pupil pupil)
    {
        pupil.Name = Name!.Trim();
        pupil.InstrumentId = Instrument!;
        pupil.ReadingId = ReadingOrUsual();
        pupil.Preset = Preset;
        pupil.BornIn = BornIn;
        var keeps = KeepsReasons(pupil);
        pupil.Health =
            (EasyBreaths ? BreathHealth.Unsaid : 0)
            | (keeps ? pupil.Health & ~BreathHealth.Unsaid : Reasons.Aggregate(BreathHealth.None, (all, reason) => all | reason));
        pupil.Mouth = keeps ? pupil.Mouth : Mouth.Aggregate(MouthNote.None, (all, note) => all | note);
        (pupil.ConsentBy, pupil.ConsentOn, pupil.ConsentUntil) = (ConsentBy?.Trim(), ConsentOn, ConsentUntil);
        (pupil.ConsentFor, pupil.ConsentSaysWhy) = (ConsentFor?.Trim() ?? "", ConsentSaysWhy);
        pupil.DoctorAgrees = DoctorAgrees;
        pupil.ArmCm = ArmCm;
        pupil.HighestValve = HighestValve;
        pupil.FurthestPosition = FurthestPosition;
        pupil.Stage = Stage;
        pupil.ClassName = ClassName?.Trim() ?? "";
        pupil.Started = Started!.Value;
        pupil.Remark = Remark?.Trim() ?? "";
    }

    private static string Followed(ApproachPreset? preset) => preset is { } own ? Wording.Preset(own) : "the room's";

    public IEnumerable<(string Field, string Theirs)> DifferencesFrom(PupilForm theirs)
    {
        (string Field, string Mine, string Theirs)[] fields =
        [
            ("name", $"{Name}", $"{theirs.Name}"),
            ("instrument", $"{Instrument}", $"{theirs.Instrument}"),
            ("reading", ReadingOrUsual(), theirs.ReadingOrUsual()),
            ("approach", Followed(Preset), Followed(theirs.Preset)),
            ("year of birth", $"{BornIn}", $"{theirs.BornIn}"),
            ("health", Noted, theirs.Noted),
            ("consent", Consented, theirs.Consented),
            ("arm", $"{ArmCm} cm", $"{theirs.ArmCm} cm"),
            ("highest valve", $"{HighestValve}", $"{theirs.HighestValve}"),
            ("furthest position", $"{FurthestPosition}", $"{theirs.FurthestPosition}"),
            ("class", $"{ClassName}", $"{theirs.ClassName}"),
            ("stage", Wording.Stage(Stage), Wording.Stage(theirs.Stage)),
            ("first lesson", $"{Started:d MMMM yyyy}", $"{theirs.Started:d MMMM yyyy}"),
            ("remark", $"{Remark}", $"{theirs.Remark}"),
        ];
        return fields.Where(field => field.Mine != field.Theirs).Select(field => (field.Field, field.Theirs));
    }
}
