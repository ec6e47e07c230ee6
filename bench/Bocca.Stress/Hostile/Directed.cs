namespace Bocca.Stress.Hostile;

/// <summary>What has to come of a request that has one thing wrong in it.</summary>
public enum Due
{
    /// <summary>Any answer that does no harm.</summary>
    Answered,

    /// <summary>It is not taken.</summary>
    Refused,

    /// <summary>Where it is taken, the words in it stand in the record afterwards.</summary>
    Kept,
}

/// <summary>The one thing in a request that no page sends.</summary>
/// <param name="Field">Where it stands.</param>
/// <param name="Value">What stands there; of a file its name.</param>
public abstract record Wrong(Field Field, string Value);

/// <summary>A value of a field.</summary>
public sealed record WrongValue(Field Field, string Value) : Wrong(Field, Value);

/// <summary>A file, with what is in it.</summary>
public sealed record WrongFile(Field Field, string Value, byte[] Bytes) : Wrong(Field, Value);

/// <summary>An entry in the address of a pupil whose it is not.</summary>
public sealed record ForeignEntry(Field Field, string Value, int Pupil, int Whose) : Wrong(Field, Value);

/// <summary>A request with one thing wrong in it, and what has to come of it.</summary>
public sealed record Directed(Target Target, Wrong Wrong, Due Due)
{
    private const int ForeignOfHandler = 12;

    /// <summary>
    /// Everything once that chance would meet late: what is not escaped and what a spreadsheet works out in every text, numbers that are
    /// none in every number, words that have to be kept, every broken file, and another pupil's entries at everything that takes one.
    /// </summary>
    public static IEnumerable<Directed> Of(IReadOnlyList<Target> targets, TriedApp app)
    {
        var words = 0;
        foreach (var target in targets.Where(target => target.Method is "GET" or "POST"))
        foreach (var field in target.Fields)
            if (field.Place == Place.File)
                foreach (var (name, bytes) in Values.BadFiles)
                    yield return new(target, new WrongFile(field, name, bytes), IsRefused(target, name) ? Due.Refused : Due.Answered);
            else if (field.Place is not (Place.Query or Place.Form))
                continue;
            else if (field.Type == typeof(string))
            {
                yield return new(target, new WrongValue(field, Values.Every), Due.Answered);
                if (target.Method == "POST")
                {
                    yield return new(target, new WrongValue(field, Values.Formula), Due.Answered);
                    if (IsKept(target, field))
                        yield return new(target, new WrongValue(field, $"Said {++words}."), Due.Kept);
                }
            }
            else if ((Nullable.GetUnderlyingType(field.Type) ?? field.Type) == typeof(double))
            {
                yield return new(target, new WrongValue(field, "NaN"), Due.Refused);
                yield return new(target, new WrongValue(field, "1e999"), Due.Refused);
            }
            else if (target.Method == "POST" && field is { Name: "id" or "Id" or "take" } && target.Handler != "")
                foreach (var foreign in Foreign(target, field, app))
                    yield return new(target, foreign, Due.Answered);
    }

    /// <summary>Whether a file has to be refused; what comes with the key of an entry that stands is answered as that was.</summary>
    private static bool IsRefused(Target target, string name) =>
        Values.NoFiles.Contains(name) && target.Fields.All(field => field.Name != "Key");

    private static bool IsKept(Target target, Field field) =>
        !field.OfAddress
        && field.Name is not (HandlersApart.Back or HandlersApart.Request)
        && !HandlersApart.NotKept.Contains((field.Name, $"{target}"));

    /// <summary>Entries of others, those of the stop that is asked first.</summary>
    private static IEnumerable<ForeignEntry> Foreign(Target target, Field field, TriedApp app) =>
        app
            .Known.SelectMany(known => known.Entries.Select(entry => (known.Pupil, Entry: entry)))
            .OrderByDescending(each => app.IsOf(target)(each.Entry))
            .Take(ForeignOfHandler)
            .Select(each => new ForeignEntry(
                field,
                $"{each.Entry}",
                app.Known.First(known => known.Pupil != each.Pupil).Pupil,
                each.Pupil
            ));
}
