using Polycline.Data;
using Polycline.Data.Verify;
using Polycline.Web.Foundation.Mail;
using Polycline.Web.SignIn;

namespace Polycline.Web.Host;

/// <summary>What can be asked of Polycline without serving.</summary>
public static class CommandLine
{
    public const string DatabaseVariable = "POLYCLINE_DATABASE";
    public const string OwnerVariable = "POLYCLINE_OWNER_DATABASE";
    public const string AddressVariable = "POLYCLINE_ADDRESS";
    public const string ProxiesVariable = "POLYCLINE_PROXIES";
    public const string PublicVariable = "POLYCLINE_PUBLIC_ADDRESS";

    public const string ProviderVariable = "POLYCLINE_PROVIDER";
    public const string LinkHostsVariable = "POLYCLINE_LINK_HOSTS";
    public const string RosterVariable = "POLYCLINE_ROSTER_FEED";
    public const string MailServerVariable = "POLYCLINE_MAIL_SERVER";
    public const string MailFromVariable = "POLYCLINE_MAIL_FROM";

    /// <summary>As OpenTelemetry names it.</summary>
    public const string CollectorVariable = "OTEL_EXPORTER_OTLP_ENDPOINT";

    /// <summary>Runs one command: <c>serve</c>, <c>migrate</c>, <c>verify</c>, <c>openapi</c>, or one of the profile's.</summary>
    /// <returns>0 where all is well; 1 where something was found or failed; 2 where the command is unknown.</returns>
    public static async Task<int> Run(string[] args, IProfile profile)
    {
        var command = args.FirstOrDefault() ?? "serve";
        try
        {
            switch (command)
            {
                case "serve":
                    var app = PolyclineHost.Build(
                        new(
                            Needed(DatabaseVariable),
                            Environment.GetEnvironmentVariable(AddressVariable) ?? "http://127.0.0.1:5210",
                            Proxies()
                        )
                        {
                            PublicAddress = Address(PublicVariable, "the address by which the school is reached"),
                            Collector = Address(CollectorVariable, "where a collector takes traces and metrics"),
                            Provider = ProviderSettings.Of(
                                Environment.GetEnvironmentVariable($"{ProviderVariable}_NAME"),
                                Environment.GetEnvironmentVariable(ProviderVariable),
                                Environment.GetEnvironmentVariable($"{ProviderVariable}_CLIENT"),
                                Environment.GetEnvironmentVariable($"{ProviderVariable}_SECRET")
                            ),
                            RosterFeed = Address(RosterVariable, "where the school's roster is fetched"),
                            LinkHosts = Environment.GetEnvironmentVariable(LinkHostsVariable),
                            Mail = MailServer.Of(
                                Environment.GetEnvironmentVariable(MailServerVariable),
                                Environment.GetEnvironmentVariable(MailFromVariable)
                            ),
                        },
                        profile
                    );
                    await PolyclineHost.Prepare(app);
                    await app.StartAsync();
                    if (await PolyclineHost.AddressToBegin(app) is { } begin)
                        Console.WriteLine($"This school has not begun yet. Within an hour, begin it here:\n\n  {begin}\n");
                    await app.WaitForShutdownAsync();
                    return 0;
                case "migrate":
                    var applied = await Migrator.Migrate(Needed(OwnerVariable), CancellationToken.None);
                    Console.WriteLine(applied.Count == 0 ? "The database is up to date." : $"Applied {string.Join(", ", applied)}.");
                    return 0;
                case "verify":
                    var faults = await Verifier.Run(Needed(OwnerVariable), CancellationToken.None);
                    foreach (var fault in faults)
                        Console.WriteLine($"{fault.Check}: {fault.Words}");
                    Console.WriteLine(faults.Count == 0 ? "Everything is as it should be." : $"{faults.Count} faults found.");
                    return faults.Count == 0 ? 0 : 1;
                case "openapi":
                    Console.WriteLine(await PolyclineHost.OpenApi(profile));
                    return 0;
                default:
                    if (
                        profile.Command(
                            command,
                            [.. args.Skip(1)],
                            Environment.GetEnvironmentVariable(OwnerVariable) ?? "",
                            CancellationToken.None
                        ) is
                        { } own
                    )
                        return await own;
                    await Console.Error.WriteLineAsync($"Unknown command '{command}'. The commands are: serve, migrate, verify, openapi.");
                    return 2;
            }
        }
        catch (Exception fault) when (fault is InvalidOperationException or Npgsql.NpgsqlException or IOException)
        {
            await Console.Error.WriteLineAsync(fault.Message);
            return 1;
        }
    }

    private static System.Net.IPAddress[] Proxies() =>
        (Environment.GetEnvironmentVariable(ProxiesVariable) ?? "")
            .Split(',', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries)
            .Select(text =>
                System.Net.IPAddress.TryParse(text, out var address)
                    ? address
                    : throw new InvalidOperationException(
                        $"{ProxiesVariable} lists the addresses of what stands before "
                            + $"Polycline, separated by commas; '{text}' is not an address."
                    )
            )
            .ToArray();

    private static Uri? Address(string variable, string what) =>
        Environment.GetEnvironmentVariable(variable) is not { Length: > 0 } text ? null
        : Uri.TryCreate(text, UriKind.Absolute, out var address) && address.Scheme is "http" or "https" ? address
        : throw new InvalidOperationException(
            $"{variable} is {what}, such as https://polycline.fenwater.example; '{text}' is not an address."
        );

    private static string Needed(string variable) =>
        Environment.GetEnvironmentVariable(variable) is { Length: > 0 } value
            ? value
            : throw new InvalidOperationException($"{variable} is not set: it says how to reach the database. ./polycline start sets it.");
}
