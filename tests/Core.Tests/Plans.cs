using System.Collections.Immutable;
using System.Text;
using System.Text.Json;
using NodaTime;
using Polycline.Core;
using Polycline.Core.Calendars;
using Polycline.Core.Courses;
using Polycline.Core.Json;
using Polycline.Core.PlanFiles;
using Polycline.Core.Planning;
using Polycline.Core.Release;
using Polycline.Core.Sections;

namespace Polycline.Tests.Core;

/// <summary>Small plans for tests: a fortnight of Mondays and Wednesdays unless something else is said.</summary>
internal static class Plans
{
    public static readonly Term Fortnight = new(
        "Autumn",
        DateTimeZoneProviders.Tzdb["Europe/Dublin"],
        new(2026, 9, 7),
        new(2026, 9, 18),
        new(
            [IsoDayOfWeek.Monday, IsoDayOfWeek.Tuesday, IsoDayOfWeek.Wednesday, IsoDayOfWeek.Thursday, IsoDayOfWeek.Friday],
            [],
            [],
            new Rotation.Weekly(),
            [new("P1", new(8, 40), new(9, 40))],
            []
        )
    );

    public static readonly ImmutableArray<Slot> Twice = [new Slot.InPeriods("mon", ["P1"]), new Slot.InPeriods("wed", ["P1"])];

    public static Edition Edition(params Unit[] units) =>
        new("Weather", Basis.Meetings, 10, CodeStyle.ByUnit, BeforeOpening.Listed, [.. units]);

    public static Unit Unit(string id, params Lesson[] lessons) => new(new(id), $"Unit {id}", [.. lessons], []);

    public static Lesson Lesson(string id, int length, params Item[] items) => new(new(id), $"Lesson {id}", length, [.. items]);

    public static Item Task(string id, Anchor? opens = null, Anchor? due = null, GateNode? gate = null, Anchor? closes = null) =>
        new()
        {
            Ref = new(id),
            Kind = ItemKind.Task,
            Title = $"Task {id}",
            Opens = opens,
            Due = due,
            Closes = closes,
            Gate = gate is null ? null : new(gate),
        };

    public static Section Section(string id, params Adjustment[] adjustments) =>
        new(new(id), $"Section {id}", Twice, [], [.. adjustments], [], [], [new(new("p1"))]);

    public static PlanSchedule Schedule(Edition edition, params Section[] sections) =>
        PlanSchedule.Of(TermDays.Of(Fortnight), edition, [.. sections]);

    public static StudentRecord Student(string section, params Fact[] facts) =>
        new(
            new("p1"),
            new HashSet<string>(),
            null,
            [(new(section), new(new("p1")))],
            new Dictionary<Ref<Item>, ForOneStudent>(),
            new(facts)
        );

    /// <summary>What the command line would answer.</summary>
    public static JsonElement Answer(ReadOnlySpan<byte> text)
    {
        using var stream = new MemoryStream();
        using (var json = new Utf8JsonWriter(stream))
        {
            try
            {
                PlanAnswer.Write(PlanFile.Read(text), json);
            }
            catch (FileRefusedException refusal)
            {
                refusal.Write(json);
            }
        }
        return JsonSerializer.Deserialize<JsonElement>(Encoding.UTF8.GetString(stream.ToArray()));
    }

    public static string? PathOf(string text) =>
        Answer(Encoding.UTF8.GetBytes(text)).TryGetProperty("error", out var error) ? error.GetProperty("path").GetString() : null;
}
