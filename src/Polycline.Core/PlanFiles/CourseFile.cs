using System.Collections.Immutable;
using System.Text;
using System.Text.Json.Nodes;
using Polycline.Core.Courses;
using Polycline.Core.Json;
using Polycline.Core.MarkFiles;
using Polycline.Core.PlanFiles.Checking;
using Polycline.Core.Wording;

namespace Polycline.Core.PlanFiles;

/// <summary>
/// A course by itself, without term, sections and students: what a package holds beside its texts. Its edition is in the
/// plan file's form; what a plan file has no member for stands beside it by id.
/// </summary>
/// <param name="Edition">An item's body is the name of its text in the package, the hash of a file is the name of that, and a quiz
/// or a rubric stands for itself as it is stored.</param>
/// <param name="Shortest">The least that lessons can do with, by id.</param>
public sealed record CourseFile(string Title, Edition Edition, IReadOnlyDictionary<string, int> Shortest)
{
    private static readonly JsonShape WebAddress = (piece, faults) =>
    {
        if (piece.Value is null || LinkAddress.Fault(piece.Value) is not null)
            faults.Add(piece, "must be a web address that begins with https:// or http://");
    };

    // Kept as it is stored, so that the same quiz gives the same bytes.
    private static readonly JsonShape Quiz = Forms.OfText(QuizPaperFile.IsOne, "must be the questions of a quiz");

    private static readonly JsonShape Rubric = Forms.OfText(RubricFile.IsOne, "must be a rubric");

    private static readonly JsonShape FileShape = Forms.Object(
        new MemberShape("name", Forms.Name, true),
        new MemberShape("file", Forms.OfText(IsFileName, "must be a name of letters, digits, dots, dashes and underlines"), true),
        new MemberShape("given", Forms.OneOf([.. Enum.GetValues<FileWay>().Select(EnumNames.Of)])),
        new MemberShape("copyName", Forms.OfText(text => CopyNames.Fault(text) is null, "must be text whose words in braces are known"))
    );

    internal static bool IsFileName(string text) =>
        text.Length is > 0 and <= 100 && text.All(letter => char.IsAsciiLetterOrDigit(letter) || letter is '.' or '-' or '_');

    // A plan file needs a term; any will do here.
    private static readonly JsonObject AnyTerm = new()
    {
        ["name"] = "",
        ["zone"] = "UTC",
        ["first"] = "2000-01-01",
        ["last"] = "2000-01-01",
    };

    /// <returns>JSON in UTF-8; the same course gives the same bytes.</returns>
    public byte[] Write() =>
        PlanWriter.Written(json =>
        {
            json.WriteString("format", "polycline-course");
            json.WriteNumber("version", 1);
            json.WriteString("title", Title);
            json.WritePropertyName("edition");
            PlanWriter.Write(Edition, json);
            json.WriteStartObject("purposes");
            foreach (var item in Edition.InReadingOrder())
                json.WriteString(item.Ref.Name, EnumNames.Of(item.Purpose));
            json.WriteEndObject();
            json.WriteStartObject("texts");
            foreach (var item in Edition.InReadingOrder().Where(item => item.Body is not null))
                json.WriteString(item.Ref.Name, item.Body);
            json.WriteEndObject();
            Beside("asks", item => item.Asks is null ? null : () => AsksShapes.Write(item.Asks, json));
            Beside("marked", item => item.Marked is null ? null : () => MarkedShapes.Write(item.Marked, json));
            Beside("offered", item => item.Offered is null ? null : () => OfferedShapes.Write(item.Offered, json));
            Beside("quizzes", item => item.Quiz is null ? null : () => json.WriteStringValue(item.Quiz));
            Beside("rubrics", item => item.Rubric is null ? null : () => json.WriteStringValue(item.Rubric));
            Beside("addresses", item => item.Address is null ? null : () => json.WriteStringValue(item.Address));
            Beside("files", item => item.Files.IsEmpty ? null : () => WriteFiles(item.Files));
            if (Edition.Units.FirstOrDefault(unit => unit.Welcome) is { } welcome)
                json.WriteString("welcome", welcome.Ref.Name);
            Beside("aboutTeacher", item => item.AboutTeacher ? () => json.WriteBooleanValue(true) : null);
            Beside("outcomes", item => item.Outcomes.IsEmpty ? null : () => WriteNames(item.Outcomes));
            json.WriteStartObject("shortest");
            foreach (var lesson in Edition.Units.SelectMany(unit => unit.Lessons).Where(lesson => Shortest.ContainsKey(lesson.Ref.Name)))
                json.WriteNumber(lesson.Ref.Name, Shortest[lesson.Ref.Name]);
            json.WriteEndObject();
            json.WriteStartArray("groups");
            foreach (var group in Groups())
                json.WriteStringValue(group);
            json.WriteEndArray();
            if (Edition.Levels != LevelNames.Plain)
            {
                json.WritePropertyName("levels");
                LevelShapes.Write(Edition.Levels, json);
            }
            if (Edition.AddingUp != AddingUp.Plain)
            {
                json.WritePropertyName("addingUp");
                AddingUpShapes.Write(Edition.AddingUp, json);
            }

            void WriteFiles(ImmutableArray<GivenFile> files)
            {
                json.WriteStartArray();
                foreach (var file in files)
                {
                    json.WriteStartObject();
                    json.WriteString("name", file.Name);
                    json.WriteString("file", file.Hash);
                    if (file.Way != FileWay.Read)
                        json.WriteString("given", EnumNames.Of(file.Way));
                    if (file.CopyName is not null)
                        json.WriteString("copyName", file.CopyName);
                    json.WriteEndObject();
                }
                json.WriteEndArray();
            }

            void WriteNames(ImmutableArray<string> names)
            {
                json.WriteStartArray();
                foreach (var name in names)
                    json.WriteStringValue(name);
                json.WriteEndArray();
            }

            // A course that has none of it gives the same bytes as before there was such a thing.
            void Beside(string name, Func<Item, Action?> of)
            {
                var given = Edition.InReadingOrder().Where(item => of(item) is not null).ToList();
                if (given.Count == 0)
                    return;
                json.WriteStartObject(name);
                foreach (var item in given)
                {
                    json.WritePropertyName(item.Ref.Name);
                    of(item)!();
                }
                json.WriteEndObject();
            }
        });

