using System.Net;
using System.Text;
using System.Text.Json.Nodes;
using Dapper;
using NodaTime;
using Polycline.Data.Files;
using Polycline.Data.Verify;
using Polycline.Demo.School;
using Polycline.Testing;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Web;

/// <summary>Files as they come in, stand with an item, and are read: what is taken, what is kept, and for whom an address opens.</summary>
public sealed class FileTests : LeadOfASchool
{
    /// <summary>Sends a file of a few lines and gives what to name in order to use it.</summary>
    public static Task<Guid> Sent(Caller caller, string name) => caller.SendFile(name, Encoding.UTF8.GetBytes($"day,wind\nMon,{name}\n"));

    /// <summary>An item's file, just put there by the lead.</summary>
    public static async Task<(long Item, long File, long Version)> Attached(School school, string item, string name)
    {
        using var lead = await school.As(DemoPeople.Lead);
        var id = await school.Item(item);
        var put = await lead.Post(
            $"/api/editions/{school.WeatherWatch}/attach-files",
            new { item = id, uploads = new[] { await Sent(lead, name) } },
            Guid.NewGuid()
        );
        put.Status.ShouldBe(HttpStatusCode.OK, put.Text);
        var (file, version) = await school.Sql(connection =>
            connection.QuerySingleAsync<(long, long)>(
                "SELECT id, version FROM item_file WHERE item = @id AND removed_at IS NULL ORDER BY id DESC LIMIT 1",
                new { id }
            )
        );
        return (id, file, version);
    }

    // To read, as a copy, or to write in together.
    private static int Given(JsonNode answer) =>
        answer["files"]!.AsArray().Count + answer["copies"]!.AsArray().Count + (answer["hasSheet"]!.GetValue<bool>() ? 1 : 0);

    private static byte[] Bytes(int size, int seed)
    {
        var bytes = new byte[size];
        new Random(seed).NextBytes(bytes);
        return bytes;
    }

    private Task<long> Count(string what) => School.Sql(connection => connection.ExecuteScalarAsync<long>($"SELECT count(*) FROM {what}"));

    [Fact]
    public async Task What_is_sent_goes_on_where_it_stopped_and_the_same_bytes_are_stored_once()
    {
        var bytes = Bytes((3 * Chunks.Size) + 1234, 1);
        var taken = (await Lead.Get("/api/me/room")).Json["taken"]!.GetValue<long>();
        var upload = await Lead.Begin("tide.bin", bytes.Length);
        (await Lead.Piece(upload, 0, bytes[..Chunks.Size])).ShouldBe(Chunks.Size);
        // Twice, and too early: what is there stays, and the answer says from where to go on.
        (await Lead.Piece(upload, 0, bytes[..Chunks.Size])).ShouldBe(Chunks.Size);
        (await Lead.Piece(upload, 2 * Chunks.Size, bytes[(2 * Chunks.Size)..])).ShouldBe(Chunks.Size);
        var early = await Lead.Post("/api/me/finish-upload", new { upload }, Guid.NewGuid());
        (early.Status, early.Json["field"]!.GetValue<string>()).ShouldBe((HttpStatusCode.UnprocessableEntity, "upload"));
        // After a lost connection the page asks how far it came.
        (await Lead.Get($"/api/me/uploads/{upload}")).Json["received"]!.GetValue<long>().ShouldBe(Chunks.Size);
        (await Lead.Piece(upload, Chunks.Size, bytes[Chunks.Size..])).ShouldBe(bytes.Length);
        (await Lead.Post("/api/me/finish-upload", new { upload }, Guid.NewGuid())).Status.ShouldBe(HttpStatusCode.OK);

        var (files, chunks) = (await Count("stored_file"), await Count("file_chunk"));
        using var student = await School.As(DemoPeople.OnTrack);
        (await student.Get($"/api/me/uploads/{upload}")).Status.ShouldBe(HttpStatusCode.NotFound);
        await student.SendFile("the same.bin", bytes);
        (await Count("stored_file"), await Count("file_chunk")).ShouldBe((files, chunks));
        (await Lead.Get("/api/me/room")).Json["taken"]!.GetValue<long>().ShouldBe(taken + bytes.Length);
    }

