using System.Diagnostics;
using System.Globalization;
using System.Net.Sockets;
using Dapper;
using OpenQA.Selenium;
using OpenQA.Selenium.Chrome;
using OpenQA.Selenium.Interactions;
using OpenQA.Selenium.Support.UI;
using Polycline.Demo.School;
using Polycline.Testing;

namespace Polycline.Bench;

/// <summary>
/// What the largest screens cost a browser, against the same build drawing as many elements that do nothing. Script time is
/// what the browser itself counts; everything is measured in one Chromium.
/// </summary>
public static class BrowserBench
{
    private const int Items = 400;
    private const int Sections = 12;
    private const int Conditions = 100;

    // Each of the first so many items waits for one of the four before it.
    private const string Conditioned = """
        WITH placed AS (
          SELECT id, lineage, row_number() OVER (ORDER BY unit, id) AS n FROM item
          WHERE edition = @edition AND section IS NULL AND removed_at IS NULL)
        UPDATE item SET gate = jsonb_build_object('item', before.lineage, 'is', 'opened')
        FROM placed, placed before
        WHERE item.id = placed.id AND placed.n BETWEEN 2 AND @many + 1 AND before.n = greatest(1, placed.n - 1 - placed.n % 4);
        UPDATE edition SET version = version + 1 WHERE id = @edition
        """;

    // What stands on a screen, drawn again element by element, with its texts and classes and nothing else, on a page of the same build.
    private const string DrawStatic = """
        const draw = ([tag, ns, names, text, children]) => {
          const element = document.createElementNS(ns, tag);
          for (const [name, value] of names) element.setAttribute(name, value);
          if (text) element.append(text);
          for (const child of children) element.append(draw(child));
          return element;
        };
        document.body.append(draw(JSON.parse(arguments[0])));
        return document.body.getBoundingClientRect().height;
        """;

    private const string SignIn = """
        const [email, password, done] = arguments;
        fetch('/api/sign-in', { method: 'POST', headers: { 'content-type': 'application/json', 'X-Polycline': '1' },
          body: JSON.stringify({ email, password }) }).then(done);
        """;

    private const string Describe = """
        const tell = (element) => [element.tagName.toLowerCase(), element.namespaceURI,
          [...element.attributes].filter((one) => !one.name.startsWith('on')).map((one) => [one.name, one.value]),
          [...element.childNodes].filter((one) => one.nodeType === 3).map((one) => one.data).join(''), [...element.children].map(tell)];
        return JSON.stringify(tell(document.querySelector(arguments[0])));
        """;

    public static async Task Run(School school)
    {
        await StudentBench.Grow(school, Items);
        await school.Sql(connection =>
            connection.ExecuteAsync(
                """
                INSERT INTO section (name, letter, term, edition, slots)
                SELECT s.name || ' ' || n, chr(69 + n), s.term, s.edition, s.slots
                FROM generate_series(1, @more) n,
                  LATERAL (SELECT * FROM section WHERE edition = @edition ORDER BY id OFFSET n % 4 LIMIT 1) s;
                UPDATE edition SET version = version + 1 WHERE id = @edition
                """,
                new { edition = school.WeatherWatch, more = Sections - 4 }
            )
        );
        using var served = await Serve(school);
        var profile = Directory.CreateTempSubdirectory("polycline-bench.");
        try
        {
            using var driver = Chromium(profile.FullName);
            var at = served.Address;
            driver.Navigate().GoToUrl(new Uri(at, "/nothing-here"));
            driver.ExecuteAsyncScript(SignIn, DemoPeople.Email(DemoPeople.Lead), DemoPeople.Password);
            Console.WriteLine();
            Console.WriteLine(Scrolling(driver, at, $"/editions/{school.WeatherWatch}/outline"));
            await Measure(
                driver,
                at,
                $"/editions/{school.WeatherWatch}/dates",
                "[data-cell]",
                "main",
                $"Dates, {Items} items × {Sections} sections"
            );
            await Measure(driver, at, $"/editions/{school.WeatherWatch}/pace", "path.forecast", "main", $"Pace, {Sections} sections");
            await school.Sql(connection => connection.ExecuteAsync(Conditioned, new { edition = school.WeatherWatch, many = Conditions }));
            await Measure(
                driver,
                at,
                $"/editions/{school.WeatherWatch}/conditions",
                "button.node",
                "main",
                $"Conditions, {Conditions} of them"
            );
            driver.Navigate().GoToUrl(new Uri(at, $"/editions/{school.WeatherWatch}/pace"));
            Shown(driver, "path.forecast");
            Console.WriteLine();
            Console.WriteLine(
                $"Layouts for each of 100 pointer moves over Pace: "
                    + $"{LayoutsPerMove(driver).ToString("0.00", CultureInfo.InvariantCulture)} (asked: 1)."
            );
        }
        finally
        {
            profile.Delete(recursive: true);
        }
    }

