namespace Bocca.Stress.Mutations;

/// <summary>A mistake put into the application on purpose, which the hostile requests have to find.</summary>
/// <param name="Name">What is wrong then.</param>
/// <param name="File">In which file of the source.</param>
/// <param name="Was">The text that is there, once.</param>
/// <param name="Becomes">What stands in its place.</param>
public sealed record Mutation(string Name, string File, string Was, string Becomes)
{
    private const string Web = "src/Bocca.Web/";

    /// <summary>All of them.</summary>
    public static IReadOnlyList<Mutation> All { get; } =
    [
        new(
            "forms are taken without their token",
            Web + "Routes.cs",
            "options.Conventions.AddPageRoute(\"/Pupils/Edit\", \"pupils/new\");",
            "options.Conventions.AddPageRoute(\"/Pupils/Edit\", \"pupils/new\"); "
                + "options.Conventions.ConfigureFilter(new Microsoft.AspNetCore.Mvc.IgnoreAntiforgeryTokenAttribute());"
        ),
        new(
            "a page shows what was sent as it was sent",
            Web + "Pages/Practice/Paper.cshtml",
            "<h1 id=\"paper-title\">Paper ",
            "<h1 id=\"paper-title\">Paper @Html.Raw(Model.Find) "
        ),
        new(
            "an attribute holds what was sent as it was sent",
            Web + "Pages/Practice/Paper.cshtml",
            "<section id=\"stage\" class=\"paper\"",
            "<section id=\"stage\" @Html.Raw(\"title=\\\"\" + Model.Find + \"\\\"\") class=\"paper\""
        ),
        new(
            "a remark says yes and writes nothing",
            Web + "Pages/Practice/Lesson.cshtml.cs",
            "await Journal.WriteAsync(PracticeStop.Remarks, entry, Approach.ToString());",
            "await System.Threading.Tasks.Task.CompletedTask;"
        ),
        new(
            "a page takes eight seconds",
            Web + "Pages/Practice/Term.cshtml.cs",
            "    public async Task<IActionResult> OnGetAsync()\n    {",
            "    public async Task<IActionResult> OnGetAsync()\n    {\n        await Task.Delay(8000);"
        ),
        new(
            "pages may load from anywhere",
            Web + "SecurityHeaders.cs",
            "            headers.ContentSecurityPolicy = Policy;\n",
            "            _ = Policy;\n"
        ),
        new(
            "pages may be stored",
            Web + "SecurityHeaders.cs",
            "headers.CacheControl = \"no-store\";",
            "headers.CacheControl = \"max-age=600\";"
        ),
        new(
            "another pupil's entry can be deleted",
            Web + "Record/Journal.cs",
            ".FirstOrDefaultAsync(each => each.Id == id && each.PupilId == pupilId);",
            ".FirstOrDefaultAsync(each => each.Id == id);"
        ),
        new(
            "deleting says yes and deletes nothing",
            Web + "Record/Journal.cs",
            "        entry.DeletedAt = deleted ? clock.Now : null;\n        entry.Figures.Clear();",
            "        if (entry.Id > 0)\n            return entry;\n        entry.Figures.Clear();"
        ),
        new(
            "a week says yes and is not written",
            Web + "Record/Journal.cs",
            "        if (await OneAsync(key) is { } standing)\n            return standing;\n        entry.Key = key;",
            "        if (entry.Key is null)\n            return entry;\n        entry.Key = key;"
        ),
        new(
            "what was thrown is told",
            Web + "Pages/Problem.cshtml.cs",
            "                return \"There is no such page. Check the address, or go on from the Desk.\";",
            "                return $\"InvalidOperationException: {asked}\";"
        ),
        new(
            "what a page refuses is thrown",
            Web + "Frame/StagePage.cs",
            "        try\n        {\n            return await act();\n        }\n        catch (Exception problem) "
                + "when (problem is ArgumentException or InvalidDataException or FormatException)\n        {\n"
                + "            return Refuse(OneLine.Of(problem));\n        }",
            "        return await act();"
        ),
        new("numbers need not be finite", Web + "Frame/FiniteNumbers.cs", " && double.IsFinite(number)", ""),
        new(
            "what is wrong in a form goes on to the page",
            Web + "Frame/StagePage.cs",
            "if (!ModelState.IsValid && !ChecksItself)",
            "if (!ModelState.IsValid && ChecksItself && PupilId == -1)"
        ),
        new(
            "every request leaves a megabyte behind",
            Web + "SecurityHeaders.cs",
            "    public Task InvokeAsync(HttpContext context)\n    {\n",
            "    private static readonly List<byte[]> Left = [];\n\n    public Task InvokeAsync(HttpContext context)\n    {\n"
                + "        var more = new byte[1_000_000];\n        System.Security.Cryptography.RandomNumberGenerator.Fill(more);\n"
                + "        lock (Left)\n            Left.Add(more);\n"
        ),
        new(
            "a live line of any rate is begun",
            Web + "Live/ListenHub.cs",
            "if (sampleRate is < 8000 or > 192_000)",
            "if (sampleRate is 1234567)"
        ),
        new(
            "a table holds cells that a spreadsheet works out",
            "src/Bocca.Core/TableWriter.cs",
            "InjectionOptions = InjectionOptions.Escape",
            "InjectionOptions = InjectionOptions.None"
        ),
        new(
            "an answer of a script is no JSON",
            Web + "Pages/Pieces/Piece.cshtml.cs",
            "WithPlanAsync(worked => new JsonResult(HeardPiece.Others(worked, Room.Tuning)));",
            "WithPlanAsync(worked => Content(\"{\" + HeardPiece.Others(worked, Room.Tuning).Count, \"application/json\"));"
        ),
        new(
            "a score may define entities",
            "src/Bocca.Core/Score/MusicXmlReader.cs",
            "DtdProcessing = DtdProcessing.Ignore,",
            "DtdProcessing = DtdProcessing.Parse, MaxCharactersFromEntities = 400_000_000,"
        ),
        new(
            "a form that cannot be read breaks the page",
            Web + "Frame/SavesInTurn.cs",
            "catch (Exception problem) when (problem is InvalidDataException or IOException and not BadHttpRequestException)",
            "catch (Exception problem) when (problem is FormatException)"
        ),
    ];
}
