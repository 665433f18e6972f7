using System.Net;
using System.Net.Http.Json;
using System.Net.Sockets;
using System.Text.Json;
using System.Text.Json.Nodes;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Host;

namespace Polycline.Testing;

/// <summary>What came back: status, headers, and the body as JSON where it is some.</summary>
public sealed record Reply(HttpStatusCode Status, string Text, HttpResponseMessage Message)
{
    public JsonNode Json => JsonNode.Parse(Text)!;

    public string? Code => Text.StartsWith('{') ? Json["code"]?.GetValue<string>() : null;
}

/// <summary>Sends requests as a page of ours would, for one session, from one address of this machine.</summary>
/// <param name="from">The loopback address to come from: 127.0.0.1 where none is given.</param>
public sealed class Caller(Uri address, IPAddress? from = null) : IDisposable
{
    private readonly HttpClient http = new(
        new SocketsHttpHandler
        {
            UseCookies = false,
            AllowAutoRedirect = false,
            ConnectCallback = async (context, stop) =>
            {
                var socket = new Socket(AddressFamily.InterNetwork, SocketType.Stream, ProtocolType.Tcp) { NoDelay = true };
                socket.Bind(new IPEndPoint(from ?? IPAddress.Loopback, 0));
                await socket.ConnectAsync(context.DnsEndPoint, stop);
                return new NetworkStream(socket, ownsSocket: true);
            },
        }
    )
    {
        BaseAddress = address,
        Timeout = TimeSpan.FromSeconds(60),
    };

    /// <summary>The session's token; null: signed out.</summary>
    public string? Session { get; set; }

    public Task<Reply> Get(string path) => Send(HttpMethod.Get, path, null);

    /// <param name="hangUp">Ends the connection, as a page does that is left.</param>
    public Task<Reply> Post(
        string path,
        object? body = null,
        Guid? key = null,
        Action<HttpRequestMessage>? alter = null,
        CancellationToken hangUp = default
    ) =>
        Send(
            HttpMethod.Post,
            path,
            body,
            request =>
            {
                if (key is { } given)
                    request.Headers.Add("Idempotency-Key", given.ToString());
                alter?.Invoke(request);
            },
            hangUp
        );

    /// <summary>
    /// Sends a command until it is answered: whoever waits too long for the same key is told to try again, and does, under that key.
    /// </summary>
    public async Task<Reply> PostUntilAnswered(string path, object? body, Guid key)
    {
        var reply = await Post(path, body, key);
        for (var times = 0; times < 20 && reply.Status == HttpStatusCode.ServiceUnavailable; times++)
            reply = await Post(path, body, key);
        return reply;
    }

    public async Task<Reply> Send(
        HttpMethod method,
        string path,
        object? body,
        Action<HttpRequestMessage>? alter = null,
        CancellationToken hangUp = default
    )
    {
        using var request = new HttpRequestMessage(method, path);
        request.Headers.Add(SameSiteOnly.Header, "1");
        if (Session is not null)
            request.Headers.Add("Cookie", $"{SessionCookie.Name}={Session}");
        if (body is not null)
            request.Content = JsonContent.Create(body, options: new JsonSerializerOptions(JsonSerializerDefaults.Web));
        alter?.Invoke(request);
        var response = await http.SendAsync(request, hangUp);
        return new(response.StatusCode, await response.Content.ReadAsStringAsync(hangUp), response);
    }

    public void Dispose() => http.Dispose();
}
