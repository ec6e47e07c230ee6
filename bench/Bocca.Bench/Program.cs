using System.Globalization;
using BenchmarkDotNet.Running;
using Bocca.Bench;

CultureInfo.DefaultThreadCurrentCulture = CultureInfo.CurrentCulture = CultureInfo.InvariantCulture;
if (args is ["trackers", .. var rest])
    return TrackerComparison.Run(rest.FirstOrDefault() ?? "bench/renders");
BenchmarkSwitcher.FromAssembly(typeof(Program).Assembly).Run(args);
return 0;
