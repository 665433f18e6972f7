using System.Data;
using Microsoft.AspNetCore.Mvc;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Release;
using Polycline.Core.Wording;
using Polycline.Data;
using Polycline.Data.Courses;
using Polycline.Data.People;
using Polycline.Data.Students;
using Polycline.Data.Work;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Work;

/// <param name="N">The hand-in that was read.</param>
/// <param name="Text">The feedback, up to 20,000 characters; it may be empty.</param>
/// <param name="Again">True: to try again. False: to go on, which opens what hangs on it.</param>
public sealed record GiveBackRequest(long Work, int N, string Text, bool Again);

/// <param name="Given">False if this was only a preview and nothing was written.</param>
/// <param name="Opens">What opens for the student by it.</param>
public sealed record GiveBackAnswer(bool Given, string Name, IReadOnlyList<string> Opens, string Sentence);

/// <summary>Gives a piece of work back. It cannot be taken back: the student may have read it.</summary>
public static class GiveBack
{
    private const int Longest = 20_000;

    public static async Task<GiveBackAnswer> Handle(
        long section,
        [FromBody] GiveBackRequest request,
        [FromQuery] bool? preview,
        [FromHeader(Name = "Idempotency-Key")] Guid? key,
        Access access,
        Viewpoint viewpoint,
        PlanCache compiled,
        Database database,
        CancellationToken stop
    )
    {
        if (!viewpoint.TakesCommands)
            throw Problem.NotNow();
        if (request.Text.Length > Longest)
            throw Problem.Field("text", $"This is too long: {Longest:N0} characters at most.");
        var given = preview == true ? Guid.Empty : Idempotency.Key(key);
        var plan = await compiled.Edition(access);
        // A preview goes the same way and gives the transaction up.
        await using var connection = await database.Source.OpenConnectionAsync(stop);
        await using var transaction = await connection.BeginTransactionAsync(IsolationLevel.ReadCommitted, stop);
        if (preview == true)
            return await Do(connection, plan, access, viewpoint, request, Guid.NewGuid()) with { Given = false };
        var answer = await Idempotency.Run(connection, viewpoint, given, Idempotency.Digest($"{section} give-back", request), () =>
            Do(connection, plan, access, viewpoint, request, given)
        );
        await transaction.CommitAsync(stop);
        return answer;
    }

    private static async Task<GiveBackAnswer> Do(
        NpgsqlConnection connection,
        EditionPlan plan,
        Access access,
        Viewpoint viewpoint,
        GiveBackRequest request,
        Guid key
    )
    {
        var section = access.Section!.Value;
        var piece = await WorkStore.Latest(connection, section, request.Work) ?? throw Problem.Unknown("work");
        if (piece.N != request.N)
            throw Problem.Changed(new("n", $"{request.N}", $"{piece.N}", piece.N, null, null));
        var item =
            plan.Row(new Id<Item>(piece.Item)) is { } row && plan.Schedule.Knows(new(row.Lineage))
                ? plan.Schedule.Item(new(row.Lineage))
                : throw Problem.Unknown("work");
        var before = await Open(connection, plan, piece.Person, viewpoint);
        await WorkStore.GiveBack(
            connection,
            request.Work,
            request.N,
            piece.Person,
            piece.Item,
            section,
            access.Person.Id,
            request.Text.Trim(),
            request.Again,
            viewpoint.At,
            key
        );
        var after = await Open(connection, plan, piece.Person, viewpoint);
        var name = await AccessStore.NameOf(connection, new(piece.Person)) ?? "";
        var opens = after
            .Where(opened => !before.Contains(opened))
            .Select(opened => $"{plan.Schedule.CodeOf[opened]} {plan.Schedule.Item(opened).Title}")
            .ToList();
        var code = plan.Schedule.CodeOf[item.Ref];
        return new(
            true,
            name,
            opens,
            request.Again ? $"{code} goes back to {name} to try again; nothing opens by it."
                : opens.Count == 0 ? $"{code} goes back to {name}; nothing hangs on it."
                : $"{code} goes back to {name}, for whom {Counting.Joined(opens, "and")} {(opens.Count == 1 ? "opens" : "open")}."
        );
    }

    // What the student can read or work on, in reading order.
    private static async Task<List<Ref<Item>>> Open(NpgsqlConnection connection, EditionPlan plan, long person, Viewpoint viewpoint)
    {
        var (records, _) = await StudentStore.Read(connection, plan, [person], viewpoint.At);
        return [.. new Sights(plan.Schedule, records[person]).At(viewpoint.At).Where(sight => sight.MayRead).Select(sight => sight.Item)];
    }
}
