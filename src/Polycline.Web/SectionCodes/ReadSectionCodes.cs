using Polycline.Core;
using Polycline.Core.Sections;
using Polycline.Data;
using Polycline.Data.SectionCodes;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.SectionCodes;

/// <param name="Codes">Those that have not been withdrawn, the latest first.</param>
/// <param name="Waiting">Those who wait to be let in, the first first.</param>
/// <param name="Address">Where a code is entered.</param>
public sealed record SectionCodesAnswer(IReadOnlyList<SectionCodeLine> Codes, IReadOnlyList<WaitingLine> Waiting, string Address);

public sealed record SectionCodeLine
{
    public required Id<SectionCodeRow> Id { get; init; }

    /// <summary>Such as <c>KTRW-9MPA</c>.</summary>
    public required string Code { get; init; }

    /// <summary>The last day on which it can be used, in words.</summary>
    public required string Until { get; init; }

    /// <summary>How many people can use it.</summary>
    public required int Most { get; init; }

    /// <summary>How many are in, or wait.</summary>
    public required int Used { get; init; }

    /// <summary>Those who use it wait for a teacher.</summary>
    public required bool Approve { get; init; }

    /// <summary>Its last day is past, or as many have used it as can.</summary>
    public required bool IsOver { get; init; }
}

public sealed record WaitingLine(Id<WaitingRow> Id, string Name, string Email, Moment At);

/// <summary>Reads the codes of a section, and who waits.</summary>
public static class ReadSectionCodes
{
    public static async Task<SectionCodesAnswer> Handle(
        long section,
        HttpContext http,
        Host.HostSettings settings,
        Access access,
        Viewpoint viewpoint,
        Database database,
        CancellationToken stop
    )
    {
        viewpoint.NeedsTeam("Section codes");
        var id = new Id<Section>(section);
        var codes = await database.Read(connection => SectionCodeStore.Of(connection, id), stop);
        var waiting = await database.Read(connection => SectionCodeStore.Waiting(connection, id), stop);
        var today = viewpoint.Now.InZone(access.Zone).Date;
        return new(
            [
                .. codes.Select(code => new SectionCodeLine
                {
                    Id = code.Id,
                    Code = CodeLetters.Shown(code.Code),
                    Until = Moment.InWords(code.Until),
                    Most = code.Most,
                    Used = code.Used,
                    Approve = code.Approve,
                    IsOver = code.Until < today || code.Used >= code.Most,
                }),
            ],
            [.. waiting.Select(one => new WaitingLine(one.Id, one.Name, one.Email, Moment.Of(one.At, access.Zone)))],
            $"{settings.AddressFor(http.Request)}/join"
        );
    }
}