    [Fact]
    public async Task Two_files_of_one_name_are_told_apart_however_long_it_is()
    {
        var item = await School.Item("Cloud diary");
        string[] names = [new string('n', 196) + ".txt", ".".PadLeft(101, 'e') + new string('x', 99), "chart.txt"];
        foreach (var name in names)
        foreach (var time in new[] { 1, 2 })
            await Post("attach-files", new { item, uploads = new[] { await Sent(Lead, name) } });
        var present = (await Lead.Get(Route($"items/{item}"))).Json["files"]!
            .AsArray()
            .Select(file => file!["file"]!["name"]!.GetValue<string>())
            .ToList();
        present.Distinct().Count().ShouldBe(6);
        present.ShouldContain("chart (2).txt");
        present.ShouldAllBe(name => name.Length <= 200);
    }

    public static TheoryData<string, byte[], string> Hostile =>
        new()
        {
            { "../../etc/passwd", [1], "name" },
            { "..", [1], "name" },
            { "chart\u202Efdp.exe", [1], "name" },
            { "line\nbreak.txt", [1], "name" },
            { "CON.txt", [1], "name" },
            { new string('n', 201), [1], "name" },
            { "empty.txt", [], "size" },
            { "setup.exe", [1], "name" },
            { "essay.pdf", "MZ\u0090\u0000\u0003"u8.ToArray(), "upload" },
            { "picture.png", "<script>alert(1)</script>"u8.ToArray(), "upload" },
            { "wind.csv", "day,wind\nMon,=HYPERLINK(\"https://elsewhere.example\")"u8.ToArray(), "upload" },
            { "photo.jpg", [0xFF, 0xD8, 0xFF, 0xE0, 0xFF, 0xFF, 1, 2, 3], "upload" },
            { "photo.heic", [0, 0, 0, 24, .. "ftypheic"u8, 0, 0, 0, 0], "upload" },
            {
                "letter.txt",
                Encoding.ASCII.GetBytes(@"see X5O!P%@AP[4\PZX54(P^)7CC)7}$" + "EICAR-STANDARD-ANTIVIRUS-TEST-FILE!$H+H*"),
                "upload"
            },
        };

    [Theory]
    [MemberData(nameof(Hostile))]
    public async Task What_is_not_taken_is_refused_with_a_reason_and_nothing_of_it_is_used(string name, byte[] bytes, string field)
    {
        var begun = await Lead.Post("/api/me/begin-upload", new { name, size = bytes.Length }, Guid.NewGuid());
        var refused = begun;
        if (begun.Status == HttpStatusCode.OK)
        {
            var upload = begun.Json["upload"]!.GetValue<Guid>();
            await Lead.Piece(upload, 0, bytes);
            refused = await Lead.Post("/api/me/finish-upload", new { upload }, Guid.NewGuid());
            (
                await Lead.Post(
                    Route("attach-files"),
                    new { item = await School.Item("Cloud diary"), uploads = new[] { upload } },
                    Guid.NewGuid()
                )
            ).Status.ShouldBe(HttpStatusCode.NotFound);
        }
        refused.Status.ShouldBeOneOf(HttpStatusCode.UnprocessableEntity, HttpStatusCode.BadRequest);
        refused.Json["field"]!.GetValue<string>().ShouldBe(field);
        refused.Json["title"]!.GetValue<string>().Length.ShouldBeGreaterThan(20);
        (await Count("stored_file")).ShouldBe(await Count("stored_file WHERE stored_at < '2026-10-01'"));
    }

    [Fact]
    public async Task What_would_be_too_large_or_has_no_room_is_said_before_anything_is_sent()
    {
        using var student = await School.As(DemoPeople.OnTrack);
        var room = (await student.Get("/api/me/room")).Json;
        var (largest, all) = (room["largest"]!.GetValue<long>(), room["room"]!.GetValue<long>());
        var large = await student.Post("/api/me/begin-upload", new { name = "film.mp4", size = largest + 1 }, Guid.NewGuid());
        large.Json["title"]!.GetValue<string>().ShouldBe("“film.mp4” is too large. A file can have up to 250 MB.");
        for (var n = 0; n < all / largest; n++)
            await student.Begin($"film {n}.mp4", largest);
        var full = await student.Post("/api/me/begin-upload", new { name = "one more.mp4", size = largest }, Guid.NewGuid());
        (full.Status, full.Json["field"]!.GetValue<string>()).ShouldBe((HttpStatusCode.UnprocessableEntity, "size"));
        // Somebody else's room is their own.
        (await Lead.Begin("mine.mp4", largest)).ShouldNotBe(Guid.Empty);
    }

