using OpenQA.Selenium;
using Polycline.Data;
using Polycline.Testing;
using Xunit;

namespace Polycline.Tests.Browser;

/// <summary>A school that has nothing: the first of its office begins it and invites somebody, who sets a password and is in.</summary>
public sealed class BeginWalk : IAsyncLifetime
{
    private const string Password = "(//input[@autocomplete = 'new-password'])[1]";
    private const string Again = "(//input[@autocomplete = 'new-password'])[2]";

    private TestDatabase database = null!;
    private PublishedSchool school = null!;

    public async ValueTask InitializeAsync()
    {
        database = await TestServer.Empty();
        await Migrator.Migrate(database.Owner, CancellationToken.None);
        school = new(database) { Instances = 1, Profile = "school" };
        await school.InitializeAsync();
    }

    public async ValueTask DisposeAsync()
    {
        await school.DisposeAsync();
        await database.DisposeAsync();
    }

    [Fact]
    public async Task From_the_address_at_the_console_to_somebody_who_comes_in_by_their_invitation()
    {
        var begin = await school.Said("/begin/");
        using var office = new Person(school.Addresses[0]);
        office.Expected.Add(422);
        office.Open(new Uri(begin).AbsolutePath);
        office.SeeText("Begin a school");
        office.IsAccessible("begin");
        Type(office, "[autocomplete=name]", "Rosalind Achterberg");
        Type(office, "[autocomplete=username]", "office@tern.example");
        Type(office, "[autocomplete=new-password]", "short");
        Type(office, "[autocomplete=organization]", "Tern Island School");
        office.Pick("Time zone", "Europe/Dublin");
        Type(office, "[placeholder = 'Autumn term']", "Autumn term 2026");
        office.Write("First day of the term", "31/8/2026");
        office.Write("Last day of the term", "18/12/2026");
        office.Press(office.See("//button[normalize-space() = 'Begin the school']"));
        office.SeeText("Choose a password of at least 10 characters.");
        Type(office, "[autocomplete=new-password]", " but longer now");
        office.Press(office.See("//button[normalize-space() = 'Begin the school']"));
        office.SeeText("Autumn term 2026");
        office.SeeText("no periods");

        office.Open("/");
        office.SeeText("Tern Island School");
        office.Press(office.See("//a[normalize-space() = 'People']"));
        office.Press(office.See("//button[normalize-space() = 'add people']"));
        Type(office, "#pasted", "Marit Oyelaran, marit@tern.example" + Keys.Enter + "Nobody" + Keys.Enter + "office@tern.example Me");
        office.SeeText("line 2: there is no mail address");
        office.SeeText("has an account already");
        office.IsAccessible("people, adding");
        office.Press(office.See("//button[normalize-space() = 'Add 1 person']"));
        office.SeeText("1 person is invited.");
        var link = office.See("input[aria-label = 'The link for Marit Oyelaran']").GetAttribute("value")!;
        office.IsAccessible("people");
        office.HeardNoComplaint();

        using var marit = new Person(school.Addresses[0]);
        marit.Open(new Uri(link).AbsolutePath);
        marit.SeeText("Welcome, Marit Oyelaran");
        marit.IsAccessible("welcome");
        Type(marit, Password, "a heron on one leg");
        Type(marit, Again, "a heron on two legs");
        marit.Press(marit.See("//button[normalize-space() = 'Save and sign in']"));
        marit.SeeText("This is not the same as the first one.");
        marit.See(Again).SendKeys(Keys.Control + "a" + Keys.Null + "a heron on one leg");
        marit.Press(marit.See("//button[normalize-space() = 'Save and sign in']"));
        marit.SeeText("You have no course yet.");

        Teach(office, marit);

        // One of the students comes in by a link, and what is published is open.
        office.Open("/people?find=Student+Seven");
        office.Press(office.See("//button[contains(., 'student.6@tern.example')]"));
        office.Press(office.See("//button[contains(., 'a link to set a password') and not(contains(., 'mail'))]"));
        var way = office.See("input[aria-label = 'The link for Student Seven']").GetAttribute("value")!;
        using var student = new Person(school.Addresses[0]);
        student.ComeInBy(new Uri(way).AbsolutePath, "a gull on one leg");
        student.Press(student.See("//a[contains(., 'Tides and Channels')]"));
        student.SeeText("Mark the quay");
        student.SeeText("9 Alder");
        student.SeeNoText("9 Birch");
        student.HeardNoComplaint();
        marit.HeardNoComplaint();

        // Deactivated, their next step is the sign-in page.
        office.Open("/people?only=teach");
        office.Press(office.See("//button[contains(., 'Marit Oyelaran')]"));
        office.Press(office.See("//button[normalize-space() = 'deactivate']"));
        office.SeeText("Marit Oyelaran’s account is deactivated.");
        marit.Open("/");
        marit.Until(() => marit.Path.StartsWith("/sign-in", StringComparison.Ordinal), "signed out");
    }

