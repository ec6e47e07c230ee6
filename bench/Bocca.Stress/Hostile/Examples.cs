using System.Text.Json;
using Bocca.Core.Simulation;
using Microsoft.AspNetCore.WebUtilities;

namespace Bocca.Stress.Hostile;

/// <summary>What scripts send, and what somebody types into a form: fields that stand in no page as they are sent.</summary>
public static class Examples
{
    private const string Sound = "source=File&tense=false&missing=0",
        Cards = "tempo=80&cards=q q h&metre=4/4&gap=0&seed=3&character=right",
        Tune = "tempo=80&level=0&seed=7&character=right";

    private static readonly Dictionary<string, string[]> Known = new()
    {
        ["POST /buzz/{pupilId}?handler=Hear"] = [$"{Sound}&drill=sound4-rest4&tempo=120&on=Mouthpiece"],
        ["POST /tone/{pupilId}?handler=Hear"] =
        [
            $"{Sound}&drill=what-came&tempo=120&notes=D4&A4=440&Celsius=20&target=80&rhythm=false&settings=&ways=",
        ],
        ["POST /slurs/{pupilId}?handler=Hear"] = [$"{Sound}&drill=pair:0:3&tempo=90&times=1"],
        ["POST /ear/{pupilId}?handler=Hear"] = [$"{Sound}&drill=sing-intervals&{Tune}&line=&tapped="],
        ["POST /ear/{pupilId}?handler=Answer"] =
        [
            $"drill=steps-leaps&{Tune}&line=&tapped=steps",
            $"drill=which-lower&{Tune}&line=&tapped=1",
        ],
        ["GET /ear/{pupilId}?handler=Practice"] = [$"drill=sing-intervals&{Tune}&line="],
        ["POST /ear/count/{pupilId}?handler=Hear"] = [$"{Sound}&drill=said-clapped&{Cards}&taps=&delay="],
        ["GET /ear/count/{pupilId}?handler=Practice"] = [$"drill=said-clapped&{Cards}"],
        ["GET /ear/tell/{pupilId}?handler=Sound"] = ["drill=sagging&seed=5&which=1"],
        ["POST /ear/tell/{pupilId}?handler=Answer"] = ["drill=sagging&seed=5&tapped=1", "drill=sagging&seed=5&tapped=2"],
        ["POST /ear/tell/{pupilId}?handler=Hear"] = [$"{Sound}&drill=sagging&seed=5&tapped=right"],
        ["POST /ear/delay/{pupilId}?handler=Clicks"] = ["clicks=1 2 3 4 5 6 7 8"],
        ["GET /ear/count/{pupilId}?handler=Begin"] = [$"drill=said-clapped&{Cards}"],
        ["POST /breath/{pupilId}?handler=Balloon"] = ["drill=even-stream&cm=54&across=round"],
        ["POST /ear/delay/{pupilId}?handler=Taps"] = ["clicks=1 2 3 4 5 6 7 8&taps=1.1 2.1 3.1 4.1 5.1 6.1 7.1 8.1&outMs=20"],
        ["POST /pieces/{pupilId}/write"] = ["title=Down the Stairs&text=4/4 q D4 E4 F4 E4&piece="],
        ["POST /pieces/{pupilId}/write?handler=Engrave"] = ["title=Down the Stairs&text=4/4 q D4 E4 F4 E4"],
        ["POST /pieces/{pupilId}/{pieceId}?handler=Settle"] = ["what=tempo&at=0&value=72", "what=breath&at=1&value=yes"],
        ["POST /practice/paper"] =
        [
            "book=The blue folder&page=4&number=2&words=long notes&symptom=&from=Lips&on=16&off=8&times=4&tempo=72",
        ],
        ["POST /practice/timetable?handler=Holiday"] = ["first=2027-02-01&last=2027-02-07&name=Winter"],
        ["POST /practice/{pupilId}/message?handler=Eml"] = ["To=&Guardian=a.family@example.org&Title=This week&Body=Well done."],
        ["POST /practice/{pupilId}/message?handler=Phrases"] = ["greeting=Hello&close=See you"],
        ["POST /set-up/{pupilId}/watch?handler=Notice"] = ["signal=seen.cheeks"],
        ["POST /notes/{pupilId}/slide"] = ["Nearer=1&Further=4&ApartCm=26", "TravelCm=62"],
        ["POST /notes/{pupilId}/slide?handler=Marks"] = ["stayCm=9&endCm=4"],
        ["POST /notes/{pupilId}?handler=Pin"] = ["note=E4&setting=1-2", "note=Bb2&setting=1"],
        ["POST /notes/{pupilId}?handler=Unpin"] = ["note=E4", "note=Bb2"],
        ["POST /set-up/{pupilId}/watch?handler=Answer"] = ["signal=yes.airHeard", "signal=no.tightHeard"],
        ["POST /pieces/{pupilId}?handler=DropVersion"] = ["id=1&back=false", "id=2&back=false", "id=1&back=true"],
        ["GET /slurs/{pupilId}?handler=Begin"] = ["drill=pair:0:3&tempo=90&times=1"],
        ["GET /tone/{pupilId}?handler=Begin"] = ["drill=what-came&tempo=120&notes=D4&A4=440&Target=80"],
        ["GET /ear/{pupilId}?handler=Begin"] = [$"drill=sing-intervals&{Tune}&line="],
        ["GET /ear/tell/{pupilId}?handler=Begin"] = ["drill=sagging&seed=5"],
        ["POST /pupils/erase/{id}"] = ["id=8&name=Pupil 7"],
        ["POST /notes/{pupilId}/instrument?handler=Look"] = ["found=missing&missing=the water key's cork"],
        ["POST /practice/{pupilId}/lesson?handler=Cue"] = ["id=airy.smaller"],
        ["POST /pieces/{pupilId}/scale"] =
        [
            "Tonic=D4&Pattern=Major&Octaves=1&Tempo=66",
            "Tonic=E4&Pattern=Major&Octaves=1&Tempo=72",
            "Tonic=Bb2&Pattern=Major&Octaves=1&Tempo=60",
        ],
        ["POST /practice/{pupilId}/lesson?handler=Begin"] = ["minutes=30&other=both"],
        ["POST /practice/timetable?handler=Off"] =
        [
            .. Enumerable.Range(1, 7).Select(id => $"id={id}&day={NextDay((DayOfWeek)((id - 1) % 7)):yyyy-MM-dd}"),
        ],
        ["POST /notes/{pupilId}/instrument?handler=Room"] = ["a4=441&celsius=21&zone=Europe/London", "a4=442&celsius=19&zone=Europe/Oslo"],
        ["POST /pupils/new"] =
        [
            "Form.Name=Somebody New&Form.Instrument=trumpet-bb&Form.Reading=treble&Form.Stage=Lips"
                + "&Form.Started=2026-09-01&Form.SameName=true",
        ],
        ["POST /practice/{pupilId}/week"] = ["from=2027-01-04&minutes=10&minutes=10", "from=2027-03-01", "from=2027-04-05&tired=1"],
        ["POST /pieces/{pupilId}?handler=Name"] =
        [
            "id=1&title=Another name&composer=&level=2&tags=",
            "id=1&title=The first name&composer=&level=&tags=",
        ],
        ["POST /practice/class?handler=Begin"] = ["class=Thursday&what=a scale"],
        ["POST /practice/class?handler=Mark"] = ["class=Thursday&what=a scale&mark=Came"],
        ["POST /practice/wall?handler=Begin"] = ["class=Thursday&what=a scale"],
    };

