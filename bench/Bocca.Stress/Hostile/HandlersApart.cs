namespace Bocca.Stress.Hostile;

/// <summary>The handlers of which the hostile run expects less than that they do what they are for, and write.</summary>
public static class HandlersApart
{
    /// <summary>What answers nobody: bringing back is a form alone, and a pupil who is not there yet is not deleted.</summary>
    public static HashSet<string> Never { get; } =
    ["GET /pupils/restore/{id}", "POST /pupils/new?handler=Delete", "GET /problem/{code}", "POST /problem/{code}"];

    /// <summary>
    /// What a room does only in a state that this run does not come to: a verdict that waits for a guess, a change that can be taken
    /// back, a second version of a piece, a page that was typed wrong. They are sent to all the same; each of the others has to do what it
    /// is for at least once.
    /// </summary>
    public static HashSet<string> Rare { get; } =
    [
        "POST /approach/changes/{pupilId}?handler=Back",
        "POST /approach/cues/{pupilId}",
        "POST /approach/{part}/{pupilId}?handler=Reset",
        "POST /breath/{pupilId}?handler=Balloon",
        "POST /ear/{pupilId}?handler=Guess",
        "POST /ear/count/{pupilId}?handler=Guess",
        "POST /ear/tell/{pupilId}?handler=Guess",
        "POST /slurs/{pupilId}/lips?handler=Guess",
        "POST /slurs/{pupilId}/map?handler=Guess",
        "POST /slurs/{pupilId}/own",
        "POST /slurs/{pupilId}/own?handler=Guess",
        "POST /slurs/{pupilId}?handler=Guess",
        "POST /practice/paper?handler=Drop",
        "POST /practice/timetable?handler=Undo",
        "POST /practice/{pupilId}/lesson?handler=Cue",
        "POST /practice/{pupilId}/message?handler=Eml",
        "POST /pupils/erase/{id}",
        "POST /set-up/{pupilId}/watch?handler=Answer",
        "POST /notes/{pupilId}?handler=Unpin",
        "POST /pieces/{pupilId}?handler=DropVersion",
        "POST /pieces/{pupilId}/scale",
        "POST /pieces/{pupilId}/{pieceId}?handler=Settle",
        "POST /notes/{pupilId}/instrument?handler=Mended",
        "POST /notes/{pupilId}/slide?handler=Marks",
        "POST /buzz/{pupilId}?handler=Guess",
        "POST /tone/{pupilId}?handler=Guess",
        "POST /slurs/{pupilId}/map?handler=Keep",
        "POST /slurs/{pupilId}/own?handler=Keep",
        "POST /practice/{pupilId}/lesson?handler=Begin",
    ];

    /// <summary>Handlers that answer a form and write nothing: they draw, hear or work out.</summary>
    public static HashSet<string> Reading { get; } =
    [
        "POST /?handler=Copy",
        "POST /index?handler=Copy",
        "POST /problem/{code}",
        "POST /breath/{pupilId}?handler=Balloon",
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
}