    // The periods of the term, six sections, ninety-four students from a file, a course from a scheme of work; then the sections follow.
    private static void Teach(Person office, Person marit)
    {
        office.Open("/");
        office.Press(office.See("//a[contains(., 'Autumn term 2026')]"));
        office.Press(office.See("//button[normalize-space() = 'change the term']"));
        foreach (var (start, end) in new[] { ("08:40", "09:30"), ("09:35", "10:25") })
        {
            office.Press(office.See("//button[normalize-space() = 'add a period']"));
            var n = start == "08:40" ? 1 : 2;
            office.Write($"Start of period {n} of an ordinary day", start);
            office.Write($"End of period {n} of an ordinary day", end);
        }
        office.Press(office.See("//button[normalize-space() = 'Save the term']"));
        office.SeeText("P1 to P2");

        office.Press(office.See("//button[normalize-space() = 'add sections']"));
        string[] names = ["9 Alder", "9 Birch", "9 Cedar", "9 Dogwood", "9 Elder", "9 Fir"];
        office
            .See("#pasted-sections")
            .SendKeys(string.Join('\n', names.Select(name => $"{name}, Oyelaran, Mon P1, Wed P2")) + "\n9 Gull, biology, physics");
        office.SeeText("line 7: “physics” is not a teacher or a time, and there is a subject already");
        office.IsAccessible("new sections");
        office.Press(office.See("//button[normalize-space() = 'Add 6 sections']"));
        office.SeeNoText("One section on each line");

        office.Press(office.See("//a[normalize-space() = 'import a roster']"));
        var file = Path.Combine(Path.GetTempPath(), $"roster-{Guid.NewGuid():N}.csv");
        string[] words = ["One", "Two", "Three", "Four", "Five", "Six", "Seven", "Eight", "Nine", "Ten"];
        File.WriteAllLines(
            file,
            [
                "Student,Mail,Section,Tutor",
                .. Enumerable
                    .Range(0, 94)
                    .Select(n => (Name: n < 10 ? words[n] : $"{words[n % 10]} {words[n / 10]}", In: n == 6 ? names[0] : names[n % 6], N: n))
                    .Select(one => $"Student {one.Name},student.{one.N}@tern.example,{one.In},x"),
            ]
        );
        office.SeeText("People and their sections from");
        office.All("input[type=file]")[0].SendKeys(file);
        office.SeeText("94 accounts are added and 94 enrolments are added.");
        office.IsAccessible("a roster");
        office.Press(office.See("//button[normalize-space() = 'Import the roster']"));
        office.SeeText("Imported.");
        File.Delete(file);

        marit.Press(marit.See("//a[normalize-space() = 'new course']"));
        marit.Write("Title of the course", "Tides and Channels");
        marit
            .See("#scheme")
            .SendKeys(
                "The moon’s pull\n  High water, low water   2 classes\n    read  Twice a day\n"
                    + "    task  Mark the quay   due next class\n  ?? The pilots"
            );
        marit.SeeText("1 unit, 2 lessons for 3 classes and 2 items");
        marit.SeeText("is this a lesson?");
        marit.Press(marit.See("//button[normalize-space() = 'leave out']"));
        marit.SeeText("1 unit, 1 lesson for 2 classes and 2 items");
        marit.IsAccessible("a new course");
        marit.Press(marit.See("//button[starts-with(normalize-space(), 'Make the course: ')]"));
        foreach (var name in names)
        {
            marit.Press(marit.See("//a[normalize-space() = 'add a section']"));
            marit.SeeText("What stands in the way");
            if (marit.All($"//button[normalize-space() = 'Have {name} follow']").Count == 0)
                marit.Pick("Which section", name);
            marit.Press(marit.See($"//button[normalize-space() = 'Have {name} follow' and not(@disabled)]"));
            marit.Sure($"You added {name}");
            marit.Press(marit.See("//nav//a[normalize-space() = 'Outline']"));
        }
        marit.Press(marit.See("//button[@data-stop and normalize-space() = 'The moon’s pull']"));
        marit.Press(marit.See("//button[normalize-space() = 'publish 2 items']"));
        marit.Press(marit.See("//button[normalize-space() = 'Publish 2 items']"));
        marit.SeeText("all published");
    }

    private static void Type(Person person, string field, string text) => person.See(field).SendKeys(text);
}
