using Polycline.Core.Json;
using Polycline.Core.PlanFiles.Reading;

namespace Polycline.Core.PlanFiles.Checking;

/// <summary>What can be named from some place: the edition's things, and what adjustments have added so far.</summary>
internal sealed class Known(Known? outer = null)
{
    private readonly HashSet<string> units = new(StringComparer.Ordinal);
    private readonly HashSet<string> lessons = new(StringComparer.Ordinal);
    private readonly Dictionary<string, HashSet<string>?> items = new(StringComparer.Ordinal);

    public void AddUnit(JsonPiece unit) => units.Add(unit["id"]!.Value!);

    public void AddLesson(JsonPiece lesson) => lessons.Add(lesson["id"]!.Value!);

    public void AddItem(JsonPiece item) =>
        items[item["id"]!.Value!] = item["options"]?.Items.Select(option => option.Value!).ToHashSet(StringComparer.Ordinal);

    public bool Unit(string id) => units.Contains(id) || outer?.Unit(id) == true;

    public bool Lesson(string id) => lessons.Contains(id) || outer?.Lesson(id) == true;

    public bool Item(string id) => items.ContainsKey(id) || outer?.Item(id) == true;

    /// <summary>The options of a choice; null: that item is none, or there is no such item.</summary>
    public HashSet<string>? Options(string id) => items.TryGetValue(id, out var options) ? options : outer?.Options(id);
}

/// <summary>
/// The second pass over a plan file: whether every id names something of the kind wanted, and is given once. Source: the plan file,
/// <i>Refusal</i>.
/// </summary>
internal sealed class DeclaredNames
{
    private readonly FaultList faults;
    private readonly JsonPiece plan;
    private readonly HashSet<string> labels;
    private readonly HashSet<string> periods;
    private readonly HashSet<string> students;
    private readonly HashSet<string> groups;
    private readonly HashSet<string> sections;
    private readonly QuestionNames questions;
    private readonly Known edition = new();
    private readonly Known everywhere;

    private DeclaredNames(JsonPiece plan, FaultList faults)
    {
        this.plan = plan;
        this.faults = faults;
        var term = plan["term"]!;
        labels = TermNames.Labels(term);
        periods =
        [
            .. term.Each("periods")
                .Concat(term.Each("specialDays").SelectMany(day => day.Each("periods")))
                .Select(period => period["name"]!.Value!),
        ];
        students = [.. plan.Each("sections").SelectMany(section => section.Each("students")).Select(PlanBuilder.StudentId)];
        groups = [.. (plan["groups"]?.Members ?? []).Select(group => group.Name)];
        sections = [.. plan.Each("sections").Select(section => section["id"]!.Value!)];
        foreach (var unit in plan["edition"]!.Each("units"))
        {
            edition.AddUnit(unit);
            foreach (var lesson in unit.Each("lessons"))
                edition.AddLesson(lesson);
            foreach (var item in unit.Each("items"))
                edition.AddItem(item);
        }
        everywhere = new(edition);
        questions = new(students.Contains, sections.Contains, everywhere.Item, faults);
    }

    public static void Check(JsonPiece plan, FaultList faults)
    {
        var names = new DeclaredNames(plan, faults);
        TermNames.Check(plan["term"]!, faults);
        names.CheckOnce();
        names.CheckEdition();
        foreach (var section in plan.Each("sections"))
            names.CheckSection(section);
        names.CheckPeople();
        names.CheckFacts();
    }

    // Units, lessons, items and sections share one space of ids; a code stands for one item.
    private void CheckOnce()
    {
        var units = plan["edition"]!.Each("units").ToList();
        var adjustments = plan.Each("sections").SelectMany(section => section.Each("adjustments")).ToList();
        var added = adjustments
            .Select(adjustment => adjustment["addUnit"] ?? adjustment["insert"] ?? adjustment["add"])
            .OfType<JsonPiece>();
        var lessons = units.SelectMany(unit => unit.Each("lessons"));
        var items = units.SelectMany(unit => unit.Each("items"));
        Once([.. units, .. lessons, .. items, .. plan.Each("sections"), .. added], "id", "this id is already used");
        Once([.. units, .. lessons, .. items], "lineage", "another thing of the course has this lineage");
        Once([.. items, .. adjustments.Select(adjustment => adjustment["add"]).OfType<JsonPiece>()], "code", "another item has this code");
    }

    private void CheckEdition()
    {
        foreach (var unit in plan["edition"]!.Each("units"))
        {
            Gate(unit["gate"], edition);
            var own = unit.Each("lessons").Select(lesson => lesson["id"]!.Value!).ToHashSet(StringComparer.Ordinal);
            foreach (var lesson in unit.Each("lessons"))
                Gate(lesson["gate"], edition);
            foreach (var item in unit.Each("items"))
            {
                Wanted(item["lesson"], own.Contains, "no such lesson in this unit");
                Item(item, edition, []);
            }
        }
    }

    private void CheckSection(JsonPiece section)
    {
        foreach (var slot in section.Each("slots"))
        {
            Wanted(slot["day"], labels.Contains, "no such day in the rotation");
            foreach (var period in slot.Each("periods"))
                Wanted(period, periods.Contains, "no such period");
        }
        var own = section.Each("students").Select(PlanBuilder.StudentId).ToHashSet(StringComparer.Ordinal);
        var known = new Known(edition);
        foreach (var adjustment in section.Each("adjustments"))
            CheckAdjustment(adjustment, known, own);
        foreach (var added in section.Each("adjustments").Select(adjustment => adjustment["add"]).OfType<JsonPiece>())
            everywhere.AddItem(added);
        foreach (var record in section.Each("taught"))
            Wanted(record["lesson"], known.Lesson, "no such lesson");
        foreach (var record in section.Each("opened"))
            Wanted(record["item"], known.Item, "no such item");
    }

