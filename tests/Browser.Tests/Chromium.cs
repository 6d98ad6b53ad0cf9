using System.Globalization;
using OpenQA.Selenium.Chrome;
using OpenQA.Selenium.Support.UI;

namespace Browser.Tests;

/// <summary>A headless Chromium of a test's own, with what a person does in it: open, read, type, press.</summary>
internal sealed class Chromium : IDisposable
{
    private const string Pressable = "button, a, summary, [role=button]";

    private static readonly TimeSpan Patience = TimeSpan.FromSeconds(20);

    private readonly string _profile = Directory.CreateTempSubdirectory("lantern-browser").FullName;
    private readonly ChromeDriver _driver;
    private readonly string _address;

    /// <param name="zone">The zone the browser says it is in.</param>
    public Chromium(string address, int width = 1280, int height = 800, string zone = "Europe/Copenhagen")
    {
        _address = address;
        var options = new ChromeOptions { BinaryLocation = "/usr/bin/chromium" };
        options.AddArguments(
            "--headless=new", "--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run", "--disable-background-networking",
            "--disable-component-update", "--disable-sync", "--disable-dev-shm-usage", "--hide-scrollbars", "--lang=en-GB", $"--user-data-dir={_profile}");
        options.AddUserProfilePreference("intl.accept_languages", "en-GB");
        options.SetLoggingPreference(LogType.Browser, LogLevel.Warning);
        _driver = new ChromeDriver(ChromeDriverService.CreateDefaultService("/usr/bin", "chromedriver"), options);
        _driver.ExecuteCdpCommand("Emulation.setTimezoneOverride", new Dictionary<string, object?> { ["timezoneId"] = zone });
        _driver.ExecuteCdpCommand("Emulation.setLocaleOverride", new Dictionary<string, object?> { ["locale"] = "en-GB" });
        Resize(width, height);
    }

    public string Path => new Uri(_driver.Url).AbsolutePath;

    public void Dispose()
    {
        _driver.Quit();
        _driver.Dispose();
        try
        {
            Directory.Delete(_profile, recursive: true);
        }
        catch (IOException)
        {
            // A helper process of the browser may still be closing its files.
        }
    }

    public void Resize(int width, int height) => _driver.ExecuteCdpCommand("Emulation.setDeviceMetricsOverride", new Dictionary<string, object?>
    {
        ["width"] = width, ["height"] = height, ["deviceScaleFactor"] = 1, ["mobile"] = width < 600,
    });

    /// <summary>The reader's system asks for dark colours.</summary>
    public void AskForDark() => _driver.ExecuteCdpCommand("Emulation.setEmulatedMedia", new Dictionary<string, object?>
    {
        ["features"] = new object[] { new Dictionary<string, object> { ["name"] = "prefers-color-scheme", ["value"] = "dark" } },
    });

    public void Open(string path) => _driver.Navigate().GoToUrl(_address + path);

    /// <summary>Waits until something on the screen holds true.</summary>
    public T Await<T>(Func<Chromium, T?> what, string describe)
    {
        var wait = new WebDriverWait(_driver, Patience) { PollingInterval = TimeSpan.FromMilliseconds(50), Message = $"Waited for {describe} at {_driver.Url}" };
        wait.IgnoreExceptionTypes(typeof(StaleElementReferenceException), typeof(NoSuchElementException));
        try
        {
            return wait.Until(_ => what(this))!;
        }
        catch (WebDriverTimeoutException)
        {
            // What stood on the screen instead tells more than a trace.
            Picture(System.IO.Path.Combine(System.IO.Path.GetTempPath(), "lantern-waited-in-vain.png"));
            throw new WebDriverTimeoutException($"{wait.Message}; the screen said: {_driver.FindElement(By.TagName("body")).Text}; the console: {string.Join(" | ", ConsoleErrors())}");
        }
    }

    public IWebElement Find(string css) => Await(
        browser => browser._driver.FindElements(By.CssSelector(css)).FirstOrDefault(element => element.Displayed), $"\"{css}\"");

    public IReadOnlyList<IWebElement> All(string css) => _driver.FindElements(By.CssSelector(css));

    public bool Shows(string text) => _driver.FindElement(By.TagName("body")).Text.Contains(text, StringComparison.Ordinal);

    public void AwaitText(string text) => Await(browser => browser.Shows(text) ? "yes" : null, $"the text \"{text}\"");

    public void AwaitNoText(string text) => Await(browser => browser.Shows(text) ? null : "gone", $"no text \"{text}\"");

    /// <summary>The button or link of that name, as it is read: by its label for screen readers where it has one, else by its text.</summary>
    public IWebElement Named(string name) => ByName(Pressable, name);

    public void AwaitNone(string name) => Await(browser => browser.FindByName(Pressable, name) is null ? "gone" : null, $"nothing named \"{name}\"");

    /// <summary>Waits for something that says this when it is pointed at.</summary>
    public void AwaitTitle(string title) => Find($"[title=\"{title}\"]");

    /// <summary>Presses the button or link of that name, once it is there; one that is drawn anew at that moment is looked for again.</summary>
    public void Press(string name) => Await(
        browser =>
        {
            if (browser.FindByName(Pressable, name) is not { } element) return null;
            browser.Click(element);
            return "pressed";
        },
        $"something named \"{name}\"");

