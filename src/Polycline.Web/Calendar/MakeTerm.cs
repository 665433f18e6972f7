using System.Text.Json.Nodes;
using FluentValidation;
using Polycline.Core;
using Polycline.Core.Calendars;
using Polycline.Data.Ledger;
using Polycline.Data.Terms;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;
using Polycline.Web.People;

namespace Polycline.Web.Calendar;

/// <param name="Name">One that no other term has.</param>
/// <param name="Zone">An IANA name.</param>
/// <param name="First">A date.</param>
/// <param name="Last">A date, inclusive, at most 400 days later.</param>
/// <param name="Like">
/// The term whose weekdays, rotation, periods and rule for off days it has; null: an ordinary week without periods.
/// </param>
/// <param name="Marks">Its closures, extra days and special days, all of them new: at most 400.</param>
public sealed record MakeTermRequest(string Name, string Zone, string First, string Last, Id<Term>? Like, IReadOnlyList<DayMark> Marks);

/// <param name="Term">Null in a preview.</param>
public sealed record MakeTermAnswer(bool Applied, Id<Term>? Term) : IAnswer<MakeTermAnswer>
{
    public MakeTermAnswer AsPreview() => new(false, null);
}

/// <summary>Makes a term. Until something stands in it, it can be removed again.</summary>
public sealed class MakeTerm : IWorkCommand<MakeTermRequest, MakeTermAnswer>
{
    public static string Name => "make-term";

    public static May May => May.School;

    public static WorkPlace Place => WorkPlace.School;

    public static IValidator<MakeTermRequest> Validator { get; } = new Rules();

    public static async Task<MakeTermAnswer> Do(WorkContext work, MakeTermRequest request)
    {
        var name = request.Name.Trim();
        if (await TermStore.IsNamed(work.Connection, name))
            throw Problem.Field("name", $"There is a term {name} already. Choose another name.");
        var like = request.Like is { } of ? await TermStore.Read(work.Connection, of) ?? throw Problem.Unknown("like") : null;
        var settings = like is null ? TermForm.PlainWeek : JsonNode.Parse(like.Settings)!.AsObject();
        var term = TermForm.Read(name, request.Zone, request.First, request.Last, settings);
        var made = await TermStore.Add(work.Connection, term, settings.ToJsonString());
        if (request.Marks.Count > 0)
            await Mark(work, made, request.Marks);
        await work.Audit("term-made", new { term = made.Value });
        return new(true, made);
    }

    private static async Task Mark(WorkContext work, Id<Term> made, IReadOnlyList<DayMark> marks)
    {
        var request = new MarkDaysRequest(marks);
        MarkDays.Validator.Hold(request);
        var plan = await TermStore.Read(work.Connection, made) ?? throw Problem.Unknown();
        var decision = MarkDays.Decide(plan, request, work.Viewpoint);
        await LedgerStore.Apply(
            work.Connection,
            new(Scope.Of(made), MarkDays.Name, decision.Words, work.Access.Person.Id, work.Viewpoint.At, null),
            decision.Changes
        );
    }

    private sealed class Rules : AbstractValidator<MakeTermRequest>
    {
        public Rules()
        {
            RuleFor(request => request.Name).IsName();
            RuleFor(request => request.Marks)
                .Must(marks => marks.All(mark => mark is { Id: null, Gone: false }))
                .WithMessage("Every mark of a new term is a new one: leave out its id.");
        }
    }
}
