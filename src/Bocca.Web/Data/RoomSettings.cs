using System.ComponentModel.DataAnnotations;
using Bocca.Core.Practice;

namespace Bocca.Web.Data;

/// <summary>What holds for the whole room: one row.</summary>
public sealed class RoomSettings
{
    public const int OnlyId = 1;

    public int Id { get; set; } = OnlyId;

    public ApproachPreset Preset { get; set; } = ApproachPreset.MouthpieceFirst;

    /// <summary>The points settled otherwise than in the preset.</summary>
    [MaxLength(1500)]
    public string Points { get; set; } = "";

    public Approach Approach => Approach.Of(Preset).With(Approach.Points(Points));
}
