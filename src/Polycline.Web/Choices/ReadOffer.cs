using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Data;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Choices;

/// <param name="Picks">How many can be picked at once.</param>
/// <param name="MayPick">Whether they can pick now.</param>
/// <param name="IsFinal">Whether what is picked stays picked.</param>
public sealed record OfferAnswer(int Picks, bool MayPick, bool IsFinal, IReadOnlyList<OfferLine> Options);

/// <param name="Option">What a pick names.</param>
/// <param name="Room">For how many more there is room; null: for any number.</param>
/// <param name="By">Whoever picked it for them; null: they themselves, or it is not picked.</param>
/// <param name="Picture">Null: none.</param>
public sealed record OfferLine(
    string Option,
    string Title,
    string Words,
    OptionPictureForm? Picture,
    int? Room,
    bool IsPicked,
    string? By,
    OfferWait Queue
);

/// <summary>The queue for an option that is full.</summary>
/// <param name="Waiting">How many are in it.</param>
/// <param name="Place">The student’s place, from 1; null: they are not in it.</param>
/// <param name="CameUpAt">When the student got the option from its queue; null: they got it otherwise, or do not have it.</param>
public sealed record OfferWait(int Waiting, int? Place, Moment? CameUpAt);

/// <summary>A choice as a student has it: what is offered, for how many there is room, and what they picked.</summary>
public static class ReadOffer
{
    public static async Task<OfferAnswer> Handle(
        long section,
        long item,
        Access access,
        Viewpoint viewpoint,
        PlanCache compiled,
        Database database,
        CancellationToken stop
    )
    {
        var course = await StudentCourse.Read(access, viewpoint, compiled, database, stop, new(item));
        var sight = course.See(new Id<Item>(item));
        if (sight.Kind != ItemKind.Choice || !sight.MayRead)
            throw Problem.Unknown();
        var plan = await compiled.Edition(access);
        var choice = Picks.Of(plan, new(item));
        var (picks, queue) = await database.Read(
            async connection =>
            {
                var picks = await Picks.Read(connection, plan, new(section), new(item), course.At);
                return (picks, await OptionQueue.Read(connection, plan, new(section), new(item), picks));
            },
            stop
        );
        var own = course.Student is { } picker ? picks.By(picker) : [];
        var by = course.Student is { } who ? picks.LastOf(who)?.By : null;
        return new(
            choice.Picks,
            course.Student is not null && PickOptions.IsOpen(sight),
            choice.Offered?.IsFinal == true,
            [.. choice.Options.Select(option => LineOf(option, choice.Offered?.Options.FirstOrDefault(one => one.Option == option)))]
        );

        OfferLine LineOf(string option, OfferedOption? offered) =>
            new(
                option,
                choice.TitleOf(option),
                offered?.Words ?? "",
                OptionPictureForm.Of(offered?.Picture, $"/api/sections/{section}/items/{item}"),
                picks.RoomIn(option),
                own.Contains(option),
                own.Contains(option) ? by : null,
                Queue(option)
            );

        OfferWait Queue(string option)
        {
            var waiting = queue.For(option);
            return course.Student is not { } student
                ? new(waiting.Count, null, null)
                : new(
                    waiting.Count,
                    waiting.Contains(student) ? 1 + waiting.TakeWhile(before => before != student).Count() : null,
                    own.Contains(option) ? Moment.Of(queue.CameUp(student, option), plan.Term.Zone) : null
                );
        }
    }
}