    [Fact]
    public async Task A_file_is_sent_as_what_it_is_and_what_a_browser_would_run_is_only_saved()
    {
        var item = await School.Item("Cloud diary");
        var bytes = Bytes(Chunks.Size + 5000, 2);
        Guid[] uploads =
        [
            await Lead.SendFile(
                "Ebbe & Flut – “1”.bin".Replace("“", "", StringComparison.Ordinal).Replace("”", "", StringComparison.Ordinal),
                bytes
            ),
            await Lead.SendFile("page.html", "<script>document.title = 'run'</script>"u8.ToArray()),
            await Lead.SendFile("drawing.svg", "<svg xmlns='http://www.w3.org/2000/svg'><script>run()</script></svg>"u8.ToArray()),
        ];
        await Post("attach-files", new { item, uploads });
        var files = (await Lead.Get(Route($"items/{item}"))).Json["files"]!.AsArray();
        var (whole, page, drawing) = (files[0]!["file"]!, files[1]!["file"]!, files[2]!["file"]!);
        files.Select(file => file!["file"]!["kind"]!.GetValue<string>()).ShouldBe(["other", "text", "drawing"]);

        var part = await Lead.Send(HttpMethod.Get, $"{whole["address"]}", null, request =>
            request.Headers.Range = new(Chunks.Size - 10, Chunks.Size + 9)
        );
        part.Status.ShouldBe(HttpStatusCode.PartialContent);
        part.Message.Content.Headers.ContentRange!.Length.ShouldBe(bytes.Length);
        (await part.Message.Content.ReadAsByteArrayAsync()).ShouldBe(bytes[(Chunks.Size - 10)..(Chunks.Size + 10)]);
        part.Message.Content.Headers.ContentDisposition!.FileNameStar.ShouldBe("Ebbe & Flut – 1.bin");

        foreach (var one in new[] { whole, page, drawing })
        {
            var got = (await Lead.Get($"{one["address"]}")).Message;
            got.Headers.GetValues("Content-Security-Policy").Single().ShouldContain("sandbox");
            got.Headers.GetValues("X-Content-Type-Options").Single().ShouldBe("nosniff");
            got.Headers.CacheControl!.NoStore.ShouldBeTrue();
        }
        // A page is read as the text it is written in; a drawing is a picture in a page, and is never one itself.
        (await Lead.Get($"{page["address"]}")).Message.Content.Headers.ContentType!.MediaType.ShouldBe("text/plain");
        (await Lead.Get($"{drawing["address"]}")).Message.Content.Headers.ContentDisposition!.DispositionType.ShouldBe("attachment");
    }

    [Fact]
    public async Task A_photograph_loses_where_it_was_taken_and_nothing_of_what_it_shows()
    {
        var item = await School.Item("Cloud diary");
        await Post("attach-files", new { item, uploads = new[] { await Lead.SendFile("harbour.jpg", Photograph.WithPlace) } });
        var address = $"{(await Lead.Get(Route($"items/{item}"))).Json["files"]![0]!["file"]!["address"]}";
        var kept = await (await Lead.Get(address)).Message.Content.ReadAsByteArrayAsync();
        kept.AsSpan().IndexOf("GPS"u8).ShouldBe(-1);
        kept.AsSpan().IndexOf("a film of where"u8).ShouldBe(-1);
        kept.AsSpan().IndexOf(Photograph.Shown).ShouldBeGreaterThan(0);
        // Which way up it is stays.
        kept.AsSpan().IndexOf((ReadOnlySpan<byte>)[0x01, 0x12, 0x00, 0x03, 0x00, 0x00, 0x00, 0x01, 0x00, 0x06]).ShouldBeGreaterThan(0);
    }

