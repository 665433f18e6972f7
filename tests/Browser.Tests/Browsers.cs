using System.Collections.Concurrent;
using OpenQA.Selenium;
using OpenQA.Selenium.Chrome;
using Polycline.Tests.Browser;
using Xunit;

[assembly: AssemblyFixture(typeof(Browsers))]

namespace Polycline.Tests.Browser;

/// <summary>Browsers that are kept from one walk to the next, for starting one costs as much as several pages.</summary>
public sealed class Browsers : IDisposable
{
    private static readonly ConcurrentBag<Kept> Idle = [];

    /// <summary>A browser, and where it keeps what it keeps.</summary>
    public sealed record Kept(ChromeDriver Driver, string Profile)
    {
        public void Devtools(string command, Dictionary<string, object?> parameters) => Driver.ExecuteCdpCommand(command, parameters);
    }

    /// <summary>One that nobody uses, as if it had just been started.</summary>
    public static Kept Take() => Idle.TryTake(out var kept) ? kept : Start();

    /// <summary>Takes it back; what somebody left in it goes.</summary>
    /// <param name="visited">Where they have been.</param>
    public static void GiveBack(Kept browser, Uri visited)
    {
        try
        {
            browser.Driver.Navigate().GoToUrl("about:blank");
            browser.Devtools("Network.clearBrowserCookies", []);
            browser.Devtools(
                "Storage.clearDataForOrigin",
                new() { ["origin"] = visited.GetLeftPart(UriPartial.Authority), ["storageTypes"] = "all" }
            );
            browser.Devtools("Page.resetNavigationHistory", []);
            browser.Devtools("Emulation.setTimezoneOverride", new() { ["timezoneId"] = "" });
            foreach (var log in new[] { LogType.Browser, "performance" })
                browser.Driver.Manage().Logs.GetLog(log);
            Idle.Add(browser);
        }
        // A walk that failed may have left it in no state to go on.
        catch (WebDriverException)
        {
            End(browser);
        }
    }

    public void Dispose()
    {
        while (Idle.TryTake(out var kept))
            End(kept);
    }

    private static void End(Kept browser)
    {
        try
        {
            browser.Driver.Quit();
            browser.Driver.Dispose();
        }
        finally
        {
            Directory.Delete(browser.Profile, recursive: true);
        }
    }

    private static Kept Start()
    {
        var profile = Directory.CreateTempSubdirectory("polycline-browser.").FullName;
        var options = new ChromeOptions { BinaryLocation = "/usr/bin/chromium" };
        options.AddArguments(
            "--headless=new",
            "--no-sandbox",
            "--disable-gpu",
            "--disable-quic",
            "--no-first-run",
            "--disable-background-networking",
            "--disable-component-update",
            "--disable-sync",
            // Nobody looks at any of them, and yet none is to be put off.
            "--disable-background-timer-throttling",
            "--disable-backgrounding-occluded-windows",
            "--disable-renderer-backgrounding",
            $"--user-data-dir={profile}",
            "--window-size=1280,800",
            "--force-device-scale-factor=1",
            "--hide-scrollbars",
            "--force-prefers-reduced-motion"
        );
        options.SetLoggingPreference(LogType.Browser, LogLevel.All);
        options.SetLoggingPreference("performance", LogLevel.All);
        options.PerformanceLoggingPreferences = new() { IsCollectingNetworkEvents = true, IsCollectingPageEvents = false };
        var service = ChromeDriverService.CreateDefaultService("/usr/bin", "chromedriver");
        service.SuppressInitialDiagnosticInformation = true;
        var kept = new Kept(new(service, options, TimeSpan.FromSeconds(60)), profile);
        kept.Devtools(
            "Page.addScriptToEvaluateOnNewDocument",
            new()
            {
                ["source"] =
                    "addEventListener('securitypolicyviolation', e => (window.violations "
                    + "??= []).push(`${e.violatedDirective} ${e.blockedURI} ${e.sourceFile}`))",
            }
        );
        return kept;
    }
}
