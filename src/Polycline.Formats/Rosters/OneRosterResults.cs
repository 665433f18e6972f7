using System.Globalization;
using System.IO.Compression;
using NodaTime;
using NodaTime.Text;

namespace Polycline.Formats.Rosters;

/// <summary>A kind of items, such as what is for marks.</summary>
public sealed record ResultCategory(string Id, string Title);

/// <summary>An item in one class.</summary>
/// <param name="Class">The class, as the roster calls it.</param>
/// <param name="Period">The grading period.</param>
/// <param name="Most">What there is to reach; above 0.</param>
public sealed record ResultItem(
    string Id,
    string Title,
    LocalDate Assigned,
    LocalDate Due,
    string Class,
    string Category,
    string Period,
    decimal Most
);

/// <summary>How an item stands for a student, as OneRoster names it.</summary>
public enum ResultStatus
{
    Exempt,
    FullyGraded,
    NotSubmitted,
    Submitted,
}

/// <param name="Student">The student, as the roster calls them.</param>
/// <param name="Score">Null: there is none.</param>
/// <param name="On">The day of the score, or on which there is none yet.</param>
public sealed record StudentResult(string Id, string Item, string Student, ResultStatus Status, decimal? Score, LocalDate On);

/// <summary>Writes results as OneRoster 1.1 CSV: a zip of categories, line items and results, all of them anew.</summary>
public static class OneRosterResults
{
    private static readonly string[] Absent =
    [
        "academicSessions",
        "classes",
        "classResources",
        "courses",
        "courseResources",
        "demographics",
        "enrollments",
        "orgs",
        "resources",
        "users",
    ];

    // The same results give the same bytes.
    private static readonly DateTimeOffset Timeless = new(1980, 1, 1, 0, 0, 0, TimeSpan.Zero);

    /// <param name="results">Each of an item among <paramref name="items"/>, each of those of a category among the first.</param>
    public static byte[] Write(
        string system,
        IEnumerable<ResultCategory> categories,
        IEnumerable<ResultItem> items,
        IEnumerable<StudentResult> results
    )
    {
        using var stream = new MemoryStream();
        using (var zip = new ZipArchive(stream, ZipArchiveMode.Create, leaveOpen: true))
        {
            Put(
                zip,
                "manifest.csv",
                [
                    ["propertyName", "value"],
                    ["manifest.version", "1.0"],
                    ["oneroster.version", "1.1"],
                    .. Absent.Select(file => new[] { $"file.{file}", "absent" }),
                    .. new[] { "categories", "lineItems", "results" }.Select(file => new[] { $"file.{file}", "bulk" }),
                    ["source.systemName", system],
                    ["source.systemCode", "polycline"],
                ]
            );
            Put(
                zip,
                "categories.csv",
                [
                    ["sourcedId", "status", "dateLastModified", "title"],
                    .. categories.Select(category => new[] { category.Id, null, null, category.Title }),
                ]
            );
            Put(
                zip,
                "lineItems.csv",
                [
                    [
                        "sourcedId",
                        "status",
                        "dateLastModified",
                        "title",
                        "description",
                        "assignDate",
                        "dueDate",
                        "classSourcedId",
                        "categorySourcedId",
                        "gradingPeriodSourcedId",
                        "resultValueMin",
                        "resultValueMax",
                    ],
                    .. items.Select(item =>
                        new[]
                        {
                            item.Id,
                            null,
                            null,
                            item.Title,
                            null,
                            Iso(item.Assigned),
                            Iso(item.Due),
                            item.Class,
                            item.Category,
                            item.Period,
                            "0",
                            Number(item.Most),
                        }
                    ),
                ]
            );
            Put(
                zip,
                "results.csv",
                [
                    [
                        "sourcedId",
                        "status",
                        "dateLastModified",
                        "lineItemSourcedId",
                        "studentSourcedId",
                        "scoreStatus",
                        "score",
                        "scoreDate",
                        "comment",
                    ],
                    .. results.Select(result =>
                        new[]
                        {
                            result.Id,
                            null,
                            null,
                            result.Item,
                            result.Student,
                            Word(result.Status),
                            result.Score is { } score ? Number(score) : null,
                            Iso(result.On),
                            null,
                        }
                    ),
                ]
            );
        }
        return stream.ToArray();
    }

    private static void Put(ZipArchive zip, string name, IEnumerable<IReadOnlyList<string?>> rows)
    {
        var entry = zip.CreateEntry(name);
        entry.LastWriteTime = Timeless;
        using var to = entry.Open();
        // Without the byte order mark that spreadsheets want: other systems take it for a part of the first heading.
        to.Write(Csv.Write(rows).AsSpan(3));
    }

    private static string Word(ResultStatus status) =>
        status switch
        {
            ResultStatus.Exempt => "exempt",
            ResultStatus.FullyGraded => "fully graded",
            ResultStatus.NotSubmitted => "not submitted",
            _ => "submitted",
        };

    private static string Iso(LocalDate date) => LocalDatePattern.Iso.Format(date);

    private static string Number(decimal number) => number.ToString("0.##", CultureInfo.InvariantCulture);
}