    private void CheckAdjustment(JsonPiece adjustment, Known known, HashSet<string> ownStudents)
    {
        if (adjustment["addUnit"] is { } unit)
        {
            Wanted(unit["after"], known.Unit, "no such unit");
            known.AddUnit(unit);
        }
        else if (adjustment["insert"] is { } lesson)
        {
            Wanted(lesson["after"], known.Lesson, "no such lesson");
            Wanted(lesson["unit"], known.Unit, "no such unit");
            known.AddLesson(lesson);
        }
        else if (adjustment["add"] is { } item)
        {
            Wanted(item["lesson"], known.Lesson, "no such lesson");
            Wanted(item["unit"], known.Unit, "no such unit");
            Item(item, known, ownStudents);
            known.AddItem(item);
        }
        else
        {
            Wanted(adjustment["unit"], known.Unit, "no such unit");
            Wanted(adjustment["lesson"], known.Lesson, "no such lesson");
            Wanted(adjustment["after"], known.Lesson, "no such lesson");
            Wanted(adjustment["item"], known.Item, "no such item");
            Dates(adjustment, known);
            ForWhom(adjustment["for"], ownStudents);
        }
    }

    private void CheckPeople()
    {
        foreach (var student in (plan["groups"]?.Members ?? []).SelectMany(group => group.Value.Items))
            Wanted(student, students.Contains, "no section lists such a student");
        var listed = plan.Each("sections")
            .SelectMany(section => section.Each("students").Select(student => (section["id"]!.Value, PlanBuilder.StudentId(student))))
            .ToHashSet();
        foreach (var home in plan["home"]?.Members ?? [])
            if (!listed.Contains((home.Value.Value, home.Name)))
                faults.Add(home.Value, "must be a section that lists this student");
    }

    private void CheckFacts()
    {
        foreach (var exception in plan.Each("exceptions"))
        {
            Wanted(exception["student"], students.Contains, "no section lists such a student");
            Wanted(exception["item"], everywhere.Item, "no such item");
            Dates(exception, edition);
            if (exception["move"] is { } move)
                questions.Sections(move);
        }
        foreach (var asked in plan.Each("ask"))
            questions.Check(asked);
        foreach (var asked in plan.Each("facts").Concat(plan.Each("ask").Where(asked => asked["item"] is not null)))
        {
            Wanted(asked["student"], students.Contains, "no section lists such a student");
            Wanted(asked["item"], everywhere.Item, "no such item");
            if (asked["event"]?.Value == "picked" && everywhere.Item(asked["item"]!.Value!))
                Option(asked["item"]!, asked["option"]!, everywhere.Options(asked["item"]!.Value!));
        }
    }

    private void Item(JsonPiece item, Known known, HashSet<string> ownStudents)
    {
        Once(item.Each("options"), "there is an option of that name already");
        Dates(item, known);
        Gate(item["gate"], known);
        ForWhom(item["for"], ownStudents);
    }

    private void Dates(JsonPiece owner, Known known)
    {
        foreach (var date in new[] { "opens", "due", "closes" })
            Anchor(owner[date], known);
    }

    private void Anchor(JsonPiece? anchor, Known known)
    {
        if (anchor?["of"] is { } of)
            Wanted(
                of,
                anchor["at"]!.Value!.StartsWith("lesson", StringComparison.Ordinal) ? known.Lesson : known.Unit,
                "nothing of that kind has this id"
            );
    }

    private void Gate(JsonPiece? node, Known known)
    {
        if (node is null or { IsNull: true })
            return;
        foreach (var child in new[] { "all", "any", "of" }.SelectMany(list => node.Each(list)))
            Gate(child, known);
        Gate(node["not"], known);
        Wanted(node["item"], known.Item, "no such item");
        Wanted(node["group"], groups.Contains, "no such group");
        Wanted(node["taught"], known.Lesson, "no such lesson");
        Anchor(node["from"], known);
        if (node["choice"] is { } choice)
        {
            Wanted(choice, known.Item, "no such choice");
            if (known.Item(choice.Value!))
                Option(choice, node["picked"]!, known.Options(choice.Value!));
        }
    }

    private void Option(JsonPiece choice, JsonPiece option, HashSet<string>? options)
    {
        if (options is null)
            faults.Add(choice, "this item is not a choice");
        else
            Wanted(option, options.Contains, "the choice has no such option");
    }

    private void ForWhom(JsonPiece? whom, HashSet<string> ownStudents)
    {
        if (whom is null or { IsNull: true })
            return;
        foreach (var group in whom.Each("groups").Concat(whom.Each("except")))
            Wanted(group, groups.Contains, "no such group");
        foreach (var student in whom.Each("students"))
            Wanted(student, ownStudents.Contains, "this section lists no such student");
    }

    private void Wanted(JsonPiece? id, Func<string, bool> known, string message)
    {
        if (id is { IsNull: false } && !known(id.Value!))
            faults.Add(id, message);
    }

    private void Once(IEnumerable<JsonPiece> owners, string member, string message) =>
        Once(owners.Select(owner => owner[member]).OfType<JsonPiece>().Where(piece => !piece.IsNull), message);

    private void Once(IEnumerable<JsonPiece> texts, string message) => TermNames.Once(texts, message, faults);
}
