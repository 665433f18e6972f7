using System.Globalization;
using System.IO.Compression;
using System.Net;
using Microsoft.AspNetCore.Authorization;
using Microsoft.AspNetCore.Hosting.Server;
using Microsoft.AspNetCore.Hosting.Server.Features;
using Microsoft.AspNetCore.HttpOverrides;
using Microsoft.AspNetCore.OpenApi;
using Microsoft.AspNetCore.ResponseCompression;
using Microsoft.OpenApi;
using NodaTime;
using Polycline.Data;
using Polycline.Web.Account;
using Polycline.Web.Beginning;
using Polycline.Web.Calendar;
using Polycline.Web.Choices;
using Polycline.Web.Conditions;
using Polycline.Web.Dates;
using Polycline.Web.Editions;
using Polycline.Web.Feeds;
using Polycline.Web.Files;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Files;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Foundation.Links;
using Polycline.Web.Foundation.Mail;
using Polycline.Web.Foundation.Reading;
using Polycline.Web.Groups;
using Polycline.Web.Health;
using Polycline.Web.History;
using Polycline.Web.Joining;
using Polycline.Web.Lens;
using Polycline.Web.Live;
using Polycline.Web.OneStudent;
using Polycline.Web.Outcomes;
using Polycline.Web.Outline;
using Polycline.Web.Pace;
using Polycline.Web.People;
using Polycline.Web.Places;
using Polycline.Web.Ready;
using Polycline.Web.Ribbon;
using Polycline.Web.Rosters;
using Polycline.Web.Scores;
using Polycline.Web.Search;
using Polycline.Web.SectionCodes;
using Polycline.Web.Sections;
using Polycline.Web.Sheets;
using Polycline.Web.SignIn;
using Polycline.Web.Student;
using Polycline.Web.Team;
using Polycline.Web.Today;
using Polycline.Web.Work;
using Serilog;
using Serilog.Events;

namespace Polycline.Web.Host;

/// <param name="Database">How the application reaches PostgreSQL.</param>
/// <param name="Address">Where it listens; port 0 takes a free one.</param>
/// <param name="Proxies">Those that stand before it: what they say of a request's sender, scheme and host is believed, and nobody
/// else.</param>
public sealed record HostSettings(string Database, string Address, params IReadOnlyList<IPAddress> Proxies)
{
    /// <summary>
    /// The address the school has set: links are made with it, and no other host is answered. Null: none is set, and it is reached where it
    /// listens.
    /// </summary>
    public Uri? PublicAddress { get; init; }

    /// <summary>Where a collector takes traces and metrics, by OpenTelemetry's protocol over HTTP; null: nowhere.</summary>
    public Uri? Collector { get; init; }

    /// <summary>The server that takes the school's mail; null: none is set, and links are passed on by hand.</summary>
    public MailServer? Mail { get; init; }

    /// <summary>The school's sign-in provider; null: everybody signs in with a password.</summary>
    public ProviderSettings? Provider { get; init; }

    /// <summary>Where the school's roster is fetched; null: rosters come as files.</summary>
    public Uri? RosterFeed { get; init; }

    /// <summary>The hosts that may be asked whether links still work, separated by commas; null: none.</summary>
    public string? LinkHosts { get; init; }

    /// <summary>How much may be sent and kept.</summary>
    public FileLimits Files { get; init; } = new();

    /// <summary>Where the school's pages are for whoever sent a request: scheme and host.</summary>
    public string AddressFor(HttpRequest request) =>
        PublicAddress?.GetLeftPart(UriPartial.Authority) ?? $"{request.Scheme}://{request.Host}";
}

/// <summary>Puts the application together.</summary>
public static class PolyclineHost
{
    private const long CacheBytes = 256L * 1024 * 1024;
    private const long LargestRequest = 1024 * 1024;
    private static readonly TimeSpan Drain = TimeSpan.FromSeconds(30);

