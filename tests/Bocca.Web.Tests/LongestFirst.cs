using Xunit.Sdk;
using Xunit.v3;

[assembly: TestCollectionOrderer(typeof(Bocca.Web.Tests.LongestFirst))]

namespace Bocca.Web.Tests;

/// <summary>The invented pupils take longest to play: they begin, and everything else runs beside them.</summary>
public sealed class LongestFirst : ITestCollectionOrderer
{
    public IReadOnlyCollection<TTestCollection> OrderTestCollections<TTestCollection>(IReadOnlyCollection<TTestCollection> testCollections)
        where TTestCollection : ITestCollection =>
        [
            .. testCollections.OrderByDescending(collection =>
                collection.TestCollectionDisplayName.Contains(nameof(DemoTests), StringComparison.Ordinal)
            ),
        ];
}
