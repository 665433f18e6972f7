using Polycline.Core.Json;

namespace Polycline.Core.MarkFiles.Checking;

/// <summary>
/// The second pass over a marking file: whether every id names something of the kind wanted, and is given once. Source: the
/// computation, chapter 13.8, <i>Refusal</i>.
/// </summary>
internal sealed class MarkingNames
{
    private readonly JsonPiece file;
    private readonly FaultList faults;
    private readonly MarkingIndex index;

    private MarkingNames(JsonPiece file, MarkingIndex index, FaultList faults)
    {
        this.file = file;
        this.index = index;
        this.faults = faults;
    }

    public static void Check(JsonPiece file, MarkingIndex index, FaultList faults)
    {
        var names = new MarkingNames(file, index, faults);
        names.CheckOnce();
        names.CheckCourse();
        names.CheckSections();
        names.CheckRows();
    }

    private void CheckOnce()
    {
        var units = file.Each("units").ToList();
        Once(units.Concat(units.SelectMany(unit => unit.Each("items"))).Concat(file.Each("sections")).Select(Id));
        Once(file.Each("students").Select(Id));
        Once(file.Each("scales").Select(Id));
        foreach (var scale in file.Each("scales"))
            Once(scale.Each("levels").Select(Id));
        var rubrics = new HashSet<(string, int)>();
        foreach (var rubric in file.Each("rubrics"))
        {
            if (!rubrics.Add(MarkingIndex.VersionOf(rubric)))
                faults.Add(rubric["version"]!, "this version of the rubric is already given");
            Once(rubric.Each("criteria").Select(Id));
            foreach (var criterion in rubric.Each("criteria"))
                Once(criterion.Each("levels").Select(Id));
        }
        var attempts = new HashSet<(string, string, int)>();
        foreach (var attempt in file.Each("attempts"))
            if (!attempts.Add((attempt["student"]!.Value!, attempt["item"]!.Value!, Forms.WholeOf(attempt["n"]!))))
                faults.Add(attempt["n"]!, "this attempt is already given");
    }

    private void CheckCourse()
    {
        if (file["course"]?["weights"] is { } weights && weights["of"] is { } parts)
            foreach (var part in parts.Members)
                if (weights["by"]!.Value == "unit" ? !index.IsUnit(part.Name) : part.Name is not ("marks" or "practice" or "read"))
                    faults.Add(parts, part, "no unit or purpose has this name");
        foreach (var item in index.Items.Values)
        {
            Students(item.Each("for"));
            if (item["scale"] is { } scale && !index.Scales.ContainsKey(scale.Value!))
                faults.Add(scale, "there is no such scale");
            if (item["rubric"] is { } rubric)
                Rubric(rubric);
            KeyNames.Check(item.Each("questions"), faults);
        }
    }

    private void CheckSections()
    {
        var listed = new HashSet<string>(StringComparer.Ordinal);
        foreach (var section in file.Each("sections"))
        {
            foreach (var skipped in section.Each("skips"))
                Item(skipped);
            foreach (var dated in section["dates"]?.Members ?? [])
                if (!index.Items.ContainsKey(dated.Name))
                    faults.Add(section["dates"]!, dated, "there is no such item");
            foreach (var student in section.Each("students"))
            {
                Student(student["id"]!);
                if (!listed.Add(student["id"]!.Value!))
                    faults.Add(student["id"]!, "a section lists this student already");
            }
        }
    }

    private void CheckRows()
    {
        foreach (var list in new[] { "exceptions", "attempts", "work", "marks", "frees" })
        foreach (var row in file.Each(list))
        {
            Student(row["student"]!);
            Item(row["item"]!);
        }
        foreach (var attempt in file.Each("attempts"))
        {
            var questions = index.QuestionsOf(attempt["item"]!.Value!);
            foreach (var asked in attempt.Each("asked"))
                Question(asked, questions);
            Once(attempt.Each("asked"));
            foreach (var answer in attempt.Each("answers"))
                Question(answer["question"]!, questions);
        }
        foreach (var mark in file.Each("marks"))
        {
            if (mark["question"] is { } question)
                Question(question, index.QuestionsOf(mark["item"]!.Value!));
            if (mark["rubric"] is { } rubric)
                RubricMark(rubric);
        }
        foreach (var correction in file.Each("corrections"))
        {
            Item(correction["item"]!);
            var questions = index.QuestionsOf(correction["item"]!.Value!);
            foreach (var question in correction.Each("questions"))
                Question(question["id"]!, questions);
            KeyNames.Check(correction.Each("questions"), faults);
        }
        foreach (var asked in file.Each("ask"))
        {
            Item(asked["item"]!);
            if (asked["section"] is { } section && !index.IsSection(section.Value!))
                faults.Add(section, "there is no such section");
        }
    }

