using System.Collections.ObjectModel;
using System.Text.Json;
using OpenQA.Selenium;
using OpenQA.Selenium.Chrome;
using OpenQA.Selenium.Support.UI;
using Polycline.Testing;
using Shouldly;

namespace Polycline.Tests.Browser;

/// <summary>Somebody at a browser of their own. What the browser complains of is collected from the first page on.</summary>
public sealed class Person : IDisposable
{
    private static readonly TimeSpan Patience = TimeSpan.FromSeconds(40);
    private static readonly string Axe = File.ReadAllText(System.IO.Path.Combine(TestServer.Root, "web/node_modules/axe-core/axe.min.js"));

    // What changes nothing of a course: that somebody has seen what is new, and reading a file.
    private static readonly string[] DoneAtOnce =
    [
        "write-text",
        "end-text",
        "mark-changes-seen",
        "closures-of-file",
        "understand-quiz",
        "try-quiz",
        "understand-rubric",
        "would-admit",
        "what-if",
        "take-back-course",
        "take-back-roll-over",
        "keep-rubric",
        "take-off-shelf",
    ];
    private readonly HashSet<string> looked = [];
    private readonly Browsers.Kept browser;
    private readonly ChromeDriver driver;
    private readonly Uri address;
    private string? failing;

    /// <param name="zone">Where their device thinks it is; null: where this machine is.</param>
    public Person(Uri address, string? zone = null)
    {
        this.address = address;
        browser = Browsers.Take();
        driver = browser.Driver;
        // On a machine that does other things beside, looking through a large page may take long.
        driver.Manage().Timeouts().AsynchronousJavaScript = TimeSpan.FromMinutes(3);
        Resize(1280, 800);
        if (zone is not null)
            browser.Devtools("Emulation.setTimezoneOverride", new() { ["timezoneId"] = zone });
    }

    /// <summary>Answers of the server that a walk brings about on purpose, such as 409; the browser reports them too.</summary>
    public List<int> Expected { get; } = [];

    public string Path => new Uri(driver.Url).PathAndQuery;

    public void Resize(int width, int height) =>
        browser.Devtools(
            "Emulation.setDeviceMetricsOverride",
            new()
            {
                ["width"] = width,
                ["height"] = height,
                ["deviceScaleFactor"] = 1,
                ["mobile"] = false,
            }
        );

    public void Open(string path) => driver.Navigate().GoToUrl(new Uri(address, path));

    /// <summary>
    /// From the next page on, the database is away for whatever is read from addresses that contain one of these words; none: it is there.
    /// </summary>
    public void Failing(params string[] words)
    {
        if (failing is not null)
            browser.Devtools("Page.removeScriptToEvaluateOnNewDocument", new() { ["identifier"] = failing });
        failing = null;
        if (words.Length == 0)
            return;
        const string Answers = """
            const [real, told] = [fetch, { status: 503, headers: { 'Content-Type': 'application/problem+json' } }]
            const problem = { status: 503, code: 'database-away', title: 'The database does not answer.', detail: 'Nothing was changed.' }
            window.fetch = (asked, how) =>
              !window.mended && words.some(word => (asked.url ?? asked).includes(word))
                ? Promise.resolve(new Response(JSON.stringify(problem), told)) : real(asked, how)
            """;
        var source = $"{{ const words = {JsonSerializer.Serialize(words)}; {Answers} }}";
        var added =
            (Dictionary<string, object?>)driver.ExecuteCdpCommand("Page.addScriptToEvaluateOnNewDocument", new() { ["source"] = source })!;
        failing = (string?)added["identifier"];
    }

    /// <summary>Comes in by pressing a name on the demo's sign-in page.</summary>
    public void ComeIn(string name)
    {
        Open("/sign-in");
        Press(See($"//button[contains(., '{name}')]"));
        Until(() => !Path.StartsWith("/sign-in", StringComparison.Ordinal));
        // Whoever has several courses comes to all of them first.
        if (name == "Orla Tierney-Vance")
        {
            Press(See("//a[contains(@class, 'name')][contains(., 'Weather Watch')]"));
            Until(() => Path.StartsWith("/editions/2/", StringComparison.Ordinal));
        }
    }

