using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Release;
using Polycline.Data;
using Polycline.Data.Search;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Search;

/// <param name="Hits">The best first; at most 30.</param>
public sealed record SearchAnswer(IReadOnlyList<SearchHit> Hits);

public sealed record SearchHit
{
    public required Id<Item> Item { get; init; }

    public required string Code { get; init; }

    public required string Title { get; init; }

    public required string Unit { get; init; }

    public required string? Lesson { get; init; }

    /// <summary>Where the words stand: <c>title</c>, <c>text</c> or <c>file</c>.</summary>
    public required string Place { get; init; }

    /// <summary>The file they stand in; null: none.</summary>
    public required string? File { get; init; }

    /// <summary>The passage they stand in, piece by piece.</summary>
    public required IReadOnlyList<Passage> Passage { get; init; }
}

/// <param name="IsSought">Whether it is one of the words that were sought.</param>
public sealed record Passage(string Text, bool IsSought);

/// <summary>Finds items by the words of their titles, texts and files.</summary>
public static class SearchRoutes
{
    public static void MapSearch(this IEndpointRouteBuilder routes)
    {
        routes.MapGet("/api/editions/{edition:long}/search", OfEdition).WithName("search").For(May.Team).ProducesProblems(422);
        routes
            .MapGet("/api/sections/{section:long}/search", OfStudent)
            .WithName("student-search")
            .For(May.SectionStudent | May.SectionTeacher)
            .ProducesProblems(422);
    }

    private static async Task<SearchAnswer> OfEdition(
        long edition,
        string? words,
        Access access,
        Viewpoint viewpoint,
        PlanCache compiled,
        Database database,
        CancellationToken stop
    )
    {
        viewpoint.NeedsTeam("What is written here");
        var sought = Sought(words);
        var plan = await compiled.Edition(access);
        var found = await Find(database, [.. plan.Edition.InReadingOrder().Select(item => plan.Row(item.Ref).As<Item>())], sought, stop);
        var places = plan
            .Edition.Units.SelectMany(unit =>
                unit.Lessons.SelectMany(lesson => lesson.Items.Select(item => (item.Ref, Unit: unit.Title, Lesson: (string?)lesson.Title)))
                    .Concat(unit.Items.Select(item => (item.Ref, Unit: unit.Title, Lesson: (string?)null)))
            )
            .ToDictionary(place => place.Ref);
        return new([
            .. found.Select(row =>
            {
                var item = plan.Item(row.Item)!;
                var place = places[item.Ref];
                return Hit(row, plan.Schedule.CodeOf[item.Ref], item.Title, place.Unit, place.Lesson);
            }),
        ]);
    }

    private static async Task<SearchAnswer> OfStudent(
        long section,
        string? words,
        Access access,
        Viewpoint viewpoint,
        PlanCache compiled,
        Database database,
        CancellationToken stop
    )
    {
        var sought = Sought(words);
        var course = await StudentCourse.Read(access, viewpoint, compiled, database, stop);
        // What may not be read is not found, whatever stands in it.
        var readable = course.All.Where(sight => sight.MayRead).ToDictionary(course.IdOf);
        var found = await Find(database, readable.Keys, sought, stop);
        return new([
            .. found.Select(row =>
            {
                Sight sight = readable[row.Item];
                return Hit(row, sight.Code, sight.Title, sight.Unit, sight.Lesson);
            }),
        ]);
    }

    private static Task<IReadOnlyList<FoundRow>> Find(
        Database database,
        IReadOnlyCollection<Id<Item>> items,
        IReadOnlyList<string> words,
        CancellationToken stop
    ) => database.Read(connection => SearchStore.Find(connection, items, words), stop);

    private static SearchHit Hit(FoundRow row, string code, string title, string unit, string? lesson) =>
        new()
        {
            Item = row.Item,
            Code = code,
            Title = title,
            Unit = unit,
            Lesson = lesson,
            Place = row.Place,
            File = row.File,
            Passage = [.. Passages(row.Words)],
        };

    private static IEnumerable<Passage> Passages(string marked)
    {
        var isSought = false;
        foreach (var piece in marked.Split(SearchStore.Begins, SearchStore.Ends))
        {
            if (piece.Length > 0)
                yield return new(System.Net.WebUtility.HtmlDecode(piece), isSought);
            isSought = !isSought;
        }
    }

    // Letters and digits, each run of them a word.
    private static IReadOnlyList<string> Sought(string? words)
    {
        const int Longest = 100,
            Most = 10;
        if (words?.Length > Longest)
            throw Problem.Field("words", $"Search for up to {Longest} characters.");
        return
        [
            .. new string([.. (words ?? "").Select(letter => char.IsLetterOrDigit(letter) ? letter : ' ')])
                .Split(' ', StringSplitOptions.RemoveEmptyEntries)
                .Take(Most),
        ];
    }
}
