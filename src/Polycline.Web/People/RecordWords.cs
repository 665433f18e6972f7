using System.Text.Json;
using System.Text.Json.Nodes;
using Polycline.Core.Wording;

namespace Polycline.Web.People;

/// <summary>What the audit has, in words that go on a sentence that starts with somebody's name.</summary>
internal static class RecordWords
{
    private static readonly Dictionary<string, string> Plainly = new()
    {
        ["signed-out-elsewhere"] = "signed out everywhere else",
        ["signed-out-everywhere"] = "signed out everywhere",
        ["provider-linked"] = "signed in through the school’s provider for the first time",
        ["password-set"] = "set a password by a link",
        ["password-changed"] = "changed their password",
        ["school-begun"] = "set up the school",
        ["person-erased"] = "erased what was kept about somebody",
        ["joined-by-code"] = "got an account by a section code",
        ["joins-answered"] = "answered people who asked to join a section",
        ["section-code-made"] = "made a section code",
        ["section-code-withdrawn"] = "withdrew a section code",
        ["sections-made"] = "added sections",
        ["term-made"] = "added a term",
        ["term-removed"] = "removed a term",
        ["roster-imported"] = "imported a roster",
        ["roster-set-aside"] = "set a fetched roster aside",
        ["roster-taken-back"] = "took back a roster",
        ["course-made"] = "made a course",
        ["course-taken-in"] = "took in a course from a file",
        ["course-taken-back"] = "removed a course again",
        ["rolled-over"] = "rolled a course over",
        ["roll-over-taken-back"] = "undid a roll-over",
        ["edition-ended"] = "ended an edition",
        ["edition-resumed"] = "made an edition current again",
        ["team-changed"] = "changed the team of a course",
        ["import-outcomes"] = "imported the school’s outcomes",
        ["undo-outcomes"] = "undid the last import of outcomes",
        ["team-left"] = "ended somebody’s place on a team",
    };

    /// <param name="subject">Whose account it is about; null: nobody's.</param>
    /// <param name="about">JSON.</param>
    public static string Of(string what, string? subject, string about)
    {
        var whose = subject is null ? "an account" : $"{subject}’s account";
        var who = subject ?? "somebody";
        var known = JsonNode.Parse(about) as JsonObject ?? [];
        int Number(string member) => known[member]?.GetValueKind() is JsonValueKind.Number ? known[member]!.GetValue<int>() : 0;
        string Text(string member) => known[member]?.GetValueKind() is JsonValueKind.String ? known[member]!.GetValue<string>() : "";
        bool Has(string member) => known[member]?.GetValueKind() is JsonValueKind.True;
        return what switch
        {
            "signed-in" => Text("address") is { Length: > 0 } address ? $"signed in from {Plain(address)}" : "signed in",
            "school-renamed" => $"renamed the school {Text("name")}",
            "people-added" => $"added {Counting.Counted(Number("added"), "person", "people")}",
            "people-invited" => known["people"] is JsonArray { Count: var many }
                ? $"invited {Counting.Counted(many, "person", "people")}"
                : "invited people",
            "people-joined" => $"joined {whose} with another",
            "people-separated" => $"separated {whose} from another again",
            "person-deactivated" => $"deactivated {whose}",
            "person-reactivated" => $"reactivated {whose}",
            "person-exported" => $"saved a copy of what is kept about {who}",
            "sessions-ended" => $"signed {who} out everywhere",
            "role-set" when Text("role") == "office" => Has("Has") ? $"added {who} to the office" : $"removed {who} from the office",
            "role-set" => Has("Has") ? $"let {who} make courses" : $"no longer let {who} make courses",
            "section-removed" => Text("name") is { Length: > 0 } name ? $"removed the section {name}" : "removed a section",
            _ => Plainly.GetValueOrDefault(what, what.Replace('-', ' ')),
        };
    }

    private static string Plain(string address) =>
        System.Net.IPAddress.TryParse(address, out var ip) && ip.IsIPv4MappedToIPv6 ? $"{ip.MapToIPv4()}" : address;
}
