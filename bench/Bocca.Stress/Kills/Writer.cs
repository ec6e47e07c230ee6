using Microsoft.Data.Sqlite;

namespace Bocca.Stress.Kills;

/// <summary>
/// Writes one kind of thing again and again for a pupil of its own, and counts what was begun and what was acknowledged. What stands in
/// the record lies between the two whenever the application is gone: nothing lost, nothing twice.
/// </summary>
/// <param name="Kind">What is written.</param>
/// <param name="Request">The request for the how manieth, for the pupil.</param>
/// <param name="Standing">How many stand: SQL with $pupil.</param>
public sealed record Writer(string Kind, Func<int, int, HttpRequestMessage> Request, string Standing)
{
    /// <summary>The pupil it writes for.</summary>
    public int Pupil { get; set; }

    /// <summary>The take, by stop and what is asked, that is heard before each write for it to be done with; null for none.</summary>
    public (string Stop, string Asked)? Before { get; init; }

    /// <summary>How many writes were begun, and how many the application has acknowledged.</summary>
    public int Begun { get; private set; }

    public int Acknowledged { get; private set; }

    /// <summary>Writes once.</summary>
    /// <param name="client">The way to the application.</param>
    /// <param name="record">The record's file.</param>
    /// <exception cref="HttpRequestException">The application is gone.</exception>
    public async Task WriteAsync(HttpClient client, string record)
    {
        var number = Begun + 1;
        if (Before is { } take)
        {
            await SendAsync(client, Writers.Hear(take.Stop, Pupil, take.Asked));
            number = Read(record, "SELECT max(Id) FROM Entries WHERE PupilId = $pupil");
        }

        Begun++;
        await SendAsync(client, Request(Pupil, number));
        Acknowledged++;
    }

    private async Task SendAsync(HttpClient client, HttpRequestMessage request)
    {
        using (request)
        using (var answer = await client.SendAsync(request))
            if ((int)answer.StatusCode is < 200 or >= 400)
                throw new InvalidDataException($"{Kind}: {(int)answer.StatusCode} {await answer.Content.ReadAsStringAsync()}");
    }

    /// <summary>What is wrong with what stands; null for nothing. What was under way counts from now on if it stands.</summary>
    public string? Check(string record)
    {
        var standing = Read(record, Standing);
        // Not counted in the record.
        if (standing < 0)
            return null;
        var wrong =
            standing < Acknowledged || standing > Begun ? $"{Kind}: {Acknowledged} acknowledged of {Begun} begun, {standing} stand." : null;
        (Acknowledged, Begun) = (standing, standing);
        return wrong;
    }

    private int Read(string record, string sql)
    {
        using var connection = new SqliteConnection($"Data Source={record};Mode=ReadOnly");
        connection.Open();
        using var command = connection.CreateCommand();
        command.CommandText = sql;
        command.Parameters.AddWithValue("$pupil", Pupil);
        return Convert.ToInt32(command.ExecuteScalar(), System.Globalization.CultureInfo.InvariantCulture);
    }
}
