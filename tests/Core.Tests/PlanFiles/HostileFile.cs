using System.Globalization;
using System.Text;

namespace Polycline.Tests.Core.PlanFiles;

/// <summary>Plan files made to cost as much as they can: each shape in any size.</summary>
public static class HostileFile
{
    private const string Opened = "{\"student\":\"p\",\"item\":\"i1\",\"event\":\"opened\",\"at\":\"2026-09-09T12:00:00Z\"}";

    private const string Term =
        "\"term\":{\"name\":\"A\",\"zone\":\"Europe/Dublin\",\"first\":\"2026-09-07\",\"last\":\"2026-12-18\",\"weekdays\":[\"mon\"]";

    /// <summary>By name: what stands in the file, so many times over.</summary>
    public static IReadOnlyDictionary<string, Func<int, string>> Shapes { get; } =
        new Dictionary<string, Func<int, string>>
        {
            ["one student listed again and again"] = size =>
                Section("students", Many(size, n => $"{{\"id\":\"p\",\"from\":\"{Date(2 * n)}\",\"to\":\"{Date(2 * n)}\"}}")),
            ["one student listed twice at the end"] = size =>
                Section(
                    "students",
                    Many(size, n => $"{{\"id\":\"p\",\"from\":\"{Date(n == size - 1 ? 0 : n)}\",\"to\":\"{Date(n == size - 1 ? 0 : n)}\"}}")
                ),
            ["classes added and cancelled"] = size =>
                Section(
                    "changes",
                    Many(size, n =>
                        n % 2 == 0
                            ? $"{{\"add\":{{\"date\":\"2026-09-08\",\"start\":\"{Time(n)}\",\"end\":\"23:59\"}}}}"
                            : $"{{\"cancel\":{{\"date\":\"2026-09-08\",\"start\":\"{Time(n - 1)}\"}}}}"
                    )
                ),
            ["classes added on one day"] = size =>
                Section("changes", Many(size, n => $"{{\"add\":{{\"date\":\"2026-09-08\",\"start\":\"{Time(n)}\",\"end\":\"23:59\"}}}}")),
            ["lessons put after each other"] = size =>
                Section(
                    "adjustments",
                    Many(size, n =>
                        $"{{\"insert\":{{\"id\":\"x{n}\",\"title\":\"\",\"length\":1,\"after\":\"{(n == 0 ? "l1" : $"x{n - 1}")}\"}}}}"
                    )
                ),
            ["lessons moved about"] = size =>
                Section(
                    "adjustments",
                    Many(size, n => n % 2 == 0 ? "{\"lesson\":\"l1\",\"after\":\"l2\"}" : "{\"lesson\":\"l2\",\"after\":\"l1\"}")
                ),
            ["units put in front"] = size =>
                Section("adjustments", Many(size, n => $"{{\"addUnit\":{{\"id\":\"x{n}\",\"title\":\"\",\"after\":null}}}}")),
            ["unknown members"] = size => Plan("", "", string.Concat(Enumerable.Range(0, size).Select(n => $",\"m{n}\":{n}"))),
            ["one member given again and again"] = size => Plan("", "", string.Concat(Enumerable.Repeat(",\"facts\":[]", size))),
            ["lists in lists"] = size => Plan("", "", ",\"deep\":" + new string('[', size) + new string(']', size)),
            ["nodes in nodes"] = size =>
                Plan("", "", "", "{\"not\":".Repeat(size) + "{\"item\":\"i1\",\"is\":\"opened\"}" + new string('}', size)),
            ["a wide gate"] = size => Plan("", "", "", "{\"all\":" + Many(size, _ => "{\"item\":\"i1\",\"is\":\"opened\"}") + "}"),
            ["a long number"] = size => Plan("", "", ",\"more\":" + new string('9', size * 10)),
            ["a long text"] = size => Plan(new string('x', size * 10), "", ""),
            ["options without end"] = size =>
                Plan("", $",{{\"id\":\"c\",\"kind\":\"choice\",\"title\":\"\",\"options\":{Many(size, n => $"\"o{n}\"")}}}", ""),
            ["periods of one name"] = size =>
                "{\"format\":\"polycline-plan\",\"version\":1,"
                + Term
                + ",\"periods\":"
                + Many(size, _ => "{\"name\":\"P\",\"start\":\"08:00\",\"end\":\"09:00\"}")
                + "},\"edition\":{\"title\":\"\",\"basis\":\"meetings\"}}",
            ["homes"] = size =>
                Section(
                    "students",
                    Many(size, n => $"\"p{n}\""),
                    $",\"home\":{{{string.Join(',', Enumerable.Range(0, size).Select(n => $"\"p{n}\":\"s1\""))}}}"
                ),
            ["exceptions and facts"] = size =>
                Section(
                    "students",
                    "[\"p\"]",
                    $",\"exceptions\":{Many(size, _ => "{\"student\":\"p\",\"item\":\"i1\",\"excused\":true}")},"
                        + $"\"facts\":{Many(size, _ => Opened)}"
                ),
            ["broken at the end"] = size => Section("students", Many(size, n => $"\"p{n}\"")) + "}",
        };

    public static byte[] Of(string shape, int size) => Encoding.UTF8.GetBytes(Shapes[shape](size));

    private static string Plan(string title, string items, string more, string gate = "null", string section = "") =>
        "{\"format\":\"polycline-plan\",\"version\":1,"
        + Term
        + "},"
        + $"\"edition\":{{\"title\":\"{title}\",\"basis\":\"meetings\","
        + $"\"units\":[{{\"id\":\"u1\",\"title\":\"\",\"lessons\":[{{\"id\":\"l1\",\"title\":\"\",\"length\":1}},"
        + $"{{\"id\":\"l2\",\"title\":\"\",\"length\":1}}],"
        + $"\"items\":[{{\"id\":\"i1\",\"kind\":\"page\",\"title\":\"\"}},"
        + $"{{\"id\":\"i2\",\"kind\":\"page\",\"title\":\"\",\"gate\":{gate}}}{items}]}}]}},"
        + $"\"sections\":[{{\"id\":\"s1\",\"title\":\"\"{section}}}]{more}}}";

    private static string Section(string member, string value, string more = "") => Plan("", "", more, "null", $",\"{member}\":{value}");

    private static string Many(int size, Func<int, string> one) => "[" + string.Join(',', Enumerable.Range(0, size).Select(one)) + "]";

    private static string Date(int n) => new DateOnly(1900, 1, 1).AddDays(n).ToString("yyyy-MM-dd", CultureInfo.InvariantCulture);

    private static string Time(int n) => $"{n / 60 % 23:00}:{n % 60:00}";

    private static string Repeat(this string text, int times) => string.Concat(Enumerable.Repeat(text, times));
}
