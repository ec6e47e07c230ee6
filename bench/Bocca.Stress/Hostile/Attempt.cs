using System.Globalization;
using System.Net.Http.Headers;
using System.Text;
using System.Text.Json.Nodes;
using Microsoft.AspNetCore.WebUtilities;

namespace Bocca.Stress.Hostile;

/// <summary>A request made up for a target: as a page would send it, or with one thing in it that no page sends.</summary>
public sealed class Attempt
{
    private readonly Target _target;
    private readonly Dictionary<Field, string> _values = [];
    private readonly (string Name, byte[] Bytes) _file;
    private readonly Field? _hostile;
    private readonly int _body;
    private readonly PageForm? _form;
    private readonly List<KeyValuePair<string, string?>> _beside = [];
    private int? _gone;

    /// <param name="target">What is asked.</param>
    /// <param name="values">What can be sent.</param>
    /// <param name="app">Who is there to be asked for.</param>
    /// <param name="random">Decides.</param>
    /// <param name="plain">Whether it is sent as a page would, with nothing wrong in it.</param>
    /// <param name="wrong">The one thing in it that no page sends; null for none, or for one by chance.</param>
    public Attempt(Target target, Values values, TriedApp app, Random random, bool plain = false, Wrong? wrong = null)
    {
        (_target, HasToken) = (target, plain || random.Next(5) > 0);
        var (pupil, entries) = app.Known[random.Next(app.Known.Count)];
        var own = plain || random.Next(5) > 0;
        if (!own && random.Next(3) is var way)
        {
            var (other, others) = app.Known[random.Next(app.Known.Count)];
            (pupil, entries) = way switch
            {
                0 => (app.Deleted, entries),
                1 => (pupil, others),
                _ => (999_999, [long.MaxValue]),
            };
            Other = way == 1 && other != pupil ? other : null;
        }

        if (wrong is ForeignEntry foreign)
            (pupil, Other, own) = (foreign.Pupil, foreign.Whose, false);
        // The form of a pupil who was deleted meanwhile is on no page any more.
        var forms = own ? values.Forms.For(target).Where(form => IsOfSomebody(form, app)).ToList() : [];
        _form = forms.Count > 0 && random.Next(5) > 0 ? forms[random.Next(forms.Count)] : null;
        foreach (var field in target.Fields)
            _values[field] = field switch
            {
                { Name: "pupilId" or "PupilId" } => $"{pupil}",
                { Name: "id" or "Id" } when target.Handler is "Restore" && app.Gone.Count > 0 => $"{Gone().Entry}",
                { Name: "id" or "Id" or "take" } when field.Type != typeof(string) && target.Handler != "" => Entry(),
                { Name: "id", Place: Place.Route } when target.Path.StartsWith("/record/", StringComparison.Ordinal) => Entry(),
                _ => values.Good(target, field, random),
            };
        // What was deleted comes back to whom it was taken from.
        if (target.Handler == "Restore" && app.Gone.Count > 0 && own && _form is null)
            foreach (var field in target.Fields.Where(field => field.Place == Place.Route))
                _values[field] = $"{Gone().Pupil}";
        if (forms.Count == 0 && own && values.Forms.Beside(target).Where(form => IsOfSomebody(form, app)).ToList() is { Count: > 0 } beside)
            TakeAddress(beside[random.Next(beside.Count)]);
        if (wrong is not ForeignEntry && Examples.For(target, random) is { } example && random.Next(2) == 0)
            Take(example);
        else if (_form is not null)
            TakeForm(_form);
        // What is done with a take is done where it came.
        var came = target.Handler == "Restore" ? app.WentFrom(target.Path) : app.CameFrom(target.Path, random);
        if (plain && wrong is null && target.Handler != "" && came is { } known && random.Next(3) > 0)
            foreach (var field in target.Fields)
                if (field is { Name: "id" or "Id" or "take" })
                    _values[field] = $"{known.Entry}";
                else if (field is { Name: "pupilId" or "PupilId" })
                    _values[field] = $"{known.Pupil}";
        // A mark is of whom it was given to.
        if (plain && target.Handler == "Unmark" && app.MarkOf(random) is { } mark)
            Take(mark);
        // A page is opened without a question too.
        else if (plain && target.Method == "GET" && random.Next(2) == 0)
            foreach (var field in target.Fields.Where(field => field.Place == Place.Query))
                _values.Remove(field);
        _file = target.Fields.FirstOrDefault(field => field.Place == Place.File) is { } file
            ? Values.GoodFile(target, file, random)
            : ("", []);
        _hostile = !plain && target.Fields.Count > 0 && random.Next(5) > 0 ? target.Fields[random.Next(target.Fields.Count)] : null;
        _body = !plain && _hostile is null && target.Method == "POST" && random.Next(2) == 0 ? random.Next(1, 7) : 0;
        if (wrong is not null)
        {
            (_hostile, _body) = (wrong.Field, 0);
            if (wrong is WrongFile { Bytes: var bytes })
                _file = (wrong.Value, bytes);
            else
                _values[wrong.Field] = wrong.Value;
        }
        else if (_hostile is { Place: Place.File })
            _file = Values.BadFiles[random.Next(Values.BadFiles.Count)];
        else if (_hostile is not null)
            _values[_hostile] = Values.Bad[random.Next(Values.Bad.Count)];

        // A page of a class names by a field of its own whose entry it is.
        if (_values.Any(each => each.Key.Name.Equals("pupil", StringComparison.OrdinalIgnoreCase) && each.Value == $"{Other}"))
            Other = null;

        (long Entry, int Pupil) Gone() => app.Gone[_gone ??= random.Next(app.Gone.Count)];
        string Entry()
        {
            // An entry of the stop that is asked, as its pages have it; now and then any other.
            var ofStop = random.Next(6) > 0 ? entries.Where(app.IsOf(target)).ToList() : [];
            var all = ofStop.Count > 0 ? ofStop : entries;
            return all.Count == 0 ? "1" : $"{all[random.Next(all.Count)]}";
        }
    }