    /// <exception cref="FileRefusedException">It is no course file, or something in it is not as it should be; nothing was
    /// read.</exception>
    public static CourseFile Read(ReadOnlySpan<byte> text)
    {
        // One reader for every file: what it holds against depth, size and text holds here too.
        var root = JsonPiece.Parse(text) ?? throw new FileRefusedException("$", "this is not JSON in UTF-8");
        var faults = new FaultList();
        Forms.Object(
            new MemberShape("format", Forms.OneOf("polycline-course"), true),
            new MemberShape("version", Forms.Whole(1, 1), true),
            new MemberShape("title", Forms.Name, true),
            new MemberShape("edition", (piece, found) => Forms.IsObject(piece, found), true),
            new MemberShape("purposes", Forms.Map(Forms.OneOf([.. Enum.GetValues<Purpose>().Select(EnumNames.Of)]), false)),
            new MemberShape("texts", Forms.Map(Forms.Name, false)),
            new MemberShape("asks", Forms.Map(AsksShapes.Asks, false)),
            new MemberShape("marked", Forms.Map(MarkedShapes.Marked, false)),
            new MemberShape("offered", Forms.Map(OfferedShapes.Offer, false)),
            new MemberShape("quizzes", Forms.Map(Quiz, false)),
            new MemberShape("rubrics", Forms.Map(Rubric, false)),
            new MemberShape("addresses", Forms.Map(WebAddress, false)),
            new MemberShape("files", Forms.Map(Forms.List(FileShape), false)),
            new MemberShape("welcome", Forms.Id),
            new MemberShape("aboutTeacher", Forms.Map(Forms.Bool, false)),
            new MemberShape("outcomes", Forms.Map(Forms.List(Forms.Name), false)),
            new MemberShape("shortest", Forms.Map(Forms.Whole(0), false)),
            new MemberShape("groups", Forms.List(Forms.Name)),
            new MemberShape("levels", LevelShapes.Levels),
            new MemberShape("addingUp", AddingUpShapes.AddingUp)
        )(root, faults);
        faults.Throw();
        var edition = EditionOf(text, root);
        var items = edition.InReadingOrder().Select(item => item.Ref.Name).ToHashSet(StringComparer.Ordinal);
        var lessons = edition.Units.SelectMany(unit => unit.Lessons).Select(lesson => lesson.Ref.Name).ToHashSet(StringComparer.Ordinal);
        foreach (
            var (list, known) in new[]
            {
                ("purposes", items),
                ("texts", items),
                ("asks", items),
                ("marked", items),
                ("offered", items),
                ("quizzes", items),
                ("rubrics", items),
                ("addresses", items),
                ("aboutTeacher", items),
                ("files", items),
                ("outcomes", items),
                ("shortest", lessons),
            }
        )
        foreach (var member in root[list]?.Members ?? [])
            if (!known.Contains(member.Name))
                throw new FileRefusedException($"$.{list}.{member.Name}", "no such id in this edition");
        foreach (var of in root["outcomes"]?.Members ?? [])
            if (
                of.Value.Items.Count > ItemRules.MostOutcomes
                || of.Value.Items.Any(code => code.Value!.Length > ItemRules.LongestOutcomeCode)
            )
                throw new FileRefusedException(
                    $"$.outcomes.{of.Name}",
                    $"at most {ItemRules.MostOutcomes} codes of up to {ItemRules.LongestOutcomeCode} characters each"
                );
        foreach (var of in root["offered"]?.Members ?? [])
        {
            var item = edition.InReadingOrder().First(one => one.Ref.Name == of.Name);
            if (
                item.Kind != ItemKind.Choice
                || !item
                    .Options.Order(StringComparer.Ordinal)
                    .SequenceEqual(of.Value.Each("options").Select(option => option["option"]!.Value!).Order(StringComparer.Ordinal))
            )
                throw new FileRefusedException($"$.offered.{of.Name}", "must name the options of the choice, and no others");
        }
        var groups = (root["groups"]?.Items ?? []).Select(group => group.Value!).ToHashSet(StringComparer.Ordinal);
        foreach (var of in root["asks"]?.Members ?? [])
            if ((of.Value["together"]?.Items ?? []).Any(group => !groups.Contains(group.Value!)))
                throw new FileRefusedException($"$.asks.{of.Name}.together", "no such group in this file");
        return new(
            root["title"]!.Value!,
            With(edition, root),
            (root["shortest"]?.Members ?? []).ToDictionary(member => member.Name, member => Forms.WholeOf(member.Value))
        );
    }

