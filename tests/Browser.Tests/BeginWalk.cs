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

        // She makes a course; the office makes her a section; she lets it follow.
        marit.Press(marit.See("//button[normalize-space() = 'new course']"));
        marit.Write("Title of the course", "Harbour birds");
        marit.IsAccessible("a new course");
        marit.Press(marit.See("//button[normalize-space() = 'Make the course']"));
        marit.SeeText("This course has no units yet.");
        var course = marit.Path;
        office.Open("/");
        office.Press(office.See("//a[contains(., 'Autumn term 2026')]"));
        office.Press(office.See("//button[normalize-space() = 'add sections']"));
        office.See("#pasted-sections").SendKeys("9 Tern, Oyelaran\n9 Gull, Oyelaran, biology, Oyelaran, physics");
        office.SeeText("line 2: “physics” is no teacher, no time and no second subject");
        office.IsAccessible("new sections");
        office.Press(office.See("//button[normalize-space() = 'Add 1 section']"));
        office.SeeNoText("One section on each line");
        office.SeeText("9 Tern");
        marit.Open(course);
        marit.Press(marit.See("//button[normalize-space() = 'add a section']"));
        marit.Press(marit.See("//button[@role = 'menuitem'][contains(., '9 Tern')]"));
        marit.Sure("You added 9 Tern");
        marit.HeardNoComplaint();
        office.Open("/people");

        // Deactivated, their next step is the sign-in page.
        office.Press(office.See("//button[contains(., 'Marit Oyelaran')]"));
        office.Press(office.See("//button[normalize-space() = 'deactivate']"));
        office.SeeText("Marit Oyelaran’s account is deactivated.");
        marit.Open("/");
        marit.Until(() => marit.Path.StartsWith("/sign-in", StringComparison.Ordinal), "signed out");
    }

    private static void Type(Person person, string field, string text) => person.See(field).SendKeys(text);
}
