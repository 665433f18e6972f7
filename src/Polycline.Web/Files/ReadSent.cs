using Polycline.Data.Files;
using Polycline.Web.Foundation.Files;

namespace Polycline.Web.Files;

/// <summary>A file that somebody has sent and not used yet. Nobody else can see it.</summary>
public static class ReadSent
{
    public static async Task<IResult> Handle(Guid upload, [AsParameters] FileAsked asked)
    {
        var sent = (await asked.Read(connection => UploadStore.Sent(connection, [upload]))).SingleOrDefault(file =>
            file.Person == asked.Viewpoint.Who.Id
        );
        return sent is null ? throw ReadUpload.Gone() : asked.Answer(sent.Name, sent.Stored);
    }
}