    /// <summary>An element that is on the page, or comes to be soon.</summary>
    /// <param name="selector">CSS; XPath where it starts with //.</param>
    public IWebElement See(string selector) => Wait(() => Soon("seen(arguments[0])", selector) as IWebElement, selector)!;

    public ReadOnlyCollection<IWebElement> All(string selector) =>
        driver.FindElements(
            selector.StartsWith("//", StringComparison.Ordinal) || selector.StartsWith("(//", StringComparison.Ordinal)
                ? By.XPath(selector)
                : By.CssSelector(selector)
        );

    /// <param name="patience">How long it may take; null: some seconds.</param>
    public void SeeText(string text, TimeSpan? patience = null) => Until(() => Soon("says(arguments[0])", text) is true, text, patience);

    public void SeeNoText(string text) => Until(() => Soon("!says(arguments[0])", text) is true, $"the end of: {text}");

    public string Text() => Ask<string>("return document.body.innerText");

    /// <summary>Presses it once it stands still and nothing is moving away from above it.</summary>
    public void Press(IWebElement element) =>
        Until(
            () =>
            {
                // What was read anew meanwhile may still move it.
                driver.ExecuteAsyncScript(
                    """
                    const [element, done] = arguments
                    const place = () => Object.values(element.getBoundingClientRect().toJSON()).join()
                    const look = (last, stood) => setTimeout(() => {
                      const now = place()
                      if (now === last && stood >= 3) done()
                      else look(now, now === last ? stood + 1 : 0)
                    }, 30)
                    look(place(), 0)
                    """,
                    element
                );
                try
                {
                    element.Click();
                    return true;
                }
                catch (ElementClickInterceptedException)
                {
                    return false;
                }
            },
            "a press"
        );

    /// <summary>Presses it with the Shift key held.</summary>
    public void PressWithShift(IWebElement element) =>
        new OpenQA.Selenium.Interactions.Actions(driver).KeyDown(Keys.Shift).Click(element).KeyUp(Keys.Shift).Perform();

    /// <summary>Takes what is at a place on the page, moves it to the right, and lets it go once something was seen on the way.</summary>
    /// <param name="place">A script that gives the place, in pixels; it is asked until the place stands still.</param>
    public void Drag(string place, int by, Action seen)
    {
        (long X, long Y) at = default;
        var stood = 0;
        Until(
            () =>
            {
                var now = Ask<IReadOnlyCollection<object>>($"return ({place}).map(Math.round)").Select(Convert.ToInt64).ToArray();
                stood = (now[0], now[1]) == at ? stood + 1 : 0;
                at = (now[0], now[1]);
                return stood >= 5;
            },
            "a place that stands still"
        );
        new OpenQA.Selenium.Interactions.Actions(driver).MoveToLocation((int)at.X, (int)at.Y).ClickAndHold().Perform();
        for (var moved = 10; moved <= by; moved += 10)
            new OpenQA.Selenium.Interactions.Actions(driver).MoveByOffset(10, 0).Perform();
        seen();
        new OpenQA.Selenium.Interactions.Actions(driver).Release().Perform();
    }

    /// <summary>Chooses one of several in the field that is named so: by mouse, or coming to it with Tab and typing.</summary>
    /// <param name="choice">How it begins in the list.</param>
    public void Pick(string label, string choice, bool keys = false)
    {
        // What is chosen stands over the field itself, which is not seen.
        var box = See($"//div[contains(@class, 'v-field ')][.//input[@aria-label = '{label}']]");
        var field = box.FindElement(By.XPath($".//input[@aria-label = '{label}']"));
        var isSearched = field.FindElements(By.XPath("./ancestor::div[contains(@class, 'v-autocomplete')]")).Count > 0;
        if (keys)
            Reach(element => element.Equals(field));
        else
            Press(box);
        if (isSearched)
            field.SendKeys(Keys.Control + "a" + Keys.Null + choice);
        else if (keys)
            field.SendKeys(Keys.Enter);
        var option = See($"//div[contains(@class, 'v-overlay--active')]//*[@role = 'option'][starts-with(normalize-space(), '{choice}')]");
        if (!keys)
            Press(option);
        else if (isSearched)
            field.SendKeys(Keys.Enter);
        else
        {
            var before = All("//div[contains(@class, 'v-overlay--active')]//*[@role = 'option']").IndexOf(option);
            Type(Keys.Home + string.Concat(Enumerable.Repeat(Keys.ArrowDown, before)) + Keys.Enter);
        }
        Until(() => All("//div[contains(@class, 'v-overlay--active')]//*[@role = 'option']").Count == 0, "the list is closed");
    }

