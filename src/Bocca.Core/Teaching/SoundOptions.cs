namespace Bocca.Core.Teaching;

/// <summary>How a tone begins at first (<c>start.order</c>).</summary>
public enum FirstStart
{
    /// <summary>Air, then the tongue.</summary>
    AirThenTongue,

    /// <summary>Tongue at once.</summary>
    TongueAtOnce,
}

/// <summary>The order of first notes (<c>first.notes</c>).</summary>
public enum FirstNoteWay
{
    /// <summary>On one partial, downwards, then the one below.</summary>
    OnOnePartial,

    /// <summary>Stepwise from the lowest.</summary>
    Stepwise,
}

/// <summary>The first sound asked for (<c>first.target</c>).</summary>
public enum FirstTarget
{
    /// <summary>The higher.</summary>
    TheHigher,

    /// <summary>The lower.</summary>
    TheLower,

    /// <summary>Whatever speaks.</summary>
    WhateverSpeaks,

    /// <summary>A set note.</summary>
    SetNote,
}

/// <summary>First written note on the horn (<c>horn.start</c>).</summary>
public enum HornStart
{
    /// <summary>C4.</summary>
    C4,

    /// <summary>F4.</summary>
    F4,

    /// <summary>A3, with 1 and 2.</summary>
    A3,

    /// <summary>A4, with 1 and 2.</summary>
    A4,
}

/// <summary>Going higher (<c>pitch.up</c>).</summary>
public enum GoingHigher
{
    /// <summary>Lips and air.</summary>
    LipsAndAir,

    /// <summary>Tongue and vowel.</summary>
    TongueAndVowel,

    /// <summary>Lips.</summary>
    Lips,

    /// <summary>All, with the jaw.</summary>
    AllWithTheJaw,
}

/// <summary>The pitch of a buzz (<c>match.pitch</c>).</summary>
public enum BuzzPitch
{
    /// <summary>A model's.</summary>
    AModels,

    /// <summary>Above or below one's own middle.</summary>
    AboveOrBelowOwnMiddle,

    /// <summary>One's own last.</summary>
    OwnLast,
}

/// <summary>Syllable (<c>tongue.syllable</c>).</summary>
public enum TongueSyllable
{
    /// <summary>Ta.</summary>
    Ta,

    /// <summary>Too.</summary>
    Too,

    /// <summary>Da.</summary>
    Da,

    /// <summary>Whichever starts clearest.</summary>
    WhicheverStartsClearest,
}

/// <summary>Where the tongue touches (<c>tongue.place</c>).</summary>
public enum TonguePlace
{
    /// <summary>Behind the teeth.</summary>
    BehindTheTeeth,

    /// <summary>The roof.</summary>
    Roof,

    /// <summary>One's own place.</summary>
    OwnPlace,
}

/// <summary>How a note ends (<c>note.end</c>).</summary>
public enum NoteEnd
{
    /// <summary>The air ends it.</summary>
    AirEndsIt,

    /// <summary>The tongue may stop it.</summary>
    TongueMayStopIt,

    /// <summary>Stop and set anew.</summary>
    StopAndSetAnew,
}

/// <summary>Short notes (<c>staccato</c>).</summary>
public enum ShortNotes
{
    /// <summary>Separated.</summary>
    Separated,

    /// <summary>Light, on connected air.</summary>
    LightOnConnectedAir,
}

/// <summary>Singing (<c>sing</c>).</summary>
public enum Singing
{
    /// <summary>Alone.</summary>
    Alone,

    /// <summary>With a voice.</summary>
    WithAVoice,

    /// <summary>Off.</summary>
    Off,
}

/// <summary>A wandering tone (<c>steady.via</c>).</summary>
public enum SteadyVia
{
    /// <summary>By the air.</summary>
    TheAir,

    /// <summary>By placement.</summary>
    Placement,

    /// <summary>By listening.</summary>
    Listening,
}

/// <summary>Which way the tongue moves (<c>tongue.way</c>).</summary>
public enum TongueWay
{
    /// <summary>Down.</summary>
    Down,

    /// <summary>Back.</summary>
    Back,

    /// <summary>As it will.</summary>
    AsItWill,
}

/// <summary>Vibrato (<c>vibrato</c>).</summary>
public enum VibratoWanted
{
    /// <summary>A straight tone.</summary>
    Straight,

    /// <summary>Asked.</summary>
    Asked,
}
