namespace Bocca.Core.Teaching;

/// <summary>Vowels in slurs (<c>slur.vowels</c>).</summary>
public enum SlurVowels
{
    /// <summary>Oh low, ah middle, ee high.</summary>
    ByRegister,

    /// <summary>None.</summary>
    None,

    /// <summary>The teacher's own.</summary>
    TeachersOwn,
}

/// <summary>Where slurs come from (<c>slurs.source</c>).</summary>
public enum SlurSource
{
    /// <summary>By ear.</summary>
    ByEar,

    /// <summary>Printed.</summary>
    Printed,
}

/// <summary>Slurs in motion (<c>motion</c>).</summary>
public enum SlurMotion
{
    /// <summary>Slow and smooth.</summary>
    SlowAndSmooth,

    /// <summary>Quick bursts.</summary>
    QuickBursts,
}