    /// <summary>Writes in the field that is named so, in place of what stands there, and goes on.</summary>
    public void Write(string label, string text)
    {
        var field = See($"//input[@aria-label = '{label}']");
        AreSettled();
        field.SendKeys(Keys.Control + "a" + Keys.Null + text + Keys.Tab);
    }

    // A field that has just appeared may still take the focus.
    private void AreSettled() =>
        Ask<bool>("return new Promise(done => requestAnimationFrame(() => requestAnimationFrame(() => setTimeout(() => done(true), 50))))");

    /// <summary>Takes something with the mouse, moves it over something else and lets it go there.</summary>
    public void DragOnto(IWebElement taken, IWebElement target) =>
        new OpenQA.Selenium.Interactions.Actions(driver)
            .ClickAndHold(taken)
            .MoveByOffset(0, 8)
            .MoveToElement(target)
            .MoveByOffset(0, 6)
            .Pause(TimeSpan.FromMilliseconds(200))
            .Release()
            .Perform();

    /// <summary>Types into a field; an <see cref="Until"/> around it tries again where the field was drawn anew meanwhile.</summary>
    public bool TypedInto(string selector, string keys)
    {
        See(selector).SendKeys(keys);
        return true;
    }

    /// <summary>Comes in by a link that sets a password.</summary>
    public void ComeInBy(string link, string password, bool keys = false)
    {
        Open(link);
        foreach (var field in new[] { 1, 2 })
            See($"(//input[@autocomplete = 'new-password'])[{field}]").SendKeys(password);
        Choose(keys, "//button[normalize-space() = 'Save and sign in']");
    }

    /// <summary>Types wherever the focus is; where that was drawn anew meanwhile, nothing was typed, and it is tried again.</summary>
    public void Type(string keys) =>
        Until(
            () =>
            {
                driver.SwitchTo().ActiveElement().SendKeys(keys);
                return true;
            },
            "something to type into"
        );

    /// <summary>Comes with the Tab key alone to what is wanted.</summary>
    public void Reach(Func<IWebElement, bool> wanted)
    {
        var there = false;
        for (var n = 0; n < 160 && !there; n++)
        {
            var at = Focus();
            try
            {
                there = wanted(at);
                // What is sent to a field for a file is taken for the file's name.
                if (!there && at.GetAttribute("type") == "file")
                    new OpenQA.Selenium.Interactions.Actions(driver).SendKeys(Keys.Tab).Perform();
                else if (!there)
                    at.SendKeys(Keys.Tab);
            }
            // What had the focus was drawn anew: it is looked for again.
            catch (StaleElementReferenceException)
            {
                there = false;
            }
        }
        there.ShouldBeTrue("what is wanted is reached with the Tab key");
    }

    /// <summary>Presses something with the mouse, or comes to it with the Tab key alone and presses Enter.</summary>
    public void Choose(bool keys, string selector)
    {
        if (!keys)
        {
            Press(See(selector));
            return;
        }
        Until(() => See(selector).Enabled, selector);
        Reach(element => All(selector).Contains(element));
        AreSettled();
        if (!All(selector).Contains(Focus()))
            Reach(element => All(selector).Contains(element));
        Type(Keys.Enter);
    }

    /// <summary>
    /// Says yes to what is asked before it is done, where it is asked, with the mouse or with keys; then sees what came of it.
    /// </summary>
    public void Sure(string becomes, bool keys = false) =>
        Sure(() => Soon("says(arguments[0]) || asked()", becomes) is true, becomes, keys);

