using Xunit;

namespace Polycline.Tests.Browser;

/// <summary>
/// The office takes in the school's outcomes, a teacher ties an item by keys, and a student reads it in the unit's overview.
/// </summary>
public sealed class OutcomeWalk(PublishedSchool school) : IClassFixture<PublishedSchool>
{
    [Fact]
    public void From_the_schools_file_to_the_overview_that_a_student_reads()
    {
        using var fintan = new Person(school.Addresses[0]);
        using var orla = new Person(school.Addresses[0]);
        using var imke = new Person(school.Addresses[0]);
        fintan.ComeIn("Fintan Marsh");
        fintan.Open("/outcomes");
        fintan.SeeText("Draw isobars through readings");
        fintan.IsAccessible("the school's outcomes");
        var file = Path.Combine(Directory.CreateTempSubdirectory("polycline-").FullName, "outcomes.csv");
        File.WriteAllText(file, "code,outcome\nG2.2,Draw isobars\nX1,Tell the time by the sun\n");
        fintan.All("input[type=file]").Single().SendKeys(file);
        fintan.SeeText("2 outcomes: 1 new, 1 reworded and 17 removed.");
        fintan.Choose(true, "//button[normalize-space() = 'Import these']");
        fintan.SeeText("Tell the time by the sun");

        orla.ComeIn("Orla Tierney-Vance");
        orla.Open("/editions/2/outline");
        orla.Press(orla.See("//button[@data-stop and normalize-space() = 'Isobars by hand']"));
        orla.SeeText("(no longer in the school’s list)");
        orla.Choose(true, "//button[normalize-space() = 'Change its outcomes']");
        orla.IsAccessible("what an item is tied to");
        orla.Press(orla.See("//label[contains(., 'X1 Tell the time by the sun')]"));
        orla.Press(orla.See("//button[normalize-space() = 'Set its outcomes' and not(@disabled)]"));
        orla.Sure("You set the outcomes of “Isobars by hand”");

        imke.ComeIn("Imke Osei");
        imke.Choose(true, "//a[normalize-space() = 'The weight of air']");
        imke.SeeText("At the end you should be able to");
        imke.SeeText("Tell the time by the sun");
        imke.IsAccessible("a unit at a glance");

        fintan.Choose(true, "//button[normalize-space() = 'undo the import']");
        fintan.SeeText("The list is as it was before the last import.");
        fintan.SeeText("Draw isobars through readings");
        foreach (var person in new[] { fintan, orla, imke })
            person.HeardNoComplaint();
    }
}
