using Microsoft.AspNetCore.Mvc;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Data;
using Polycline.Data.Files;
using Polycline.Formats.Files;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Foundation.Files;

/// <summary>A request for the bytes of a file.</summary>
/// <param name="Save">Whether the file is to be saved rather than shown.</param>
public sealed record FileAsked(
    HttpContext Http,
    Access Access,
    Viewpoint Viewpoint,
    PlanCache Compiled,
    Database Database,
    [FromQuery(Name = "save")] bool? Save,
    CancellationToken Stop
)
{
    /// <summary>The course as a student may see it, with their work on the item.</summary>
    public Task<StudentCourse> Course(Id<Item> item) => StudentCourse.Read(Access, Viewpoint, Compiled, Database, Stop, item);

    public Task<T> Read<T>(Func<NpgsqlConnection, Task<T>> ask) => Database.Read(ask, Stop);

    /// <exception cref="ProblemException">There is no such file.</exception>
    public IResult Answer(string? name, StoredFile? file) =>
        name is null || file is null ? throw Problem.Unknown() : SendingFiles.Send(Http, Database, name, file, Save == true);

    /// <inheritdoc cref="Answer"/>
    public IResult AnswerPicture(StoredFile? picture) => Answer(picture?.Type == FileTypes.Text ? "picture.svg" : "picture", picture);
}
