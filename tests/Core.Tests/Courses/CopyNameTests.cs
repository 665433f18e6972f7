using Polycline.Core.Courses;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Core.Courses;

/// <summary>How students' copies are named.</summary>
public sealed class CopyNameTests
{
    private static readonly CopyNaming Ada = new("3.02", "Cloud {diary}", "sheet", "9 Alder", "Ada Example");

    [Theory]
    [InlineData(null, "3.02 Cloud {diary} – Ada Example")]
    [InlineData("{file}, {section}: {student}", "sheet, 9 Alder: Ada Example")]
    // What a title says is not read again.
    [InlineData(" {title} ", "Cloud {diary}")]
    [InlineData("plain", "plain")]
    public void Words_in_braces_stand_for_what_they_say(string? pattern, string name) => CopyNames.Of(pattern, Ada).ShouldBe(name);

    [Theory]
    [InlineData("{code} {title} – {student}", null)]
    [InlineData("   ", "Say how")]
    [InlineData("{pupil}", "{pupil} stands for nothing")]
    [InlineData("{student", "A brace is left over")]
    [InlineData("{{student}}", "A brace is left over")]
    public void What_cannot_be_read_says_why(string pattern, string? beginning)
    {
        if (beginning is null)
            CopyNames.Fault(pattern).ShouldBeNull();
        else
            CopyNames.Fault(pattern).ShouldNotBeNull().ShouldStartWith(beginning);
        CopyNames.Fault(new string('x', CopyNames.Longest + 1)).ShouldNotBeNull();
    }
}
