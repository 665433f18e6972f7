using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Data.Courses;
using Polycline.Data.Files;
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

    /// <summary>A picture in an item's text, for those who may read the text.</summary>
    public static async Task<IResult> HandlePicture(long section, long item, string picture, [AsParameters] FileAsked asked)
    {
        var body = (await asked.Course(new(item))).See(new Id<Item>(item)).Body;
        return asked.AnswerPicture(await asked.Read(connection => Pictures.Of(connection, body, picture)));
    }

    /// <summary>A file of the student's own work, as long as the item is there for them.</summary>
    public static async Task<IResult> HandleOwnFile(long section, long item, long file, [AsParameters] FileAsked asked)
    {
        var course = await asked.Course(new(item));
        course.See(new Id<Item>(item));
        var found = course.Work.Files.GetValueOrDefault(new Id<WorkFileRow>(file));
        return asked.Answer(found?.Name, found?.Stored);
    }
}
