using System.Globalization;
using BenchmarkDotNet.Running;
using Bocca.Bench;

CultureInfo.DefaultThreadCurrentCulture = CultureInfo.CurrentCulture = CultureInfo.InvariantCulture;
if (args is ["trackers", .. var rest])
    return TrackerComparison.Run(rest.FirstOrDefault() ?? "bench/renders");
if (args is ["methods", .. var where])
    return TrackerComparison.RunMethods(where.FirstOrDefault() ?? "bench/renders");
if (args is ["faults", .. var seeds])
{
    FaultConfusion.Run(
        seeds.Length > 0 ? int.Parse(seeds[0]) : 200,
        seeds.Length > 1 ? int.Parse(seeds[1]) : 200,
        seeds.Length > 2 ? int.Parse(seeds[2]) : 1
    );
    return 0;
}
if (args is ["outcomes", .. var times])
{
    OutcomeConfusion.Run(times.Length > 0 ? int.Parse(times[0]) : 200);
    return 0;
}

if (args is ["heard", .. var rows])
{
    HeardOutcomes.Run(rows.Length > 0 ? int.Parse(rows[0]) : 40);
    return 0;
}

if (args is ["alarms"])
    return AlarmTable.Run();
if (args is ["sung"])
    return SungTable.Run();
if (args is ["counting", .. var takes])
    return CountingTable.Run(takes.Length > 0 ? int.Parse(takes[0]) : 4);
if (args is ["term", .. var pupils])
{
    TermTable.Run(pupils.Length > 0 ? int.Parse(pupils[0]) : 200);
    return 0;
}

if (args is ["take"])
{
    TakeSpeed.Run();
    return 0;
}

if (args is ["slurs", .. var slurred])
{
    SampledSlurs.Run(slurred.FirstOrDefault() ?? "bench/renders");
    return 0;
}

if (args is ["notes", .. var renders])
{
    SampledNotes.Run(renders.FirstOrDefault() ?? "bench/renders");
    return 0;
}

BenchmarkSwitcher.FromAssembly(typeof(Program).Assembly).Run(args);
return 0;
