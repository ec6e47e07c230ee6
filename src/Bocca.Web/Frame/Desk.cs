using Bocca.Web.Record;

namespace Bocca.Web.Frame;

/// <summary>The Desk: where the path begins, and whose entries are the steps that lead to the other stops.</summary>
public static class Desk
{
    public static Stop Stop { get; } =
        new()
        {
            Key = '1',
            Path = "",
            Name = "Desk",
            Promise = "Everybody, and what is due.",
            Kinds = [Steps.Kind],
        };
}
