using System.Net;
using System.Text.Json.Nodes;
using Dapper;
using Polycline.Demo.School;
using Polycline.Testing;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Web;

/// <summary>
/// Every command that is work walked alike, as those of planning are: looked at beforehand, done once for each key, refused without one,
/// through other eyes and at another moment.
/// </summary>
public sealed class WorkCommandTests(SchoolOfClass shared) : LeadOfASharedSchool(shared)
{
    /// <summary>Somebody does something: where, and in what form.</summary>
    private sealed record Example(string Who, Func<WorkCommandTests, Task<(string Address, object Body)>> Asked);

    private static readonly Dictionary<string, Example> Examples = new()
    {
        ["record-opened"] = new(DemoPeople.OnTrack, async walk =>
            (walk.Section("record-opened"), new { item = await walk.School.Item("Cloud diary") })
        ),
        ["say-cannot-open"] = new(DemoPeople.OnTrack, async walk =>
            (walk.Section("say-cannot-open"), new { item = await walk.School.Item("Cloud diary"), note = "It stays white." })
        ),
        ["settle-cannot-open"] = new(DemoPeople.Lead, async walk =>
            (walk.Edition("settle-cannot-open"), new { cannotOpen = await CannotOpenTests.Said(walk.School, "Cloud diary") })
        ),
        ["write-sheet"] = new(DemoPeople.OnTrack, async walk => (
                walk.Section("write-sheet"),
                new
                {
                    item = await walk.School.Item("Compare your charts"),
                    block = await walk.School.Sql(connection =>
                        connection.ExecuteScalarAsync<long>("SELECT block FROM sheet_block_version WHERE text LIKE 'South of Lisken%'")
                    ),
                    after = (long?)null,
                    @base = 1,
                    text = "South of Lisken, and nowhere else.",
                }
            )),
        ["refresh-copies"] = new(DemoPeople.Lead, async walk =>
        {
            var (item, file) = await CopyTests.Given(walk.School, "Cloud diary", "sheet.txt", "Write here.");
            return (walk.Edition("refresh-copies"), new { item, file });
        }),
        ["write-text"] = new(DemoPeople.Lead, async walk => (
                walk.Edition("write-text"),
                new
                {
                    item = await walk.School.Item("Guide: the rain gauge"),
                    @base = "",
                    html = "<p>Empty it every morning.</p>",
                }
            )),
        ["end-text"] = new(DemoPeople.Lead, async walk =>
            (
                walk.Edition("end-text"),
                new
                {
                    item = await walk.School.Item("Guide: the rain gauge"),
                    @base = await walk.School.Sql(connection =>
                        connection.ExecuteScalarAsync<string>(
                            "SELECT encode(v.body, 'hex') FROM text_draft d JOIN text_draft_version v ON v.item = d.item AND v.n = d.n"
                        )
                    ),
                }
            )
        ),
        ["begin-quiz"] = new(DemoPeople.OnTrack, async walk =>
            (walk.Section("begin-quiz"), new { item = await walk.School.Item("Reading scales") })
        ),
        ["answer-quiz"] = new(DemoPeople.OnTrack, async walk => (
                walk.Section("answer-quiz"),
                new
                {
                    item = await walk.School.Item("Reading scales"),
                    n = 2,
                    question = "k5",
                    answer = false,
                }
            )),
        ["end-quiz"] = new(DemoPeople.OnTrack, async walk =>
            (walk.Section("end-quiz"), new { item = await walk.School.Item("Reading scales"), n = 2 })
        ),
        ["tick-off"] = new(DemoPeople.OnTrack, async walk =>
            (walk.Section("tick-off"), new { item = await walk.School.Item("Guide: the rain gauge"), done = true })
        ),
        ["save-draft"] = new(DemoPeople.OnTrack, async walk => (
                walk.Section("save-draft"),
                new
                {
                    item = await walk.School.Item("Cloud diary"),
                    text = "So far",
                    version = 0,
                }
            )),
        ["hand-in"] = new(DemoPeople.OnTrack, async walk => (
                walk.Section("hand-in"),
                new
                {
                    item = await walk.School.Item("Cloud diary"),
                    text = "All of it",
                    pressedAt = (string?)null,
                }
            )),
        ["take-back"] = new(DemoPeople.OnTrack, async walk =>
        {
            using var student = await walk.School.As(DemoPeople.OnTrack);
            var item = await walk.School.Item("Cloud diary");
            (
                await student.Post(
                    walk.Section("hand-in"),
                    new
                    {
                        item,
                        text = "Too soon",
                        pressedAt = (string?)null,
                    },
                    Guid.NewGuid()
                )
            ).Status.ShouldBe(HttpStatusCode.OK);
            return (walk.Section("take-back"), new { item });
        }),
        ["begin-upload"] = new(DemoPeople.OnTrack, _ =>
            Task.FromResult(("/api/me/begin-upload", (object)new { name = "winds.csv", size = 100 }))
        ),
        ["finish-upload"] = new(DemoPeople.OnTrack, async walk => ("/api/me/finish-upload", new { upload = await walk.Piece() })),
        ["cancel-upload"] = new(DemoPeople.OnTrack, async walk => ("/api/me/cancel-upload", new { upload = await walk.Piece() })),
        ["ready-mark"] = new(DemoPeople.Lead, async walk => (walk.Section("ready-mark"), (await WorkTests.SomePiece(walk.School))!)),
        ["give-back-ready"] = new(DemoPeople.Lead, async walk =>
            (walk.Section("give-back-ready"), await ReadyTests.SomeReady(walk.School))
        ),
        ["take-to-read"] = new(DemoPeople.Lead, async walk => (walk.Section("take-to-read"), (await ReaderTests.SomePiece(walk.School))!)),
        ["give-back"] = new(DemoPeople.Lead, async walk => (walk.Section("give-back"), (await WorkTests.SomePiece(walk.School))!)),
        ["remind-students"] = new(
            DemoPeople.Lead,
            async walk =>
                // She has handed it in, so no letter is on its way while the next command is looked at.
                (
                    walk.Section("remind-students"),
                    new
                    {
                        item = await walk.School.Item("The first log"),
                        students = new[] { walk.School.Ids["person:" + DemoPeople.OnTrack] },
                    }
                )
        ),
        ["mark-answers"] = new(DemoPeople.Lead, async walk =>
            (walk.Section("mark-answers"), (await AnswerReadingTests.SomeAnswer(walk.School))!)
        ),
        ["pick-for-student"] = new(DemoPeople.Lead, async walk =>
            (walk.Section("pick-for-student"), (await ChoiceTests.Some(walk.School))!)
        ),
        ["pick-options"] = new(DemoPeople.OnTrack, async walk =>
        {
            using var lead = await walk.School.As(DemoPeople.Lead);
            var item = await walk.School.Item(ChoiceTests.Title);
            await lead.Post(
                walk.Edition("for-students"),
                new
                {
                    students = new[] { walk.School.Ids["person:" + DemoPeople.OnTrack] },
                    items = new[] { item },
                    change = "open",
                    days = (int?)null,
                    until = (string?)null,
                },
                Guid.NewGuid()
            );
            return (walk.Section("pick-options"), new { item, options = new[] { "instrument" } });
        }),
        ["give-scores"] = new(DemoPeople.Lead, async walk => (walk.Section("give-scores"), (await GiveScoresTests.Some(walk.School))!)),
        ["take-back-scores"] = new(DemoPeople.Lead, async walk =>
        {
            await walk.Done(walk.Section("give-scores"), (await GiveScoresTests.Some(walk.School, 10))!);
            var key = await walk.School.Sql(connection =>
                connection.ExecuteScalarAsync<Guid>("SELECT given FROM fact WHERE given IS NOT NULL ORDER BY id DESC LIMIT 1")
            );
            return (walk.Section("take-back-scores"), new { key });
        }),
        ["mark-changes-seen"] = new(DemoPeople.Lead, async walk =>
            (
                walk.Edition("mark-changes-seen"),
                new { batch = await CommandExamples.SomeBatch(walk.School, walk.School.WeatherWatch, DemoPeople.Lead) }
            )
        ),
        ["set-team-member"] = new(DemoPeople.Lead, async walk => (walk.Edition("set-team-member"), (await TeamTests.Reader(walk.School))!)),
        ["end-team-member"] = new(DemoPeople.Lead, async walk =>
        {
            await walk.Done(walk.Edition("set-team-member"), (await TeamTests.Reader(walk.School))!);
            return (walk.Edition("end-team-member"), new { person = walk.School.Ids["person:" + DemoPeople.Colleague] });
        }),
        ["roll-over"] = new(DemoPeople.Lead, async walk => (walk.Edition("roll-over"), (await RollOverTests.Spring(walk.School))!)),
        ["take-back-roll-over"] = new(DemoPeople.Lead, async walk =>
        {
            var next = await walk.Done(walk.Edition("roll-over"), (await RollOverTests.Spring(walk.School))!);
            return ($"/api/editions/{next["edition"]}/take-back-roll-over", new { });
        }),
        ["end-edition"] = new(DemoPeople.Lead, walk => Task.FromResult((walk.Edition("end-edition"), (object)new { on = "2026-12-18" }))),
        ["resume-edition"] = new(DemoPeople.Lead, async walk =>
        {
            await walk.Done(walk.Edition("end-edition"), new { on = "2026-12-18" });
            return (walk.Edition("resume-edition"), new { });
        }),
        ["take-in"] = new(DemoPeople.Lead, async walk => (walk.Edition("take-in"), await walk.Package())),
        ["take-questions"] = new(DemoPeople.Lead, async walk => (walk.Edition("take-questions"), await walk.Questions())),
        ["take-back-course"] = new(DemoPeople.Lead, async walk =>
        {
            var made = await walk.Done(walk.Edition("take-in"), await walk.Package());
            return ($"/api/editions/{made["edition"]}/take-back-course", new { });
        }),
        ["make-calendar-link"] = new(DemoPeople.Lead, walk => Task.FromResult(("/api/me/make-calendar-link", walk.Calendar()))),
        ["withdraw-calendar-link"] = new(DemoPeople.Lead, async walk =>
        {
            await walk.Done("/api/me/make-calendar-link", walk.Calendar());
            return ("/api/me/withdraw-calendar-link", walk.Calendar());
        }),
        ["add-people"] = new(DemoPeople.Office, _ => Task.FromResult(("/api/school/add-people", PeopleTests.Newcomers))),
        ["invite-people"] = new(DemoPeople.Office, walk =>
            Task.FromResult(("/api/school/invite-people", PeopleTests.Invited(false, walk.School.Ids["person:" + DemoPeople.Colleague])))
        ),
        ["deactivate-person"] = new(DemoPeople.Office, walk => walk.OnPerson("deactivate-person")),
        ["reactivate-person"] = new(DemoPeople.Office, async walk =>
        {
            using var office = await walk.School.As(DemoPeople.Office);
            var (_, body) = await walk.OnPerson("");
            (await office.Post("/api/school/deactivate-person", body, Guid.NewGuid())).Status.ShouldBe(HttpStatusCode.OK);
            return ("/api/school/reactivate-person", body);
        }),
        ["end-sessions"] = new(DemoPeople.Office, async walk =>
        {
            var asked = await walk.OnPerson("end-sessions");
            await walk.School.Session(DemoPeople.Colleague);
            return asked;
        }),
        ["set-role"] = new(DemoPeople.Office, walk => Task.FromResult(
                (
                    "/api/school/set-role",
                    (object)
                        new
                        {
                            person = walk.School.Ids["person:" + DemoPeople.Colleague],
                            role = "office",
                            has = true,
                        }
                )
            )),
        ["sign-out-elsewhere"] = new(DemoPeople.Colleague, async walk =>
        {
            await walk.School.Session(DemoPeople.Colleague);
            return ("/api/me/sign-out-elsewhere", new { session = (string?)null });
        }),
        ["import-roster"] = new(DemoPeople.Office, async walk => ("/api/school/import-roster", (await RosterTests.Newcomer(walk.School))!)),
        ["take-back-roster"] = new(DemoPeople.Office, async walk =>
            ("/api/school/take-back-roster", (await RosterTests.Made(walk.School))!)
        ),
        ["make-term"] = new(DemoPeople.Office, _ => Task.FromResult(("/api/school/make-term", TermTests.Good($"Summer {Guid.NewGuid()}")))),
        ["remove-term"] = new(DemoPeople.Office, async walk =>
            ("/api/school/remove-term", new { term = await TermTests.Empty(walk.School) })
        ),
        ["make-sections"] = new(DemoPeople.Office, async walk => ("/api/school/make-sections", (await MakingTests.Sections(walk.School))!)),
        ["remove-section"] = new(DemoPeople.Office, async walk =>
            ("/api/school/remove-section", new { section = await MakingTests.EmptySection(walk.School) })
        ),
        ["set-aside-roster"] = new(DemoPeople.Office, async walk =>
            (
                "/api/school/set-aside-roster",
                new { term = await TermCommandExamples.Autumn(walk.School), fetch = await RosterFeedTests.Waiting(walk.School) }
            )
        ),
        ["erase-person"] = new(DemoPeople.Office, async walk => ("/api/school/erase-person", await PeopleTests.Somebody(walk.School))),
        ["join-people"] = new(DemoPeople.Office, async walk => ("/api/school/join-people", await PeopleTests.TwoThatAreOne(walk.School))),
        ["separate-people"] = new(DemoPeople.Office, async walk =>
        {
            var two = await PeopleTests.TwoThatAreOne(walk.School);
            using var office = await walk.School.As(DemoPeople.Office);
            (await office.Post("/api/school/join-people", two, Guid.NewGuid())).Status.ShouldBe(HttpStatusCode.OK);
            return ("/api/school/separate-people", new { person = two.Other });
        }),
        ["import-outcomes"] = new(DemoPeople.Office, _ =>
            Task.FromResult(("/api/school/import-outcomes", (object)new { text = "code,outcome\nG1.1,Read any gauge\nX1,Tell the time\n" }))
        ),
        ["undo-outcomes"] = new(DemoPeople.Office, _ => Task.FromResult(("/api/school/undo-outcomes", new object()))),
        ["rename-school"] = new(DemoPeople.Office, _ =>
            Task.FromResult(("/api/school/rename-school", (object)new { name = $"School {Guid.NewGuid()}" }))
        ),
        ["make-section-code"] = new(DemoPeople.Lead, walk =>
            Task.FromResult(($"/api/sections/{walk.School.Ids["section:9 Birch"]}/make-section-code", SectionCodeTests.Good()))
        ),
        ["withdraw-section-code"] = new(DemoPeople.Lead, async walk =>
            (
                $"/api/sections/{walk.School.Ids["section:9 Birch"]}/withdraw-section-code",
                new { code = await SectionCodeTests.Code(walk.School) }
            )
        ),
        ["answer-joins"] = new(DemoPeople.Lead, async walk =>
            (
                $"/api/sections/{walk.School.Ids["section:9 Birch"]}/answer-joins",
                new { waiting = new[] { await SectionCodeTests.Waiting(walk.School) }, letIn = true }
            )
        ),
        ["keep-rubric"] = new(DemoPeople.Lead, _ => Task.FromResult(("/api/me/keep-rubric", ShelfTests.Good($"Graphs {Guid.NewGuid()}")))),
        ["take-off-shelf"] = new(DemoPeople.Lead, async walk =>
        {
            var kept = await ShelfTests.Keep(walk.School, walk.Lead);
            return ("/api/me/take-off-shelf", new { kept });
        }),
        ["make-course"] = new(DemoPeople.Lead, async walk => ("/api/me/make-course", (await MakingTests.Course(walk.School))!)),
    };