    /// <summary>Whether it carries the token of a page of the application.</summary>
    public bool HasToken { get; }

    /// <summary>The pupil whose entry it names, in the address of another; null where it names none such.</summary>
    public int? Other { get; }

    /// <summary>The entry and the pupil that it names; null where it names none.</summary>
    public (long Entry, int Pupil)? Named => Number("id") is { } entry && Number("pupilId") is { } pupil ? (entry, (int)pupil) : null;

    /// <summary>Seconds of sound that are sent with it.</summary>
    public double Seconds => _target.Fields.Any(each => each.Place == Place.File) ? _file.Bytes.Length / 88200.0 : 0;

    /// <summary>The arguments for a method of the hub.</summary>
    public object?[] Arguments => [.. _target.Fields.Select(each => each == _hostile ? BadArgument(each) : Argument(each))];

    /// <summary>Whether it was sent as a page would.</summary>
    public bool IsPlain => _hostile is null && _body == 0;

    public override string ToString()
    {
        var told = _hostile is null
            ? (_body > 0 ? $"body {_body}" : "plain")
            : $"{_hostile.Name} = {Short(_hostile.Place == Place.File ? _file.Name : _values[_hostile])}";
        return $"{_target} [{told}] {Short(string.Join('&', _values.Select(each => $"{each.Key.Name}={each.Value}")), 300)}";
    }

