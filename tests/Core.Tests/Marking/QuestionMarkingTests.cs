using System.Text.Json;
using Shouldly;
using Xunit;
using static Polycline.Tests.Core.Marking.MarkingFiles;

namespace Polycline.Tests.Core.Marking;

/// <summary>What single answers are worth: the borders that the worked cases do not touch. The computation, chapter 13.1.</summary>
public sealed class QuestionMarkingTests
{
    [Theory]
    [InlineData("1,013", ".", "1013", "1")]
    [InlineData("1,0135", ".", "1.0135", "1")]
    [InlineData("1.013", ",", "1013", "1")]
    [InlineData("1.013", ".", "1.013", "1")]
    [InlineData("1 013", ".", "1013", "1")]
    [InlineData("1\u202F013\u00A0", ".", "1013", "1")]
    [InlineData("1 013,5", ".", "1013.5", "1")]
    [InlineData("1,013,256.5", ".", "1013256.5", "1")]
    [InlineData("1,013,25", ".", "1013.25", "0 not-a-number")]
    [InlineData("1.013,25", ".", "1013.25", "0 not-a-number")]
    [InlineData("1,013 256", ".", "1013256", "0 not-a-number")]
    [InlineData("0,125", ".", "0.125", "1")]
    [InlineData("0 125", ".", "125", "1")]
    [InlineData("\u22125", ".", "-5", "1")]
    [InlineData("+ 5", ".", "5", "0 not-a-number")]
    [InlineData(".5", ".", "0.5", "1")]
    [InlineData(",5", ".", "0.5", "1")]
    [InlineData("5.", ".", "5", "1")]
    [InlineData("5 .", ".", "5", "0 not-a-number")]
    [InlineData(".", ".", "0", "0 not-a-number")]
    [InlineData("1..5", ".", "1.5", "0 not-a-number")]
    [InlineData("12 3456", ".", "123456", "0 not-a-number")]
    [InlineData("about 5", ".", "5", "0 not-a-number")]
    [InlineData("٥", ".", "5", "0 not-a-number")]
    [InlineData("5 km", ".", "5", "0 unit-wrong")]
    [InlineData("   ", ".", "0", "0")]
    public void Numbers_are_read_as_they_are_written(string typed, string mark, string value, string expected) =>
        Marked(
                $$"""
                "kind":"number","value":{{value}}
                """,
                JsonSerializer.Serialize(typed),
                $$"""{"decimalMark":"{{mark}}"}"""
            )
            .ShouldBe(expected);

    [Theory]
    [InlineData("0", 1, "1")]
    [InlineData("0.00", 2, "1")]
    [InlineData("0.00", 1, "0 figures")]
    [InlineData("-0.0", 1, "1")]
    public void Figures_of_a_zero_are_its_decimals(string typed, int figures, string expected) =>
        Marked($"\"kind\":\"number\",\"value\":0,\"figures\":{figures}", $"\"{typed}\"").ShouldBe(expected);

    [Theory]
    // A unit before figures; a number that is wrong has no note.
    [InlineData("12.0 m", "0 unit-wrong")]
    [InlineData("12.0", "0 unit-missing")]
    [InlineData("12.0 km", "0 figures")]
    [InlineData("12 km", "1")]
    [InlineData("13 m", "0")]
    public void The_first_shortcoming_is_the_one_that_is_told(string typed, string expected) =>
        Marked("\"kind\":\"number\",\"value\":12,\"units\":[\"km\"],\"figures\":2", $"\"{typed}\"").ShouldBe(expected);

    [Theory]
    [InlineData("ÉCLAIR", "\"accents\":\"fold\"", "eclair", "1")]
    [InlineData("ÉCLAIR", "\"accents\":\"keep\"", "eclair", "0")]
    [InlineData("e\u0301clair", "\"accents\":\"keep\"", "éclair", "1")]
    [InlineData("Odysseuς", "\"case\":\"fold\"", "odysseuΣ", "1")]
    [InlineData("Cumulus", "\"case\":\"keep\"", "cumulus", "0")]
    [InlineData(" low  cloud ", "\"space\":\"fold\"", "low cloud", "1")]
    [InlineData("lowcloud", "\"space\":\"fold\"", "low cloud", "0")]
    [InlineData("l o w", "\"space\":\"drop\"", "low", "1")]
    // Short words bear no slips; neighbours swapped are one.
    [InlineData("law", "\"edits\":3", "low", "0")]
    [InlineData("ciruss", "\"edits\":1", "cirrus", "0")]
    [InlineData("ciruss", "\"edits\":2", "cirruses", "1")]
    [InlineData("crirus", "\"edits\":1", "cirrus", "1")]
    [InlineData("altocumulos", "\"edits\":1,\"not\":[\"altocumulos\"]", "altocumulus", "0")]
    // None is touched twice after a swap: ca → abc takes three.
    [InlineData("caxxxxxxxxxx", "\"edits\":2", "abcxxxxxxxxxx", "0")]
    [InlineData("caxxxxxxxxxx", "\"edits\":3", "abcxxxxxxxxxx", "1")]
    [InlineData("𝒳cumulus", "\"edits\":1", "cumulus", "1")]
    public void Texts_are_compared_as_the_key_says(string typed, string key, string accepted, string expected) =>
        Marked($"\"kind\":\"text\",\"accept\":[{JsonSerializer.Serialize(accepted)}],{key}", JsonSerializer.Serialize(typed))
            .ShouldBe(expected);

    [Theory]
    [InlineData("\"kind\":\"many\",\"options\":[\"a\",\"b\",\"c\",\"d\"],\"right\":[\"a\",\"b\"]", """["a","b","c","d"]""", "0")]
    [InlineData("\"kind\":\"many\",\"options\":[\"a\",\"b\",\"c\",\"d\"],\"right\":[\"a\",\"b\"]", """["a"]""", "1/2")]
    [InlineData("\"kind\":\"many\",\"options\":[\"a\",\"b\"],\"right\":[]", "[]", "1")]
    [InlineData("\"kind\":\"many\",\"options\":[\"a\",\"b\"],\"right\":[]", "null", "0")]
    [InlineData("\"kind\":\"many\",\"options\":[\"a\",\"b\"],\"right\":[\"a\",\"b\"]", """["b"]""", "1/2")]
    [InlineData("\"kind\":\"order\",\"sequence\":[\"a\",\"b\",\"c\",\"d\"]", """["a","d","b","c"]""", "2/3")]
    [InlineData("\"kind\":\"order\",\"sequence\":[\"a\",\"b\",\"c\",\"d\"]", """["d","b"]""", "0")]
    [InlineData("\"kind\":\"order\",\"sequence\":[\"a\",\"b\"],\"partial\":\"all\"", """["a"]""", "0")]
    [InlineData("\"kind\":\"match\",\"pairs\":{\"l\":\"x\",\"m\":\"x\"}", """{"m":"x"}""", "1/2")]
    [InlineData("\"kind\":\"truth\",\"right\":false", "false", "1")]
    public void Parts_of_an_answer_count_as_the_key_says(string key, string answer, string expected) =>
        Marked(key, answer).ShouldBe(expected);
}
