using System.Collections.Immutable;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.PlanFiles;
using Polycline.Core.Release;
using Polycline.Core.Sections;
using Polycline.Data;
using Polycline.Data.Courses;
using Polycline.Data.Files;
using Polycline.Formats;
using Polycline.Formats.Files;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Editions;

/// <summary>
/// A course as a file: as a plan file with its term and sections, or by itself with its texts and files as a package. Nothing of students
/// goes out.
/// </summary>
public static class ExportCourse
{
    public static async Task<IResult> HandlePlan(long edition, Access access, Viewpoint viewpoint, PlanCache compiled)
    {
        viewpoint.NeedsTeam("The plan file");
        return Results.File(PlanWriter.Write(PlanOf(await compiled.Edition(access))), "application/json; charset=utf-8", "plan.json");
    }

    public static async Task<IResult> HandlePackage(
        long edition,
        Access access,
        Viewpoint viewpoint,
        PlanCache compiled,
        Database database,
        CancellationToken stop
    )
    {
        viewpoint.NeedsTeam("The package");
        var plan = await compiled.Edition(access);
        var (texts, quizzes, files) = await database.Read(
            async connection =>
                (
                    await CourseStore.Texts(connection, plan.Id),
                    await CourseStore.Stored(connection, plan.Id),
                    await CourseStore.Files(connection, plan.Id)
                ),
            stop
        );
        var package = PackageOf(plan, texts, quizzes);
        var packed = files
            .Where(file => package.FileNames.Contains(file.Hash))
            .Select(file => new PackedFile(file.Hash, file.Type == FileTypes.Text, () => StoredStream.Of(database, file)));
        return Results.Stream(to => package.Write(to, packed, stop), "application/zip", "course.zip");
    }

    /// <summary>The plan as the computation has it, without students.</summary>
    public static Plan PlanOf(EditionPlan plan) =>
        new(
            plan.Term,
            plan.Edition,
            [.. plan.Counted.Sections.Select(section => section.Section)],
            ImmutableDictionary<string, ImmutableArray<Ref<Core.Courses.Student>>>.Empty,
            ImmutableDictionary<Ref<Core.Courses.Student>, Ref<Section>>.Empty,
            [],
            []
        );

    /// <summary>The course under ids by place, its texts under names by hash, its quizzes and rubrics as they are stored.</summary>
    public static CoursePackage PackageOf(
        EditionPlan plan,
        IReadOnlyDictionary<string, string> texts,
        IReadOnlyDictionary<string, string> stored
    )
    {
        var renaming = Renaming.ByPlace(plan.Edition);
        var edition = renaming.Of(plan.Edition);
        var shortest = plan
            .Edition.Units.SelectMany(unit => unit.Lessons)
            .Zip(edition.Units.SelectMany(unit => unit.Lessons))
            .Select(pair => (pair.Second.Ref.Name, plan.Row(pair.First.Ref).Shortest))
            .Where(pair => pair.Shortest is not null)
            .ToDictionary(pair => pair.Name, pair => pair.Shortest!.Value);
        return new(
            new(plan.CourseTitle, WithBodies(edition, hash => $"{hash}.html", stored: hash => stored[hash]), shortest),
            plan.Edition.InReadingOrder()
                .Select(item => item.Body)
                .OfType<string>()
                .Distinct()
                .ToDictionary(hash => $"{hash}.html", hash => texts[hash])
        );
    }

    /// <summary>An edition with its bodies and files called otherwise.</summary>
    internal static Edition WithBodies(
        Edition edition,
        Func<string, string?> name,
        Func<string, string>? file = null,
        Func<string, string>? stored = null
    )
    {
        Offered WithFiles(Offered offered, Func<string, string> called) =>
            offered with
            {
                Options =
                [
                    .. offered.Options.Select(option =>
                        option.Picture is { } picture ? option with { Picture = picture with { File = called(picture.File) } } : option
                    ),
                ],
            };

        Item Of(Item item) =>
            item with
            {
                Body = item.Body is null ? null : name(item.Body),
                Quiz = item.Quiz is null || stored is null ? item.Quiz : stored(item.Quiz),
                Rubric = item.Rubric is null || stored is null ? item.Rubric : stored(item.Rubric),
                Offered = file is null || item.Offered is not { } offered ? item.Offered : WithFiles(offered, file),
                Files = file is null ? item.Files : [.. item.Files.Select(given => given with { Hash = file(given.Hash) })],
            };
        return edition with
        {
            Units =
            [
                .. edition.Units.Select(unit =>
                    unit with
                    {
                        Lessons = [.. unit.Lessons.Select(lesson => lesson with { Items = [.. lesson.Items.Select(Of)] })],
                        Items = [.. unit.Items.Select(Of)],
                    }
                ),
            ],
        };
    }
}