    /// <summary>The request.</summary>
    /// <param name="token">What a page of the application's own carries.</param>
    /// <param name="once">The key that its page gave the form; null for none.</param>
    public HttpRequestMessage Request(string token, string? once = null)
    {
        var path = _target.Path;
        foreach (var field in _target.Fields.Where(field => field.Place == Place.Route))
            path = path.Replace(
                $"{{{field.Name}}}",
                Uri.EscapeDataString(Whole(_values[field]).Replace('\0', '?')),
                StringComparison.Ordinal
            );
        var query = Pairs(Place.Query);
        if (_target.Handler != "")
            query.Add(new("handler", _target.Handler));
        var request = new HttpRequestMessage(
            new HttpMethod(_target.Method),
            new Uri(QueryHelpers.AddQueryString(path == "" ? "/" : path, query), UriKind.Relative)
        );
        if (_target.Method != "GET")
        {
            request.Content = _body == 0 ? Content(once) : Broken();
            request.Headers.TryAddWithoutValidation("X-Antiforgery", HasToken ? token : "CfDJ8-none");
            if (once is not null)
                request.Headers.TryAddWithoutValidation(Bocca.Web.Frame.SentOnce.Header, once);
        }

        return request;
    }

    /// <summary>Takes the values of a form over, those in its address too.</summary>
    private void TakeForm(PageForm form)
    {
        TakeAddress(form);
        Take(form.All);
        // What a page reads line by line has names that no handler tells.
        _beside.AddRange(
            form.Fields.Where(sent => _target.Fields.All(field => !field.Name.Equals(sent.Key, StringComparison.OrdinalIgnoreCase)))
                .Select(sent => KeyValuePair.Create(sent.Key, (string?)sent.Value))
        );
    }

    private bool IsOfSomebody(PageForm form, TriedApp app) =>
        Array.IndexOf(_target.Path.Split('/'), "{pupilId}") is not (>= 0 and var at)
        || form.Path.Split('/').ElementAtOrDefault(at) is not { } pupil
        || app.Known.Any(known => $"{known.Pupil}" == pupil);

    private void TakeAddress(PageForm form)
    {
        var (parts, sent) = (_target.Path.Split('/'), form.Path.Split('/'));
        foreach (var field in _target.Fields)
        {
            var at = field.Place == Place.Route ? Array.IndexOf(parts, $"{{{field.Name}}}") : -1;
            if (at >= 0 && at < sent.Length)
                _values[field] = Uri.UnescapeDataString(sent[at]);
        }
    }

    /// <summary>Takes values over; what a page would not send with them is left out.</summary>
    private void Take(IReadOnlyDictionary<string, string> sent)
    {
        foreach (var field in _target.Fields.Where(field => field.Place is Place.Query or Place.Form))
            if (sent.TryGetValue(field.Name, out var value))
                _values[field] = value;
            else
                _values.Remove(field);
        foreach (var field in _target.Fields.Where(field => field.Place == Place.Route))
            if (sent.TryGetValue(field.Name, out var value))
                _values[field] = value;
    }

    private long? Number(string name) =>
        _values.FirstOrDefault(each => each.Key.Name.Equals(name, StringComparison.OrdinalIgnoreCase)).Value is { } value
        && long.TryParse(value, out var number)
            ? number
            : null;

    private static string Short(string text, int most = 60) => text.Length > most ? $"{text[..most]}… ({text.Length})" : text;

    /// <summary>A lone half of a sign cannot travel in an address.</summary>
    private static string Whole(string text) => text.Length > 4000 ? text[..4000] : text.Replace('\ud800', '?');

    private List<KeyValuePair<string, string?>> Pairs(Place place) =>
        [
            .. _values
                .Where(each => each.Key.Place == place)
                .Select(each => new KeyValuePair<string, string?>(
                    each.Key.Name,
                    place == Place.Query ? Whole(each.Value) : each.Value.Replace('\ud800', '?')
                )),
        ];

    private HttpContent Content(string? once)
    {
        if (_hostile is null && Examples.Json(_target) is { } example)
            return new StringContent(example, Encoding.UTF8, "application/json");
        if (_target.Body is { } type)
            return new StringContent(
                (Json(type, "") ?? JsonValue.Create((string?)null))?.ToJsonString() ?? "null",
                Encoding.UTF8,
                "application/json"
            );
        if (_target.Fields.FirstOrDefault(field => field.Place == Place.File) is not { } file)
            return new FormUrlEncodedContent(Sent());
        var form = new MultipartFormDataContent();
        foreach (var (name, value) in Sent())
            form.Add(new StringContent(value ?? ""), name);
        form.Add(new ByteArrayContent(_file.Bytes), file.Name, _file.Name.Replace("\"", "", StringComparison.Ordinal));
        return form;
        IEnumerable<KeyValuePair<string, string?>> Sent() =>
            [
                .. Pairs(Place.Form),
                .. _beside.Where(each => _hostile?.Name.StartsWith($"{each.Key}[", StringComparison.Ordinal) != true),
                .. once is null ? (KeyValuePair<string, string?>[])[] : [new(Bocca.Web.Frame.SavesInTurn.KeyField, once)],
            ];
    }