    private static async Task Measure(ChromeDriver driver, Uri at, string path, string shown, string part, string name)
    {
        driver.Navigate().GoToUrl(new Uri(at, path));
        Shown(driver, shown);
        var drawn = (string)driver.ExecuteScript(Describe, part)!;
        var elements = driver.ExecuteScript("return document.querySelectorAll('*').length");
        const string Static = "the same build, as many static elements";
        var measured = await Interleaved.Run([
            new(Static, () =>
                Task.FromResult(1 / Scripted(driver, at, "/nothing-here", "main", () => driver.ExecuteScript(DrawStatic, drawn)))
            ),
            new(name, () => Task.FromResult(1 / Scripted(driver, at, path, shown, () => { }))),
        ]);
        Console.WriteLine();
        Console.WriteLine($"| script time at load; {elements} elements (asked: at most 5,000) | ms, median | ÷ static | asked |");
        Console.WriteLine("|---|---|---|---|");
        Console.WriteLine(string.Create(CultureInfo.InvariantCulture, $"| {Static} | {1000 / measured[0].Median:0} | | |"));
        Console.WriteLine(
            string.Create(
                CultureInfo.InvariantCulture,
                $"| {name} | {1000 / measured[1].Median:0} | {measured[0].Median / measured[1].Median:0.0} | ≤ 3 |"
            )
        );
    }

    // Seconds of script from the moment a page is asked for until what is looked for is there and it is at rest.
    private static double Scripted(ChromeDriver driver, Uri at, string path, string shown, Action more)
    {
        driver.Navigate().GoToUrl(new Uri(at, "/health/live"));
        driver.ExecuteCdpCommand("Profiler.enable", []);
        driver.ExecuteCdpCommand("Profiler.setSamplingInterval", new() { ["interval"] = 200 });
        driver.ExecuteCdpCommand("Profiler.start", []);
        driver.Navigate().GoToUrl(new Uri(at, path));
        Shown(driver, shown);
        more();
        Rested(driver);
        return Script((Dictionary<string, object>)((Dictionary<string, object>)driver.ExecuteCdpCommand("Profiler.stop", [])!)["profile"]);
    }

    // What the sampling profiler saw of functions, the engine's own waiting and drawing left out.
    private static double Script(Dictionary<string, object> profile)
    {
        var idle = ((IEnumerable<object>)profile["nodes"])
            .Cast<Dictionary<string, object>>()
            .Where(node => (string)((Dictionary<string, object>)node["callFrame"])["functionName"] is "(root)" or "(program)" or "(idle)")
            .Select(node => (long)node["id"])
            .ToHashSet();
        return ((IEnumerable<object>)profile["samples"])
                .Zip((IEnumerable<object>)profile["timeDeltas"])
                .Where(sample => !idle.Contains((long)sample.First))
                .Sum(sample => (long)sample.Second) / 1e6;
    }

    // A screen's list scrolled from end to end, 120 pixels a frame; then as many frames of the same page standing still.
    private static string Scrolling(ChromeDriver driver, Uri at, string path)
    {
        const string Frames = """
            const [by, done] = arguments;
            const list = document.querySelector('.scroll');
            const steps = Math.ceil(list.scrollHeight / 120), gaps = [];
            let last = performance.now(), n = 0;
            const step = (now) => {
              gaps.push(now - last);
              last = now;
              list.scrollTop += by;
              if (++n < steps) requestAnimationFrame(step);
              else done([document.querySelectorAll('.row').length, steps, ...[0.5, 0.95, 1].map(share =>
                gaps.sort((a, b) => a - b)[Math.min(gaps.length - 1, Math.floor(share * gaps.length))])]);
            };
            requestAnimationFrame(step);
            """;
        driver.Navigate().GoToUrl(new Uri(at, path));
        Shown(driver, ".life");
        Rested(driver);
        double[] Run(int by) =>
            [
                .. ((IEnumerable<object>)driver.ExecuteAsyncScript(Frames, by)!).Select(value =>
                    Convert.ToDouble(value, CultureInfo.InvariantCulture)
                ),
            ];
        var (moving, still) = (Run(120), Run(0));
        return string.Create(
            CultureInfo.InvariantCulture,
            $"Outline, {moving[0]:0} rows × {Sections} sections, scrolled through in {moving[1]:0} frames: a frame took {moving[2]:0} ms "
                + $"(median), {moving[3]:0} ms (95 in 100 at most), {moving[4]:0} ms (longest); "
                + $"standing still {still[2]:0}, {still[3]:0} and {still[4]:0} ms."
        );
    }

