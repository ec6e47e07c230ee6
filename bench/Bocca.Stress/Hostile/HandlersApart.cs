namespace Bocca.Stress.Hostile;

/// <summary>The handlers of which the hostile run expects less than that they do what they are for, and write.</summary>
public static class HandlersApart
{
    /// <summary>What answers nobody: bringing back is a form alone, and a pupil who is not there yet is not deleted.</summary>
    public static HashSet<string> Never { get; } =
    [
        "GET /pupils/restore/{id}",
        "POST /pupils/new?handler=Delete",
        "GET /problem/{code}",
        "POST /problem/{code}",
        // No page asks for a guess there: what is heard is not guessed, or nothing is heard.
        "POST /ear/{pupilId}?handler=Guess",
        "POST /ear/count/{pupilId}?handler=Guess",
        "POST /ear/tell/{pupilId}?handler=Guess",
        "POST /slurs/{pupilId}/lips?handler=Guess",
        "POST /slurs/{pupilId}/map?handler=Guess",
        "POST /slurs/{pupilId}/own?handler=Guess",
    ];

    /// <summary>
    /// What a room does only in a state that this run does not come to: only the notice after times were added can take them back. It is
    /// sent to all the same; each of the others has to do what it is for at least once.
    /// </summary>
    public static HashSet<string> Rare { get; } = ["POST /practice/timetable?handler=Undo"];

    /// <summary>What a page holds with which a form's own page answers it where it was taken.</summary>
    public static IReadOnlyDictionary<string, string> Shown { get; } =
        new Dictionary<string, string> { ["POST /slurs/{pupilId}/own"] = "data-own>" };

    /// <summary>Handlers that answer a form and write nothing: they draw, hear or work out.</summary>
    public static HashSet<string> Reading { get; } =
    [
        "POST /?handler=Copy",
        "POST /index?handler=Copy",
        "POST /problem/{code}",
        "POST /pieces/{pupilId}/scale",
        "POST /slurs/{pupilId}/own",
        "POST /pieces/{pupilId}/write?handler=Engrave",
        "POST /practice/class?handler=Begin",
        "POST /practice/class?handler=End",
        "POST /practice/wall?handler=Begin",
        "POST /practice/wall?handler=End",
        "POST /practice/{pupilId}/message?handler=Eml",
        "POST /ear/delay/{pupilId}?handler=Clicks",
        "POST /ear/delay/{pupilId}?handler=Taps",
        "POST /set-up/{pupilId}?handler=Measure",
    ];

    /// <summary>Fields whose words say where to go back to, on every page.</summary>
    public const string Back = "back";

    /// <summary>What a take was asked, sealed: it is read, not kept as it came.</summary>
    public const string Request = "Request";

    /// <summary>Words that are taken and stand nowhere afterwards: they choose among what there is, or are kept otherwise.</summary>
    public static HashSet<(string Field, string Handler)> NotKept { get; } =
    [
        ("Title", "POST /practice/{pupilId}/message?handler=Eml"),
        ("Body", "POST /practice/{pupilId}/message?handler=Eml"),
        ("place", "POST /practice/class?handler=Mark"),
        ("place", "POST /practice/wall?handler=Mark"),
        ("missing", "POST /notes/{pupilId}/instrument?handler=Look"),
        ("Tapped", "POST /ear/{pupilId}?handler=Hear"),
        ("across", "POST /breath/{pupilId}?handler=Balloon"),
        ("group", "POST /approach/{part}/{pupilId}?handler=Reset"),
        ("other", "POST /practice/{pupilId}/lesson?handler=Begin"),
    ];
}
