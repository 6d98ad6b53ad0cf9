using System.Globalization;
using OpenQA.Selenium.Chrome;
using OpenQA.Selenium.Support.UI;

namespace Browser.Tests;

/// <summary>A headless Chromium of a test's own, with what a person does in it: open, read, type, press.</summary>
internal sealed class Chromium : IDisposable
{
    private const string Pressable = "button, a, summary, [role=button]";

    private const int MostTold = 1500;

    private static readonly Lazy<string> Axe = new(() =>
        File.ReadAllText(System.IO.Path.Combine(Checkout.Root, "web/node_modules/axe-core/axe.min.js"))
    );

    private static readonly TimeSpan Patience = TimeSpan.FromSeconds(40);

    private readonly ChromeDriver _driver;
    private readonly string _address;
    private readonly (string Language, bool BlocksOthersCookies) _kind;

    /// <param name="zone">The zone the browser says it is in.</param>
    /// <param name="language">The language its reader likes best.</param>
    /// <param name="blocksOthersCookies">Whether it keeps no cookies of sites in frames.</param>
    public Chromium(
        string address,
        int width = 1280,
        int height = 800,
        string zone = "Europe/Copenhagen",
        string language = "en-GB",
        bool blocksOthersCookies = false
    )
    {
        (_address, _kind) = (address, (language, blocksOthersCookies));
        _driver = Browsers.Take(language, blocksOthersCookies);
        _driver.ExecuteCdpCommand(
            "Emulation.setTimezoneOverride",
            new Dictionary<string, object?> { ["timezoneId"] = zone }
        );
        _driver.ExecuteCdpCommand(
            "Emulation.setLocaleOverride",
            new Dictionary<string, object?> { ["locale"] = language }
        );
        Resize(width, height);
    }

    public string Path => new Uri(_driver.Url).AbsolutePath;

    public string Title => _driver.Title;

    /// <summary>Every script that the page has loaded so far, by address.</summary>
    public IReadOnlyList<string> Scripts() =>
        [
            .. (
                (IReadOnlyCollection<object>)
                    _driver.ExecuteScript(
                        "return [...new Set(performance.getEntriesByType('resource').map((entry) => entry.name).filter((name) => name.endsWith('.js')))]"
                    )!
            ).Cast<string>(),
        ];

    /// <summary>Does something inside a frame of the page.</summary>
    public void InFrame(string css, Action<Chromium> what)
    {
        _driver.SwitchTo().Frame(Find(css));
        what(this);
        _driver.SwitchTo().DefaultContent();
    }

    /// <summary>How often something was pressed, dragged, chosen or filled in so far.</summary>
    public int Handled { get; private set; }

    public void Dispose() => Browsers.GiveBack(_driver, _kind.Language, _kind.BlocksOthersCookies);

    public void Resize(int width, int height) =>
        _driver.ExecuteCdpCommand(
            "Emulation.setDeviceMetricsOverride",
            new Dictionary<string, object?>
            {
                ["width"] = width,
                ["height"] = height,
                ["deviceScaleFactor"] = 1,
                ["mobile"] = width < 600,
            }
        );

    /// <summary>The reader's system asks for dark colours.</summary>
    public void AskForDark() =>
        _driver.ExecuteCdpCommand(
            "Emulation.setEmulatedMedia",
            new Dictionary<string, object?>
            {
                ["features"] = new object[]
                {
                    new Dictionary<string, object> { ["name"] = "prefers-color-scheme", ["value"] = "dark" },
                },
            }
        );

    /// <summary>Goes to a path, and waits until the app stands there in place of what is seen before it.</summary>
    public void Open(string path)
    {
        OpenAtOnce(path);
        Await(browser => browser.All("#first-view").Count == 0 ? "yes" : null, "the app");
    }

    /// <summary>The same, not waiting for the app.</summary>
    public void OpenAtOnce(string path) => _driver.Navigate().GoToUrl(_address + path);