    [Fact]
    public async Task An_address_opens_for_those_whose_sight_opens_the_item_at_the_moment_they_look_at()
    {
        // Every item of the course has a file.
        var (diary, some, _) = await Attached(School, "Cloud diary", "winds.csv");
        await School.Sql(connection =>
            connection.ExecuteAsync(
                """
                INSERT INTO item_file (edition, item, section, rank, name, file, brought_by, brought_at)
                SELECT i.edition, i.id, i.section, 'z', 'of ' || i.id || '.csv', f.file, f.brought_by, f.brought_at
                FROM item i, item_file f WHERE i.edition = @WeatherWatch AND f.id = @some
                """,
                new { School.WeatherWatch, some }
            )
        );
        var files = await School.Sql(connection =>
            connection.QueryAsync<(long Item, long File, int Count)>(
                "SELECT item, max(id), count(*)::int FROM item_file WHERE edition = @WeatherWatch GROUP BY item ORDER BY item",
                new { School.WeatherWatch }
            )
        );
        // Many of its texts have a picture.
        var pictures = (
            await School.Sql(connection =>
                connection.QueryAsync<(long Item, string Picture)>(
                    "SELECT i.id, encode(b.file, 'hex') FROM item i JOIN body_file b ON b.body = i.body WHERE i.edition = @WeatherWatch",
                    School
                )
            )
        ).ToLookup(pair => pair.Item, pair => pair.Picture);
        var section = School.Ids["section:9 Alder"];
        var seen = new Dictionary<string, int>();
        foreach (var name in new[] { DemoPeople.OnTrack, DemoPeople.HeldUp })
        foreach (var at in new[] { "", "&at=2026-09-03T09:00:00Z", "&at=2026-10-22T09:00:00Z", "&at=2026-12-17T15:00:00Z" })
        {
            var view = $"?as=student:{School.Ids["person:" + name]}{at}";
            foreach (var (item, file, count) in files)
            {
                var answer = await Lead.Get($"/api/sections/{section}/items/{item}{view}");
                var state = answer.Status == HttpStatusCode.OK ? answer.Json["state"]!.GetValue<string>() : "nothing";
                var opens = state is "open" or "overdue" or "closed" or "withdrawn";
                seen[$"{state} {opens}"] = seen.GetValueOrDefault($"{state} {opens}") + 1;
                var got = await Lead.Get($"/api/sections/{section}/items/{item}/files/{file}{view}");
                got.Status.ShouldBe(opens ? HttpStatusCode.OK : HttpStatusCode.NotFound, $"{name} {view} {item} {state}");
                foreach (var picture in pictures[item])
                {
                    var drawn = await Lead.Get($"/api/sections/{section}/items/{item}/pictures/{picture}{view}");
                    drawn.Status.ShouldBe(opens ? HttpStatusCode.OK : HttpStatusCode.NotFound, $"{name} {view} {item} {state}");
                    seen[$"picture {opens}"] = seen.GetValueOrDefault($"picture {opens}") + 1;
                }
                // What is said of it is what opens.
                if (state != "nothing")
                    Given(answer.Json).ShouldBe(opens ? count : 0);
                if (state != "nothing" && !opens)
                    foreach (var field in new[] { "html", "address", "link", "asks", "draft" })
                        answer.Json[field].ShouldBeNull($"{field} of {item}, {state}");
            }
        }
        seen.Keys.ShouldContain("open True");
        seen.Keys.ShouldContain("nothing False");
        seen.Keys.Count(key => !key.StartsWith("picture", StringComparison.Ordinal)).ShouldBeGreaterThanOrEqualTo(5);
        seen.Keys.ShouldContain("picture True");
        seen.Keys.ShouldContain("picture False");
        // An id is worth nothing under another item's address.
        using var student = await School.As(DemoPeople.OnTrack);
        foreach (var (_, file, _) in files.Where(pair => pair.Item != diary).Take(20))
            (await student.Get($"/api/sections/{section}/items/{diary}/files/{file}")).Status.ShouldBe(HttpStatusCode.NotFound);
    }

