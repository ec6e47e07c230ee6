namespace Bocca.Web.Record.Shapes;

/// <summary>How the payload of a kind is written into the record, and read.</summary>
/// <typeparam name="T">The payload as the pages use it.</typeparam>
public abstract class PayloadShape<T>
    where T : class
{
    /// <summary>What is stored.</summary>
    public abstract Type StoredType { get; }

    /// <summary>A payload as it is stored.</summary>
    public abstract string Write(T payload);

    /// <summary>Reads a stored payload.</summary>
    /// <exception cref="System.Text.Json.JsonException">Something is missing, or is of another kind.</exception>
    /// <exception cref="InvalidDataException">A name in it is none.</exception>
    public abstract T Read(string body);

    /// <summary>Another payload in the place of a stored one: what is unknown in that stays.</summary>
    public abstract string Rewrite(string standing, T payload);

    /// <summary>Reads a stored payload and writes it again: what is unknown in it stays.</summary>
    /// <exception cref="System.Text.Json.JsonException">Something is missing, or is of another kind.</exception>
    /// <exception cref="InvalidDataException">A name in it is none.</exception>
    /// <exception cref="ArgumentException">A number in it is none.</exception>
    public abstract string Checked(string body);
}

/// <summary>A payload with a stored form of its own.</summary>
/// <typeparam name="T">The payload.</typeparam>
/// <typeparam name="TStored">What is stored of it.</typeparam>
/// <param name="of">Makes the stored form.</param>
/// <param name="read">Makes the payload of it.</param>
public sealed class PayloadShape<T, TStored>(Func<T, TStored> of, Func<TStored, T> read) : PayloadShape<T>
    where T : class
    where TStored : StoredShape
{
    public override Type StoredType => typeof(TStored);

    public override string Write(T payload) => Stored.Write(of(payload));

    public override string Rewrite(string standing, T payload) => Stored.WithUnknown<TStored>(standing, Write(payload));

    public override T Read(string body) => read(Stored.ReadWhole<TStored>(body));

    public override string Checked(string body)
    {
        var stored = Stored.ReadWhole<TStored>(body);
        _ = read(stored);
        return Stored.Write(stored);
    }
}

/// <summary>Payloads that are stored as they are.</summary>
public static class PayloadShape
{
    public static PayloadShape<T, T> Itself<T>()
        where T : StoredShape => new(payload => payload, stored => stored);
}