    /// <param name="clock">What time it is; null: the school's clock.</param>
    public static WebApplication Build(HostSettings settings, IProfile profile, IClock? clock = null)
    {
        // The program's folder holds the front end.
        var builder = WebApplication.CreateSlimBuilder(
            new WebApplicationOptions
            {
                ApplicationName = typeof(PolyclineHost).Assembly.GetName().Name,
                ContentRootPath = AppContext.BaseDirectory,
                EnvironmentName = Environments.Production,
            }
        );
        builder.WebHost.UseKestrelHttpsConfiguration();
        builder.WebHost.UseUrls(settings.Address);
        builder.WebHost.ConfigureKestrel(kestrel =>
        {
            kestrel.AddServerHeader = false;
            kestrel.Limits.MaxRequestBodySize = LargestRequest;
        });
        builder.Services.AddSerilog(log =>
            log.MinimumLevel.Information()
                .MinimumLevel.Override("Microsoft", LogEventLevel.Warning)
                .MinimumLevel.Override("Microsoft.Hosting.Lifetime", LogEventLevel.Warning)
                .WriteTo.Console(formatProvider: CultureInfo.InvariantCulture, standardErrorFromLevel: LogEventLevel.Verbose)
        );
        builder.Services.Configure<Microsoft.Extensions.Hosting.HostOptions>(host => host.ShutdownTimeout = Drain);
        builder.Services.ConfigureHttpJsonOptions(json => Json.With(json.SerializerOptions));
        builder.Services.Configure<RouteHandlerOptions>(routes => routes.ThrowOnBadRequest = true);
        // Without what the framework adds for schemes of its own: nothing here is kept under keys.
        builder.Services.AddAuthenticationCore(schemes =>
        {
            schemes.AddScheme<SessionAuthentication>(SessionAuthentication.SchemeName, null);
            schemes.DefaultScheme = SessionAuthentication.SchemeName;
        });
        builder.Services.AddWebEncoders();
        builder.Services.AddTransient<SessionAuthentication>();
        builder.Services.AddAuthorization();
        builder.Services.AddSingleton<IAuthorizationHandler, AccessAuthorization>();
        builder.Services.AddProblemDetails();
        builder.Services.AddExceptionHandler<ProblemHandler>();
        builder.Services.AddOpenApi("polycline", ApiDocument.Describe);
        builder.Services.AddTelemetry(settings.Collector);
        builder.Services.AddSignalR();
        builder.Services.AddResponseCompression(compression =>
        {
            compression.EnableForHttps = true;
            compression.Providers.Add<GzipCompressionProvider>();
            compression.MimeTypes = ["application/json", "application/problem+json", "text/csv", "text/calendar"];
        });
        builder.Services.Configure<GzipCompressionProviderOptions>(gzip => gzip.Level = CompressionLevel.Fastest);
        builder.Services.AddSingleton(_ => Database.Open(settings.Database));
        builder.Services.AddSingleton<SchoolClock>();
        builder.Services.AddSingleton<IClock>(services => clock ?? services.GetRequiredService<SchoolClock>());
        builder.Services.AddSingleton(settings);
        builder.Services.AddSingleton(new CompileCache(CacheBytes));
        builder.Services.AddSingleton<PlanCache>();
        builder.Services.AddSingleton<CommandPipeline>();
        builder.Services.AddSingleton<PlanningRunner>();
        builder.Services.AddSingleton<LiveConnections>();
        builder.Services.AddHostedService<Listener>();
        builder.Services.AddHostedService<Housekeeping>();
        builder.Services.AddSingleton<OpeningSweep>();
        builder.Services.AddHostedService(services => services.GetRequiredService<OpeningSweep>());
        builder.Services.AddSingleton<QuizSweep>();
        builder.Services.AddHostedService(services => services.GetRequiredService<QuizSweep>());
        builder.Services.AddSingleton<QueueSweep>();
        builder.Services.AddHostedService(services => services.GetRequiredService<QueueSweep>());
        builder.Services.AddSingleton<ReadySweep>();
        builder.Services.AddHostedService(services => services.GetRequiredService<ReadySweep>());
        builder.Services.AddSingleton<IMailRoute>(new MailRoute(settings.Mail));
        builder.Services.AddSingleton<MailSweep>();
        builder.Services.AddHostedService(services => services.GetRequiredService<MailSweep>());
        builder.Services.AddSingleton<ISignInProvider>(new SchoolProvider(settings.Provider));
        builder.Services.AddSingleton<ProviderClient>();
        builder.Services.AddSingleton<IRosterFeed>(new SchoolRosterFeed(settings.RosterFeed));
        builder.Services.AddSingleton<RosterFeed>();
        builder.Services.AddHostedService(services => services.GetRequiredService<RosterFeed>());
        builder.Services.AddSingleton<ILinkChecker>(LinkChecker.Of(settings.LinkHosts));
        builder.Services.AddSingleton<LinkChecks>();
        builder.Services.AddHostedService(services => services.GetRequiredService<LinkChecks>());
        builder.Services.AddSingleton<FileWords>();
        builder.Services.AddHostedService(services => services.GetRequiredService<FileWords>());
        builder.Services.AddSingleton<IFileChecker, NoFileChecker>();
        builder.Services.AddSingleton(services => new FileRules(settings.Files, services.GetRequiredService<IFileChecker>()));
        profile.AddServices(builder.Services);
        var app = builder.Build();
        if (settings.Proxies.Count > 0)
            app.UseForwardedHeaders(Believing(settings.Proxies));
        app.UseWhen(MayCompress, answers => answers.UseResponseCompression());
        app.UseMiddleware<SecurityHeaders>();
        app.UseExceptionHandler();
        app.UseStatusCodePages(ProblemHandler.OfStatus);
        app.UseMiddleware<KnownHostsOnly>(new KnownHosts(settings.PublicAddress, settings.Address, settings.Proxies.Count > 0));
        app.UseMiddleware<Heads>();
        app.UseMiddleware<SameSiteOnly>();
        app.UseRouting();
        app.UseAuthentication();
        app.UseAuthorization();
        app.UseMiddleware<ViewpointMiddleware>();
        Map(app, profile);
        BuiltOnce.All(app);
        RefuseUnruled(app);
#pragma warning disable ASP0014 // said outright, so that the OpenAPI document knows the endpoints before anything is served
        app.UseEndpoints(_ => { });
#pragma warning restore ASP0014
        return app;
    }

