using System.Text.Json;
using FluentValidation;
using Polycline.Core.Courses;
using Polycline.Core.Wording;
using Polycline.Data.Courses;
using Polycline.Data.People;
using Polycline.Data.Work;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Work;

public sealed record ReadyAnswer(string Sentence) : IAnswer<ReadyAnswer>
{
    public ReadyAnswer AsPreview() => this;
}

/// <summary>
/// A piece has been read, and goes back later, with others. Nothing of it is the student's to see until then, and nothing opens.
/// </summary>
public sealed class ReadyMark : IWorkCommand<GiveBackRequest, EditionPlan, ReadyAnswer>
{
    public static string Name => "ready-mark";

    public static May May => May.SectionTeacher;

    public static WorkPlace Place => WorkPlace.Section;

    public static IValidator<GiveBackRequest> Validator { get; } = new GiveBack.Rules();

    public static Task<EditionPlan> Prepare(Access access, PlanCache plans, GiveBackRequest request) => plans.Edition(access);

    public static async Task<ReadyAnswer> Do(WorkContext work, EditionPlan plan, GiveBackRequest request)
    {
        var piece = await PieceInHand.Read(work, plan, request);
        if (piece.IsReturned)
            throw Problem.Field("work", "This piece has already gone back. Put that right instead.");
        await ReadyStore.Put(
            work.Connection,
            request.Work,
            request.N,
            work.Access.Person.Id,
            Words(request.Again, piece.Mark),
            JsonSerializer.Serialize(request, Json.Options),
            work.Viewpoint.At
        );
        await ReaderStore.End(work.Connection, piece.Row, piece.Person, null);
        var name = await AccessStore.NameOf(work.Connection, piece.Person);
        var beside = await ReadyStore.Beside(work.Connection, request.Work, request.N, work.Access.Person.Id);
        return new(
            $"{plan.Schedule.CodeOf[piece.Item.Ref]} is ready for {name}{(piece.Mark is null ? "" : $", {MarkWords.Of(piece.Mark)}")}. "
                + (
                    beside.Count == 0
                        ? "It goes back when you give it back."
                        : $"{Counting.Joined([.. beside.Select(one => $"{one.ByName}’s mark ({one.Words})")], "and")} "
                            + $"{(beside.Count == 1 ? "stands" : "stand")} beside it; choose which counts when it goes back."
                )
        );
    }

    /// <summary>How a piece goes back, such as <c>go on, 8 of 12</c>.</summary>
    internal static string Words(bool again, GivenMark? mark) =>
        (again ? "try again" : "go on") + (mark is null ? "" : $", {MarkWords.Of(mark)}");
}
