using System.Net;
using Dapper;
using Polycline.Demo.School;
using Polycline.Testing;
using Shouldly;

namespace Polycline.Tests.Web;

/// <summary>A good request for every command; the walks take them all.</summary>
public static class CommandExamples
{
    /// <summary>By name; a command without one fails the walks.</summary>
    public static readonly IReadOnlyDictionary<string, Func<School, Task<object?>>> All = new Dictionary<string, Func<School, Task<object?>>>
    {
        ["rename-item"] = Rename,
        ["undo"] = Undo,
    };

    public static async Task<object?> Rename(School school)
    {
        var (item, version) = await FirstItem(school, school.WeatherWatch);
        return new { item, title = "A title of the tests", version };
    }

    /// <summary>Something to undo, and the request that undoes it.</summary>
    public static async Task<object?> Undo(School school) => new { batch = await SomeBatch(school, school.WeatherWatch, DemoPeople.CoTeacher) };

    public static Task<(long Item, long Version)> FirstItem(School school, long edition) => school.Sql(connection =>
        connection.QueryFirstAsync<(long, long)>("SELECT id, version FROM item WHERE edition = @edition ORDER BY id", new { edition }));

    /// <summary>A batch of an edition, made by renaming its last item.</summary>
    public static async Task<long> SomeBatch(School school, long edition, string author)
    {
        var (item, version) = await school.Sql(connection =>
            connection.QueryFirstAsync<(long, long)>("SELECT id, version FROM item WHERE edition = @edition ORDER BY id DESC", new { edition }));
        using var caller = await school.As(author);
        var reply = await caller.Post($"/api/editions/{edition}/rename-item", new { item, title = $"Renamed at {version}", version }, Guid.NewGuid());
        reply.Status.ShouldBe(HttpStatusCode.OK, reply.Text);
        return reply.Json["batch"]!.GetValue<long>();
    }
}