    /// <summary>What must be known before the first request.</summary>
    public static Task Prepare(WebApplication app) => app.Services.GetRequiredService<SchoolClock>().Set(CancellationToken.None);

    /// <summary>The address it really listens on.</summary>
    public static string AddressOf(WebApplication app) =>
        app.Services.GetRequiredService<IServer>().Features.Get<IServerAddressesFeature>()!.Addresses.First();

    /// <summary>The address by which a school without anything in it begins; null: it has begun already.</summary>
    public static Task<string?> AddressToBegin(WebApplication app) =>
        BeginSchool.NewAddress(
            app.Services.GetRequiredService<Database>(),
            app.Services.GetRequiredService<HostSettings>() is { PublicAddress: { } set } ? $"{set}" : AddressOf(app),
            app.Services.GetRequiredService<IClock>(),
            CancellationToken.None
        );

    /// <summary>The OpenAPI document, as the front end's types are made from it.</summary>
    public static async Task<string> OpenApi(IProfile profile)
    {
        await using var app = Build(new("Host=127.0.0.1", "http://127.0.0.1:0"), profile);
        var document = await app.Services.GetRequiredKeyedService<IOpenApiDocumentProvider>("polycline").GetOpenApiDocumentAsync();
        return await document.SerializeAsJsonAsync(OpenApiSpecVersion.OpenApi3_1);
    }

    private static void Map(WebApplication app, IProfile profile)
    {
        app.MapHealth();
        var routes = app.MapGroup("");
        routes.HoldBounds();
        routes.MapSignIn();
        routes.MapPlaces();
        routes.MapBeginning();
        routes.MapAccount();
        routes.MapPeople();
        routes.MapOutcomes();
        routes.MapFiles();
        routes.MapRosters();
        routes.MapSections();
        routes.MapOutline();
        routes.MapConditions();
        routes.MapReady();
        routes.MapSearch();
        routes.MapDates();
        routes.MapPace();
        routes.MapToday();
        routes.MapFeeds();
        routes.MapStudent();
        routes.MapSheets();
        routes.MapWork();
        routes.MapScores();
        routes.MapChoices();
        routes.MapEditions();
        routes.MapLens();
        routes.MapJoining();
        routes.MapRibbon();
        routes.MapHistory();
        routes.MapCalendar();
        routes.MapGroups();
        routes.MapOneStudent();
        routes.MapTeam();
        routes.MapSectionCodes();
        app.MapHub<LiveHub>(LiveHub.Route, hub => hub.Transports = Microsoft.AspNetCore.Http.Connections.HttpTransportType.WebSockets)
            .For(May.SignedIn);
        profile.MapRoutes(app);
        app.MapShell(profile);
    }

    // Where an answer holds a secret, its length must not tell of it.
    private static bool MayCompress(HttpContext http) =>
        !http.Request.Path.StartsWithSegments("/api/me")
        && !http.Request.Path.StartsWithSegments("/api/school")
        && !http.Request.Path.StartsWithSegments("/api/calendar-links")
        && !http.Request.Path.StartsWithSegments("/api/join")
        && !http.Request.Path.StartsWithSegments("/api/sign-in");

    private static ForwardedHeadersOptions Believing(IReadOnlyList<IPAddress> proxies)
    {
        var options = new ForwardedHeadersOptions
        {
            ForwardedHeaders = ForwardedHeaders.XForwardedFor | ForwardedHeaders.XForwardedProto | ForwardedHeaders.XForwardedHost,
        };
        options.KnownIPNetworks.Clear();
        options.KnownProxies.Clear();
        foreach (var proxy in proxies)
            options.KnownProxies.Add(proxy);
        return options;
    }

    // An endpoint that says nothing of who may call it would be open to all: it does not start.
    private static void RefuseUnruled(IEndpointRouteBuilder app)
    {
        var unruled = app
            .DataSources.SelectMany(source => source.Endpoints)
            .OfType<RouteEndpoint>()
            .Where(endpoint =>
                endpoint.RoutePattern.RawText?.TrimStart('/') is { } path
                && (
                    path.StartsWith("api/", StringComparison.Ordinal)
                    || path.StartsWith("live", StringComparison.Ordinal)
                    || path.StartsWith("health", StringComparison.Ordinal)
                )
                && endpoint.Metadata.GetMetadata<AccessRule>() is null
            )
            .Select(endpoint => endpoint.RoutePattern.RawText)
            .ToList();
        if (unruled.Count > 0)
            throw new InvalidOperationException($"Nothing says who may call {string.Join(", ", unruled)}.");
    }
}
