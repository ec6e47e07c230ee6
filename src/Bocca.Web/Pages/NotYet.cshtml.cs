using Bocca.Web.Data;
using Bocca.Web.Frame;

namespace Bocca.Web.Pages;

/// <summary>A stop that is not open yet.</summary>
public sealed class NotYetModel(BoccaDb db) : StagePage(db)
{
    public Stop Here => Stop.Of(Request.Path);
}