    private static readonly string[] Secret = ["make-calendar-link", "add-people", "invite-people"];

    public static TheoryData<string> Commands => [.. Examples.Keys];

    [Fact]
    public void Every_command_has_its_example() =>
        School.Commands.Where(entry => !entry.Planning).Select(entry => entry.Name).Order().ShouldBe(Examples.Keys.Order());

    [Theory]
    [MemberData(nameof(Commands))]
    public async Task It_is_looked_at_done_once_and_by_nobody_through_other_eyes(string command)
    {
        var (who, asked) = Examples[command];
        var (address, body) = await asked(this);
        using var caller = await School.As(who);
        var before = await School.RowCounts();
        // Looked at it writes nothing, and neither does what is refused.
        var shown = await caller.Post($"{address}?preview=true", body);
        shown.Status.ShouldBe(HttpStatusCode.OK, shown.Text);
        (await caller.Post(address, body)).Json["field"]!.GetValue<string>().ShouldBe("Idempotency-Key");
        (await caller.Post($"{address}?at=2026-10-15T09:00:00Z", body, Guid.NewGuid())).Code.ShouldBeOneOf("not-now", "forbidden");
        (await School.RowCounts()).ShouldBe(before);
        // Sent many times at once it is done once, and what only comes of doing it is all that differs from what was shown.
        var key = Guid.NewGuid();
        var replies = await Task.WhenAll(Enumerable.Range(0, 4).Select(_ => caller.PostUntilAnswered(address, body, key)));
        var done = replies.Where(reply => reply.Status == HttpStatusCode.OK).ToList();
        done.Select(reply => reply.Text).Distinct().ShouldHaveSingleItem();
        if (Secret.Contains(command))
            replies.Except(done).Select(reply => reply.Code).ShouldBe(["key-reused", "key-reused", "key-reused"]);
        // Whoever comes after an edition is gone finds nothing there.
        else if (command is "take-back-roll-over" or "take-back-course")
            replies.Except(done).ShouldAllBe(reply => reply.Status == HttpStatusCode.NotFound);
        else
            done.Count.ShouldBe(4, string.Join('\n', replies.Select(reply => reply.Text)));
        var after = await School.RowCounts();
        after.ShouldNotBe(before);
        Lasting(shown.Json).ShouldBe(Lasting(done[0].Json));
        // Sent once more, it is answered as it was; but a secret is told once, and of what is gone nothing is told.
        (await caller.Post(address, body, key)).Status.ShouldBe(
            command switch
            {
                _ when Secret.Contains(command) => HttpStatusCode.UnprocessableEntity,
                "take-back-roll-over" or "take-back-course" => HttpStatusCode.NotFound,
                _ => HttpStatusCode.OK,
            }
        );
        (await School.RowCounts()).ShouldBe(after);
        await PutBack(command, done[0].Json);
    }

