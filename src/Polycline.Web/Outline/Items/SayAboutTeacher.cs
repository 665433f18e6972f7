using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Data.Courses;
using Polycline.Data.Ledger;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.Outline.Items;

/// <param name="AboutTeacher">Whether its text speaks of whoever teaches.</param>
/// <param name="Version">The version of the item that was read.</param>
public sealed record SayAboutTeacherRequest(Id<Item> Item, bool AboutTeacher, long Version);

/// <summary>
/// Says that a text speaks of whoever teaches: of the person who says so. Where they are no longer on the team, Today points it out.
/// </summary>
public sealed class SayAboutTeacher : IPlanningCommand<EditionPlan, SayAboutTeacherRequest>
{
    public static string Name => "say-about-teacher";

    public static CommandDecision Decide(EditionPlan plan, SayAboutTeacherRequest request, Viewpoint viewpoint)
    {
        var item = plan.Item(request.Item) ?? throw Problem.Unknown("item");
        if (request.AboutTeacher && item.Kind is ItemKind.Choice or ItemKind.Quiz)
            throw Problem.Field("aboutTeacher", $"A {Core.Wording.EnumNames.Of(item.Kind)} has no text that could be about the teacher.");
        var whom = plan.Row(item.Ref).AboutWhom;
        Id<Core.Sections.Person>? now = request.AboutTeacher ? viewpoint.Who.Id : null;
        Turn[] turns = [Tables.Items.AboutTeacher.Turns(item.AboutTeacher, request.AboutTeacher), Tables.Items.AboutWhom.Turns(whom, now)];
        return turns.Any(turn => turn.Changes)
            ? new(
                request.AboutTeacher
                    ? $"said that “{item.Title}” is about its teacher"
                    : $"said that “{item.Title}” is not about its teacher",
                [Change.Set(Tables.Items.Table, request.Item, request.Version, turns)]
            )
            : new($"left “{item.Title}” as it is", []);
    }
}