    /// <summary>Whatever is loaded from here on comes so slowly, and no page is waited for.</summary>
    public void SlowDown(int bytesPerSecond)
    {
        Keep(nothing: true);
        _driver.ExecuteCdpCommand(
            "Network.emulateNetworkConditions",
            new Dictionary<string, object?>
            {
                ["offline"] = false,
                ["latency"] = 20,
                ["downloadThroughput"] = bytesPerSecond,
                ["uploadThroughput"] = bytesPerSecond,
            }
        );
    }

    /// <summary>Runs a script in each page before any of its own.</summary>
    public void Before(string script) =>
        _driver.ExecuteCdpCommand("Page.addScriptToEvaluateOnNewDocument", new() { ["source"] = script });

    /// <summary>Loads nothing from such addresses; * stands for anything.</summary>
    public void Block(params string[] addresses)
    {
        Keep(nothing: true);
        _driver.ExecuteCdpCommand("Network.setBlockedURLs", new Dictionary<string, object?> { ["urls"] = addresses });
    }

    /// <summary>Runs no scripts of pages.</summary>
    public void WithoutScripts() =>
        _driver.ExecuteCdpCommand(
            "Emulation.setScriptExecutionDisabled",
            new Dictionary<string, object?> { ["value"] = true }
        );

    /// <summary>Whatever a script of ours answers in the page.</summary>
    public object? Ask(string script) => _driver.ExecuteScript(script);

    private void Keep(bool nothing)
    {
        _driver.ExecuteCdpCommand("Network.enable", []);
        _driver.ExecuteCdpCommand(
            "Network.setCacheDisabled",
            new Dictionary<string, object?> { ["cacheDisabled"] = nothing }
        );
    }

    /// <summary>Waits until something on the screen holds true.</summary>
    public T Await<T>(Func<Chromium, T?> what, string describe)
    {
        var wait = new WebDriverWait(_driver, Patience)
        {
            PollingInterval = TimeSpan.FromMilliseconds(250),
            Message = $"Waited for {describe} at {_driver.Url}",
        };
        wait.IgnoreExceptionTypes(typeof(StaleElementReferenceException), typeof(NoSuchElementException));
        try
        {
            return wait.Until(_ => what(this))!;
        }
        catch (WebDriverTimeoutException)
        {
            // What stood on the screen instead tells more than a trace.
            Picture(System.IO.Path.Combine(System.IO.Path.GetTempPath(), "lantern-waited-in-vain.png"));
            throw new WebDriverTimeoutException(
                $"{wait.Message}; the screen said: {Cut(Text())}; the console: {string.Join(" | ", ConsoleErrors())}"
            );
        }
    }

    private static string Cut(string text) => text.Length <= MostTold ? text : text[..MostTold] + " …";

    // Asked of the browser itself: WebDriver's own ways to tell what is displayed walk through the whole document in
    // script.
    public IWebElement Find(string css) =>
        Await(
            browser =>
                browser._driver.ExecuteScript(
                    "return [...document.querySelectorAll(arguments[0])].find((e) => e.checkVisibility()) ?? null",
                    css
                ) as IWebElement,
            $"\"{css}\""
        );

    public IReadOnlyList<IWebElement> All(string css) => _driver.FindElements(By.CssSelector(css));

    public bool Shows(string text) => Text().Contains(text, StringComparison.Ordinal);

    /// <summary>All that stands on the screen, with spaces that don't break as plain ones.</summary>
    private string Text() =>
        (string)_driver.ExecuteScript(@"return document.body.innerText.replaceAll('\u00a0', ' ')")!;

    public void AwaitText(string text) => Await(browser => browser.Shows(text) ? "yes" : null, $"the text \"{text}\"");

    public void AwaitNoText(string text) =>
        Await(browser => browser.Shows(text) ? null : "gone", $"no text \"{text}\"");

