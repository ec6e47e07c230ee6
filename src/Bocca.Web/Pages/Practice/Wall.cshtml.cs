using Bocca.Web.Record;
using Microsoft.AspNetCore.Mvc;

namespace Bocca.Web.Pages.Practice;

/// <summary>The round on the wall: whose turn it is and everybody's own note. No health, no verdict, no mark.</summary>
public sealed class WallModel(Journal journal) : ClassModel(journal)
{
    /// <summary>What changes while the round goes on.</summary>
    public async Task<IActionResult> OnGetNowAsync()
    {
        await LoadAsync();
        return Partial("_Wall", this);
    }
}