    [Fact]
    public async Task What_replaced_another_can_be_undone_and_goes_along_into_the_next_edition()
    {
        var (item, file, version) = await Attached(School, "Cloud diary", "before.txt");
        var reach = (
            await Lead.Post(
                Route("replace-file?preview=true"),
                new
                {
                    item,
                    file,
                    upload = await Sent(Lead, "after.txt"),
                    version,
                }
            )
        ).Json["reach"]!;
        reach["sentence"]!
            .GetValue<string>()
            .ShouldBe("Changes in 9 Alder and 9 Birch at once, for 47 students. 19 students have handed in work for it.");
        var done = await Post(
            "replace-file",
            new
            {
                item,
                file,
                upload = await Sent(Lead, "after.txt"),
                version,
            }
        );
        var now = (await Lead.Get(Route($"items/{item}"))).Json["files"]!.AsArray().Single()!;
        (now["file"]!["name"]!.GetValue<string>(), now["before"]![0]!["file"]!["name"]!.GetValue<string>()).ShouldBe(
            ("after.txt", "before.txt")
        );
        // Whoever teaches still reads what stood there; whoever learns does not.
        (await Lead.Get($"{now["before"]![0]!["file"]!["address"]}")).Text.ShouldContain("before.txt");
        using var student = await School.As(DemoPeople.OnTrack);
        (await student.Get($"/api/sections/{School.Ids["section:9 Alder"]}/items/{item}/files/{file}")).Status.ShouldBe(
            HttpStatusCode.NotFound
        );

        var rolled = await Lead.Post(Route("roll-over"), await RollOverTests.Spring(School), Guid.NewGuid());
        rolled.Status.ShouldBe(HttpStatusCode.OK, rolled.Text);
        var next = rolled.Json["edition"]!.GetValue<long>();
        (
            await School.Sql(connection =>
                connection.QueryAsync<string>("SELECT name FROM item_file WHERE edition = @next AND removed_at IS NULL", new { next })
            )
        ).ShouldContain("after.txt");
        (await Lead.Post($"/api/editions/{next}/take-back-roll-over", new { }, Guid.NewGuid())).Status.ShouldBe(HttpStatusCode.OK);

        await Post("undo", new { batch = done.Json["batch"]!.GetValue<long>() });
        (await Lead.Get(Route($"items/{item}"))).Json["files"]!.AsArray().Single()!["file"]!["name"]!
            .GetValue<string>()
            .ShouldBe("before.txt");
        (await Verifier.Run(School.Database.Owner, CancellationToken.None)).ShouldBeEmpty();
    }

    [Fact]
    public async Task Abandoned_uploads_are_deleted_and_so_are_bytes_that_nothing_has_named_for_a_month()
    {
        var chunks = await Count("file_chunk");
        var (_, file, _) = await Attached(School, "Cloud diary", "kept.txt");
        var bytes = Bytes(Chunks.Size + 1, 3);
        await Lead.SendFile("never used.bin", bytes);
        var half = await Lead.Begin("never whole.bin", 10 * Chunks.Size);
        await Lead.Piece(half, 0, Bytes(Chunks.Size, 4));
        (await Count("file_chunk")).ShouldBe(chunks + 4);
        var now = School.Clock.GetCurrentInstant();
        Task<int> Sweep(Duration after) => School.Sql(connection => UploadStore.Sweep(connection, now + after));

        await Sweep(Duration.FromHours(23));
        (await Count("file_chunk")).ShouldBe(chunks + 4);
        // An upload that was never finished goes first; one that is complete can be used for a week.
        await Sweep(Duration.FromDays(2));
        (await Count("upload"), await Count("file_chunk")).ShouldBe((2, chunks + 3));
        await Sweep(Duration.FromDays(8));
        (await Count("upload"), await Count("file_chunk")).ShouldBe((0, chunks + 3));
        await Sweep(Duration.FromDays(37));
        (await Count("file_chunk")).ShouldBe(chunks + 3);
        (await Sweep(Duration.FromDays(39))).ShouldBe(1);
        (await Count("file_chunk")).ShouldBe(chunks + 1);
        (await Lead.Get(Route($"items/{await School.Item("Cloud diary")}/files/{file}"))).Text.ShouldContain("kept.txt");
    }
}

/// <summary>A photograph, as far as what is taken out of it goes.</summary>
internal static class Photograph
{
    /// <summary>What it shows: bytes behind the marker at which the picture itself begins.</summary>
    public static byte[] Shown { get; } = [0xFF, 0xDA, 0x00, 0x08, 1, 1, 0, 0, 0x3F, 0, 0x11, 0x22, 0xFF, 0x00, 0x33, 0xFF, 0xD9];

    public static byte[] WithPlace { get; } =
    [
        0xFF,
        0xD8,
        .. Segment(0xE0, "JFIF\0"u8.ToArray()),
        // Exif whose first directory says it is turned, and what follows says where.
        .. Segment(
            0xE1,
            [.. "Exif\0\0II*\0"u8, 8, 0, 0, 0, 1, 0, 0x12, 0x01, 3, 0, 1, 0, 0, 0, 6, 0, 0, 0, 0, 0, 0, 0, .. "GPS 53.2N 6.1W"u8]
        ),
        .. Segment(0xE1, "http://ns.adobe.com/xap/1.0/\0<x GPS='53.2,6.1'/>"u8.ToArray()),
        .. Segment(0xDB, new byte[65]),
        .. Shown,
        // What some cameras hang on behind the picture.
        .. "a film of where"u8,
    ];

    private static byte[] Segment(byte marker, byte[] content) =>
        [0xFF, marker, (byte)((content.Length + 2) >> 8), (byte)(content.Length + 2), .. content];
}