    /// <summary>A body that no page sends.</summary>
    private ByteArrayContent Broken()
    {
        var (text, type) = _body switch
        {
            1 => ("", "application/json"),
            2 => ("null", "application/json"),
            3 => (string.Concat(Enumerable.Repeat("[", 5000)), "application/json"),
            4 => (
                "--x\r\nContent-Disposition: form-data; name=\"sound\"; filename=\"a.wav\"\r\n\r\nRIFF",
                "multipart/form-data; boundary=x"
            ),
            5 => (string.Join('&', Enumerable.Range(0, 3000).Select(i => $"a{i}=1")), "application/x-www-form-urlencoded"),
            _ => (new string('a', 1_200_000), "text/plain"),
        };
        var content = new ByteArrayContent(Encoding.UTF8.GetBytes(text));
        content.Headers.ContentType = MediaTypeHeaderValue.Parse(type);
        return content;
    }

    private JsonNode? Json(Type type, string path)
    {
        if (Targets.Item(type) is { } item)
            return new JsonArray(Enumerable.Range(0, 4).Select(_ => Json(item, $"{path}[0]")).ToArray());
        if (_target.Fields.FirstOrDefault(field => field.Place == Place.Json && field.Name == path) is { } leaf)
            return Leaf(leaf);
        var whole = new JsonObject();
        foreach (var property in type.GetProperties().Where(property => property.CanWrite && property.Name != "EqualityContract"))
            whole[property.Name] = Json(property.PropertyType, path == "" ? property.Name : $"{path}.{property.Name}");
        return whole;
    }

    private JsonNode? Leaf(Field leaf)
    {
        var value = _values[leaf].Replace('\ud800', '?');
        var type = Nullable.GetUnderlyingType(leaf.Type) ?? leaf.Type;
        if (leaf == _hostile)
            return value switch
            {
                "" or "null" => null,
                "[]" => new JsonArray(),
                "{}" => new JsonObject(),
                "true" => true,
                _ when double.TryParse(value, CultureInfo.InvariantCulture, out var number) && double.IsFinite(number) => number,
                _ => value,
            };
        if (type == typeof(bool))
            return value == "true";
        if (type.IsEnum)
            return Convert.ToInt32(Enum.Parse(type, value), CultureInfo.InvariantCulture);
        if (type.IsPrimitive)
            return double.TryParse(value, CultureInfo.InvariantCulture, out var number) ? number : 1;
        return value;
    }

    /// <summary>Of the right type where the value can be, and of a wrong one otherwise.</summary>
    private object? BadArgument(Field field) =>
        field.Type == typeof(byte[]) ? new byte[_values[field].Length]
        : double.TryParse(_values[field], CultureInfo.InvariantCulture, out var number) && Math.Abs(number) <= int.MaxValue ? (int)number
        : _values[field].Replace('\ud800', '?');

    private object? Argument(Field field)
    {
        if (field.Type == typeof(byte[]))
        {
            var samples = new byte[2 * 882];
            new Random(1).NextBytes(samples);
            return samples;
        }

        var value = _values[field];
        return field.Type == typeof(int) && field.Name.EndsWith("Rate", StringComparison.Ordinal) ? 44100
            : field.Type == typeof(int) ? int.Parse(value, CultureInfo.InvariantCulture)
            : field.Type.IsEnum ? Enum.Parse(field.Type, value)
            : value;
    }
}