    // Without what only comes of doing it.
    private static string Lasting(JsonNode answer) => Without(answer)!.ToJsonString();

    private static JsonNode? Without(JsonNode? answer) =>
        answer switch
        {
            JsonObject fields => new JsonObject(
                fields
                    .Where(field =>
                        field.Key
                            is not (
                                "applied"
                                or "given"
                                or "handedIn"
                                or "sectionCode"
                                or "upload"
                                or "edition"
                                or "section"
                                or "sections"
                                or "import"
                                or "term"
                                or "address"
                                or "at"
                            )
                    )
                    .Select(field => KeyValuePair.Create(field.Key, Without(field.Value)))
            ),
            JsonArray list => new JsonArray([.. list.Select(Without)]),
            _ => answer?.DeepClone(),
        };

    private async Task PutBack(string command, JsonNode done)
    {
        if (command == "roll-over")
            await Done($"/api/editions/{done["edition"]}/take-back-roll-over", new { });
        if (command == "end-edition")
            await Done(Edition("resume-edition"), new { });
    }

    private async Task<JsonNode> Done(string address, object body)
    {
        var reply = await Lead.Post(address, body, Guid.NewGuid());
        reply.Status.ShouldBe(HttpStatusCode.OK, reply.Text);
        return reply.Json;
    }

