using System.Data;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Calendars;
using Polycline.Core.Courses;
using Polycline.Core.PlanFiles;
using Polycline.Core.Wording;
using Polycline.Data.Courses;
using Polycline.Data.Editions;
using Polycline.Formats;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Foundation.Reading;
using Polycline.Web.Outline;

namespace Polycline.Web.Editions;

/// <param name="Term">In which it is to be taught: this edition's, or a later one.</param>
/// <param name="Package">The file as base64: at most 15 MB of it.</param>
public sealed record TakeInRequest(Id<Term> Term, string Package);

/// <param name="Applied">False if this was only a preview and nothing was written.</param>
/// <param name="Edition">The course's edition; null in a preview.</param>
/// <param name="Sentence">What it is and what is in it.</param>
public sealed record TakeInAnswer(bool Applied, Id<Edition>? Edition, string Title, string Sentence) : IAnswer<TakeInAnswer>
{
    public TakeInAnswer AsPreview() => this with { Applied = false, Edition = null };
}

/// <summary>Takes a package in as a course of one's own, whole or not at all, seen by oneself only.</summary>
public sealed class TakeInCourse : IWorkCommand<TakeInRequest, CoursePackage, TakeInAnswer>
{
    private const int Longest = 15_000_000;
    private const int MostParts = 5_000;

    public static string Name => "take-in";

    public static WorkPlace Place => WorkPlace.Edition;

    public static long? LargestRequest => Longest * 4L / 3 + 100_000;

    /// <summary>Reads the package.</summary>
    public static Task<CoursePackage> Prepare(Access access, PlanCache plans, TakeInRequest request) =>
        Task.FromResult(Read(request.Package));

    // A package is held to what the screens allow: as many parts, titles as long, conditions as large.
    private static string? Fault(CoursePackage package)
    {
        var edition = package.Course.Edition;
        var lessons = edition.Units.SelectMany(unit => unit.Lessons).ToList();
        var items = edition.InReadingOrder().ToList();
        if (edition.Units.Length + lessons.Count + items.Count > MostParts)
            return $"This course has more than {MostParts:N0} units, lessons and items together. Split it into smaller courses.";
        var titles = edition
            .Units.Select(unit => unit.Title)
            .Concat(lessons.Select(lesson => lesson.Title))
            .Concat(items.Select(item => item.Title))
            .Append(edition.Title)
            .Append(package.Course.Title);
        if (titles.FirstOrDefault(title => title.Length > 200 || !Bounds.IsVisible(title) || title.Any(char.IsControl)) is { } title)
            return $"A title is one line of 1 to 200 characters; “{(title.Length > 40 ? title[..40] + "…" : title)}” is not.";
        var gates = edition
            .Units.Select(unit => unit.Gate)
            .Concat(lessons.Select(lesson => lesson.Gate))
            .Concat(items.Select(item => item.Gate));
        if (
            gates
                .OfType<Core.Courses.Gate>()
                .Any(gate => gate.Root.WithAllBelow().Take(OutlineRules.MostParts + 1).Count() > OutlineRules.MostParts)
        )
            return $"A condition has at most {OutlineRules.MostParts} parts.";
        foreach (var (name, html) in package.Texts)
            if (html.Length > 200_000 || Bounds.Fault(html) is not null || FormattedText.Fault(html) is not null)
                return $"texts/{name}: "
                    + (html.Length > 200_000 ? "it is longer than 200,000 characters." : Bounds.Fault(html) ?? FormattedText.Fault(html));
        return null;
    }

    private static CoursePackage Read(string base64)
    {
        if (base64.Length > Longest * 4L / 3 + 4)
            throw Problem.Field("package", "This file is larger than 15 MB.");
        try
        {
            var package = CoursePackage.Read(Convert.FromBase64String(base64));
            if (Fault(package) is { } fault)
                throw Problem.Field("package", fault);
            // Every text comes out in the one form in which texts are kept.
            return package with
            {
                Texts = package.Texts.ToDictionary(text => text.Key, text => FormattedText.Canonical(text.Value), StringComparer.Ordinal),
            };
        }
        catch (FormatException)
        {
            throw Problem.Field("package", "This is not a file in base64.");
        }
        catch (PackageException fault)
        {
            throw Problem.Field("package", fault.Message);
        }
        catch (PlanRefusedException refusal)
        {
            throw Problem.Field("package", $"{refusal.Path.Replace("$", "course.json", StringComparison.Ordinal)}: {refusal.Message}.");
        }
    }

    private static async Task<bool> MayBeIn(NpgsqlConnection connection, Access access, Id<Term> term)
    {
        var (_, later) = await RolloverStore.Read(connection, access.Edition!.Value);
        return term == access.Term || later.Any(one => one.Id == term);
    }

    public static async Task<TakeInAnswer> Do(WorkContext work, CoursePackage package, TakeInRequest request)
    {
        var connection = work.Connection;
        if (!await MayBeIn(connection, work.Access, request.Term))
            throw Problem.Unknown("term");
        var bodies = package.Texts.ToDictionary(text => text.Key, text => new Body(text.Value), StringComparer.Ordinal);
        foreach (var body in bodies.Values.Where(body => body.Html.Length > 0))
            await BodyStore.Keep(connection, body);
        var names = new Dictionary<string, string>(StringComparer.Ordinal);
        string Lineage(string name) => names.TryGetValue(name, out var known) ? known : names[name] = $"{Guid.NewGuid()}";
        var edition = ExportCourse.WithBodies(new Renaming(Lineage).Of(package.Course.Edition), name =>
            bodies[name] is { Html.Length: > 0 } body ? body.Hash : null
        );
        var course = package.Course with
        {
            Edition = edition,
            Shortest = package.Course.Shortest.ToDictionary(pair => Lineage(pair.Key), pair => pair.Value),
        };
        var made = await CourseStore.Add(connection, course, request.Term, work.Access.Person.Id, work.Viewpoint.At);
        await work.Audit("course-taken-in", new { edition = made.Value });
        return Answer(package, made);
    }

    private static TakeInAnswer Answer(CoursePackage package, Id<Edition> made)
    {
        var edition = package.Course.Edition;
        var items = edition.InReadingOrder().ToList();
        return new(
            true,
            made,
            package.Course.Title,
            $"“{package.Course.Title}”, {edition.Title}: {edition.Levels.Unit.Counted(edition.Units.Length)}, "
                + $"{edition.Levels.Lesson.Counted(edition.Units.Sum(unit => unit.Lessons.Length))}, "
                + $"{edition.Levels.Item.Counted(items.Count)}, "
                + $"{Counting.Counted(items.Count(item => item.Body is not null), "text", "texts")}. "
                + $"It becomes a course of your own; no section follows it yet."
        );
    }
}
