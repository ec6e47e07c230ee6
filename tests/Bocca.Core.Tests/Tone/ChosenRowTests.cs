using Bocca.Core.Judging;
using Bocca.Core.Tone;

namespace Bocca.Core.Tests.Tone;

/// <summary>Where a step leads from a row of notes.</summary>
public sealed class ChosenRowTests
{
    private static readonly ChosenRow Row = new("new-note", "D4", "1-3", 72);

    private static NextStep Step(string drill, double? tempo = null) =>
        new(new Place("tone"), drill, "Once more.", "It helps.") { Tempo = tempo };

    [Fact]
    public void A_note_that_did_not_come_is_tried_again_as_it_was() => Assert.Equal(Row, Row.Then(Outcome.Repeat, Step("new-note")));

    [Fact]
    public void A_note_that_came_makes_way_for_the_next() =>
        Assert.Equal(new ChosenRow("new-note", null, null, 72), Row.Then(Outcome.Passed, Step("new-note")));

    [Fact]
    public void Another_drill_begins_at_its_own_tempo_and_a_step_may_name_one()
    {
        Assert.Equal(new ChosenRow("held", null, null, null), Row.Then(Outcome.Repeat, Step("held")));
        Assert.Equal(Row with { Tempo = 60 }, Row.Then(Outcome.Repeat, Step("new-note", 60)));
    }
}