    private Task<(string, object)> OnPerson(string command) =>
        Task.FromResult(($"/api/school/{command}", (object)new { person = School.Ids["person:" + DemoPeople.Colleague] }));

    private async Task<Guid> Piece()
    {
        using var student = await School.As(DemoPeople.OnTrack);
        var upload = await student.Begin("winds.txt", 4);
        await student.Piece(upload, 0, "calm"u8.ToArray());
        return upload;
    }

    private string Edition(string command) => $"/api/editions/{School.WeatherWatch}/{command}";

    private string Section(string command) => $"/api/sections/{School.Ids["section:9 Alder"]}/{command}";

    private object Calendar() => new { kind = "section-calendar", section = School.Ids["section:9 Alder"] };

    private async Task<object> Package() =>
        new
        {
            term = await School.Sql(connection =>
                connection.ExecuteScalarAsync<long>("SELECT id FROM term WHERE name = 'Spring term 2027'")
            ),
            upload = await Lead.SendFile(
                "course.zip",
                await (await Lead.Get(Edition("course.zip"))).Message.Content.ReadAsByteArrayAsync(TestContext.Current.CancellationToken)
            ),
        };

    private async Task<object> Questions() =>
        new
        {
            upload = await Lead.SendFile(
                "questions.zip",
                await (
                    await Lead.Get(Edition($"items/{await School.Item("Reading scales")}/questions.zip"))
                ).Message.Content.ReadAsByteArrayAsync(TestContext.Current.CancellationToken)
            ),
        };
}
