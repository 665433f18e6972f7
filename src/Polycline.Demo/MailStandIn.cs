using System.Collections.Concurrent;
using System.Net;
using System.Net.Sockets;
using System.Text;
using MimeKit;
using NodaTime;
using Polycline.Demo.School;
using Polycline.Web.Foundation.Mail;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Demo;

/// <summary>The letters that were caught, the newest first.</summary>
public sealed record CaughtMailAnswer(IReadOnlyList<CaughtLetter> Letters);

/// <param name="At">When it came, by the demo's clock.</param>
public sealed record CaughtLetter(string To, string Subject, string Text, Moment At);

/// <summary>
/// Stands in for the school's mail server: takes letters as one does, on this machine only, and shows them. Nothing goes out. It keeps the
/// last few hundred, as long as the demo runs.
/// </summary>
public sealed class MailStandIn(IClock clock) : BackgroundService, IMailRoute
{
    private const int MostKept = 500;
    private const int LongestLetter = 1024 * 1024;

    private static readonly DateTimeZone Zone = DateTimeZoneProviders.Tzdb[DemoSchool.Zone];

    private readonly TcpListener listener = new(IPAddress.Loopback, 0);
    private readonly ConcurrentQueue<CaughtLetter> letters = new();

    public MailServer? Server { get; private set; }

    public static CaughtMailAnswer Read(MailStandIn standIn) => new([.. standIn.letters.Reverse()]);

    public override Task StartAsync(CancellationToken cancellationToken)
    {
        listener.Start();
        Server = new(new($"smtp://127.0.0.1:{((IPEndPoint)listener.LocalEndpoint).Port}"), "Fenwater College <office@fenwater.example>");
        return base.StartAsync(cancellationToken);
    }

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        try
        {
            while (true)
                _ = Serve(await listener.AcceptTcpClientAsync(stoppingToken), stoppingToken);
        }
        catch (OperationCanceledException)
        {
            listener.Stop();
        }
    }

    // As much of RFC 5321 as handing in a letter takes.
    private async Task Serve(TcpClient client, CancellationToken stop)
    {
        using (client)
            try
            {
                using var reader = new StreamReader(client.GetStream(), Encoding.Latin1);
                await using var writer = new StreamWriter(client.GetStream(), Encoding.ASCII) { NewLine = "\r\n", AutoFlush = true };
                await writer.WriteLineAsync("220 mail.fenwater.example".AsMemory(), stop);
                while (await reader.ReadLineAsync(stop) is { } line)
                {
                    var answer = line.Split(' ')[0].ToUpperInvariant() switch
                    {
                        "EHLO" or "HELO" or "MAIL" or "RCPT" or "RSET" or "NOOP" => "250 Good",
                        "DATA" => await Take(reader, writer, stop) ? "250 Taken" : "552 Too long",
                        "QUIT" => "221 Goodbye",
                        _ => "502 Not known here",
                    };
                    await writer.WriteLineAsync(answer.AsMemory(), stop);
                    if (answer.StartsWith("221", StringComparison.Ordinal))
                        return;
                }
            }
            catch (Exception fault) when (fault is IOException or OperationCanceledException or FormatException)
            {
                // Whoever broke off can try again.
            }
    }

    private async Task<bool> Take(StreamReader reader, StreamWriter writer, CancellationToken stop)
    {
        await writer.WriteLineAsync("354 Go on".AsMemory(), stop);
        var text = new StringBuilder();
        while (await reader.ReadLineAsync(stop) is { } line && line != ".")
            if (text.Length <= LongestLetter)
                text.Append(line.StartsWith('.') ? line[1..] : line).Append("\r\n");
        if (text.Length > LongestLetter)
            return false;
        using var stream = new MemoryStream(Encoding.Latin1.GetBytes(text.ToString()));
        var letter = await MimeMessage.LoadAsync(stream, stop);
        letters.Enqueue(
            new(
                $"{letter.To.Mailboxes.FirstOrDefault()?.Address}",
                letter.Subject ?? "",
                letter.TextBody ?? "",
                Moment.Of(clock.GetCurrentInstant(), Zone)
            )
        );
        while (letters.Count > MostKept)
            letters.TryDequeue(out _);
        return true;
    }
}
