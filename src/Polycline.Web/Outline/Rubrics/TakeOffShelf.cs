using Polycline.Core;
using Polycline.Data.Courses;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.Outline.Rubrics;

public sealed record TakeOffShelfRequest(Id<KeptRubric> Kept);

/// <summary>Takes a rubric off one's shelf. Items that are marked by it stay as they are.</summary>
public sealed class TakeOffShelf : IWorkCommand<TakeOffShelfRequest, DoneAnswer>
{
    public static string Name => "take-off-shelf";

    public static May May => May.Teacher;

    public static WorkPlace Place => WorkPlace.Oneself;

    public static async Task<DoneAnswer> Do(WorkContext work, TakeOffShelfRequest request)
    {
        var person = work.Access.Person.Id;
        if ((await KeptRubrics.Of(work.Connection, person)).All(one => one.Id != request.Kept))
            throw Problem.Unknown("kept");
        await KeptRubrics.TakeOff(work.Connection, person, request.Kept);
        return new();
    }
}