    private static double LayoutsPerMove(ChromeDriver driver)
    {
        const int moves = 100;
        Rested(driver);
        var frame = driver.FindElement(By.CssSelector(".frame"));
        var (x, y) = (frame.Location.X + 40, frame.Location.Y + frame.Size.Height - 60);
        new Actions(driver).MoveToLocation(x, y).Perform();
        driver.ExecuteCdpCommand("Performance.enable", []);
        Rested(driver);
        var before = Metric(driver, "LayoutCount");
        for (var n = 0; n < moves; n++)
        {
            driver.ExecuteCdpCommand(
                "Input.dispatchMouseEvent",
                new()
                {
                    ["type"] = "mouseMoved",
                    ["x"] = x + (9 * n),
                    ["y"] = y - (3 * n),
                }
            );
            // Each is drawn before the next comes.
            driver.ExecuteAsyncScript("const done = arguments[0]; requestAnimationFrame(() => requestAnimationFrame(() => done()))");
        }
        Rested(driver);
        return (Metric(driver, "LayoutCount") - before) / moves;
    }

    private static double Metric(ChromeDriver driver, string name)
    {
        var metrics = (IEnumerable<object>)((Dictionary<string, object>)driver.ExecuteCdpCommand("Performance.getMetrics", [])!)["metrics"];
        return metrics
            .Cast<Dictionary<string, object>>()
            .Where(metric => (string)metric["name"] == name)
            .Select(metric => Convert.ToDouble(metric["value"], CultureInfo.InvariantCulture))
            .Single();
    }

    private static void Shown(ChromeDriver driver, string selector) =>
        new WebDriverWait(driver, TimeSpan.FromSeconds(30)).Until(page => page.FindElements(By.CssSelector(selector)).Count > 0);

    // Nothing more is computed: two frames have passed and half a second.
    private static void Rested(ChromeDriver driver) =>
        driver.ExecuteAsyncScript(
            "const done = arguments[0]; setTimeout(() => requestAnimationFrame(() => requestAnimationFrame(() => done())), 500)"
        );

    private static ChromeDriver Chromium(string profile)
    {
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
            $"--user-data-dir={profile}",
            "--window-size=1920,1080",
            "--force-device-scale-factor=1"
        );
        var service = ChromeDriverService.CreateDefaultService("/usr/bin", "chromedriver");
        service.SuppressInitialDiagnosticInformation = true;
        return new(service, options, TimeSpan.FromSeconds(60));
    }

    // The application as it is started, on the bench's own school.
    private static async Task<Served> Serve(School school)
    {
        using var listener = new TcpListener(System.Net.IPAddress.Loopback, 0);
        listener.Start();
        var at = new Uri($"http://127.0.0.1:{((System.Net.IPEndPoint)listener.LocalEndpoint).Port}");
        listener.Stop();
        var start = new ProcessStartInfo("dotnet") { RedirectStandardError = true, RedirectStandardOutput = true };
        start.ArgumentList.Add(Path.Combine(TestServer.Published, "Polycline.Demo.dll"));
        start.ArgumentList.Add("serve");
        start.Environment["POLYCLINE_DATABASE"] = school.Database.App;
        start.Environment["POLYCLINE_ADDRESS"] = at.ToString();
        var process = Process.Start(start)!;
        process.BeginErrorReadLine();
        process.BeginOutputReadLine();
        using var client = new HttpClient();
        for (var waited = Stopwatch.StartNew(); ; await Task.Delay(100))
        {
            try
            {
                if ((await client.GetAsync(new Uri(at, "/health/ready"))).IsSuccessStatusCode)
                    return new(process, at);
            }
            catch (HttpRequestException) when (waited.Elapsed < TimeSpan.FromSeconds(30)) { }
        }
    }

    private sealed record Served(Process Process, Uri Address) : IDisposable
    {
        public void Dispose()
        {
            Process.Kill(entireProcessTree: true);
            Process.Dispose();
        }
    }
}
