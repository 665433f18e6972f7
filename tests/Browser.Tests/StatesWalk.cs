using Dapper;
using Npgsql;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Browser;

/// <summary>Every screen with something in it, with nothing in it, and while it cannot be read.</summary>
public sealed class StatesWalk(PublishedSchool school) : IClassFixture<PublishedSchool>
{
    /// <summary>A screen: where it is, what it reads, what is seen on it, and what it says where there is nothing.</summary>
    private sealed record Screen(string Name, string Reads, string Filled, string Empty);

    private static readonly Screen[] OfCourse =
    [
        new("today", "/today", "Waits for you", "This edition has no section yet, so nothing meets and nothing is due."),
        new("outline", "/outline", "Cloud diary", "This course has no units yet."),
        new("dates", "/dates", "Cloud diary", "No section follows this course yet, so there are no dates."),
        new("work", "/work", "Give back", "You do not teach a section of this edition, so there is no work to read."),
        new("pace", "/pace", "on plan", "This edition has no section yet, so there is no pace to see."),
        new("sections", "/sections", "What differs from the course", "No section follows this course yet."),
        new("editions", "/editions", "Roll over into the next edition", "Roll over into the next edition"),
    ];

    [Fact]
    public async Task Every_screen_of_a_course_says_what_there_is_that_there_is_nothing_and_that_it_cannot_be_read()
    {
        var empty = await EmptyEdition();
        using var orla = new Person(school.Addresses[0]);
        orla.ComeIn("Orla Tierney-Vance");
        foreach (var screen in OfCourse)
        {
            orla.Open($"/editions/{empty}/{screen.Name}");
            orla.SeeText(screen.Empty);
            SaysItsName(orla, screen);
            orla.IsAccessible($"{screen.Name}, empty");

            orla.Failing($"/api/editions/2{screen.Reads}");
            orla.Open($"/editions/2/{screen.Name}");
            orla.SeeText("The database does not answer.");
            SaysItsName(orla, screen);
            orla.Text().ShouldNotContain("Reading");
            orla.IsAccessible($"{screen.Name}, failing");
            TryAgain(orla);
            orla.SeeText(screen.Filled);
            orla.SeeNoText("The database does not answer.");
            orla.Failing();
        }
        orla.HeardNoComplaint();
    }

    [Fact]
    public void So_do_a_students_screens_the_calendar_and_ones_own_courses()
    {
        using var imke = new Person(school.Addresses[0]);
        imke.ComeIn("Imke Osei");
        var (now, item) = (imke.Path, new Uri(imke.See("//a[contains(., 'Arrows on the chart')]").GetAttribute("href")!).PathAndQuery);
        Fails(imke, "/now", now, "Arrows on the chart");
        Fails(imke, "/items/", item, "Your work");
        Fails(imke, "/api/places", "/", "Your sections");
        imke.HeardNoComplaint();

        using var fintan = new Person(school.Addresses[0]);
        fintan.ComeIn("Fintan Marsh");
        Fails(
            fintan,
            "/calendar",
            new Uri(fintan.See("//a[contains(., 'Autumn term 2026')]").GetAttribute("href")!).PathAndQuery,
            "75 class days"
        );
        fintan.HeardNoComplaint();
    }

    [Fact]
    public async Task A_student_of_a_course_without_anything_in_it_and_somebody_without_a_place_are_told_so()
    {
        var empty = await EmptyEdition();
        await Sql(connection =>
            connection.ExecuteAsync(
                """
                WITH own AS (UPDATE section SET edition = @empty WHERE name = '9 Cedar' RETURNING id),
                     student AS (UPDATE person SET teacher = false WHERE name = 'Hanneke Doyle-Okafor' RETURNING id)
                DELETE FROM master_member WHERE person = (SELECT id FROM person WHERE name = 'Hanneke Doyle-Okafor')
                """,
                new { empty }
            )
        );
        using var noor = new Person(school.Addresses[0]);
        noor.ComeIn("Noor Salazar");
        noor.SeeText("There is nothing in this course yet.");
        noor.IsAccessible("a student with nothing");
        noor.HeardNoComplaint();
        using var hanneke = new Person(school.Addresses[0]);
        hanneke.ComeIn("Hanneke Doyle-Okafor");
        hanneke.SeeText("You are not on a team or in a section yet.");
        hanneke.IsAccessible("somebody without a place");
        hanneke.HeardNoComplaint();
    }

    private static void Fails(Person person, string reads, string at, string filled)
    {
        person.Failing(reads);
        person.Open(at);
        person.SeeText("The database does not answer.");
        person.IsAccessible($"{at}, failing");
        TryAgain(person);
        person.SeeText(filled);
        person.SeeNoText("The database does not answer.");
        person.Failing();
    }

    // It is the press itself that brings the database back: a screen that reads again by itself must not get there first.
    private static void TryAgain(Person person)
    {
        person.Ask<object?>("addEventListener('pointerdown', () => (window.mended = true), { capture: true, once: true })");
        person.Press(person.See("//button[normalize-space() = 'Try again']"));
    }

    // The word of the screen stands large at the left, whatever can be read of it.
    private static void SaysItsName(Person person, Screen screen) => person.See("h1").Text.ToLowerInvariant().ShouldBe(screen.Name);

    // A course of Orla's that has nothing in it and that no section follows.
    private Task<long> EmptyEdition() =>
        Sql(connection =>
            connection.ExecuteScalarAsync<long>(
                """
                WITH course AS (INSERT INTO master (title) VALUES ('Tidal pools') RETURNING id),
                     lead AS (
                       INSERT INTO master_member
                       SELECT course.id, p.id, 'lead' FROM course, person p WHERE p.name = 'Orla Tierney-Vance'
                     )
                INSERT INTO edition (master, ordinal, title, term, state)
                SELECT course.id, 1, 'edition 2026', t.id, 'current' FROM course, term t WHERE t.name = 'Autumn term 2026'
                RETURNING id
                """
            )
        );

    private async Task<T> Sql<T>(Func<NpgsqlConnection, Task<T>> ask)
    {
        await using var connection = new NpgsqlConnection(school.Database.Owner);
        return await ask(connection);
    }
}
