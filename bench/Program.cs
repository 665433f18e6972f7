using System.Diagnostics;
using System.Net;
using Dapper;
using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Hosting;
using Microsoft.Extensions.Logging;
using Polycline.Bench;
using Polycline.Data;
using Polycline.Demo.School;
using Polycline.Testing;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Host;

// The computation by itself needs no database.
if (args is [] or ["kernels"])
    await KernelBench.Run();
if (args is ["kernels"])
    return;

// A film of 2 GB takes minutes: it is sent only when asked for.
if (args is ["files"])
{
    await using var files = await School.Open();
    await FileBench.Run(files, 2_048);
    return;
}

// The two denominators for requests, and what the application makes of them.
const string Bare = "a bare endpoint";
const string OneRow = "one primary-key query";

await using var school = await School.Open();
var session = await school.Session(DemoPeople.Lead);
await using var database = Database.Open(school.Database.App);
await using var plain = Plain();
await plain.StartAsync();
var at = new Uri(PolyclineHost.AddressOf(plain));
string[] signedIn = [$"Cookie: {SessionCookie.Name}={session}"];

if (args is [] or ["browser"])
{
    // A school of its own: it is given more sections.
    await using var large = await School.Open();
    await BrowserBench.Run(large);
}
if (args is ["browser"])
    return;

if (args is ["students"])
{
    await StudentBench.Run(school, database);
    return;
}

if (args is [] or ["scores"])
{
    await using var scored = await School.Open();
    await using var read = Database.Open(scored.Database.App);
    await ScoresBench.Run(scored, read);
}
if (args is ["scores"])
    return;

var measured = await Interleaved.Run([
    new(Bare, () => Load.Run(new(at, "/bare"))),
    new(OneRow, () => Load.Run(new(at, "/one-row"))),
    new("health/ready", () => Load.Run(new(school.Address(), "/health/ready"))),
    new("ribbon, from the cache", () => Load.Run(new(school.Address(), $"/api/editions/{school.WeatherWatch}/ribbon"), signedIn)),
    new("outline of 110 items, from the cache", () =>
        Load.Run(new(school.Address(), $"/api/editions/{school.WeatherWatch}/outline"), signedIn)
    ),
    new("places", () => Load.Run(new(school.Address(), "/api/places"), signedIn)),
]);
Interleaved.Print("requests", measured, [Bare, OneRow]);

await StudentBench.Run(school, database);

// An account that exists and one that does not must take equally long to refuse.
var address = 0;
var refused = await Interleaved.Run([
    new("a wrong password", () => Refusals(DemoPeople.Email(DemoPeople.Lead))),
    new("an unknown account", () => Refusals("nobody@fenwater.example")),
]);
Interleaved.Print("refused sign-ins", refused, ["a wrong password"]);

// Each from an address of this machine that never asked before: none is refused for having tried too often.
async Task<double> Refusals(string email)
{
    const int tries = 9;
    address++;
    using var caller = new Caller(school.Address(), new IPAddress([127, 2, (byte)(address >> 8), (byte)address]));
    await school.Sql(connection => connection.ExecuteAsync("DELETE FROM sign_in_try"));
    var watch = Stopwatch.StartNew();
    for (var n = 0; n < tries; n++)
        if ((await caller.Post("/api/sign-in", new { email, password = "wrong" })).Status != HttpStatusCode.Unauthorized)
            throw new InvalidOperationException("A try was not refused as a wrong password is.");
    return tries / watch.Elapsed.TotalSeconds;
}

// ASP.NET Core and Dapper with nothing of ours between.
WebApplication Plain()
{
    var builder = WebApplication.CreateSlimBuilder();
    builder.Logging.ClearProviders();
    builder.WebHost.UseUrls("http://127.0.0.1:0");
    var app = builder.Build();
    app.MapGet("/bare", () => "ok");
    app.MapGet("/one-row", async () =>
    {
        await using var connection = await database.Source.OpenConnectionAsync();
        return await connection.QuerySingleAsync<string>("SELECT title FROM item WHERE id = @id", new { id = 1L });
    });
    return app;
}
