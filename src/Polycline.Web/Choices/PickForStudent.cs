using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Sections;
using Polycline.Core.Wording;
using Polycline.Data.Choices;
using Polycline.Data.Courses;
using Polycline.Data.People;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Foundation.Reading;
using Polycline.Web.Work;

namespace Polycline.Web.Choices;

/// <param name="Options">All that is picked from now on; empty: nothing.</param>
public sealed record PickForStudentRequest(Id<Item> Item, Id<Person> Student, IReadOnlyList<string> Options);

/// <summary>Picks for a student, whether or not there is room or time left. That it was a teacher stays with the pick.</summary>
public sealed class PickForStudent : IWorkCommand<PickForStudentRequest, EditionPlan, PickedAnswer>
{
    public static string Name => "pick-for-student";

    public static May May => May.SectionTeacher;

    public static WorkPlace Place => WorkPlace.Section;

    public static Task<EditionPlan> Prepare(Access access, PlanCache plans, PickForStudentRequest request) => plans.Edition(access);

    public static async Task<PickedAnswer> Do(WorkContext work, EditionPlan plan, PickForStudentRequest request)
    {
        var (connection, at) = (work.Connection, work.Viewpoint.At);
        var choice = Picks.Of(plan, request.Item);
        var picks = await Picks.Read(connection, plan, work.Section, request.Item, at, locked: true);
        if (!picks.Students.Contains(request.Student))
            throw Problem.Unknown("student");
        picks.Check(request.Options);
        var name = await AccessStore.NameOf(connection, request.Student) ?? "";
        var over = request
            .Options.Except(picks.By(request.Student))
            .Where(option => picks.RoomIn(option) == 0)
            .Select(option => $"“{choice.TitleOf(option)}” is full already; {name} gets it all the same.");
        var had = picks.By(request.Student);
        var before = await OpensBy.Open(connection, plan, [request.Student], at);
        if (!await picks.Turn(connection, request.Item, work.Section, request.Student, request.Options, work.Access.Person.Id, work.Key))
            return new(false, [], [], $"{name} has picked that already.");
        // Whatever they came by otherwise, they wait for no longer; what they had may be somebody else’s now.
        await QueueStore.Leave(connection, request.Item, request.Student, [.. request.Options, .. had.Except(request.Options)]);
        var moved = await OptionQueue.MoveUp(connection, plan, work.Section, request.Item, at);
        var names = await AccessStore.NamesOf(connection, [.. moved.Select(one => one.Student)]);
        var up = moved.Select(one => $"{names[one.Student]} was in the queue for “{choice.TitleOf(one.Option)}” and gets it.");
        var after = await OpensBy.Open(connection, plan, [request.Student], at);
        var (was, becomes) = (before[request.Student], after[request.Student]);
        var told = OpensBy.Told(plan, new Dictionary<Id<Person>, string> { [request.Student] = name }, before, after).ToList();
        return new(
            true,
            OpensBy.Since(plan, was, becomes),
            OpensBy.Since(plan, becomes, was),
            string.Join(
                ' ',
                [
                    request.Options.Count == 0
                        ? $"{name} has picked nothing."
                        : $"{name} has {Counting.Joined([.. request.Options.Select(option => $"“{choice.TitleOf(option)}”")], "and")}.",
                    .. over,
                    .. up,
                    .. told.Count == 0 ? ["Nothing depends on it yet."] : told,
                ]
            )
        );
    }
}