    public void Click(IWebElement element)
    {
        _driver.ExecuteScript("arguments[0].scrollIntoView({block: 'center'})", element);
        element.Click();
    }

    /// <summary>The control that a label belongs to.</summary>
    public IWebElement Field(string label) => ByName("input, select, textarea", label);

    /// <summary>Takes out what a field holds and types anew, as a person would.</summary>
    public void Type(string label, string text)
    {
        var field = Field(label);
        _driver.ExecuteScript("arguments[0].scrollIntoView({block: 'center'})", field);
        field.SendKeys(Keys.Control + "a");
        field.SendKeys(text.Length == 0 ? Keys.Delete : text);
    }

    public void Choose(string label, string option)
    {
        var choice = Field(label).FindElements(By.TagName("option")).FirstOrDefault(candidate => candidate.Text == option);
        (choice ?? throw new NoSuchElementException($"\"{label}\" has no choice \"{option}\".")).Click();
    }

    public void Tab() => _driver.SwitchTo().ActiveElement().SendKeys(Keys.Tab);

    /// <summary>What axe finds wrong, one line a finding.</summary>
    public IReadOnlyList<string> AccessibilityFaults()
    {
        _driver.ExecuteScript(File.ReadAllText(System.IO.Path.Combine(Checkout.Root, "web/node_modules/axe-core/axe.min.js")));
        var faults = (IReadOnlyCollection<object>)_driver.ExecuteAsyncScript("""
            const done = arguments[arguments.length - 1];
            axe.run(document, { runOnly: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice'] }).then(
              (result) => done(result.violations.flatMap((fault) => fault.nodes.map((node) => `${fault.id}: ${node.html.slice(0, 200)} ${node.failureSummary}`))),
              (error) => done([String(error)]));
            """)!;
        return [.. faults.Select(fault => Convert.ToString(fault, CultureInfo.InvariantCulture)!)];
    }

    /// <summary>Errors on the browser's console, without those of answers that the server meant.</summary>
    public IReadOnlyList<string> ConsoleErrors() =>
        [.. _driver.Manage().Logs.GetLog(LogType.Browser).Select(entry => entry.Message).Where(message => !message.Contains("the server responded with a status of 4", StringComparison.Ordinal))];

    /// <summary>What a link leads to, fetched with the browser's own cookies.</summary>
    public string ReadLink(string name) => (string)_driver.ExecuteAsyncScript(
        "const done = arguments[1]; fetch(arguments[0]).then((answer) => answer.text()).then(done, (error) => done(String(error)));",
        Named(name).GetAttribute("href"))!;

    private IWebElement ByName(string css, string name) => Await(browser => browser.FindByName(css, name), $"something named \"{name}\"");

    private IWebElement? FindByName(string css, string name) => _driver.ExecuteScript(
            """
            const nameOf = (e) => (e.getAttribute('aria-label')
              ?? (e.labels?.length ? e.labels[0].textContent : e.matches('input, select, textarea') ? '' : e.innerText ?? '')).replace(/\s+/g, ' ').trim();
            return [...document.querySelectorAll(arguments[0])].find((e) => nameOf(e) === arguments[1] && (e.type === 'file' || e.checkVisibility())) ?? null;
            """, css, name) as IWebElement;

    /// <summary>What reaches past the right edge of the screen, though it does not scroll by itself.</summary>
    public IReadOnlyList<string> TooWide()
    {
        var wide = (IReadOnlyCollection<object>)_driver.ExecuteScript("""
            const screen = document.documentElement.clientWidth;
            if (document.documentElement.scrollWidth <= screen) return [];
            const scrolls = (e) => e && e !== document.body && (getComputedStyle(e).overflowX !== 'visible' || scrolls(e.parentElement));
            return [`the document: ${document.documentElement.scrollWidth} of ${screen}`, ...[...document.body.querySelectorAll('*')]
              .filter((e) => e.getBoundingClientRect().right > screen + 1 && !scrolls(e.parentElement))
              .map((e) => `${Math.round(e.getBoundingClientRect().right)}: ${e.outerHTML.slice(0, 160)}`)];
            """)!;
        return [.. wide.Select(element => Convert.ToString(element, CultureInfo.InvariantCulture)!)];
    }

    /// <summary>Buttons and fields that a thumb would miss: less than 44 CSS pixels high.</summary>
    public IReadOnlyList<string> TooSmallForThumbs()
    {
        var small = (IReadOnlyCollection<object>)_driver.ExecuteScript("""
            return [...document.querySelectorAll('button, input, select, a[href]')]
              .filter((e) => e.checkVisibility() && e.getBoundingClientRect().height < 43.5)
              .map((e) => `${Math.round(e.getBoundingClientRect().height)}: ${e.outerHTML.slice(0, 160)}`);
            """)!;
        return [.. small.Select(element => Convert.ToString(element, CultureInfo.InvariantCulture)!)];
    }

    public void ScrollToTop() => _driver.ExecuteScript("window.scrollTo(0, 0)");

    public void Picture(string file) => _driver.GetScreenshot().SaveAsFile(file);
}
