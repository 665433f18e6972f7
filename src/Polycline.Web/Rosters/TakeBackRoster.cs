using System.Text.Json;
using NodaTime;
using NodaTime.Text;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Calendars;
using Polycline.Core.Sections;
using Polycline.Core.Wording;
using Polycline.Data.Rosters;
using Polycline.Data.Sections;
using Polycline.Data.Terms;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.Rosters;

public sealed record TakeBackRosterRequest(Id<Term> Term, long Import);

public sealed record TakeBackRosterAnswer(bool Applied, string Sentence) : IAnswer<TakeBackRosterAnswer>
{
    public TakeBackRosterAnswer AsPreview() => this with { Applied = false };
}

/// <summary>
/// Takes an import back: places and sections it added go, unless somebody has worked in them; what it ended goes on. Accounts stay.
/// </summary>
public sealed class TakeBackRoster : IWorkCommand<TakeBackRosterRequest, TakeBackRosterAnswer>
{
    public static string Name => "take-back-roster";

    public static May May => May.School;

    public static WorkPlace Place => WorkPlace.School;

    public static async Task<TakeBackRosterAnswer> Do(WorkContext work, TakeBackRosterRequest request)
    {
        var connection = work.Connection;
        await TermStore.Lock(connection, request.Term);
        var json = await RosterStore.Written(connection, request.Term, request.Import)
            ?? throw Problem.CannotUndo("This import was taken back already, or there was none.", "Nothing was changed.");
        var written = JsonSerializer.Deserialize<WrittenByImport>(json)!;
        await RosterStore.EndPlaces(connection, [.. written.Ends.Select(end => (end.Place, Date(end.To)))]);
        var gone = await RosterStore.RemovePlaces(connection, written.Places);
        await RosterStore.AddPlaces(
            connection,
            [
                .. written.Removed.Select(place =>
                    (new Id<Section>(place.Section), new Id<Person>(place.Person), Date(place.From)!.Value, Date(place.To))
                ),
            ]
        );
        await RosterStore.TakeTeachers(
            connection,
            [.. written.Teachings.Select(one => (new Id<Section>(one.Section), new Id<Person>(one.Person)))]
        );
        await RosterStore.ChangePeople(connection, [.. written.Renamed.Select(one => (new Id<Person>(one.Person), one.Name, one.Email))]);
        var emptied = await Emptied(connection, written);
        await RosterStore.Unname(
            connection,
            written.Source,
            "section",
            [.. written.Sections.Where(one => emptied.Contains(new(one.Section))).Select(one => one.Key)]
        );
        await RosterStore.Tell(connection, [.. written.Touched.Select(section => new Id<Section>(section))]);
        await RosterStore.TakenBack(connection, request.Import, work.Viewpoint.At);
        await work.Audit("roster-taken-back", new { import = request.Import });
        var stay = written.Places.Count - gone.Count;
        return new(
            true,
            Counting.Joined(
                [
                    $"{Counting.Counted(gone.Count, "enrolment is", "enrolments are")} taken back",
                    .. stay > 0
                        ? [$"{Counting.Counted(stay, "stays", "stay")}, since the student has worked there"]
                        : Array.Empty<string>(),
                    .. written.Ends.Count > 0
                        ? [$"{Counting.Counted(written.Ends.Count, "goes", "go")} on that had ended"]
                        : Array.Empty<string>(),
                ],
                "and"
            ) + ". Accounts stay: deactivate them in People."
        );
    }

    private static async Task<IReadOnlySet<Id<Section>>> Emptied(NpgsqlConnection connection, WrittenByImport written)
    {
        try
        {
            return await SectionStore.RemoveEmpty(connection, [.. written.Sections.Select(one => new Id<Section>(one.Section))]);
        }
        catch (PostgresException fault) when (fault.SqlState is "PC003")
        {
            throw Problem.CannotUndo("Classes have been changed in a section that it added.", "Nothing was changed.");
        }
    }

    private static LocalDate? Date(string? text) => text is null ? null : LocalDatePattern.Iso.Parse(text).Value;
}
