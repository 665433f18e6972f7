using System.IO.Compression;
using Polycline.Core.Courses;
using Polycline.Core.Json;
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
                                        Files = [new("tide table.csv", "f1"), new("the same.csv", "f1")],
                                        AboutTeacher = true,
                                    },
                                    new()
                                    {
                                        Ref = new("i4"),
                                        Kind = ItemKind.Choice,
                                        Title = "Which form",
                                        Options = ["a", "b"],
                                        Offered = new(
                                            [
                                                new("a", "A gauge", "Build it.", 3) { Picture = new("f3", "a rain gauge") },
                                                new("b", "A talk", "", null),
                                            ],
                                            true
                                        ),
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
        new Dictionary<string, string> { ["a.html"] = "<p>Nuées</p><img src=\"file:f2\" alt=\"a cloud\">" }
    );

    private static readonly byte[] Picture = [0xFF, 0xD8, 7, 8, 9];

    private static PackedFile[] Files =>
        [
            new("f2", false, () => new MemoryStream(Picture)),
            new("f3", false, () => new MemoryStream(Picture)),
            new("f1", true, () => new MemoryStream(Table)),
        ];

    private static readonly byte[] Table = [.. Enumerable.Repeat("high,low\n"u8.ToArray(), 500).SelectMany(line => line)];

    private static async Task<byte[]> Written(CoursePackage package, params PackedFile[] files)
    {
        using var stream = new MemoryStream();
        await package.Write(stream, files);
        return stream.ToArray();
    }

    private static async Task<PackageReader> Opened(byte[] bytes) => await PackageReader.Open(new MemoryStream(bytes));

    private static async Task<byte[]> Bytes(PackageReader reader, string file)
    {
        var bytes = new List<byte>();
        await foreach (var piece in reader.Pieces(file, 1000))
            bytes.AddRange(piece);
        return [.. bytes];
    }

    [Fact]
    public async Task Out_and_in_again_it_is_the_same_and_the_same_course_gives_the_same_bytes()
    {
        var bytes = await Written(Some, Files);
        await using var reader = await Opened(bytes);
        var read = reader.Package;
        read.Texts.ShouldBe(Some.Texts);
        read.Course.Shortest.ShouldBe(Some.Course.Shortest);
        read.Course.Edition.InReadingOrder()
            .Select(item => (item.Title, item.Body, item.Asks, item.Address, item.Offered, string.Join(", ", item.Files)))
            .ShouldBe(
                Some.Course.Edition.InReadingOrder()
                    .Select(item => (item.Title, item.Body, item.Asks, item.Address, item.Offered, string.Join(", ", item.Files)))
            );
        read.FileNames.Order().ShouldBe(["f1", "f2", "f3"]);
        var (table, picture) = (await Bytes(reader, "f1"), await Bytes(reader, "f2"));
        table.ShouldBe(Table);
        picture.ShouldBe(Picture);
        // In whatever order the files are given.
        (
            await Written(
                read,
                new PackedFile("f1", true, () => new MemoryStream(table)),
                new PackedFile("f2", false, () => new MemoryStream(picture)),
                new PackedFile("f3", false, () => new MemoryStream(picture))
            )
        ).ShouldBe(bytes);
    }

    [Fact]
    public async Task A_file_that_is_missing_or_longer_than_it_says_is_told_as_such()
    {
        await using var without = await Opened(await Written(Some));
        Should.Throw<PackageException>(() => without.LengthOf("f1")).Message.ShouldContain("files/f1, which the course uses, is missing");
        var bytes = await Written(Some, Files);
        // The length in the list at the end of the zip file, in four bytes.
        BitConverter.TryWriteBytes(bytes.AsSpan(bytes.AsSpan().LastIndexOf("files/f1"u8) - 46 + 24), 9_999).ShouldBeTrue();
        await using var shorter = await Opened(bytes);
        shorter.LengthOf("f1").ShouldBe(9_999);
        (await Should.ThrowAsync<PackageException>(() => Bytes(shorter, "f1"))).Message.ShouldContain("files/f1");
    }

    [Fact]
    public async Task What_no_item_names_is_not_taken_in()
    {
        await using var read = await Opened(await With(zip => Put(zip, "texts/../../elsewhere.html", "<p>x</p>"u8.ToArray())));
        read.Package.Texts.Keys.ShouldBe(["a.html"]);
    }

    [Fact]
    public async Task What_is_no_package_or_lacks_something_says_what()
    {
        (await Told("no zip"u8.ToArray())).ShouldContain("not a zip file");
        (await Told(Zip(zip => Put(zip, "readme.txt", [])))).ShouldContain("a package contains a course.json");
        (await Told(Zip(zip => Put(zip, "course.json", Some.Course.Write())))).ShouldContain("texts/a.html");
        (
            await Should.ThrowAsync<FileRefusedException>(() => Opened(Zip(zip => Put(zip, "course.json", "{}"u8.ToArray()))))
        ).Path.ShouldStartWith("$");
    }

    [Fact]
    public async Task What_unpacks_to_more_than_anybody_writes_is_refused_whatever_it_says_of_its_length()
    {
        var large = Zip(zip =>
        {
            Put(zip, "course.json", Some.Course.Write());
            Put(zip, "texts/a.html", new byte[50_000_001]);
        });
        large.Length.ShouldBeLessThan(100_000);
        (await Told(large)).ShouldContain("more than 50 MB");
        var many = Zip(zip =>
        {
            for (var n = 0; n <= 20_000; n++)
                Put(zip, $"{n}", []);
        });
        (await Told(many)).ShouldContain("more than 20,000 files");
    }

    [Fact]
    public async Task A_file_that_was_cut_off_or_damaged_is_told_as_such()
    {
        var whole = await Written(Some, Files);
        (await Told(whole[..^40])).ShouldNotBeEmpty();
        var damaged = (byte[])whole.Clone();
        // In the middle of what is compressed.
        damaged.AsSpan(60, 40).Fill(0xFF);
        (await Should.ThrowAsync<Exception>(() => Opened(damaged)))
            .GetType()
            .ShouldBeOneOf(typeof(PackageException), typeof(FileRefusedException));
    }

    private static async Task<string> Told(byte[] bytes) => (await Should.ThrowAsync<PackageException>(() => Opened(bytes))).Message;

    private static async Task<byte[]> With(Action<ZipArchive> more)
    {
        using var stream = new MemoryStream();
        stream.Write(await Written(Some, Files));
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
