using System.Text.Json;
using OpenQA.Selenium;
using OpenQA.Selenium.Chrome;

namespace LooseLantern.Bench.Requests;

/// <summary>
/// A guest's page on a phone with a processor slowed down four times and nothing kept, beside a blank page of the same
/// server: from the address to the first opening on screen, and to the form that pressing it opens.
/// </summary>
internal static class Phone
{
    private const int Runs = 9;
    private const int Slower = 4;

    // As soon as there is an opening it is pressed, as somebody in a hurry would.
    private const string Watch = """
        (() => {
          if (window !== top) return;
          const seen = (what, then) => requestAnimationFrame(() => setTimeout(() => { window[what] ??= Date.now(); then?.(); }));
          const look = () => {
            const opening = document.querySelector('[data-start]');
            if (opening) return seen('openingsAt', () => { (document.querySelector('[data-start]')).click(); wait(); });
            requestAnimationFrame(look);
          };
          const wait = () => (document.querySelector('#guest-name') ? seen('formAt') : requestAnimationFrame(wait));
          // The blank page is looked for as the openings are.
          const blank = () => (document.body ? seen('blankAt') : requestAnimationFrame(blank));
          requestAnimationFrame(location.pathname === '/blank.html' ? blank : look);
        })();
        """;

    public static async Task RunAsync(Yard yard)
    {
        var byVideo = await yard.Ada.PublishAsync(draft =>
            (draft.Day, draft.Seats, draft.AheadDays, draft.Address, draft.PlaceKind) = (
                Yard.Day,
                [yard.Hosts[..2].ToArray()],
                60,
                "by-video",
                "video"
            )
        );
        using var driver = Start();
        (string Name, string Path)[] screens =
        [
            ("blank", "/blank.html"),
            ("in person", $"/{yard.Ada.Desk}/{yard.Pages[1]}"),
            ("by video", $"/{yard.Ada.Desk}/{byVideo}"),
        ];
        var seen = screens.ToDictionary(screen => screen.Name, _ => new List<(double First, double Then)>());
        // In turns, since the machine is not quiet. The first two are not counted: server and browser are cold.
        for (var run = -2; run < Runs; run++)
        {
            foreach (var (name, path) in screens)
            {
                var took = await OnceAsync(driver, yard, path);
                if (run >= 0)
                    seen[name].Add(took);
            }
        }

        var blank = Middle(seen["blank"].Select(took => took.First));
        Console.WriteLine($"phone: processor {Slower} times slower, nothing kept, median of {Runs}");
        Console.WriteLine($"  blank page           {blank, 8:0} ms");
        foreach (var (name, _) in screens[1..])
        {
            var (first, then) = (
                Middle(seen[name].Select(took => took.First)),
                Middle(seen[name].Select(took => took.Then))
            );
            Console.WriteLine(
                $"  {name, -10} openings  {first, 8:0} ms, ratio {first / blank:0.0}; pressed {then, 6:0} ms, ratio {then / blank:0.0}"
            );
        }

        var (bytes, files) = await LoadedAsync(driver, yard, $"/{yard.Ada.Desk}/{byVideo}");
        Console.WriteLine($"  loaded               {bytes / 1024.0, 8:0} KB in {files} files");
    }

    private static ChromeDriver Start()
    {
        var options = new ChromeOptions { BinaryLocation = "/usr/bin/chromium" };
        options.AddArguments(
            "--headless=new",
            "--no-sandbox",
            "--disable-gpu",
            "--disable-background-networking",
            "--window-size=390,844"
        );
        options.SetLoggingPreference("performance", LogLevel.All);
        var driver = new ChromeDriver(ChromeDriverService.CreateDefaultService("/usr/bin", "chromedriver"), options);
        return driver;
    }

    /// <summary>A tab of its own, as a link in a mail opens one.</summary>
    private static void Fresh(ChromeDriver driver)
    {
        var former = driver.CurrentWindowHandle;
        driver.SwitchTo().NewWindow(WindowType.Tab);
        var tab = driver.CurrentWindowHandle;
        driver.SwitchTo().Window(former).Close();
        driver.SwitchTo().Window(tab);
        driver.ExecuteCdpCommand(
            "Emulation.setDeviceMetricsOverride",
            new()
            {
                ["width"] = 390,
                ["height"] = 844,
                ["deviceScaleFactor"] = 2,
                ["mobile"] = true,
            }
        );
        driver.ExecuteCdpCommand("Page.addScriptToEvaluateOnNewDocument", new() { ["source"] = Watch });
        driver.ExecuteCdpCommand("Network.enable", []);
        driver.ExecuteCdpCommand("Network.setCacheDisabled", new() { ["cacheDisabled"] = true });
        driver.ExecuteCdpCommand("Emulation.setCPUThrottlingRate", new() { ["rate"] = Slower });
    }

    /// <summary>
    /// Milliseconds until the first opening is on screen, and until the form that pressing it opens is.
    /// </summary>
    private static async Task<(double First, double Then)> OnceAsync(ChromeDriver driver, Yard yard, string path)
    {
        Fresh(driver);
        var began = DateTimeOffset.UtcNow.ToUnixTimeMilliseconds();
        driver.ExecuteCdpCommand(
            "Page.navigate",
            new() { ["url"] = new Uri(yard.Http.BaseAddress!, path).AbsoluteUri }
        );
        if (path == "/blank.html")
            return (await AtAsync(driver, "blankAt") - began, 0);
        return (await AtAsync(driver, "openingsAt") - began, await AtAsync(driver, "formAt") - began);
    }

    private static async Task<double> AtAsync(ChromeDriver driver, string what)
    {
        using var patience = new CancellationTokenSource(TimeSpan.FromMinutes(1));
        while (true)
        {
            if (driver.ExecuteScript($"return window.{what} ?? null") is { } at)
                return Convert.ToDouble(at, System.Globalization.CultureInfo.InvariantCulture);
            // Asked seldom, so that asking takes little of the slowed processor.
            await Task.Delay(150, patience.Token);
        }
    }

    /// <summary>What came over the line, heads and all.</summary>
    private static async Task<(long Bytes, int Files)> LoadedAsync(ChromeDriver driver, Yard yard, string path)
    {
        Fresh(driver);
        driver.Manage().Logs.GetLog("performance");
        driver.Navigate().GoToUrl(new Uri(yard.Http.BaseAddress!, path).AbsoluteUri);
        await AtAsync(driver, "formAt");
        var (bytes, files) = (0L, 0);
        foreach (var entry in driver.Manage().Logs.GetLog("performance"))
        {
            using var said = JsonDocument.Parse(entry.Message);
            var message = said.RootElement.GetProperty("message");
            if (message.GetProperty("method").GetString() != "Network.loadingFinished")
                continue;
            bytes += (long)message.GetProperty("params").GetProperty("encodedDataLength").GetDouble();
            files++;
        }

        return (bytes, files);
    }

    private static double Middle(IEnumerable<double> of) => of.Order().ElementAt(Runs / 2);
}
