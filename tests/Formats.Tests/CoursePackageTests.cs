using System.IO.Compression;
using Polycline.Core.Courses;
using Polycline.Core.PlanFiles;
using Polycline.Formats;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Formats;

/// <summary>A course with its texts in one file.</summary>
public sealed class CoursePackageTests
{
    private static readonly CoursePackage Some = new(
        new(
            "Weather Watch",
            new(
                "edition 2026",
                Basis.Meetings,
                0,
                CodeStyle.ByUnit,
                BeforeOpening.Listed,
                [
                    new(
                        new("u1"),
                        "Looking up",
                        [
                            new(
                                new("l1"),
                                "The sky at nine",
                                2,
                                [
                                    new()
                                    {
                                        Ref = new("i1"),
                                        Kind = ItemKind.Page,
                                        Title = "What a cloud is",
                                        Options = [],
                                        Body = "a.html",
                                    },
                                    new()
                                    {
                                        Ref = new("i2"),
                                        Kind = ItemKind.Task,
                                        Title = "Cloud diary",
                                        Options = [],
                                        Asks = new() { Way = AskedWay.Log, Files = [new("the chart", AskedKind.Picture)] },
                                    },
                                    new()
                                    {
                                        Ref = new("i3"),
                                        Kind = ItemKind.Link,
                                        Title = "A day over the harbour",
                                        Options = [],
                                        Address = "https://films.example/harbour",
                                    },
                                ]
                            ),
                        ],
                        []
                    ),
                ]
            ),
            new Dictionary<string, int> { ["l1"] = 1 }
        ),
        new Dictionary<string, string> { ["a.html"] = "<p>Nuées</p>" }
    );

    [Fact]
    public void Out_and_in_again_it_is_the_same_and_the_same_course_gives_the_same_bytes()
    {
        var bytes = Some.Write();
        var read = CoursePackage.Read(bytes);
        read.Texts.ShouldBe(Some.Texts);
        read.Course.Shortest.ShouldBe(Some.Course.Shortest);
        read.Course.Edition.InReadingOrder()
            .Select(item => (item.Title, item.Body, item.Asks, item.Address))
            .ShouldBe(Some.Course.Edition.InReadingOrder().Select(item => (item.Title, item.Body, item.Asks, item.Address)));
        read.Write().ShouldBe(bytes);
    }

    [Fact]
    public void What_no_item_names_is_not_taken_in()
    {
        var read = CoursePackage.Read(With(zip => Put(zip, "texts/../../elsewhere.html", "<p>x</p>"u8.ToArray())));
        read.Texts.Keys.ShouldBe(["a.html"]);
    }

    [Fact]
    public void What_is_no_package_or_lacks_something_says_what()
    {
        Told("no zip"u8.ToArray()).ShouldContain("not a zip file");
        Told(Zip(zip => Put(zip, "readme.txt", []))).ShouldContain("a package contains a course.json");
        Told(Zip(zip => Put(zip, "course.json", Some.Course.Write()))).ShouldContain("texts/a.html");
        Should
            .Throw<PlanRefusedException>(() => CoursePackage.Read(Zip(zip => Put(zip, "course.json", "{}"u8.ToArray()))))
            .Path.ShouldStartWith("$");
    }

    [Fact]
    public void What_unpacks_to_more_than_anybody_writes_is_refused_whatever_it_says_of_its_length()
    {
        var large = Zip(zip =>
        {
            Put(zip, "course.json", Some.Course.Write());
            Put(zip, "texts/a.html", new byte[50_000_001]);
        });
        large.Length.ShouldBeLessThan(100_000);
        Told(large).ShouldContain("more than 50 MB");
        Told(
                Zip(zip =>
                {
                    for (var n = 0; n <= 5_000; n++)
                        Put(zip, $"{n}", []);
                })
            )
            .ShouldContain("more than 5,000 files");
    }

    [Fact]
    public void A_file_that_was_cut_off_or_damaged_is_told_as_such()
    {
        var whole = Some.Write();
        Told(whole[..^40]).ShouldNotBeEmpty();
        var damaged = (byte[])whole.Clone();
        // In the middle of what is compressed.
        damaged.AsSpan(60, 40).Fill(0xFF);
        Should
            .Throw<Exception>(() => CoursePackage.Read(damaged))
            .GetType()
            .ShouldBeOneOf(typeof(PackageException), typeof(PlanRefusedException));
    }

    private static string Told(byte[] bytes) => Should.Throw<PackageException>(() => CoursePackage.Read(bytes)).Message;

    private static byte[] With(Action<ZipArchive> more)
    {
        using var stream = new MemoryStream();
        stream.Write(Some.Write());
        using (var zip = new ZipArchive(stream, ZipArchiveMode.Update, leaveOpen: true))
            more(zip);
        return stream.ToArray();
    }

    private static byte[] Zip(Action<ZipArchive> fill)
    {
        using var stream = new MemoryStream();
        using (var zip = new ZipArchive(stream, ZipArchiveMode.Create, leaveOpen: true))
            fill(zip);
        return stream.ToArray();
    }

    private static void Put(ZipArchive zip, string name, byte[] bytes)
    {
        using var entry = zip.CreateEntry(name).Open();
        entry.Write(bytes);
    }
}