    private static DateOnly NextDay(DayOfWeek day)
    {
        var next = DateOnly.FromDateTime(DateTime.UtcNow).AddDays(7);
        return next.AddDays(((int)day - (int)next.DayOfWeek + 7) % 7);
    }

    /// <summary>A body of JSON as a script sends it; null where a target takes none, or what is made up is good enough.</summary>
    public static string? Json(Target target) =>
        $"{target}" switch
        {
            "POST /set-up/{pupilId}?handler=Keep" or "POST /set-up/{pupilId}?handler=Measure" => Placement.Value,
            "POST /set-up/{pupilId}/checks?handler=Gaze" => Gaze.Value,
            _ => null,
        };

    private static readonly Lazy<string> Placement = new(() =>
        JsonSerializer.Serialize(
            new
            {
                front = new DrawnFace(0.66, 2, 0, 25).Marks(),
                rimMm = 25,
                source = 2,
            },
            JsonSerializerOptions.Web
        )
    );

    private static readonly Lazy<string> Gaze = new(() =>
        JsonSerializer.Serialize(Enumerable.Range(0, 60).Select(i => new { x = 0.001 * (i % 3), y = 0.0 }), JsonSerializerOptions.Web)
    );

    /// <summary>The fields of one example for a target; null where there is none.</summary>
    public static IReadOnlyDictionary<string, string>? For(Target target, Random random) =>
        Known.TryGetValue($"{target}", out var examples)
            ? QueryHelpers
                .ParseQuery(examples[random.Next(examples.Length)])
                .ToDictionary(each => each.Key, each => each.Value.ToString(), StringComparer.OrdinalIgnoreCase)
            : null;
}
