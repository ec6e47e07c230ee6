using Bocca.Core.Instruments;
using Bocca.Core.Music;
using Bocca.Core.Simulation;

namespace Bocca.Core.Tests.Simulation;

/// <summary>
/// Lips in slow motion: they swing as often as the note sounds, close once a swing, and open less the higher the note (published: Copley
/// and Strong 1996; Bromage, Campbell and Gilbert 2010, from memory).
/// </summary>
public sealed class LipMotionTests
{
    [Theory]
    [InlineData("trumpet-bb")]
    [InlineData("horn-f")]
    [InlineData("trombone")]
    [InlineData("euphonium-3v")]
    [InlineData("tuba-bb-3v")]
    public void Higher_notes_are_quicker_and_open_less(string id)
    {
        var instrument = Catalogue.Get(id);
        var registers = LipMotion.ByRegister(instrument, instrument.Readings[0]);
        Assert.Equal(3, registers.Count);
        foreach (var register in registers)
        {
            var seconds = register.Opening.Count * LipMotion.StepMs / 1000;
            var middle = (register.Opening.Max() + register.Opening.Min()) / 2;
            var swings = register.Opening.Zip(register.Opening.Skip(1)).Count(pair => pair.First < middle && pair.Second >= middle);
            Assert.InRange(swings / seconds, register.Hertz - (1.1 / seconds), register.Hertz + (1.1 / seconds));
            Assert.Equal(0, Tuning.Cents(register.Hertz, instrument.Frequency(instrument.Tubes[0], register.Partial, Tuning.Built)), 1e-6);
        }

        Assert.Equal(registers.OrderBy(register => register.Hertz), registers);
        Assert.Equal(registers.OrderByDescending(register => register.Widest), registers);
        Assert.InRange(registers[0].ClosedShare, 0.05, 0.7);
    }
}