    /// <inheritdoc cref="Sure(string, bool)"/>
    public void Sure(Func<bool> becomes, string what, bool keys = false)
    {
        const string Asked = "[role=alertdialog]";
        Until(
            () =>
            {
                if (All(Asked).FirstOrDefault() is { Displayed: true } asked)
                {
                    var act = asked.FindElement(By.CssSelector(".v-btn.meant"));
                    // What takes something has the focus on leaving it.
                    if (keys && !Focus().Equals(act))
                        Type(Keys.Shift + Keys.Tab + Keys.Null);
                    else if (keys)
                        Type(Keys.Enter);
                    else
                        act.Click();
                }
                return becomes();
            },
            what
        );
        Until(() => All(Asked).Count == 0, "nothing is asked any more");
    }

    public IWebElement Focus() => driver.SwitchTo().ActiveElement();

    /// <summary>Pastes a text where the keys are, as from another program.</summary>
    public void PasteHere(string text) =>
        driver.ExecuteScript(
            "const data = new DataTransfer(); data.setData('text/plain', arguments[0]);"
                + "const event = new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true });"
                + "document.activeElement.dispatchEvent(event)",
            text
        );

    public T Ask<T>(string script, params object[] arguments) => (T)driver.ExecuteScript(script, arguments)!;

    public void Until(Func<bool> met, string what = "", TimeSpan? patience = null) => Wait(() => met() ? this : null, what, patience);

    /// <summary>Turns the paper over as another window would.</summary>
    public void Paper(string paper)
    {
        Ask<object?>(
            "const [newValue, key] = [arguments[0], 'polycline-paper']; localStorage.setItem(key, newValue); "
                + "dispatchEvent(new StorageEvent('storage', { key, newValue, storageArea: localStorage }))",
            paper
        );
        Until(() => Ask<string>("return document.documentElement.dataset.paper") == paper);
    }

    /// <summary>What axe finds wrong with the page, by WCAG 2.2 AA and good practice.</summary>
    /// <param name="colours">Only what depends on the colours.</param>
    public void IsAccessible(string where, bool colours = false)
    {
        if (Ask<bool>("return !window.axe"))
            driver.ExecuteScript(Axe);
        var found = (string)
            driver.ExecuteAsyncScript(
                """
                const done = arguments[arguments.length - 1]
                const all = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice']
                axe.run(document, { runOnly: arguments[0] ? { type: 'rule', values: ['color-contrast'] } : all })
                  .then(r => done(JSON.stringify(r.violations.map(v => `${v.id}: ${
                    v.nodes.map(n => n.target + ' ' + n.any.map(a => a.message).join()).join(' | ')}`))))
                """,
                colours
            )!;
        JsonSerializer.Deserialize<string[]>(found).ShouldBeEmpty(where);
    }

    /// <summary>Nothing was complained of: no error in the console, nothing against the content security policy.</summary>
    public void HeardNoComplaint()
    {
        Ask<IReadOnlyCollection<object>>("return window.violations ?? []").ShouldBeEmpty();
        driver
            .Manage()
            .Logs.GetLog(LogType.Browser)
            .Where(entry =>
                entry.Level >= LogLevel.Warning
                && !Expected.Any(status => entry.Message.Contains($"status of {status}", StringComparison.Ordinal))
            )
            .Select(entry => entry.Message)
            .ShouldBeEmpty();
        Commands();
    }

    /// <summary>Their device has no network from now on, or has it again; that a request found none is no complaint.</summary>
    public void SetOffline(bool offline)
    {
        driver.ExecuteCdpCommand(
            "Network.emulateNetworkConditions",
            new Dictionary<string, object?>
            {
                ["offline"] = offline,
                ["latency"] = 0,
                ["downloadThroughput"] = -1,
                ["uploadThroughput"] = -1,
            }
        );
        if (!offline)
            driver
                .Manage()
                .Logs.GetLog(LogType.Browser)
                .ShouldAllBe(entry => entry.Message.Contains("ERR_INTERNET_DISCONNECTED", StringComparison.Ordinal));
    }

