using Dapper;
using NodaTime;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Calendars;
using Polycline.Core.Courses;
using Polycline.Core.Sections;
using Polycline.Core.Wording;
using Polycline.Data.Ledger;

namespace Polycline.Data.Editions;

/// <summary>An edition in the life of its course.</summary>
public sealed record EditionLifeRow
{
    public required Id<Edition> Id { get; init; }

    public required int Ordinal { get; init; }

    public required string Title { get; init; }

    public required string State { get; init; }

    public required string Term { get; init; }

    public required LocalDate First { get; init; }

    public required LocalDate Last { get; init; }

    public required Id<Edition>? CarriedFrom { get; init; }

    /// <summary>It was imported from a file, or made in the application: it is not rolled over from another.</summary>
    public required bool TakenIn { get; init; }

    /// <summary>The last day on which it is current; null: none is set.</summary>
    public required LocalDate? EndsOn { get; init; }

    /// <summary>Students have begun in the edition rolled over from it.</summary>
    public required bool GoneOn { get; init; }

    public required int Sections { get; init; }

    /// <summary>A student has worked in it: it cannot be taken back any more.</summary>
    public required bool Worked { get; init; }
}

/// <summary>A term that an edition can be rolled over to.</summary>
public sealed record TermChoiceRow(Id<Term> Id, string Name, LocalDate First, LocalDate Last);

/// <summary>A section to come.</summary>
public sealed record NewSection(string Name, string Letter, Id<Section> Succeeds);

/// <summary>Makes the next edition from an existing one, in the caller's transaction.</summary>
public static class RolloverStore
{
    /// <summary>Every edition of a course, the latest first, and the terms that begin after one's own.</summary>
    public static async Task<(IReadOnlyList<EditionLifeRow> Editions, IReadOnlyList<TermChoiceRow> Terms)> Read(
        NpgsqlConnection connection,
        Id<Edition> edition
    )
    {
        await using var results = await connection.QueryMultipleAsync(Sql.Of("Editions", "ReadEditions"), new { edition = edition.Value });
        return ([.. await results.ReadAsync<EditionLifeRow>()], [.. await results.ReadAsync<TermChoiceRow>()]);
    }

    /// <summary>Writes edition k+1 with everything of edition k; students' things never carry. Edition k goes on as it is.</summary>
    public static async Task<Id<Edition>> Carry(NpgsqlConnection connection, Id<Edition> edition, string title, Id<Term> term) =>
        new(
            await connection.ExecuteScalarAsync<long>(
                Sql.Of("Editions", "Carry"),
                new
                {
                    edition = edition.Value,
                    title,
                    term = term.Value,
                }
            )
        );

    /// <summary>Sets or clears a date of an item that was carried.</summary>
    /// <param name="field"><c>opens</c>, <c>due</c> or <c>closes</c>; it comes from a fixed list, never from a request.</param>
    /// <param name="anchor">In the plan file's form; null: cleared.</param>
    public static Task SetDate(NpgsqlConnection connection, Id<Edition> edition, Ref<Item> item, DateField field, string? anchor) =>
        connection.ExecuteAsync(
            $"UPDATE item SET {EnumNames.Of(field)} = @anchor::jsonb WHERE edition = @edition AND lineage = @lineage",
            new
            {
                edition = edition.Value,
                lineage = Guid.Parse(item.Name),
                anchor,
            }
        );

    /// <summary>Makes a section that succeeds another: its timetable and teachers, nobody and nothing else.</summary>
    public static Task AddSection(NpgsqlConnection connection, Id<Edition> edition, Id<Term> term, NewSection section) =>
        connection.ExecuteAsync(
            Sql.Of("Editions", "AddSection"),
            new
            {
                edition = edition.Value,
                term = term.Value,
                section.Name,
                section.Letter,
                succeeds = section.Succeeds.Value,
            }
        );

    /// <summary>An edition becomes a past one, and the one that is coming the current one.</summary>
    public static async Task End(NpgsqlConnection connection, Id<Edition> edition)
    {
        var ended = await connection.QueryAsync<(long, long)>(
            "UPDATE edition SET state = 'resting', ends_on = NULL, version = version "
                + "+ 1 WHERE id = @Value AND state = 'current' RETURNING id, version",
            edition
        );
        var begun = await connection.QueryAsync<(long, long)>(
            "UPDATE edition SET state = 'current', version = version + 1 WHERE "
                + "carried_from = @Value AND state = 'draft' RETURNING id, version",
            edition
        );
        foreach (var (id, version) in ended.Concat(begun))
            await LedgerStore.Tell(connection, Scope.Of(new Id<Edition>(id)), version);
    }

    /// <summary>Sets the last day on which an edition is current; null: none.</summary>
    public static Task EndOn(NpgsqlConnection connection, Id<Edition> edition, LocalDate? on) =>
        connection.ExecuteAsync("UPDATE edition SET ends_on = @on, version = version + 1 WHERE id = @Value", new { edition.Value, on });

    /// <summary>Reverses the end of an edition: it is current again, and the next one is still to come.</summary>
    /// <exception cref="PostgresException">PC003: students have begun in the next one.</exception>
    public static Task Resume(NpgsqlConnection connection, Id<Edition> edition) =>
        connection.ExecuteAsync("SELECT resume_edition(@Value)", edition);

    /// <summary>Current editions that have a last day, with the time zone that day is in.</summary>
    public static async Task<IReadOnlyList<(Id<Edition> Edition, LocalDate EndsOn, string Zone)>> Ending(NpgsqlConnection connection) =>
        [
            .. await connection.QueryAsync<(Id<Edition>, LocalDate, string)>(
                "SELECT e.id, e.ends_on, t.zone FROM edition e JOIN term t ON "
                    + "t.id = e.term WHERE e.state = 'current' AND e.ends_on IS NOT NULL"
            ),
        ];

    /// <summary>Takes a roll-over back: nothing of the new edition is left.</summary>
    /// <returns>The edition it came from.</returns>
    /// <exception cref="PostgresException">PC002: it was not rolled over; PC003: students have worked in it.</exception>
    public static async Task<Id<Edition>> TakeBack(NpgsqlConnection connection, Id<Edition> edition) =>
        new(await connection.ExecuteScalarAsync<long>("SELECT take_back_edition(@Value)", edition));
}
