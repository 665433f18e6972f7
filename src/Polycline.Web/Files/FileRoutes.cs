using Microsoft.AspNetCore.Mvc;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Files;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.Files;

/// <summary>Uploads, whatever the files are for.</summary>
public static class FileRoutes
{
    public static void MapFiles(this IEndpointRouteBuilder routes)
    {
        routes.MapGet("/api/me/room", ReadRoom.Handle).WithName("room").For(May.SignedIn);
        routes.MapGet("/api/me/uploads/{upload:guid}", ReadUpload.Handle).WithName("upload").For(May.SignedIn).ProducesProblems(404);
        routes
            .MapGet("/api/me/uploads/{upload:guid}/bytes", ReadSent.Handle)
            .WithName("sent-file")
            .SendsBytes()
            .For(May.SignedIn)
            .ProducesProblems(404);
        routes
            .MapPut("/api/me/uploads/{upload:guid}", SendPiece.Handle)
            .WithName("send-piece")
            .WithMetadata(new RequestSizeLimitAttribute(FileLimits.Piece))
            .For(May.SignedIn)
            .ProducesProblems(404, 422);
        routes.MapWork<BeginUpload, BeginUploadRequest, UploadAnswer>();
        routes.MapWork<FinishUpload, UploadRequest, SentFileAnswer>();
        routes.MapWork<CancelUpload, UploadRequest, DoneAnswer>();
    }
}
