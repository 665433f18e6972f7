using NodaTime;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Marking;
using Polycline.Core.Release;
using Polycline.Core.Sections;
using Polycline.Core.Wording;
using Polycline.Data;
using Polycline.Data.Courses;
using Polycline.Data.Rosters;
using Polycline.Data.Scores;
using Polycline.Data.Settings;
using Polycline.Formats.Rosters;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Scores;

/// <summary>
/// The scores as a results file for other systems (OneRoster). Students and sections are named as the roster names them; those that came by
/// no roster by ids of Polycline's own.
/// </summary>
public static class ReadResults
{
    public static async Task<IResult> Handle(
        long edition,
        long? section,
        Access access,
        Viewpoint viewpoint,
        PlanCache compiled,
        Database database,
        CancellationToken stop
    )
    {
        viewpoint.NeedsTeam("Scores");
        var plan = await compiled.Edition(access);
        var (rows, keys, school) = await database.Read(
            async connection =>
                (
                    await ScoreStore.Read(connection, plan, access.Person.Id, access.IsLead, viewpoint.At),
                    await RosterStore.Keys(connection, plan.Id),
                    await SettingStore.SchoolName(connection)
                ),
            stop
        );
        var sections = rows.Students.Select(place => place.Section).Distinct().ToList();
        if (section is { } only)
            sections = sections.Contains(new(only)) ? [new(only)] : throw Problem.Unknown();
        return Results.File(new ResultFile(plan, rows, keys, viewpoint.At).Of(school, sections), "application/zip", "results.zip");
    }

    private sealed class ResultFile(EditionPlan plan, ScoreRows rows, RosterKeys keys, Instant at)
    {
        private readonly ScoreCells cells = new(rows.Marks, at, plan.Term.Zone);
        private readonly LocalDate today = plan.Term.Local(at).Date;

        public byte[] Of(string school, IReadOnlyList<Id<Section>> sections)
        {
            var marked = rows.Marks.Course.Items.Where(place => MostOf(place.Item) is not null).Select(place => place.Item).ToList();
            return OneRosterResults.Write(
                school,
                Enum.GetValues<Purpose>().Select(purpose => new ResultCategory(EnumNames.Of(purpose), ScoreWords.Of(purpose))),
                sections.SelectMany(section => marked.Where(item => IsThere(section, item)).Select(item => ItemOf(section, item))),
                sections.SelectMany(section => marked.Where(item => IsThere(section, item)).SelectMany(item => ResultsOf(section, item)))
            );
        }

        private static string IdOf(Id<Section> section, long item) => $"polycline-item-{item}-section-{section}";

        private bool IsThere(Id<Section> section, MarkedItem item) =>
            plan.Schedule.Section(section.InPlan()).Item(item.Item) is { Item: { Skipped: false, Published: true } };

        private ResultItem ItemOf(Id<Section> section, MarkedItem item)
        {
            var dates = plan.Schedule.Section(section.InPlan()).Item(item.Item)?.Dates;
            var known = plan.Schedule.Item(item.Item);
            return new(
                IdOf(section, plan.Row(item.Item).Id),
                $"{plan.Schedule.CodeOf[item.Item]} {known.Title}",
                DayOf(dates?.Opens.At) ?? plan.Term.First,
                DayOf(dates?.Due.At) ?? plan.Term.Last,
                keys.Sections.GetValueOrDefault(section, $"polycline-section-{section}"),
                EnumNames.Of(item.Purpose),
                $"polycline-term-{plan.TermId}",
                MostOf(item)!.Value
            );
        }

        private IEnumerable<StudentResult> ResultsOf(Id<Section> section, MarkedItem item)
        {
            var (row, known) = (plan.Row(item.Item).Id, plan.Schedule.Item(item.Item));
            foreach (var (_, person, _) in rows.Students.Where(place => place.Section == section))
            {
                var student = person.InPlan();
                if (rows.Marks.Course.SectionOf(student)?.Section != section.InPlan())
                    continue;
                var score = rows.Marks.Course.Score(student, item.Item);
                var cell = cells.Of(student, known);
                ResultStatus? status =
                    score?.Share is not null && cell.Tone == "score" ? ResultStatus.FullyGraded
                    : cell.Tone == "to-read" ? ResultStatus.Submitted
                    : cell.Words == "excused" ? ResultStatus.Exempt
                    : cell.Words == "overdue" ? ResultStatus.NotSubmitted
                    : null;
                if (status is { } stands)
                    yield return new(
                        $"{IdOf(section, row)}-student-{person}",
                        IdOf(section, row),
                        keys.People.GetValueOrDefault(person, $"polycline-person-{person}"),
                        stands,
                        score?.Points?.Rounded(2),
                        DayOf(ScoredAt(student, item.Item)) ?? today
                    );
            }
        }

        private Instant? ScoredAt(Ref<Core.Courses.Student> student, Ref<Item> item) =>
            rows.Marks.Record(student).Facts.On(item, at).LastOrDefault(fact => fact.Event is FactEvent.Scored or FactEvent.Returned)?.At;

        private LocalDate? DayOf(Instant? moment) => moment is { } when ? plan.Term.Local(when).Date : null;

        // Null: no number says how good something of it is.
        private decimal? MostOf(MarkedItem item) =>
            item switch
            {
                MarkedItem.MarkedQuiz quiz => rows.Marks.Course.Keys[quiz.Item].OutOf(rows.Marks.Course.Keys[quiz.Item].At(at))
                    is { Sign: > 0 } most
                    ? most.Rounded(2)
                    : null,
                MarkedItem.MarkedTask { Score: TaskScore.None } or MarkedItem.MarkedTask { Scale.HasPercents: false } => null,
                MarkedItem.MarkedTask task => task.OutOf.Rounded(2),
                _ => null,
            };
    }
}
