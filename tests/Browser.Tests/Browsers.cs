using System.Collections.Concurrent;
using OpenQA.Selenium;
using OpenQA.Selenium.Chrome;
using Polycline.Tests.Browser;
using Xunit;

[assembly: AssemblyFixture(typeof(Browsers))]

namespace Polycline.Tests.Browser;

/// <summary>Browsers kept from one walk to the next, because starting one costs as much as loading several pages.</summary>
public sealed class Browsers : IDisposable
{
    private static readonly ConcurrentBag<Kept> Idle = [];

    /// <summary>A browser and its profile folder.</summary>
    public sealed record Kept(ChromeDriver Driver, string Profile)
    {
        public void Devtools(string command, Dictionary<string, object?> parameters) => Driver.ExecuteCdpCommand(command, parameters);
    }

    /// <summary>An idle browser, as clean as if it had just been started.</summary>
    public static Kept Take() => Idle.TryTake(out var kept) ? kept : Start();

    /// <summary>Takes a browser back and clears what was left in it.</summary>
    /// <param name="visited">The address whose storage is cleared.</param>
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
        // A failed walk may have left it unusable.
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
            // Chromium would slow down pages that it thinks nobody looks at.
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
