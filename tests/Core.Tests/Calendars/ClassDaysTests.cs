using System.Collections.Immutable;
using CsCheck;
using NodaTime;
using Polycline.Core.Calendars;
using Shouldly;
using Xunit;
using Period = Polycline.Core.Calendars.Period;

namespace Polycline.Tests.Core.Calendars;

/// <summary>The computation, chapter 1.</summary>
public sealed class ClassDaysTests
{
    private static readonly ImmutableArray<IsoDayOfWeek> MondayToFriday =
    [
        IsoDayOfWeek.Monday,
        IsoDayOfWeek.Tuesday,
        IsoDayOfWeek.Wednesday,
        IsoDayOfWeek.Thursday,
        IsoDayOfWeek.Friday,
    ];

    private static readonly Period Ordinary = new("P1", new(8, 40), new(9, 30));

    private static Term Term(
        Rotation rotation,
        Closure[]? closures = null,
        ExtraDay[]? extra = null,
        SpecialDay[]? special = null,
        int weeks = 3
    ) =>
        new(
            "Autumn",
            DateTimeZoneProviders.Tzdb["Europe/Dublin"],
            new(2026, 8, 31),
            new LocalDate(2026, 8, 31).PlusDays((7 * weeks) - 1),
            new(MondayToFriday, [.. closures ?? []], [.. extra ?? []], rotation, [Ordinary], [.. special ?? []])
        );

    private static string Labels(Term term) => string.Join(' ', ClassDayMaker.Of(term).Select(day => day.Label));

    [Fact]
    public void In_a_weekly_rotation_the_label_is_the_weekday() =>
        Labels(Term(new Rotation.Weekly(), weeks: 1)).ShouldBe("mon tue wed thu fri");

    [Fact]
    public void An_extra_day_beats_weekday_and_closure_and_takes_the_label_of_its_own_weekday() =>
        Labels(
                Term(
                    new Rotation.Weekly(),
                    [new(new(2026, 9, 1), new(2026, 9, 3), "away")],
                    [new(new(2026, 9, 2), "back"), new(new(2026, 9, 5), "open day")],
                    weeks: 1
                )
            )
            .ShouldBe("mon wed fri sat");

    [Fact]
    public void Closures_and_extra_days_outside_the_term_have_no_effect() =>
        Labels(Term(new Rotation.Weekly(), [new(new(2026, 8, 1), new(2026, 8, 31), "summer")], [new(new(2026, 12, 1), "late")], weeks: 1))
            .ShouldBe("tue wed thu fri");

    [Theory]
    [InlineData(false, "A-mon A-fri C-mon C-fri")]
    [InlineData(true, "A-mon A-fri B-mon B-fri")]
    public void A_week_without_class_days_takes_a_letter_by_calendar_and_none_by_teaching(bool teachingOnly, string expected)
    {
        var term = Term(
            new Rotation.ByWeeks(["A", "B", "C"], teachingOnly),
            [
                new(new(2026, 9, 1), new(2026, 9, 3), ""),
                new(new(2026, 9, 7), new(2026, 9, 13), ""),
                new(new(2026, 9, 15), new(2026, 9, 17), ""),
            ]
        );
        Labels(term).ShouldBe(expected);
    }

    [Theory]
    [InlineData(false, "1 2 3 1 2")]
    [InlineData(true, "1 2 2 3 1")]
    public void A_closed_day_consumes_a_label_only_where_closures_count(bool count, string expected) =>
        Labels(
                Term(
                    new Rotation.ByDays(["1", "2", "3"], count),
                    [new(new(2026, 9, 2), new(2026, 9, 3), "")],
                    [new(new(2026, 9, 5), "sat"), new(new(2026, 9, 6), "sun")],
                    weeks: 1
                )
            )
            .ShouldBe(expected);

    [Fact]
    public void Before_the_first_class_day_nothing_consumes_a_label() =>
        Labels(Term(new Rotation.ByDays(["1", "2"], ClosuresCount: true), [new(new(2026, 8, 31), new(2026, 9, 1), "")], weeks: 1))
            .ShouldBe("1 2 1");

    [Fact]
    public void A_special_day_runs_another_label_and_in_a_rotation_of_days_consumes_none()
    {
        SpecialDay tuesday = new(new(2026, 9, 1), "3", null, null);
        Labels(Term(new Rotation.ByDays(["1", "2", "3"], false), special: [tuesday], weeks: 1)).ShouldBe("1 3 2 3 1");
    }

