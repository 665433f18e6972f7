using System.Net;
using System.Text.Json;
using Dapper;
using Polycline.Core;
using Polycline.Demo.School;
using Polycline.Testing;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Web;

/// <summary>Every command of planning refused alike: what is not there, not now, and not in an edition at rest.</summary>
public sealed class CommandRefusalTests(SchoolOfClass shared) : LeadOfASharedSchool(shared)
{
    public static TheoryData<string> Commands => [.. CommandExamples.All.Keys];

    [Theory]
    [MemberData(nameof(Commands))]
    public async Task An_id_of_another_course_is_not_there(string command)
    {
        var body = JsonSerializer.SerializeToNode(await CommandExamples.All[command](School))!;
        var ids = IdsIn(School.Commands.Single(entry => entry is { Planning: true, Place: "edition" } && entry.Name == command).Request, "")
            .ToList();
        // What holds for the whole course names nothing in it.
        (ids.Count > 0 || command is "change-course" or "add-group" or "add-note" or "make-pretend-section").ShouldBeTrue();
        var foreign = await Foreign();
        var before = await School.RowCounts();
        foreach (var (path, of) in ids)
        {
            var swapped = body.DeepClone();
            var owner = path.Split('.')[..^1]
                .Where(step => step.Length > 0)
                .Aggregate(swapped, (node, step) => step == "0" ? node[0]! : node[step]!);
            // A list of ids that the example leaves out.
            if (owner is null)
                continue;
            var (last, field) = (path.Split('.')[^1], path.Split('.')[^1]);
            if (last == "0")
                (owner[0], field) = (foreign[of.Name], $"{path.Split('.')[^2]}[0]");
            else
                owner[last] = foreign[of.Name];
            var reply = await Lead.Post(Route(command), swapped, Guid.NewGuid());
            reply.Status.ShouldBe(HttpStatusCode.NotFound, path);
            reply.Json["field"]!.GetValue<string>().Split('.')[^1].ShouldBe(field);
        }
        (await School.RowCounts()).ShouldBe(before);
    }

    [Theory]
    [MemberData(nameof(Commands))]
    public async Task Through_other_eyes_or_at_another_moment_nothing_is_written(string command)
    {
        var body = await CommandExamples.All[command](School);
        var before = await School.RowCounts("audit");
        foreach (var view in new[] { "at=2026-10-15T09:00:00Z", $"as=student:{School.Ids["person:" + DemoPeople.OnTrack]}" })
        foreach (var more in new[] { "", "&preview=true" })
            (await Lead.Post($"{Route(command)}?{view}{more}", body, Guid.NewGuid())).Code.ShouldBe("not-now");
        (await School.RowCounts("audit")).ShouldBe(before);
    }

    [Theory]
    [MemberData(nameof(Commands))]
    public async Task An_edition_at_rest_is_not_changed(string command)
    {
        var body = await CommandExamples.All[command](School);
        var resting = School.Ids["edition:Weather Watch 2025"];
        (await Lead.Post($"/api/editions/{resting}/{command}", body, Guid.NewGuid())).Code.ShouldBe("at-rest");
        (await Lead.Get($"/api/editions/{resting}/outline")).Json["canChange"]!.GetValue<bool>().ShouldBeFalse();
    }

    // Every id that a request holds, also one that may be left out, and those in its lists.
    private static IEnumerable<(string Path, Type Of)> IdsIn(Type request, string before)
    {
        foreach (var property in request.GetProperties())
        {
            var type = Nullable.GetUnderlyingType(property.PropertyType) ?? property.PropertyType;
            var name = before + JsonNamingPolicy.CamelCase.ConvertName(property.Name);
            if (type.IsGenericType && type.GetGenericTypeDefinition() == typeof(Id<>))
                yield return (name, type.GenericTypeArguments[0]);
            else if (type.IsGenericType && type.GetGenericTypeDefinition() == typeof(IReadOnlyList<>))
                if (type.GenericTypeArguments[0] is { IsGenericType: true } one && one.GetGenericTypeDefinition() == typeof(Id<>))
                    yield return (name + ".0", one.GenericTypeArguments[0]);
                else
                    foreach (var inner in IdsIn(type.GenericTypeArguments[0], name + ".0."))
                        yield return inner;
            else if (type.Namespace?.StartsWith("Polycline.Web.", StringComparison.Ordinal) == true)
                foreach (var inner in IdsIn(type, name + "."))
                    yield return inner;
        }
    }

    private string Route(string command) => $"/api/editions/{School.WeatherWatch}/{command}";

    // Ids of the colleague's course, by what they are ids of.
    private async Task<Dictionary<string, long>> Foreign()
    {
        var tides = School.Ids["edition:Tides and Channels 2026"];
        Task<long> Some(string table) =>
            School.Sql(connection =>
                connection.ExecuteScalarAsync<long>($"SELECT min(id) FROM {table} WHERE edition = @tides", new { tides })
            );
        return new()
        {
            ["Item"] = (await CommandExamples.FirstItem(School, tides)).Item,
            ["Lesson"] = await Some("lesson"),
            ["Unit"] = await Some("unit"),
            ["Person"] = School.Ids["person:" + DemoPeople.Colleague],
            ["GroupRow"] = await School.Sql(connection =>
                connection.ExecuteScalarAsync<long>(
                    "INSERT INTO student_group (edition, name) VALUES (@tides, 'Theirs') ON CONFLICT "
                        + "(edition, name) WHERE removed_at IS NULL DO UPDATE SET version = 1 RETURNING id",
                    new { tides }
                )
            ),
            ["ItemFileRow"] = await School.Sql(connection =>
                connection.ExecuteScalarAsync<long>(
                    """
                    INSERT INTO item_file (edition, item, rank, name, file, brought_by, brought_at)
                    SELECT i.edition, i.id, 'z', 'theirs.csv', f.file, f.brought_by, f.brought_at
                    FROM (SELECT * FROM item WHERE edition = @tides ORDER BY id LIMIT 1) i, (SELECT * FROM item_file ORDER BY id LIMIT 1) f
                    RETURNING id
                    """,
                    new { tides }
                )
            ),
            ["NoteRow"] = await School.Sql(connection =>
                connection.ExecuteScalarAsync<long>(
                    """
                    INSERT INTO team_note (edition, place, text, author, written_at)
                    SELECT i.edition, i.lineage, 'Theirs', (SELECT min(id) FROM person), now() FROM item i WHERE i.edition = @tides
                    ORDER BY i.id LIMIT 1 RETURNING id
                    """,
                    new { tides }
                )
            ),
            ["Section"] = await School.Sql(connection =>
                connection.ExecuteScalarAsync<long>(
                    """
                    INSERT INTO section (name, letter, term) VALUES ('Somebody else''s', 'Z', (SELECT min(id) FROM term))
                    ON CONFLICT (term, name) WHERE pretend IS NULL DO UPDATE SET letter = 'Z' RETURNING id
                    """
                )
            ),
            ["Batch"] = await CommandExamples.SomeBatch(School, tides, DemoPeople.Colleague),
        };
    }
}
