using System.Net;
using System.Text.Json.Nodes;
using Dapper;
using Polycline.Demo.School;
using Polycline.Testing;
using Shouldly;

namespace Polycline.Tests.Web;

/// <summary>A good request for every command; the walks take them all.</summary>
public static class CommandExamples
{
    /// <summary>What a team might call its levels.</summary>
    public static readonly object Levels = new
    {
        unit = new { one = "week", many = "weeks" },
        lesson = new { one = "topic", many = "topics" },
        item = new { one = "hour's work", many = "pieces of work" },
    };

    /// <summary>By name; a command without one fails the walks.</summary>
    public static readonly IReadOnlyDictionary<string, Func<School, Task<object?>>> All = new Dictionary<
        string,
        Func<School, Task<object?>>
    >
    {
        ["rename-item"] = Rename,
        ["undo"] = Undo,
        ["join-section"] = JoinAtHome,
        ["stop-following"] = Stop,
        ["attach-files"] = async school =>
        {
            using var lead = await school.As(DemoPeople.Lead);
            return new { item = await school.Item("Cloud diary"), uploads = new[] { await FileTests.Sent(lead, "winds.csv") } };
        },
        ["replace-file"] = async school =>
        {
            var (item, file, version) = await FileTests.Attached(school, "Cloud diary", "before.txt");
            using var lead = await school.As(DemoPeople.Lead);
            return new
            {
                item,
                file,
                upload = await FileTests.Sent(lead, "after.txt"),
                version,
            };
        },
        ["give-file"] = async school =>
        {
            var (item, file, version) = await FileTests.Attached(school, "Cloud diary", "before.txt");
            return new
            {
                item,
                file,
                given = "copy",
                copyName = "{file} of {student}",
                version,
            };
        },
        ["rename-file"] = async school =>
        {
            var (item, file, version) = await FileTests.Attached(school, "Cloud diary", "before.txt");
            return new
            {
                item,
                file,
                name = $"called {Guid.NewGuid():N}.txt",
                version,
            };
        },
        ["move-file"] = async school =>
        {
            await FileTests.Attached(school, "Cloud diary", "one.txt");
            var (item, file, version) = await FileTests.Attached(school, "Cloud diary", "two.txt");
            return new
            {
                item,
                file,
                after = (long?)null,
                version,
            };
        },
        ["remove-file"] = async school =>
        {
            var (item, file, version) = await FileTests.Attached(school, "Cloud diary", "before.txt");
            return new
            {
                item,
                file,
                version,
            };
        },
        ["add-unit"] = school => In(school, async at => new
            {
                title = "A unit of the tests",
                after = (await at("unit", "Fronts")).Id,
                section = (long?)null,
            }),
        ["add-lesson"] = school => In(school, async at => new
            {
                unit = (await at("unit", "Fronts")).Id,
                title = "A lesson of the tests",
                classes = 2,
                after = (await at("lesson", "The warm front")).Id,
                section = school.Ids["section:9 Birch"],
            }),
        ["add-item"] = school => In(school, async at => new
            {
                unit = (await at("unit", "Fronts")).Id,
                lesson = (await at("lesson", "The warm front")).Id,
                kind = "task",
                purpose = "practice",
                title = "An item of the tests",
                section = school.Ids["section:9 Birch"],
            }),
        ["group-students"] = async school => new
        {
            section = school.Ids["section:9 Alder"],
            groups = new[]
            {
                new { name = "Quay", members = new[] { school.Ids["person:" + DemoPeople.OnTrack] } },
                new { name = "Mole", members = Array.Empty<long>() },
            },
        },
        ["add-up-scores"] = async school => new
        {
            addingUp = new
            {
                by = "unit",
                units = new[]
                {
                    new
                    {
                        unit = await school.Sql(connection =>
                            connection.ExecuteScalarAsync<long>(
                                "SELECT id FROM unit WHERE edition = @WeatherWatch AND title = 'Fronts'",
                                new { school.WeatherWatch }
                            )
                        ),
                        weight = 2.5,
                        drop = 1,
                    },
                },
                purposes = new[] { new { purpose = "practice", weight = 1 } },
                missingAsZero = true,
            },
            version = await school.Sql(connection =>
                connection.ExecuteScalarAsync<long>("SELECT own_version FROM edition WHERE id = @WeatherWatch", new { school.WeatherWatch })
            ),
        },
        ["change-course"] = async school => new
        {
            codes = "by-unit",
            before = "unseen",
            levels = Levels,
            version = await school.Sql(connection =>
                connection.ExecuteScalarAsync<long>("SELECT own_version FROM edition WHERE id = @WeatherWatch", new { school.WeatherWatch })
            ),
            name = new
            {
                title = "Sky and Weather",
                subject = "Science",
                version = await school.Sql(connection =>
                    connection.ExecuteScalarAsync<long>("SELECT version FROM master WHERE title = 'Weather Watch'")
                ),
            },
        },
        ["change-unit"] = school => In(school, async at => With(
                    await at("unit", "Fronts"),
                    "unit",
                    new()
                    {
                        ["title"] = "Where airs meet",
                        ["published"] = true,
                        ["before"] = "unseen",
                        ["welcome"] = false,
                    }
                )),
        ["change-lesson"] = school => In(school, async at => With(
                    await at("lesson", "The warm front"),
                    "lesson",
                    new()
                    {
                        ["title"] = "Warm fronts",
                        ["classes"] = 3,
                        ["shortest"] = 1,
                        ["optional"] = true,
                        ["published"] = true,
                    }
                )),
        ["add-group"] = _ => Task.FromResult<object?>(new { name = "Field team" }),
        ["remove-group"] = async school =>
            await Group(school) is var group
                ? new
                {
                    group,
                    version = await school.Sql(connection =>
                        connection.ExecuteScalarAsync<long>("SELECT version FROM student_group WHERE id = @group", new { group })
                    ),
                }
                : null,
        ["put-in-group"] = async school => new
        {
            group = await Group(school),
            members = new[] { new { student = school.Ids["person:" + DemoPeople.OnTrack], @in = true } },
        },
        ["for-students"] = async school => new
        {
            students = new[] { Student(school, DemoPeople.OnTrack) },
            items = new[] { await school.Item("A slow ramp") },
            change = "excuse",
            days = (int?)null,
            until = (string?)null,
        },
        ["arrange"] = school =>
            Task.FromResult<object?>(
                new
                {
                    student = Student(school, DemoPeople.OnTrack),
                    dueDays = 3,
                    quizTime = 25,
                    reason = "a wrist in plaster",
                    version = 0,
                }
            ),
        ["set-home"] = school =>
            Task.FromResult<object?>(
                new { student = Student(school, DemoPeople.InTwoSections), section = school.Ids["section:9 Dogwood"] }
            ),
        ["join-students"] = school =>
            Task.FromResult<object?>(
                new
                {
                    section = school.Ids["section:9 Birch"],
                    addresses = new[] { DemoPeople.Email(DemoPeople.OnTrack) },
                    from = "2026-09-03",
                }
            ),
        ["leave-section"] = school =>
            Task.FromResult<object?>(
                new
                {
                    section = school.Ids["section:9 Alder"],
                    students = new[] { Student(school, DemoPeople.OnTrack) },
                    last = "2026-10-07",
                }
            ),
        ["move-students"] = async school => new
        {
            students = new[] { Student(school, DemoPeople.OnTrack) },
            from = school.Ids["section:9 Alder"],
            to = school.Ids["section:9 Birch"],
            on = "2026-10-08",
            choices = new[]
            {
                new
                {
                    student = Student(school, DemoPeople.OnTrack),
                    item = await school.Item("A slow ramp"),
                    choice = "keep",
                },
            },
        },
        ["accept-catch-up"] = async school => new
        {
            student = Student(school, DemoPeople.JoinedLate),
            lines = new[]
            {
                new
                {
                    item = await school.Item("A slow ramp"),
                    date = "2026-12-01",
                    time = "09:00",
                },
            },
            leave = new[] { await school.Item("Cloud diary") },
        },
        ["for-whom"] = school =>
            In(school, async at =>
                With(
                    await at("item", "A slow ramp"),
                    "item",
                    new() { ["groups"] = new JsonArray(await GroupName(school)), ["except"] = new JsonArray() }
                )
            ),
        ["describe-item"] = school =>
            In(school, async at =>
                With(await at("item", "A slow ramp"), "item", new() { ["purpose"] = "practice", ["before"] = "unseen" })
            ),
        ["move-unit"] = school =>
            In(school, async at => With(await at("unit", "Fronts"), "unit", new() { ["after"] = (await at("unit", "Looking up")).Id })),
        ["move-lesson"] = school =>
            In(school, async at =>
                With(
                    await at("lesson", "The warm front"),
                    "lesson",
                    new() { ["unit"] = (await at("unit", "Looking up")).Id, ["after"] = (await at("lesson", "Rain and the gauge")).Id }
                )
            ),
        ["move-item"] = school => In(school, async at => With(
                    await at("item", "A slow ramp"),
                    "item",
                    new()
                    {
                        ["unit"] = (await at("unit", "Looking up")).Id,
                        ["lesson"] = (await at("lesson", "Rain and the gauge")).Id,
                        ["after"] = (await at("item", "Catching rain fairly")).Id,
                    }
                )),
        ["remove-unit"] = school => In(school, async at => With(await at("unit", "Storm season"), "unit", [])),
        ["remove-lesson"] = school => In(school, async at => With(await at("lesson", "The warm front"), "lesson", [])),
        ["remove-item"] = school => In(school, async at => With(await at("item", "A slow ramp"), "item", [])),
        ["publish-item"] = school => In(school, async at => With(await at("item", "A slow ramp"), "item", new() { ["published"] = false })),
        ["publish-items"] = school => In(school, async at => new
            {
                unit = (await at("unit", "Fronts")).Id,
                version = (await at("unit", "Fronts")).Version,
                items = new[]
                {
                    new
                    {
                        item = (await at("item", "A slow ramp")).Id,
                        opens = new { at = "term-end" },
                        version = (await at("item", "A slow ramp")).Version,
                    },
                },
            }),
        ["change-items"] = school => In(school, async at => new
            {
                items = new[]
                {
                    new { item = (await at("item", "A slow ramp")).Id, version = (await at("item", "A slow ramp")).Version },
                    new { item = (await at("item", "Isobars by hand")).Id, version = (await at("item", "Isobars by hand")).Version },
                },
                lessons = new[] { new { lesson = (await at("lesson", "The cold front")).Id, version = 1 } },
                units = new[] { new { unit = (await at("unit", "Storm season")).Id, version = 1 } },
                date = new { field = "closes", anchor = new { at = "term-end" } },
            }),
        ["write-item"] = school =>
            In(school, async at => With(await at("item", "A slow ramp"), "item", new() { ["html"] = "<p>Warm air climbs over cold.</p>" })),
        ["tie-outcomes"] = school =>
            In(school, async at =>
                With(await at("item", "Six things one can measure"), "item", new() { ["outcomes"] = new JsonArray("G1.1", "M4.2") })
            ),
        ["say-about-teacher"] = school =>
            In(school, async at => With(await at("item", "Six things one can measure"), "item", new() { ["aboutTeacher"] = true })),
        ["add-note"] = async school => new
        {
            place = await Lineage(school, "Cloud diary"),
            nextTime = true,
            text = "Ask the caretaker for the key to the roof.",
        },
        ["change-note"] = async school =>
        {
            var (note, version) = await NoteTests.Left(school, "Cloud diary", "Print the diary sheets.");
            return new
            {
                note,
                nextTime = true,
                text = "Print the diary sheets, 94 of them.",
                version,
            };
        },
        ["remove-note"] = async school =>
        {
            var (note, version) = await NoteTests.Left(school, "Cloud diary", "Print the diary sheets.");
            return new { note, version };
        },
        ["ask-item"] = school => In(school, async at => With(
                    await at("item", "Isobars by hand"),
                    "item",
                    new()
                    {
                        ["asks"] = new JsonObject
                        {
                            ["way"] = "work",
                            ["text"] = "no",
                            ["links"] = "no",
                            ["files"] = new JsonArray(new JsonObject { ["what"] = "your chart", ["kind"] = "picture" }),
                            ["others"] = true,
                        },
                    }
                )),
        ["mark-item-as"] = school => In(school, async at => With(
                    await at("item", "Isobars by hand"),
                    "item",
                    new()
                    {
                        ["marked"] = new JsonObject
                        {
                            ["as"] = "scale",
                            ["outOf"] = 100,
                            ["levels"] = new JsonArray(
                                new JsonObject { ["name"] = "not yet", ["percent"] = 0 },
                                new JsonObject { ["name"] = "there", ["percent"] = 100 }
                            ),
                        },
                    }
                )),
        ["write-rubric"] = school => In(school, async at => With(
                    await at("item", "Isobars by hand"),
                    "item",
                    new()
                    {
                        ["rubric"] = new JsonObject
                        {
                            ["name"] = "Isobars",
                            ["criteria"] = new JsonArray(
                                new JsonObject
                                {
                                    ["id"] = "",
                                    ["title"] = "Every line closed",
                                    ["weight"] = 1.5,
                                    ["isOptional"] = false,
                                    ["levels"] = new JsonArray(Level("no", 0, 0), Level("most", 1, 3), Level("all", 4, 4)),
                                }
                            ),
                        },
                    }
                )),
        ["offer-options"] = school => In(school, async at => With(
                    await at("item", ChoiceTests.Title),
                    "item",
                    new()
                    {
                        ["options"] = new JsonArray(Option("instrument", "A gauge", 8), Option("briefing", "A briefing", null)),
                        ["picks"] = 1,
                        ["isFinal"] = true,
                    }
                )),
        ["write-quiz"] = school => In(school, async at => With(
                    await at("item", "Reading scales"),
                    "item",
                    new()
                    {
                        ["text"] = "Which is colder?\n+ -3 °C\n- 3 °C",
                        ["rules"] = new JsonObject
                        {
                            ["limit"] = 20,
                            ["attempts"] = 2,
                            ["using"] = "mean",
                            ["shown"] = "never",
                            ["outOf"] = null,
                        },
                    }
                )),
        ["point-link"] = school =>
            In(school, async at =>
                With(
                    await at("item", "Film: a day over the harbour"),
                    "item",
                    new() { ["address"] = "https://films.fenwater.example/another-day" }
                )
            ),
        ["time-item"] = school => In(school, async at => With(
                    await at("item", "A slow ramp"),
                    "item",
                    new()
                    {
                        ["field"] = "due",
                        ["anchor"] = new JsonObject
                        {
                            ["at"] = "lesson-end",
                            ["days"] = 3,
                            ["clock"] = "18:00",
                        },
                    }
                )),
        ["condition-item"] = school => In(school, async at => With(
                    await at("item", "A slow ramp"),
                    "item",
                    new()
                    {
                        ["gate"] = new JsonObject { ["item"] = await Lineage(school, "Label the ramp"), ["is"] = "returned" },
                    }
                )),
        ["set-conditions"] = school => In(school, async at => new
            {
                conditions = new object[]
                {
                    new
                    {
                        item = (await at("item", "A slow ramp")).Id,
                        gate = new { item = await Lineage(school, "Label the ramp"), @is = "submitted" },
                        version = (await at("item", "A slow ramp")).Version,
                    },
                    new
                    {
                        unit = (await at("unit", "Storm season")).Id,
                        gate = new { not = new { item = await Lineage(school, "Label the ramp"), @is = "opened" } },
                        version = (await at("unit", "Storm season")).Version,
                    },
                    new
                    {
                        lesson = (await at("lesson", "The cold front")).Id,
                        gate = new { item = await Lineage(school, "Label the ramp"), @is = "returned" },
                        version = (await at("lesson", "The cold front")).Version,
                    },
                },
            }),
        ["confirm-taught"] = school => In(school, async at => new
            {
                section = school.Ids["section:9 Alder"],
                lessons = new[]
                {
                    new
                    {
                        lesson = (await at("lesson", "Choosing a form")).Id,
                        took = 3,
                        done = true,
                        left = (int?)null,
                        version = 0,
                    },
                },
            }),
        ["change-classes"] = school =>
            Task.FromResult<object?>(
                new
                {
                    section = school.Ids["section:9 Alder"],
                    change = new { cancel = new { date = "2026-10-12" } },
                    putBack = (int?)null,
                    version = 0,
                }
            ),
        ["change-timetable"] = async school => new
        {
            section = school.Ids["section:9 Alder"],
            slots = new object[]
            {
                new { day = "tue", periods = new[] { "P2" } },
                new
                {
                    day = "A-thu",
                    start = "15:00",
                    end = "15:50",
                    from = "2026-10-12",
                },
            },
            version = await school.Sql(connection =>
                connection.ExecuteScalarAsync<long>("SELECT version FROM section WHERE name = '9 Alder'")
            ),
        },
        ["make-pretend-section"] = _ =>
            Task.FromResult<object?>(new { name = "Try-out", slots = new object[] { new { day = "tue", periods = new[] { "P2" } } } }),
        ["make-up-students"] = async school => new
        {
            section = (await PretendSection(school)).Id,
            students = new[] { new { name = "Quick", facts = $"{(await FirstItem(school, school.WeatherWatch)).Item}.opened" } },
            version = (await PretendSection(school)).Version,
        },
        ["remove-pretend-section"] = async school => new
        {
            section = (await PretendSection(school)).Id,
            version = (await PretendSection(school)).Version,
        },
        ["lose-classes"] = school =>
            Task.FromResult<object?>(
                new
                {
                    section = school.Ids["section:9 Alder"],
                    classes = new[] { new { date = "2026-10-14", start = "10:40" } },
                    how = "spare",
                }
            ),
        ["order-unit"] = school => In(school, async at => new
            {
                section = school.Ids["section:9 Dogwood"],
                unit = (await at("unit", "Storm season")).Id,
                place = 5,
                version = 0,
            }),
        ["order-lesson"] = school => In(school, async at => new
            {
                section = school.Ids["section:9 Dogwood"],
                lesson = (await at("lesson", "The warm front")).Id,
                after = (await at("lesson", "The cold front")).Id,
                version = 0,
            }),
        ["differ"] = school => In(school, async at => new
            {
                changes = await Task.WhenAll(
                    new[] { "9 Alder", "9 Cedar" }.Select(async section => new
                    {
                        section = school.Ids["section:" + section],
                        of = "item",
                        target = (await at("item", "A slow ramp")).Id,
                        field = "opens",
                        putBack = false,
                        value = new
                        {
                            at = "fixed",
                            date = "2026-11-02",
                            time = "08:00",
                        },
                        version = 0,
                    })
                ),
            }),
    };

