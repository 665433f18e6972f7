using System.Net;
using System.Text.Json.Nodes;
using Dapper;
using Polycline.Core.Release;
using Polycline.Data.Courses;
using Polycline.Data.Verify;
using Polycline.Demo.School;
using Polycline.Testing;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Web;

/// <summary>
/// Every command of planning walked alike, on an edition and on a term: looked at beforehand, applied, sent twice, undone.
/// Each walk leaves everything as it found it.
/// </summary>
public sealed class CommandTests(SchoolOfClass shared) : LeadOfASharedSchool(shared)
{
    // By where they are sent: to an edition, or to a term.
    private static readonly Dictionary<string, Func<School, Task<object?>>> Examples = CommandExamples
        .All.Select(one => (At: $"editions/{one.Key}", one.Value))
        .Concat(TermCommandExamples.All.Select(one => (At: $"terms/{one.Key}", one.Value)))
        .ToDictionary(one => one.At, one => one.Value);

    private Caller office = null!;
    private long term;

    public static TheoryData<string> Commands => [.. Examples.Keys];

    protected override async Task Prepare()
    {
        office = await School.As(DemoPeople.Office);
        term = await TermCommandExamples.Autumn(School);
    }

    public override ValueTask DisposeAsync()
    {
        office.Dispose();
        return base.DisposeAsync();
    }

    [Fact]
    public void Every_command_has_its_example() =>
        School
            .Commands.Where(entry => entry.Planning)
            .Select(entry => $"{entry.Place}s/{entry.Name}")
            .Order()
            .ShouldBe(Examples.Keys.Order());

    [Theory]
    [MemberData(nameof(Commands))]
    public async Task What_is_shown_before_is_what_is_done_and_looking_writes_nothing(string command)
    {
        var body = await Examples[command](School);
        var before = await School.RowCounts();
        var shown = await Whose(command).Post($"{Route(command)}?preview=true", body);
        shown.Status.ShouldBe(HttpStatusCode.OK, shown.Text);
        (await School.RowCounts()).ShouldBe(before);
        var done = await Whose(command).Post(Route(command), body, Guid.NewGuid());
        done.Status.ShouldBe(HttpStatusCode.OK, done.Text);
        shown.Json["applied"]!.GetValue<bool>().ShouldBeFalse();
        done.Json["applied"]!.GetValue<bool>().ShouldBeTrue();
        done.Json["reach"]!["rows"]!.AsArray().ShouldNotBeEmpty();
        // What takes something is never done by a button that only says yes.
        if (shown.Json["reach"]!["effect"]!.GetValue<string>() == "takes")
            shown.Json["act"]!.GetValue<string>().ShouldNotBeEmpty();
        foreach (var field in new[] { "reach", "words", "act", "version" })
            JsonNode.DeepEquals(shown.Json[field], done.Json[field]).ShouldBeTrue(field);
        await TakeBack(command, done);
    }

    [Theory]
    [MemberData(nameof(Commands))]
    public async Task Undone_it_is_as_it_was_and_undone_again_as_it_became(string command)
    {
        var body = await Examples[command](School);
        var before = await Content();
        var batch = (await Whose(command).Post(Route(command), body, Guid.NewGuid())).Json["batch"]!.GetValue<long>();
        var after = await Content();
        after.ShouldNotBe(before);
        var undone = await Whose(command).Post(Route(command, "undo"), new { batch }, Guid.NewGuid());
        (await Content()).ShouldBe(before);
        var again = await Whose(command)
            .Post(Route(command, "undo"), new { batch = undone.Json["batch"]!.GetValue<long>() }, Guid.NewGuid());
        (await Content()).ShouldBe(after);
        (await Whose(command).Post(Route(command, "undo"), new { batch }, Guid.NewGuid())).Code.ShouldBe("cannot-undo");
        await TakeBack(command, again);
        (await Verifier.Run(School.Database.Owner, Verifier.OfLedger, CancellationToken.None)).ShouldBeEmpty();
    }

    [Theory]
    [MemberData(nameof(Commands))]
    public async Task Sent_many_times_at_once_under_one_key_it_is_done_once(string command)
    {
        var body = await Examples[command](School);
        var key = Guid.NewGuid();
        var batches = await Batches();
        var replies = await Task.WhenAll(Enumerable.Range(0, 6).Select(_ => Whose(command).PostUntilAnswered(Route(command), body, key)));
        replies.Select(reply => reply.Text).Distinct().ShouldHaveSingleItem();
        replies[0].Status.ShouldBe(HttpStatusCode.OK);
        (await Batches()).ShouldBe(batches + 1);
        (await Whose(command).Post(Route(command, "undo"), new { batch = 1 }, key)).Code.ShouldBe("key-reused");
        await TakeBack(command, replies[0]);
        (await Whose(command).Post(Route(command), body)).Json["field"]!.GetValue<string>().ShouldBe("Idempotency-Key");
    }

