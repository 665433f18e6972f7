using MailKit.Net.Smtp;
using NodaTime;
using Polycline.Data;
using Polycline.Data.Mail;

namespace Polycline.Web.Foundation.Mail;

/// <summary>
/// Sends what waits. Several instances may do so at once. Every letter goes out at least once; it goes out twice if an instance dies
/// between the server's taking it and the note of that.
/// </summary>
public sealed class MailSweep(Database database, IMailRoute route, ILogger<MailSweep> log) : Recurring("Mail", TimeSpan.FromSeconds(3), log)
{
    private static readonly Duration LongestWait = Duration.FromHours(2);

    /// <summary>Links in letters are good for a day; there is no use in sending one later.</summary>
    private const int MostTries = 20;

    /// <summary>Sends all that is due.</summary>
    /// <returns>How many letters were sent.</returns>
    public async Task<int> Sweep(CancellationToken stop)
    {
        var sent = 0;
        while (route.Server is { } server && await One(server, stop) is { } went)
            sent += went ? 1 : 0;
        return sent;
    }

    /// <returns>Whether a letter was sent; null: none waits.</returns>
    private async Task<bool?> One(MailServer server, CancellationToken stop)
    {
        if (await database.Read(MailStore.Claim, stop) is not { } letter)
            return null;
        try
        {
            await server.Send(letter, stop);
        }
        catch (Exception fault) when (!stop.IsCancellationRequested)
        {
            log.LogWarning("Letter {Letter} could not be sent: {Fault}", letter.Id, fault.GetType().Name);
            await database.Read(connection => Done(MailStore.Failed(connection, letter.Id, WaitAfter(fault, letter.Tries))), stop);
            return false;
        }
        await database.Read(connection => Done(MailStore.Sent(connection, letter.Id)), stop);
        return true;
    }

    /// <summary>How long until it is tried again; null: the server will never take it, or it has been tried often enough.</summary>
    private static Duration? WaitAfter(Exception fault, int tries)
    {
        var refused = fault is SmtpCommandException { ErrorCode: SmtpErrorCode.RecipientNotAccepted, StatusCode: >= (SmtpStatusCode)500 };
        return refused || tries >= MostTries ? null : Duration.Min(Duration.FromSeconds(15 * Math.Pow(2, tries - 1)), LongestWait);
    }

    private static async Task<bool> Done(Task doing)
    {
        await doing;
        return true;
    }

    protected override Task Once(CancellationToken stop) => Sweep(stop);
}
