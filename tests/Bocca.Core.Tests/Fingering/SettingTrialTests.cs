using Bocca.Core.Fingering;
using Bocca.Core.Instruments;
using Bocca.Core.Music;

namespace Bocca.Core.Tests.Fingering;

public class SettingTrialTests
{
    /// <summary>Common practice: E4 on a trumpet is 1-2, and 3 alone gives it too; 1-3 gives the D4 below.</summary>
    [Theory]
    [InlineData("1-2", true, "1-2: that plays E4, on partial 3.")]
    [InlineData("3", true, "3: that plays E4 too, on partial 3; 1-2 comes first.")]
    [InlineData("1-3", false, "1-3: nearest is D4, partial 3; not E4.")]
    [InlineData("0", false, "0: nearest is G4, partial 3; not E4.")]
    public void What_the_valves_pressed_would_give_is_said(string setting, bool fits, string sentence)
    {
        var trumpet = Catalogue.Get("trumpet-bb");
        Assert.True(Setting.TryParse(setting, false, out var pressed));
        var trial = SettingTrial.Of(trumpet, trumpet.Readings[0], Pitch.Parse("E4"), trumpet.TubeOf(pressed)!.Value);
        Assert.Equal(fits, trial.Fits);
        Assert.Equal(sentence, trial.Sentence);
    }
}
