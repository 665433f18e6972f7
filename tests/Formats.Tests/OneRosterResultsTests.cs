using System.IO.Compression;
using System.Text;
using NodaTime;
using Polycline.Formats.Rosters;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Formats;

/// <summary>Results as OneRoster files, read back table by table.</summary>
public sealed class OneRosterResultsTests
{
    private static readonly LocalDate Day = new(2026, 10, 6);

    private static byte[] File() =>
        OneRosterResults.Write(
            "Fenwater College",
            [new("marks", "for marks")],
            [new("i1", "The \"first\" log, and more", Day, Day.PlusDays(3), "c9", "marks", "t1", 12.5m)],
            [
                new("r1", "i1", "u1", ResultStatus.FullyGraded, 10.25m, Day),
                new("r2", "i1", "u2", ResultStatus.Exempt, null, Day),
                new("r3", "i1", "u3", ResultStatus.NotSubmitted, null, Day),
                new("r4", "i1", "u4", ResultStatus.Submitted, null, Day),
            ]
        );

    private static string[] Lines(string name)
    {
        using var zip = new ZipArchive(new MemoryStream(File()), ZipArchiveMode.Read);
        using var text = new StreamReader(zip.GetEntry(name)!.Open(), new UTF8Encoding(false), detectEncodingFromByteOrderMarks: false);
        return text.ReadToEnd().TrimEnd().Split("\r\n");
    }

    [Fact]
    public void Every_table_is_as_the_standard_has_it()
    {
        Lines("manifest.csv")
            .ShouldSatisfyAllConditions(
                lines => lines[0].ShouldBe("propertyName,value"),
                lines => lines.ShouldContain("oneroster.version,1.1"),
                lines => lines.ShouldContain("file.results,bulk"),
                lines => lines.ShouldContain("file.users,absent"),
                lines => lines.Count(line => line.StartsWith("file.", StringComparison.Ordinal)).ShouldBe(13)
            );
        Lines("categories.csv")[1].ShouldBe("marks,,,for marks");
        Lines("lineItems.csv")
            .ShouldBe([
                "sourcedId,status,dateLastModified,title,description,assignDate,dueDate,classSourcedId,categorySourcedId,"
                    + "gradingPeriodSourcedId,resultValueMin,resultValueMax",
                "i1,,,\"The \"\"first\"\" log, and more\",,2026-10-06,2026-10-09,c9,marks,t1,0,12.5",
            ]);
        Lines("results.csv")[1..]
            .ShouldBe([
                "r1,,,i1,u1,fully graded,10.25,2026-10-06,",
                "r2,,,i1,u2,exempt,,2026-10-06,",
                "r3,,,i1,u3,not submitted,,2026-10-06,",
                "r4,,,i1,u4,submitted,,2026-10-06,",
            ]);
    }

    [Fact]
    public void The_same_results_give_the_same_bytes() => File().ShouldBe(File());
}
