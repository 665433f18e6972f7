using Polycline.Core.PlanFiles;
using Polycline.Core.Release;
using Polycline.Core.Wording;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Core.Wording;

/// <summary>Timing and conditions in words, and their stored form.</summary>
public sealed class WordingTests
{
    [Theory]
    [InlineData("""{"at":"lesson-start"}""", "at the start of the lesson")]
    [InlineData("""{"at":"lesson-end","of":"l1"}""", "at the end of “Reading a barometer”")]
    [InlineData("""{"at":"lesson-end","meetings":1,"clock":"meeting-start"}""", "at the start of the 1st class after the lesson")]
    [InlineData("""{"at":"lesson-end","meetings":2,"clock":"meeting-end"}""", "at the end of the 2nd class after the lesson")]
    [InlineData("""{"at":"lesson-start","meetings":-1}""", "at the start of the 1st class before the lesson starts")]
    [InlineData("""{"at":"lesson-end","days":7,"clock":"18:00"}""", "7 days after the end of the lesson, 18:00")]
    [InlineData("""{"at":"own-opens","weeks":1}""", "1 week after it opens")]
    [InlineData("""{"at":"term-end","days":-3}""", "3 days before the end of the term")]
    [InlineData("""{"at":"fixed","date":"2026-10-08","time":"10:15"}""", "on Thu 8 Oct 2026, 10:15")]
    [InlineData("""{"at":"lesson-end","meetings":1,"days":2,"clock":"20:00"}""", "at the start of the 1st class after the lesson, 2 days later, 20:00")]
    public void Timing_in_words_and_as_it_is_stored(string json, string words)
    {
        var anchor = PlanParts.Anchor(json);
        new AnchorWords(_ => "Reading a barometer").Of(anchor).ShouldBe(words);
        PlanParts.Json(anchor).ShouldBe(json);
    }

    [Theory]
    [InlineData("""{"item":"i1","is":"returned"}""", "Opens when feedback on i1 is given back. Students are told.")]
    [InlineData("""{"all":[{"item":"i1","is":"returned"},{"item":"i2","scoreMin":70}]}""", "Opens when feedback on i1 is given back and the score in i2 is at least 70 %. Students are told.")]
    [InlineData("""{"any":[{"item":"i1","is":"submitted"},{"all":[{"item":"i2","is":"opened"},{"item":"i3","is":"ticked"}]}]}""", "Opens when i1 is handed in or (i2 is opened and i3 is ticked off). Students are told.")]
    [InlineData("""{"item":"i2","scoreBelow":70}""", "Opens when the score in i2 is below 70 %. Until then students see nothing of it.")]
    [InlineData("""{"choice":"i2","picked":"a"}""", "Opens when “a” is picked in i2, as long as that holds. Until then students see nothing of it.")]
    [InlineData("""{"atLeast":1,"of":[{"item":"i1","is":"opened"},{"group":"support"}],"whenLocked":"show"}""", "Opens when at least 1 of these: i1 is opened and the student is in support. Students are told.")]
    public void A_condition_is_one_sentence_and_is_stored_as_it_was_given(string json, string sentence)
    {
        var gate = PlanParts.Gate(json);
        new GateWords(item => item.Name, title => title).Sentence(gate).ShouldBe(sentence);
        PlanParts.Json(gate).ShouldBe(json);
        PlanParts.Gate(PlanParts.Json(gate)).Root.ToString().ShouldBe(gate.Root.ToString());
    }

    [Fact]
    public void Every_finding_of_a_section_has_a_sentence_of_its_own()
    {
        string[] codes =
        [
            "overflow", "pin-missed", "after-pin", "no-meetings", "meeting-overlap", "change-idle", "due-before-opens", "closes-before-due",
            "due-before-lesson", "due-off-day", "due-earlier", "beyond-term",
        ];
        var words = new FindingWords(target => target);
        codes.Select(code => words.Of(new(code, "l1", 2))).Distinct().Count().ShouldBe(codes.Length);
        codes.ShouldAllBe(code => !words.Of(new(code, "l1", 2)).Contains(code));
    }
}