    /// <summary>What was done to an edition or a term since last asked; each was looked at beforehand, in the very same form.</summary>
    public IReadOnlyList<string> Commands()
    {
        var done = new List<string>();
        foreach (var entry in driver.Manage().Logs.GetLog("performance"))
        {
            var message = JsonDocument.Parse(entry.Message).RootElement.GetProperty("message");
            if (
                message.GetProperty("method").GetString() != "Network.requestWillBeSent"
                || message.GetProperty("params").GetProperty("request") is var request
                    && request.GetProperty("method").GetString() != "POST"
            )
                continue;
            var asked = new Uri(request.GetProperty("url").GetString()!);
            if (
                asked.AbsolutePath.Split('/') is not ["", "api", "editions" or "terms", _, var command]
                || DoneAtOnce.Contains(command)
                || !request.TryGetProperty("postData", out var body)
            )
                continue;
            var form = $"{asked.AbsolutePath} {body.GetString()}";
            if (asked.Query.Contains("preview=true", StringComparison.Ordinal))
                looked.Add(form);
            else
            {
                looked.ShouldContain(form, $"{command} was done without having been looked at");
                done.Add(command);
            }
        }
        return done;
    }

    public void Picture(string path) => driver.GetScreenshot().SaveAsFile(path);

    public void Dispose()
    {
        Failing();
        Browsers.GiveBack(browser, address);
    }

    // Waits up to two seconds inside the page, checking again whenever it changes: polling from here costs more than the
    // pages themselves. Null if it has not happened by then, or the page was left.
    private object? Soon(string condition, params object[] arguments)
    {
        try
        {
            return driver.ExecuteAsyncScript(
                $$"""
                const done = arguments[arguments.length - 1]
                const says = (text) => document.body?.innerText.includes(text)
                const isSeen = (e) => (e.closest('select') ?? e).checkVisibility({ opacityProperty: true, visibilityProperty: true })
                const all = (of) => {
                  if (!/^\(?\/\//.test(of)) return [...document.querySelectorAll(of)]
                  const found = document.evaluate(of, document, null, XPathResult.ORDERED_NODE_SNAPSHOT_TYPE)
                  return Array.from({ length: found.snapshotLength }, (_, n) => found.snapshotItem(n))
                }
                const seen = (of) => all(of).find(isSeen)
                const asked = () => seen('[role=alertdialog]')
                const met = () => {{condition}}
                let [over, next] = [false, 0]
                const finish = (value) => {
                  if (over) return
                  over = true
                  observer.disconnect()
                  clearInterval(every)
                  done(value)
                }
                const look = () => {
                  next = 0
                  const value = met()
                  if (value) finish(value)
                }
                const observer = new MutationObserver(() => (next ||= setTimeout(look, 40)))
                observer.observe(document, { subtree: true, childList: true, characterData: true, attributes: true })
                // A change of style alone is no mutation.
                const every = setInterval(look, 250)
                setTimeout(() => finish(null), 2000)
                look()
                """,
                arguments
            );
        }
        catch (JavaScriptException)
        {
            return null;
        }
    }

    private T Wait<T>(Func<T> met, string what, TimeSpan? patience = null)
    {
        try
        {
            return new WebDriverWait(new SystemClock(), driver, patience ?? Patience, TimeSpan.FromMilliseconds(40))
            {
                Message = what,
            }.Until(_ =>
            {
                try
                {
                    return met();
                }
                catch (StaleElementReferenceException)
                {
                    return default;
                }
            })!;
        }
        catch (WebDriverTimeoutException)
        {
            var wrong = string.Join('\n', All("[role=alert], [role=alertdialog]").Select(told => told.Text));
            throw new TimeoutException($"Did not come: {what}\n{driver.Url}\n{wrong}\n{Begin(Text())}");
        }
    }

    // Its beginning, and its end, where what is asked and what was done stands.
    private static string Begin(string text) => text.Length <= 2_300 ? text : $"{text[..1_500]}\n…\n{text[^800..]}";
}