    [Fact]
    public async Task A_preview_that_nobody_waits_for_holds_nothing_up_and_what_was_sent_to_be_done_is_done()
    {
        var body = await Examples["editions/add-unit"](School);
        using var hangUp = new CancellationTokenSource();
        await using var held = await School.Owner.Source.OpenConnectionAsync();
        await using var holding = await held.BeginTransactionAsync();
        await EditionStore.Lock(held, new(School.WeatherWatch));
        var looking = Lead.Post($"{Route("editions/add-unit")}?preview=true", body, hangUp: hangUp.Token);
        await School.UntilWaiting(1);
        var doing = Lead.Post(Route("editions/add-unit"), body, Guid.NewGuid(), hangUp: hangUp.Token);
        await School.UntilWaiting(2);
        var batches = await Batches();
        await hangUp.CancelAsync();
        await Should.ThrowAsync<OperationCanceledException>(looking);
        await Should.ThrowAsync<OperationCanceledException>(doing);
        // The preview has stopped waiting, while the course is still held.
        await School.UntilWaiting(1);
        await holding.CommitAsync();
        await School.Until(async () => await Batches() == batches + 1, "what was sent was not done");
        var batch = await School.Sql(connection => connection.ExecuteScalarAsync<long>("SELECT max(id) FROM batch"));
        (await Lead.Post(Route("editions/undo"), new { batch }, Guid.NewGuid())).Status.ShouldBe(HttpStatusCode.OK);
    }

    private async Task TakeBack(string command, Reply done) =>
        (
            await Whose(command).Post(Route(command, "undo"), new { batch = done.Json["batch"]!.GetValue<long>() }, Guid.NewGuid())
        ).Status.ShouldBe(HttpStatusCode.OK);

    private Caller Whose(string command) => command.StartsWith("terms", StringComparison.Ordinal) ? office : Lead;

    // Where a command is sent, or another one of the same edition or term.
    private string Route(string command, string? other = null) =>
        command.Split('/') is ["terms", var ofTerm]
            ? $"/api/terms/{term}/{other ?? ofTerm}"
            : $"/api/editions/{School.WeatherWatch}/{other ?? command.Split('/')[^1]}";

    private Task<int> Batches() => School.Sql(connection => connection.ExecuteScalarAsync<int>("SELECT count(*)::int FROM batch"));

    // What courses and calendars are, without the counters.
    private Task<string> Content() =>
        School.Sql(async connection =>
            (
                await connection.ExecuteScalarAsync<string>(
                    """
                    WITH followed AS (SELECT * FROM edition WHERE id IN (SELECT edition FROM section)), ids AS (SELECT id FROM followed)
                    SELECT string_agg(line, E'\n' ORDER BY line) FROM (
                      -- What nobody follows any more is out of sight.
                      SELECT 'term ' || (to_jsonb(t) - 'version' - 'own_version')::text AS line FROM term t
                      UNION ALL SELECT 'calendar_day ' || (to_jsonb(t) - 'version')::text FROM calendar_day t
                      UNION ALL SELECT 'master ' || (to_jsonb(t) - 'version')::text FROM master t WHERE id IN (SELECT master FROM followed)
                      UNION ALL SELECT 'edition ' || id || codes || before
                        || coalesce(levels::text, '') || coalesce(adding_up::text, '') FROM followed
                      UNION ALL SELECT 'unit ' || (to_jsonb(t) - 'version')::text FROM unit t
                        WHERE removed_at IS NULL AND edition IN (TABLE ids)
                      UNION ALL SELECT 'lesson ' || (to_jsonb(t) - 'version')::text FROM lesson t
                        WHERE removed_at IS NULL AND edition IN (TABLE ids)
                      UNION ALL SELECT 'item ' || (to_jsonb(t) - 'version')::text FROM item t
                        WHERE removed_at IS NULL AND edition IN (TABLE ids)
                      UNION ALL SELECT 'item_file ' || (to_jsonb(t) - 'version')::text FROM item_file t
                        WHERE removed_at IS NULL AND edition IN (TABLE ids)
                      UNION ALL SELECT 'team_note ' || (to_jsonb(t) - 'version')::text FROM team_note t
                        WHERE removed_at IS NULL AND edition IN (TABLE ids)
                      UNION ALL SELECT 'section ' || (to_jsonb(t) - 'version')::text FROM section t WHERE letter <> 'Z'
                      UNION ALL SELECT 'adjustment ' || (to_jsonb(t) - 'version')::text FROM adjustment t
                      UNION ALL SELECT 'student_group ' || (to_jsonb(t) - 'version')::text FROM student_group t
                        WHERE removed_at IS NULL AND edition IN (TABLE ids)
                      UNION ALL SELECT 'in_group ' || (to_jsonb(t) - 'version')::text FROM in_group t
                      UNION ALL SELECT 'enrolment ' || (to_jsonb(t) - 'version')::text FROM enrolment t
                      UNION ALL SELECT 'exception ' || (to_jsonb(t) - 'version')::text FROM exception t
                      UNION ALL SELECT 'arrangement ' || (to_jsonb(t) - 'version')::text FROM arrangement t
                      UNION ALL SELECT 'home ' || (to_jsonb(t) - 'version')::text FROM home t
                      UNION ALL SELECT 'taught ' || (to_jsonb(t) - 'version')::text FROM taught t
                      UNION ALL SELECT 'order_change ' || (to_jsonb(t) - 'version')::text FROM order_change t
                      UNION ALL SELECT 'meeting_change ' || (to_jsonb(t) - 'version')::text FROM meeting_change t) lines
                    """
                )
            )!
        );
}
