namespace Bocca.Core.Teaching;

/// <summary>Vowels in slurs (<c>slur.vowels</c>).</summary>
public enum SlurVowels
{
    /// <summary>Oh low, ah middle, ee high, by the contour of the slur.</summary>
    ByRegister,

    /// <summary>None.</summary>
    None,

    /// <summary>The teacher's own.</summary>
    TeachersOwn,
}

/// <summary>Which way slurs go first (<c>slur.first</c>).</summary>
public enum SlurWay
{
    /// <summary>Up.</summary>
    UpFirst,

    /// <summary>Down.</summary>
    DownFirst,
}

/// <summary>The notes of slurs in the first weeks (<c>slur.notes</c>).</summary>
public enum SlurNotes
{
    /// <summary>Only notes, settings and positions that have come already.</summary>
    OnlyThoseMet,

    /// <summary>All of the range.</summary>
    AllOfTheRange,
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
