using FluentValidation;
using Polycline.Core.MarkFiles;
using Polycline.Core.Wording;
using Polycline.Data.Courses;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Outline.Rubrics;

public sealed record KeepRubricRequest(RubricForm Rubric);

/// <param name="Applied">False if this was only a preview and nothing was written.</param>
/// <param name="Sentence">Whether it is there already, and what else goes by its name.</param>
public sealed record KeepRubricAnswer(bool Applied, string Sentence) : IAnswer<KeepRubricAnswer>
{
    public KeepRubricAnswer AsPreview() => this with { Applied = false };
}

/// <summary>Puts a copy of a rubric on one's shelf: it stays there whatever becomes of the item that had it.</summary>
public sealed class KeepRubric : IWorkCommand<KeepRubricRequest, KeepRubricAnswer>
{
    public static string Name => "keep-rubric";

    public static May May => May.Teacher;

    public static WorkPlace Place => WorkPlace.Oneself;

    public static IValidator<KeepRubricRequest> Validator { get; } = new Rules();

    public static async Task<KeepRubricAnswer> Do(WorkContext work, KeepRubricRequest request)
    {
        var rubric = request.Rubric.Meant().KeepingIds(null);
        var body = new Body(RubricFile.Write(rubric), BodyKind.Rubric);
        var kept = await KeptRubrics.Of(work.Connection, work.Access.Person.Id);
        if (kept.Any(one => one.Hash == body.Hash))
            return new(true, $"“{rubric.Name}” is on your shelf already.");
        if (kept.Count >= KeptRubrics.Most)
            throw Problem.Field("rubric", $"Your shelf holds {KeptRubrics.Most} rubrics. Take one off that you no longer need.");
        await BodyStore.Keep(work.Connection, body);
        await KeptRubrics.Keep(work.Connection, work.Access.Person.Id, body.Hash, work.Viewpoint.At);
        var namesakes = kept.Count(one => string.Equals(one.Rubric.Name, rubric.Name, StringComparison.OrdinalIgnoreCase));
        return new(
            true,
            $"“{rubric.Name}” is on your shelf"
                + (namesakes == 0 ? "." : $", beside {Counting.Counted(namesakes, "other", "others")} of that name.")
        );
    }

    private sealed class Rules : AbstractValidator<KeepRubricRequest>
    {
        public Rules() => RuleFor(request => request.Rubric).SetValidator(new RubricRules());
    }
}
