using FluentValidation;
using NodaTime;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Sections;
using Polycline.Data.Courses;
using Polycline.Data.Work;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Work;

/// <param name="Student">Whose piece it is.</param>
/// <param name="Over">True: it is taken over from a colleague.</param>
/// <param name="Done">True: one reads it no longer.</param>
public sealed record TakeToReadRequest(Id<Item> Item, Id<Person> Student, bool Over = false, bool Done = false);

/// <summary>The colleague who is reading a piece, and when they last wrote on it.</summary>
public sealed record PieceReader(string Name, Moment Since)
{
    internal static PieceReader? Of(ReaderRow? row, DateTimeZone zone) => row is null ? null : new(row.By, Moment.Of(row.Since, zone));
}

/// <param name="Reader">The colleague who reads it; null: oneself, or nobody.</param>
public sealed record TakenToRead(PieceReader? Reader) : IAnswer<TakenToRead>
{
    public TakenToRead AsPreview() => this;
}

/// <summary>
/// Says that one reads a piece, so that no colleague reads it too. It keeps nobody from giving it back, and ends by itself half an hour
/// after one last wrote on it.
/// </summary>
public sealed class TakeToRead : IWorkCommand<TakeToReadRequest, EditionPlan, TakenToRead>
{
    public static string Name => "take-to-read";

    public static May May => May.SectionTeacher;

    public static WorkPlace Place => WorkPlace.Section;

    public static IValidator<TakeToReadRequest> Validator { get; } = new InlineValidator<TakeToReadRequest>();

    public static Task<EditionPlan> Prepare(Access access, PlanCache plans, TakeToReadRequest request) => plans.Edition(access);

    public static async Task<TakenToRead> Do(WorkContext work, EditionPlan plan, TakeToReadRequest request)
    {
        var (connection, me) = (work.Connection, work.Access.Person.Id);
        if (plan.Row(request.Item) is null)
            throw Problem.Unknown("item");
        if (!await ReaderStore.Has(connection, work.Section, request.Item, request.Student))
            throw Problem.Unknown("student");
        if (request.Done)
        {
            await ReaderStore.End(connection, request.Item, request.Student, me);
            return new((PieceReader?)null);
        }
        var (by, name, since) = await ReaderStore.Take(connection, request.Item, request.Student, me, request.Over, work.Viewpoint.At);
        return new(by == me ? null : new PieceReader(name, Moment.Of(since, plan.Term.Zone)));
    }
}
