using System.ComponentModel.DataAnnotations;
using Bocca.Core.Instruments;
using Bocca.Core.Music;
using Bocca.Core.Teaching;

namespace Bocca.Web.Record;

/// <summary>What holds for the whole room: one row.</summary>
public sealed class RoomSettings
{
    public const int OnlyId = 1;

    public int Id { get; set; } = OnlyId;

    public ApproachPreset Preset { get; set; } = ApproachPreset.MouthpieceFirst;

    /// <summary>The points settled otherwise than in the preset.</summary>
    [MaxLength(1500)]
    public string Points { get; set; } = "";

    /// <summary>The reference A of the room, hertz.</summary>
    public double A4Hz { get; set; } = PlayingConditions.Usual.A4Hz;

    /// <summary>How warm the room is, degrees Celsius.</summary>
    public double Celsius { get; set; } = PlayingConditions.Usual.Celsius;

    /// <summary>The room's time zone, by its name in the IANA database; null for the machine's own.</summary>
    [MaxLength(60)]
    public string? ZoneId { get; set; }

    /// <summary>The pitch of the room and its warmth.</summary>
    public PlayingConditions Conditions => PlayingConditions.Of(A4Hz, Celsius);

    /// <summary>The room's reference A.</summary>
    public Tuning Tuning => Conditions.Tuning;

    /// <summary>What is set otherwise than it ships, as <see cref="OwnSettings"/> writes it.</summary>
    public string Own { get; set; } = "";

    public Approach Approach => Approach.Of(Preset).With(Approach.Points(Points));
}