    /// <summary>The id and version of a unit, lesson or item of Weather Watch 2026.</summary>
    public static Task<(long Id, long Version)> At(School school, string table, string title) =>
        school.Sql(connection =>
            connection.QuerySingleAsync<(long, long)>(
                $"SELECT id, version FROM {table} WHERE edition = @edition AND title = @title",
                new { edition = school.WeatherWatch, title }
            )
        );

    // A group of the tests: there before the walk begins, so that it can be removed, filled and named.
    private static Task<long> Group(School school) =>
        school.Sql(connection =>
            connection.ExecuteScalarAsync<long>(
                "INSERT INTO student_group (edition, name) VALUES (@WeatherWatch, 'Of the tests') ON CONFLICT "
                    + "(edition, name) WHERE removed_at IS NULL DO UPDATE SET name = excluded.name RETURNING id",
                new { school.WeatherWatch }
            )
        );

    private static long Student(School school, string name) => school.Ids["person:" + name];

    private static async Task<string> GroupName(School school) => await Group(school) > 0 ? "Of the tests" : "";

    public static async Task<string> Lineage(School school, string title) =>
        (
            await school.Sql(connection =>
                connection.ExecuteScalarAsync<Guid>(
                    "SELECT lineage FROM item WHERE edition = @edition AND title = @title",
                    new { edition = school.WeatherWatch, title }
                )
            )
        ).ToString();