    /// <summary>
    /// Opens the same screen again and again until it says something; what it says before that tells that it has come.
    /// </summary>
    public void AwaitAnew(string text, string unless)
    {
        Open(Path);
        Await(
            browser =>
            {
                if (browser.Shows(text))
                    return "there";
                // Opened anew only once it is drawn: a screen that is opened at every look is never seen.
                if (browser.Shows(unless))
                    browser.Open(browser.Path);
                return null;
            },
            $"the text \"{text}\", opening the screen anew"
        );
    }

    /// <summary>
    /// The button or link of that name, as it is read: by its label for screen readers where it has one, else by its
    /// text.
    /// </summary>
    public IWebElement Named(string name) => ByName(Pressable, name);

    public void AwaitNone(string name) =>
        Await(browser => browser.FindByName(Pressable, name) is null ? "gone" : null, $"nothing named \"{name}\"");

    /// <summary>Waits for something that says this when it is pointed at.</summary>
    public void AwaitTitle(string title) => Find($"[title=\"{title}\"]");

    /// <summary>
    /// Presses the button or link of that name, once it is there; one that is drawn anew at that moment is looked for
    /// again.
    /// </summary>
    public void Press(string name) =>
        Await(
            browser =>
            {
                if (browser.FindByName(Pressable, name) is not { } element)
                    return null;
                browser.Click(element);
                return "pressed";
            },
            $"something named \"{name}\""
        );

    /// <summary>
    /// Drags in a lane by the mouse, from one minute after midnight to another; with <paramref name="to"/> another
    /// lane, into that.
    /// </summary>
    public void DragInLane(string label, int from, int until, string? to = null)
    {
        Handled++;
        var (x, y) = PointIn(label, from);
        var (endX, endY) = PointIn(to ?? label, until);
        new OpenQA.Selenium.Interactions.Actions(_driver)
            .MoveToLocation(x, y)
            .ClickAndHold()
            .MoveToLocation((x + endX) / 2, (y + endY) / 2)
            .MoveToLocation(endX, endY)
            .Release()
            .Perform();
    }

    /// <summary>Presses in a lane at a minute after midnight.</summary>
    public void PressInLane(string label, int minute)
    {
        Handled++;
        var (x, y) = PointIn(label, minute);
        new OpenQA.Selenium.Interactions.Actions(_driver).MoveToLocation(x, y).Click().Perform();
    }

    /// <summary>Draws a finger through a lane.</summary>
    public void TouchInLane(string label, int from, int until)
    {
        Handled++;
        var (x, y) = PointIn(label, from);
        var (endX, _) = PointIn(label, until);
        Touch("touchStart", x, y);
        for (var step = 1; step <= 5; step++)
            Touch("touchMove", x + (endX - x) * step / 5, y);
        _driver.ExecuteCdpCommand(
            "Input.dispatchTouchEvent",
            new Dictionary<string, object?> { ["type"] = "touchEnd", ["touchPoints"] = Array.Empty<object>() }
        );
    }

    /// <summary>Leads the keyboard to a lane and types keys there.</summary>
    public void KeysInLane(string label, params string[] keys)
    {
        var lane = Find($"[data-lane][aria-label='{label}']");
        // As a keyboard does: only then is the place in the lane shown.
        _driver.ExecuteScript("document.activeElement?.blur(); arguments[0].focus({ focusVisible: true })", lane);
        foreach (var key in keys)
            _driver.SwitchTo().ActiveElement().SendKeys(key);
    }

    private void Touch(string type, int x, int y) =>
        _driver.ExecuteCdpCommand(
            "Input.dispatchTouchEvent",
            new Dictionary<string, object?>
            {
                ["type"] = type,
                ["touchPoints"] = new[]
                {
                    new Dictionary<string, object> { ["x"] = x, ["y"] = y },
                },
            }
        );