    private static Edition EditionOf(ReadOnlySpan<byte> text, JsonPiece root)
    {
        var plan = new JsonObject
        {
            ["format"] = "polycline-plan",
            ["version"] = 1,
            ["term"] = AnyTerm.DeepClone(),
            ["edition"] = JsonNode.Parse(Encoding.UTF8.GetString(text))!["edition"]!.DeepClone(),
            ["groups"] = new JsonObject(
                (root["groups"]?.Items ?? [])
                    .Select(group => group.Value!)
                    .Distinct()
                    .Select(group => KeyValuePair.Create(group, (JsonNode?)new JsonArray()))
            ),
        };
        return PlanFile.Read(Encoding.UTF8.GetBytes(plan.ToJsonString())).Plan.Edition;
    }

    private static Edition With(Edition edition, JsonPiece root)
    {
        Item Of(Item item) =>
            item with
            {
                Purpose = root["purposes"]?[item.Ref.Name] is { } purpose ? EnumNames.Parse<Purpose>(purpose.Value!) : item.Purpose,
                Body = root["texts"]?[item.Ref.Name]?.Value,
                Asks = root["asks"]?[item.Ref.Name] is { } asks ? AsksShapes.Of(asks) : null,
                Offered = root["offered"]?[item.Ref.Name] is { } offered ? OfferedShapes.Of(offered) : null,
                Quiz = root["quizzes"]?[item.Ref.Name]?.Value,
                Rubric = root["rubrics"]?[item.Ref.Name]?.Value,
                Marked = root["marked"]?[item.Ref.Name] is { } marked ? MarkedShapes.Of(marked) : null,
                Address = root["addresses"]?[item.Ref.Name]?.Value,
                Files =
                [
                    .. (root["files"]?[item.Ref.Name]?.Items ?? []).Select(file => new GivenFile(
                        file["name"]!.Value!,
                        file["file"]!.Value!,
                        file["given"]?.Value is { } given ? EnumNames.Parse<FileWay>(given) : FileWay.Read,
                        file["copyName"]?.Value
                    )),
                ],
                Outcomes = [.. (root["outcomes"]?[item.Ref.Name]?.Items ?? []).Select(code => code.Value!).Distinct()],
                AboutTeacher = root["aboutTeacher"]?[item.Ref.Name]?.Kind == JsonKind.True,
            };
        return edition with
        {
            Levels = root["levels"] is { } levels ? LevelShapes.Checked(levels) : LevelNames.Plain,
            AddingUp = root["addingUp"] is { } adding ? AddingUpShapes.Of(adding) : AddingUp.Plain,
            Units =
            [
                .. edition.Units.Select(unit =>
                    unit with
                    {
                        Welcome = root["welcome"]?.Value == unit.Ref.Name,
                        Lessons = [.. unit.Lessons.Select(lesson => lesson with { Items = [.. lesson.Items.Select(Of)] })],
                        Items = [.. unit.Items.Select(Of)],
                    }
                ),
            ],
        };
    }

    /// <summary>The groups that its items and gates name, in order.</summary>
    public IEnumerable<string> Groups() =>
        Edition
            .InReadingOrder()
            .SelectMany(item => (item.For?.Groups ?? []).Concat(item.For?.Except ?? []).Concat(item.Asks?.Together ?? []))
            .Concat(
                Edition
                    .Units.SelectMany(unit => unit.Lessons.Select(lesson => lesson.Gate).Append(unit.Gate))
                    .Concat(Edition.InReadingOrder().Select(item => item.Gate))
                    .SelectMany(gate => gate?.Root.Leaves().OfType<GateNode.InGroup>().Select(leaf => leaf.Group) ?? [])
            )
            .Distinct()
            .Order(StringComparer.Ordinal);
}