    private static async Task<object?> In<T>(School school, Func<Func<string, string, Task<(long Id, long Version)>>, Task<T>> example) =>
        await example((table, title) => At(school, table, title));

    private static JsonObject Option(string option, string title, int? room) =>
        new()
        {
            ["option"] = option,
            ["title"] = title,
            ["words"] = "",
            ["room"] = room,
        };

    private static JsonObject Level(string name, int from, int to) =>
        new()
        {
            ["id"] = "",
            ["name"] = name,
            ["from"] = from,
            ["to"] = to,
            ["isRange"] = from < to,
            ["words"] = "",
        };

    private static JsonObject With((long Id, long Version) row, string field, JsonObject more)
    {
        more[field] = row.Id;
        more["version"] = row.Version;
        return more;
    }

    public static async Task<object?> Rename(School school)
    {
        var (item, version) = await FirstItem(school, school.WeatherWatch);
        return new
        {
            item,
            title = "A title of the tests",
            version,
        };
    }

    public static async Task<object?> Join(School school)
    {
        var section = school.Ids["section:Evening watch"];
        return new
        {
            section,
            version = await school.Sql(connection =>
                connection.ExecuteScalarAsync<long>("SELECT version FROM section WHERE id = @section", new { section })
            ),
            from = (string?)null,
            homes = Array.Empty<object>(),
        };
    }