    private (int X, int Y) PointIn(string label, int minute)
    {
        var lane = Find($"[data-lane][aria-label='{label}']");
        var point =
            (IReadOnlyCollection<object>)
                _driver.ExecuteScript(
                    """
                    const [lane, minute] = arguments;
                    const inView = lane.getBoundingClientRect();
                    if (inView.top < 120 || inView.bottom > innerHeight - 40) lane.scrollIntoView({ block: 'center' });
                    const box = lane.getBoundingClientRect();
                    const [from, to] = [Number(lane.dataset.from), Number(lane.dataset.to)];
                    return [Math.round(box.left + (box.width * (minute - from)) / (to - from)), Math.round(box.top + box.height / 2)];
                    """,
                    lane,
                    minute
                )!;
        var numbers = point.Select(number => Convert.ToInt32(number, CultureInfo.InvariantCulture)).ToList();
        return (numbers[0], numbers[1]);
    }

    public void Click(IWebElement element)
    {
        Handled++;
        _driver.ExecuteScript("arguments[0].scrollIntoView({block: 'center'})", element);
        element.Click();
    }

    /// <summary>The control that a label belongs to.</summary>
    public IWebElement Field(string label) => ByName("input, select, textarea", label);

    /// <summary>Takes out what a field holds and types anew, as a person would.</summary>
    public void Type(string label, string text)
    {
        Handled++;
        var field = Field(label);
        _driver.ExecuteScript("arguments[0].scrollIntoView({block: 'center'})", field);
        field.SendKeys(Keys.Control + "a");
        field.SendKeys(text.Length == 0 ? Keys.Delete : text);
    }

    /// <summary>Sets a date field, which browsers show by the reader's own order of day and month.</summary>
    public void SetDate(string label, string date)
    {
        Handled++;
        _driver.ExecuteScript(
            "for (const kind of ['input', 'change']) { arguments[0].value = arguments[1]; arguments[0].dispatchEvent(new Event(kind, { bubbles: true })); }",
            Field(label),
            date
        );
    }

    public void Choose(string label, string option)
    {
        Handled++;
        var choice = Field(label)
            .FindElements(By.TagName("option"))
            .FirstOrDefault(candidate => candidate.Text == option);
        (choice ?? throw new NoSuchElementException($"\"{label}\" has no choice \"{option}\".")).Click();
    }

    /// <summary>Chooses a zone by typing the beginning of its city.</summary>
    public void ChooseZone(string label, string city)
    {
        Type(label, city);
        Await(
            browser =>
                browser
                    ._driver.FindElements(By.CssSelector("[role=option][aria-selected=true]"))
                    .Any(option => option.Text.StartsWith(city, StringComparison.Ordinal))
                    ? "there"
                    : null,
            $"the zone of {city}"
        );
        Field(label).SendKeys(Keys.Enter);
    }

    /// <summary>An attribute of whatever has the focus.</summary>
    public string? Focused(string attribute) => _driver.SwitchTo().ActiveElement().GetAttribute(attribute);

    /// <summary>Types into whatever has the focus, or into nothing.</summary>
    public void Keyboard(string keys)
    {
        Handled++;
        _driver.SwitchTo().ActiveElement().SendKeys(keys);
    }

    public void Tab() => _driver.SwitchTo().ActiveElement().SendKeys(Keys.Tab);

    /// <summary>What axe finds wrong, one line a finding.</summary>
    public IReadOnlyList<string> AccessibilityFaults()
    {
        if (!(bool)_driver.ExecuteScript("return 'axe' in window")!)
            _driver.ExecuteScript(Axe.Value);
        // What a header that stays covers for the moment is no fault of the page.
        _driver.ExecuteScript("scrollTo(0, 0)");
        var faults =
            (IReadOnlyCollection<object>)
                _driver.ExecuteAsyncScript(
                    """
                    const done = arguments[arguments.length - 1];
                    const options = {
                      runOnly: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice'],
                      // Only what is wrong is asked for, so that nothing is told of all that is right.
                      resultTypes: ['violations'],
                      preload: false,
                    };
                    // What fades in is looked at once it is there.
                    const comes = document.getAnimations().filter((one) => one.effect?.getComputedTiming().endTime !== Infinity);
                    Promise.allSettled(comes.map((one) => one.finished)).then(() => axe.run(document, options)).then(
                      (result) => done(result.violations.flatMap((fault) => fault.nodes.map(
                        (node) => `${fault.id}: ${node.html.slice(0, 200)} ${node.failureSummary}`))),
                      (error) => done([String(error)]));
                    """
                )!;
        return [.. faults.Select(fault => Convert.ToString(fault, CultureInfo.InvariantCulture)!)];
    }

