using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Data.Choices;
using Polycline.Data.Courses;
using Polycline.Data.Files;
using Polycline.Data.Quizzes;
using Polycline.Web.Foundation.Files;

namespace Polycline.Web.Student;

/// <summary>The files a student may read, at the moment they look at.</summary>
public static class ReadFiles
{
    /// <summary>A file of an item, for those who may read the item.</summary>
    public static async Task<IResult> HandleFile(long section, long item, long file, [AsParameters] FileAsked asked)
    {
        var course = await asked.Course(new(item));
        var found = course.Files(course.See(new Id<Item>(item))).FirstOrDefault(one => one.Id.Value == file);
        return asked.Answer(found?.Name, found?.Stored);
    }

    /// <summary>
    /// A picture in an item's text, for those who may read the text; one of an option of a choice; or one in a question that was put to
    /// them.
    /// </summary>
    public static async Task<IResult> HandlePicture(long section, long item, string picture, [AsParameters] FileAsked asked)
    {
        var course = await asked.Course(new(item));
        var sight = course.See(new Id<Item>(item));
        return asked.AnswerPicture(
            await asked.Read(async connection =>
                await Pictures.Of(connection, sight.Body, picture)
                ?? await Pictures.Of(connection, OptionPictures.Kept(course.Offered(sight))?.Hash, picture)
                ?? (course.Student is { } student ? await Pictures.Put(connection, new(item), student, picture) : null)
            )
        );
    }

    /// <summary>A file of the student's own work, as long as the item is there for them.</summary>
    public static async Task<IResult> HandleOwnFile(long section, long item, long file, [AsParameters] FileAsked asked)
    {
        var course = await asked.Course(new(item));
        course.See(new Id<Item>(item));
        var found = course.Work.Files.GetValueOrDefault(new Id<WorkFileRow>(file))
            ?? (
                course.Student is { } student
                    ? await asked.Read(connection => AnswerFiles.OfStudent(connection, student, new(item), new(file)))
                    : null
            );
        return asked.Answer(found?.Name, found?.Stored);
    }
}
