using FluentValidation;
using Polycline.Data;
using Polycline.Data.Files;
using Polycline.Formats.Files;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Files;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.Files;

/// <param name="Largest">The largest file they can send, in bytes.</param>
/// <param name="Room">How many bytes all their files together can have.</param>
/// <param name="Taken">How many of those bytes are taken.</param>
/// <param name="Piece">How many bytes to send at a time.</param>
public sealed record RoomAnswer(long Largest, long Room, long Taken, int Piece);

/// <summary>Tells somebody how much they can send, before they do.</summary>
public static class ReadRoom
{
    public static async Task<RoomAnswer> Handle(
        Access access,
        Viewpoint viewpoint,
        FileRules files,
        Database database,
        CancellationToken stop
    ) =>
        new(
            files.Limits.Largest(access.IsTeacher),
            files.Limits.Room(access.IsTeacher),
            await database.Read(connection => UploadStore.RoomTaken(connection, viewpoint.Who.Id), stop),
            FileLimits.Piece
        );
}

/// <param name="Name">What the file is called, up to 200 characters.</param>
/// <param name="Size">In bytes; known before it is sent.</param>
public sealed record BeginUploadRequest(string Name, long Size);

/// <param name="Received">How many bytes have arrived: the next piece begins there.</param>
public sealed record UploadAnswer(Guid Upload, string Name, long Size, long Received) : IAnswer<UploadAnswer>
{
    public UploadAnswer AsPreview() => this with { Upload = Guid.Empty };
}

/// <summary>Starts an upload, once it is clear that the file can be sent at all.</summary>
public sealed class BeginUpload : IWorkCommand<BeginUploadRequest, UploadAnswer>
{
    private const int MostUnfinished = 200;

    public static string Name => "begin-upload";

    public static May May => May.SignedIn;

    public static WorkPlace Place => WorkPlace.Oneself;

    public static IValidator<BeginUploadRequest> Validator { get; } = new Rules();

    public static async Task<UploadAnswer> Do(WorkContext work, BeginUploadRequest request)
    {
        var (limits, teacher) = (work.Files.Limits, work.Access.IsTeacher);
        if (request.Size > limits.Largest(teacher))
            throw Problem.Field(
                "size",
                $"“{request.Name}” is too large. A file can have up to {FileLimits.InWords(limits.Largest(teacher))}."
            );
        var left = limits.Room(teacher) - await UploadStore.RoomTaken(work.Connection, work.Access.Person.Id);
        if (request.Size > left)
            throw Problem.Field(
                "size",
                $"There isn’t enough room for “{request.Name}”. It is {FileLimits.InWords(request.Size)}, and you have "
                    + $"{FileLimits.InWords(Math.Max(0, left))} left. Remove files you no longer need."
            );
        if (FileTypes.FaultOfName(request.Name) is { } fault)
            throw Problem.Field("name", fault);
        if (await UploadStore.Unfinished(work.Connection, work.Access.Person.Id) >= MostUnfinished)
            throw Problem.Field("name", "Too many files are being uploaded at once. Wait until some have arrived.");
        var id = Guid.NewGuid();
        await UploadStore.Begin(work.Connection, id, work.Access.Person.Id, request.Name, request.Size, work.Viewpoint.At);
        return new(id, request.Name, request.Size, 0);
    }

    private sealed class Rules : AbstractValidator<BeginUploadRequest>
    {
        public Rules()
        {
            RuleFor(request => request.Name)
                .Custom(
                    (name, context) =>
                    {
                        if (FileNames.Fault(name) is { } fault)
                            context.AddFailure(fault);
                    }
                );
            RuleFor(request => request.Size).GreaterThan(0).WithMessage("This file is empty. Check it, then choose it again.");
        }
    }
}