    private void Rubric(JsonPiece named)
    {
        if (index.Rubrics.ContainsKey(MarkingIndex.VersionOf(named)))
            return;
        var isKnown = index.Rubrics.Keys.Any(known => known.Id == named["id"]!.Value);
        faults.Add(named[isKnown ? "version" : "id"]!, isKnown ? "there is no such version of the rubric" : "there is no such rubric");
    }

    private void RubricMark(JsonPiece made)
    {
        Rubric(made);
        if (!index.Rubrics.TryGetValue(MarkingIndex.VersionOf(made), out var rubric))
            return;
        foreach (var mark in made.Each("levels"))
        {
            var criterion = rubric.Each("criteria").FirstOrDefault(known => known["id"]!.Value == mark["criterion"]!.Value);
            if (criterion is null)
                faults.Add(mark["criterion"]!, "the rubric has no such criterion");
            else if (!criterion.Each("levels").Any(level => level["id"]!.Value == mark["level"]!.Value))
                faults.Add(mark["level"]!, "the criterion has no such level");
        }
        Once(made.Each("levels").Select(mark => mark["criterion"]!));
    }

    private void Students(IEnumerable<JsonPiece> students)
    {
        foreach (var student in students)
            Student(student);
    }

    private void Student(JsonPiece student)
    {
        if (!index.IsStudent(student.Value!))
            faults.Add(student, "there is no such student");
    }

    private void Item(JsonPiece item)
    {
        if (!index.Items.ContainsKey(item.Value!))
            faults.Add(item, "there is no such item");
    }

    // Where the item is no quiz, or unknown, its questions are not looked at.
    private void Question(JsonPiece question, IReadOnlyDictionary<string, JsonPiece>? questions)
    {
        if (questions?.ContainsKey(question.Value!) == false)
            faults.Add(question, "the quiz has no such question");
    }

    private static JsonPiece Id(JsonPiece piece) => piece["id"]!;

    private void Once(IEnumerable<JsonPiece> texts) => KeyNames.Once(texts, faults);
}

/// <summary>What a marking file declares, by its id.</summary>
internal sealed class MarkingIndex
{
    private readonly HashSet<string> units;
    private readonly HashSet<string> sections;
    private readonly HashSet<string> students;
    private readonly Dictionary<string, Dictionary<string, JsonPiece>> questions = new(StringComparer.Ordinal);

    public MarkingIndex(JsonPiece file)
    {
        units = Ids(file.Each("units"));
        sections = Ids(file.Each("sections"));
        students = Ids(file.Each("students"));
        foreach (var item in file.Each("units").SelectMany(unit => unit.Each("items")))
        {
            if (!Items.TryAdd(item["id"]!.Value!, item) || item["questions"] is null)
                continue;
            var own = questions[item["id"]!.Value!] = new(StringComparer.Ordinal);
            foreach (var question in item.Each("questions"))
                own.TryAdd(question["id"]!.Value!, question);
        }
        foreach (var scale in file.Each("scales"))
            Scales.TryAdd(scale["id"]!.Value!, scale);
        foreach (var rubric in file.Each("rubrics"))
            Rubrics.TryAdd(VersionOf(rubric), rubric);
    }

    public Dictionary<string, JsonPiece> Items { get; } = new(StringComparer.Ordinal);

    public Dictionary<string, JsonPiece> Scales { get; } = new(StringComparer.Ordinal);

    public Dictionary<(string Id, int Version), JsonPiece> Rubrics { get; } = [];

    public bool IsUnit(string id) => units.Contains(id);

    public bool IsSection(string id) => sections.Contains(id);

    public bool IsStudent(string id) => students.Contains(id);

    /// <summary>Null: the item is no quiz, or there is no such item.</summary>
    public IReadOnlyDictionary<string, JsonPiece>? QuestionsOf(string item) => questions.GetValueOrDefault(item);

    public static (string Id, int Version) VersionOf(JsonPiece rubric) => (rubric["id"]!.Value!, Forms.WholeOf(rubric["version"]!));

    private static HashSet<string> Ids(IEnumerable<JsonPiece> pieces) => [.. pieces.Select(piece => piece["id"]!.Value!)];
}
