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
          if (location.pathname === '/blank.html') seen('blankAt');
          else requestAnimationFrame(look);
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
        var blank = await MedianAsync(driver, yard, "/blank.html", "blankAt");
        Console.WriteLine($"phone: processor {Slower} times slower, nothing kept, median of {Runs}");
        Console.WriteLine($"  blank page           {blank.First, 8:0} ms");
        foreach (var (name, page) in new[] { ("in person", yard.Pages[1]), ("by video", byVideo) })
        {
            var (first, then) = await MedianAsync(driver, yard, $"/{yard.Ada.Desk}/{page}", "openingsAt", "formAt");
            Console.WriteLine(
                $"  {name, -10} openings  {first, 8:0} ms, ratio {first / blank.First:0.0}; pressed {then, 6:0} ms, ratio {then / blank.First:0.0}"
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
        return driver;
    }

    private static async Task<(double First, double Then)> MedianAsync(
        ChromeDriver driver,
        Yard yard,
        string path,
        string first,
        string? then = null
    )
    {
        var (firsts, thens) = (new List<double>(), new List<double>());
        // The first two are not counted: the server is cold, and so is the browser.
        for (var run = -2; run < Runs; run++)
        {
            driver.Navigate().GoToUrl("about:blank");
            var began = DateTimeOffset.UtcNow;
            driver.ExecuteCdpCommand(
                "Page.navigate",
                new() { ["url"] = new Uri(yard.Http.BaseAddress!, path).AbsoluteUri }
            );
            var seen = await AtAsync(driver, first);
            var pressed = then is null ? seen : await AtAsync(driver, then);
            if (run < 0)
                continue;
            firsts.Add(seen - began.ToUnixTimeMilliseconds());
            thens.Add(pressed - began.ToUnixTimeMilliseconds());
        }

        return (Middle(firsts), Middle(thens));
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
        driver.Navigate().GoToUrl("about:blank");
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

    private static double Middle(List<double> of) => of.Order().ElementAt(of.Count / 2);
}