    // The same, with the home section of one of its students.
    private static async Task<object?> JoinAtHome(School school)
    {
        var section = school.Ids["section:Evening watch"];
        return new
        {
            section,
            version = await school.Sql(connection =>
                connection.ExecuteScalarAsync<long>("SELECT version FROM section WHERE id = @section", new { section })
            ),
            from = (string?)null,
            homes = new[]
            {
                new
                {
                    student = await school.Sql(connection =>
                        connection.ExecuteScalarAsync<long>("SELECT min(person) FROM enrolment WHERE section = @section", new { section })
                    ),
                    section,
                },
            },
        };
    }

    /// <summary>A pretend section of Weather Watch, made where there is none yet.</summary>
    public static async Task<(long Id, long Version)> PretendSection(School school)
    {
        Task<(long, long)?> Known() =>
            school.Sql(connection =>
                connection.QueryFirstOrDefaultAsync<(long, long)?>(
                    "SELECT id, version FROM section WHERE edition = @edition AND pretend IS NOT NULL AND name = 'Pretend'",
                    new { edition = school.WeatherWatch }
                )
            );
        if (await Known() is { } there)
            return there;
        using var lead = await school.As(DemoPeople.Lead);
        await lead.Post(
            $"/api/editions/{school.WeatherWatch}/make-pretend-section",
            new { name = "Pretend", slots = new object[] { new { day = "wed", periods = new[] { "P3" } } } },
            Guid.NewGuid()
        );
        return (await Known())!.Value;
    }