    [Theory]
    [InlineData("mon", "B-mon")]
    [InlineData("A-fri", "A-fri")]
    public void In_a_rotation_of_weeks_a_bare_weekday_takes_the_letter_of_the_days_own_week(string runs, string expected) =>
        ClassDayMaker
            .Of(Term(new Rotation.ByWeeks(["A", "B"], false), special: [new(new(2026, 9, 8), runs, null, null)]))
            .Single(day => day.Date == new LocalDate(2026, 9, 8))
            .Label.ShouldBe(expected);

    [Fact]
    public void A_special_day_has_its_own_periods_an_empty_list_means_none_and_on_no_class_day_it_sleeps()
    {
        var late = new Period("P1", new(10, 0), new(10, 40));
        var days = ClassDayMaker.Of(
            Term(
                new Rotation.Weekly(),
                special:
                [
                    new(new(2026, 9, 1), null, [late], "late start"),
                    new(new(2026, 9, 2), null, [], "sports"),
                    new(new(2026, 9, 5), "mon", null, "Saturday"),
                ],
                weeks: 1
            )
        );
        days.Select(day => day.Periods.FirstOrDefault()).ShouldBe([Ordinary, late, null, Ordinary, Ordinary]);
    }

    [Fact]
    public void The_stored_form_reads_as_the_calendar_it_is()
    {
        var calendar = Polycline.Core.PlanFiles.PlanParts.Calendar(
            """
            { "weekdays": ["mon", "thu"], "closures": [{ "from": "2026-09-18", "to": "2026-09-19", "name": "Staff day" }],
              "rotation": { "kind": "weeks", "labels": ["A", "B"], "count": "calendar" },
              "periods": [{ "name": "P1", "start": "08:40", "end": "09:30" }],
              "specialDays": [{ "date": "2026-10-09", "name": "Late start", "periods": [] }] }
            """
        );
        calendar.Weekdays.ShouldBe([IsoDayOfWeek.Monday, IsoDayOfWeek.Thursday]);
        calendar.Closures.ShouldBe([new Closure(new(2026, 9, 18), new(2026, 9, 19), "Staff day")]);
        calendar.ExtraDays.ShouldBeEmpty();
        calendar.Rotation.ShouldBeOfType<Rotation.ByWeeks>().Labels.ShouldBe(["A", "B"]);
        calendar.Periods.ShouldBe([Ordinary]);
        calendar.SpecialDays.Single().Periods!.Value.ShouldBeEmpty();
    }

    [Fact]
    public void Whatever_the_term_class_days_rise_lie_in_it_and_are_closed_only_where_extra()
    {
        var closures = Gen.Select(Gen.Int[-5, 60], Gen.Int[0, 9])
            .Select(at => new Closure(Day(at.Item1), Day(at.Item1 + at.Item2), ""))
            .Array[0, 4];
        var extra = Gen.Int[-5, 60].Select(at => new ExtraDay(Day(at), "")).Array[0, 4];
        Rotation[] every =
        [
            new Rotation.Weekly(),
            new Rotation.ByWeeks(["A", "B"], true),
            new Rotation.ByWeeks(["A", "B", "C"], false),
            new Rotation.ByDays(["1", "2", "3", "4"], false),
            new Rotation.ByDays(["1", "2"], true),
        ];
        var rotation = Gen.Int[0, every.Length - 1].Select(n => every[n]);
        Gen.Select(closures, extra, rotation, Gen.Int[1, 7])
            .Sample(
                (closed, extras, turn, weeks) =>
                {
                    var term = Term(turn, closed, extras, weeks: weeks);
                    var days = ClassDayMaker.Of(term);
                    var dates = days.Select(day => day.Date).ToList();
                    dates.ShouldBe(dates.Distinct().Order());
                    dates.ShouldAllBe(date =>
                        term.First <= date
                        && date <= term.Last
                        && !(closed.Any(closure => closure.Covers(date)) && extras.All(one => one.Date != date))
                    );
                    days.ShouldAllBe(day => day.Label.Length > 0);
                    ClassDayMaker.Weeks(term).Length.ShouldBe(weeks);
                }
            );

        static LocalDate Day(int at) => new LocalDate(2026, 8, 31).PlusDays(at);
    }
}
