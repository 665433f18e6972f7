using System.Data;
using FluentValidation;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Release;
using Polycline.Core.Sections;
using Polycline.Core.Wording;
using Polycline.Data.Courses;
using Polycline.Data.People;
using Polycline.Data.Students;
using Polycline.Data.Work;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Work;

/// <param name="N">The hand-in that was read.</param>
/// <param name="Text">The feedback, up to 20,000 characters; it may be empty.</param>
/// <param name="Again">True: to try again. False: to go on, which opens what hangs on it.</param>
public sealed record GiveBackRequest(Id<PieceRow> Work, int N, string Text, bool Again);

/// <param name="Given">False if this was only a preview and nothing was written.</param>
/// <param name="Opens">What opens for the student by it.</param>
public sealed record GiveBackAnswer(bool Given, string Name, IReadOnlyList<string> Opens, string Sentence) : IAnswer<GiveBackAnswer>
{
    public GiveBackAnswer AsPreview() => this with { Given = false };
}

/// <summary>Gives a piece of work back. It cannot be taken back: the student may have read it.</summary>
public sealed class GiveBack : IWorkCommand<GiveBackRequest, EditionPlan, GiveBackAnswer>
{
    private const int Longest = 20_000;

    public static string Name => "give-back";

    public static May May => May.SectionTeacher;

    public static WorkPlace Place => WorkPlace.Section;

    public static IValidator<GiveBackRequest> Validator { get; } = new Rules();

    public static Task<EditionPlan> Prepare(Access access, PlanCache plans, GiveBackRequest request) => plans.Edition(access);

    public static async Task<GiveBackAnswer> Do(WorkContext work, EditionPlan plan, GiveBackRequest request)
    {
        var (connection, viewpoint, section) = (work.Connection, work.Viewpoint, work.Section);
        var piece = await WorkStore.Latest(connection, section, request.Work) ?? throw Problem.Unknown("work");
        if (piece.N != request.N)
            throw Problem.Changed(new("n", $"{request.N}", $"{piece.N}", piece.N, null, null));
        var item =
            plan.Row(piece.Item) is { } row && plan.Schedule.Knows(new(row.Lineage))
                ? plan.Schedule.Item(new(row.Lineage))
                : throw Problem.Unknown("work");
        var before = await Open(connection, plan, piece.Person, viewpoint);
        await WorkStore.GiveBack(
            connection,
            request.Work,
            request.N,
            piece.Person,
            piece.Item,
            section,
            work.Access.Person.Id,
            request.Text.Trim(),
            request.Again,
            viewpoint.At,
            work.Key
        );
        var after = await Open(connection, plan, piece.Person, viewpoint);
        var name = await AccessStore.NameOf(connection, piece.Person) ?? "";
        var opens = after
            .Where(opened => !before.Contains(opened))
            .Select(opened => $"{plan.Schedule.CodeOf[opened]} {plan.Schedule.Item(opened).Title}")
            .ToList();
        var code = plan.Schedule.CodeOf[item.Ref];
        return new(
            true,
            name,
            opens,
            request.Again ? $"{code} goes back to {name} to try again; nothing opens."
                : opens.Count == 0 ? $"{code} goes back to {name}; nothing depends on it."
                : $"{code} goes back to {name}, for whom {Counting.Joined(opens, "and")} {(opens.Count == 1 ? "opens" : "open")}."
        );
    }

    // What the student can read or work on, in reading order.
    private static async Task<List<Ref<Item>>> Open(NpgsqlConnection connection, EditionPlan plan, Id<Person> person, Viewpoint viewpoint)
    {
        var (records, _) = await StudentStore.Read(connection, plan, [person], viewpoint.At);
        return [.. new Sights(plan.Schedule, records[person]).At(viewpoint.At).Where(sight => sight.MayRead).Select(sight => sight.Item)];
    }

    private sealed class Rules : AbstractValidator<GiveBackRequest>
    {
        public Rules() =>
            RuleFor(request => request.Text)
                .MaximumLength(Longest)
                .WithMessage($"This is too long: {Longest:N0} characters at most. Make it shorter.");
    }
}