    /// <summary>9 Alder stops following.</summary>
    public static async Task<object?> Stop(School school)
    {
        var section = school.Ids["section:9 Alder"];
        return new
        {
            section,
            version = await school.Sql(connection =>
                connection.ExecuteScalarAsync<long>("SELECT version FROM section WHERE id = @section", new { section })
            ),
        };
    }

    /// <summary>Something to undo, and the request that undoes it.</summary>
    public static async Task<object?> Undo(School school) =>
        new { batch = await SomeBatch(school, school.WeatherWatch, DemoPeople.CoTeacher) };

    public static Task<(long Item, long Version)> FirstItem(School school, long edition) =>
        school.Sql(connection =>
            connection.QueryFirstAsync<(long, long)>(
                "SELECT id, version FROM item WHERE edition = @edition AND removed_at IS NULL ORDER BY id",
                new { edition }
            )
        );

    /// <summary>A batch of an edition, made by renaming its last item.</summary>
    public static async Task<long> SomeBatch(School school, long edition, string author)
    {
        var (item, version) = await school.Sql(connection =>
            connection.QueryFirstAsync<(long, long)>(
                "SELECT id, version FROM item WHERE edition = @edition AND removed_at IS NULL ORDER BY id DESC",
                new { edition }
            )
        );
        using var caller = await school.As(author);
        var reply = await caller.Post(
            $"/api/editions/{edition}/rename-item",
            new
            {
                item,
                title = $"Renamed at {version}",
                version,
            },
            Guid.NewGuid()
        );
        reply.Status.ShouldBe(HttpStatusCode.OK, reply.Text);
        return reply.Json["batch"]!.GetValue<long>();
    }
}
