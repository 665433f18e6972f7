using NodaTime;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Marking;
using Polycline.Core.Sections;

namespace Polycline.Data.Quizzes;

/// <param name="Answer">JSON; <c>null</c>: cleared again.</param>
public sealed record AnswerRow(Id<AttemptRow> Attempt, string Question, string Answer, Instant At);

/// <summary>What somebody gave for an answer that they read.</summary>
/// <param name="N">Which attempt it is of.</param>
/// <param name="By">Their name.</param>
public sealed record AnswerMarkRow(
    Id<Person> Person,
    Id<Item> Item,
    int N,
    string Question,
    decimal Points,
    string Words,
    string By,
    Instant At
)
{
    public Mark Marked(Ref<Item> item) =>
        new(Person.InPlan(), item, At)
        {
            Attempt = N,
            Question = Question,
            Points = Points,
        };
}