    /// <summary>Errors on the browser's console, without those of answers that the server meant.</summary>
    public IReadOnlyList<string> ConsoleErrors() =>
        [
            .. _driver
                .Manage()
                .Logs.GetLog(LogType.Browser)
                .Select(entry => entry.Message)
                .Where(message =>
                    !message.Contains("the server responded with a status of 4", StringComparison.Ordinal)
                ),
        ];

    /// <summary>What a link leads to, fetched with the browser's own cookies.</summary>
    public string ReadLink(string name) =>
        (string)
            _driver.ExecuteAsyncScript(
                "const done = arguments[1]; fetch(arguments[0]).then((answer) => answer.text()).then(done, (error) => done(String(error)));",
                Named(name).GetAttribute("href")
            )!;

    private IWebElement ByName(string css, string name) =>
        Await(browser => browser.FindByName(css, name), $"something named \"{name}\"");

    private IWebElement? FindByName(string css, string name) =>
        _driver.ExecuteScript(
            """
            const nameOf = (e) => (e.getAttribute('aria-label')
              ?? (e.labels?.length ? e.labels[0].textContent : e.matches('input, select, textarea') ? '' : e.innerText ?? '')).replace(/\s+/g, ' ').trim();
            return [...document.querySelectorAll(arguments[0])].find((e) => nameOf(e) === arguments[1] && (e.type === 'file' || e.checkVisibility())) ?? null;
            """,
            css,
            name
        ) as IWebElement;

    /// <summary>What reaches past the right edge of the screen, though it does not scroll by itself.</summary>
    public IReadOnlyList<string> TooWide()
    {
        var wide =
            (IReadOnlyCollection<object>)
                _driver.ExecuteScript(
                    """
                    const screen = document.documentElement.clientWidth;
                    if (document.documentElement.scrollWidth <= screen) return [];
                    const scrolls = (e) => e && e !== document.body && (getComputedStyle(e).overflowX !== 'visible' || scrolls(e.parentElement));
                    return [`the document: ${document.documentElement.scrollWidth} of ${screen}`, ...[...document.body.querySelectorAll('*')]
                      .filter((e) => e.getBoundingClientRect().right > screen + 1 && !scrolls(e.parentElement))
                      .map((e) => `${Math.round(e.getBoundingClientRect().right)}: ${e.outerHTML.slice(0, 160)}`)];
                    """
                )!;
        return [.. wide.Select(element => Convert.ToString(element, CultureInfo.InvariantCulture)!)];
    }

    /// <summary>
    /// Buttons and fields that a thumb would miss: less than 44 CSS pixels high. What stands in its label is hit with
    /// the label.
    /// </summary>
    public IReadOnlyList<string> TooSmallForThumbs()
    {
        var small =
            (IReadOnlyCollection<object>)
                _driver.ExecuteScript(
                    """
                    return [...document.querySelectorAll('button, input, select, a[href]')]
                      .filter((e) => e.checkVisibility() && (e.closest('label') ?? e).getBoundingClientRect().height < 43.5)
                      .map((e) => `${Math.round(e.getBoundingClientRect().height)}: ${e.outerHTML.slice(0, 160)}`);
                    """
                )!;
        return [.. small.Select(element => Convert.ToString(element, CultureInfo.InvariantCulture)!)];
    }

    public void ScrollToTop() => _driver.ExecuteScript("window.scrollTo(0, 0)");

    public void Picture(string file) => _driver.GetScreenshot().SaveAsFile(file);
}
