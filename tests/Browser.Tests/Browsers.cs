using System.Collections.Concurrent;
using OpenQA.Selenium.Chrome;

[assembly: AssemblyFixture(typeof(Browser.Tests.Browsers))]

namespace Browser.Tests;

/// <summary>
/// The browsers that run. To start one takes longer than many a walk: one that a test has done with goes on to the
/// next, which gets a tab of its own and finds neither cookies nor anything kept.
/// </summary>
public sealed class Browsers : IDisposable
{
    private static readonly ConcurrentDictionary<(string, bool), ConcurrentBag<ChromeDriver>> Idle = new();
    private static readonly ConcurrentDictionary<ChromeDriver, string> Profiles = new();

    /// <param name="language">The language its reader likes best.</param>
    /// <param name="blocksOthersCookies">Whether it keeps no cookies of sites in frames.</param>
    internal static ChromeDriver Take(string language, bool blocksOthersCookies) =>
        IdleOf(language, blocksOthersCookies).TryTake(out var idle) ? idle : Start(language, blocksOthersCookies);

    /// <summary>Of one that is done with. What it showed goes at once, for its server may end as well.</summary>
    internal static void GiveBack(ChromeDriver driver, string language, bool blocksOthersCookies)
    {
        try
        {
            Clear(driver);
            IdleOf(language, blocksOthersCookies).Add(driver);
        }
        catch (WebDriverException)
        {
            End(driver);
        }
    }

    public void Dispose()
    {
        foreach (var driver in Profiles.Keys)
            End(driver);
    }

    private static ConcurrentBag<ChromeDriver> IdleOf(string language, bool blocksOthersCookies) =>
        Idle.GetOrAdd((language, blocksOthersCookies), _ => []);

    private static void Clear(ChromeDriver driver)
    {
        // What a tab keeps goes with it, and so does every way it was told to behave.
        driver.SwitchTo().NewWindow(WindowType.Tab);
        var tab = driver.CurrentWindowHandle;
        foreach (var former in driver.WindowHandles.Where(handle => handle != tab).ToList())
            driver.SwitchTo().Window(former).Close();
        driver.SwitchTo().Window(tab);
        driver.ExecuteCdpCommand("Network.clearBrowserCookies", []);
        driver.Manage().Logs.GetLog(LogType.Browser);
    }

    private static ChromeDriver Start(string language, bool blocksOthersCookies)
    {
        var profile = Directory.CreateTempSubdirectory("lantern-browser").FullName;
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
            "--disable-dev-shm-usage",
            "--hide-scrollbars",
            $"--lang={language}",
            $"--user-data-dir={profile}"
        );
        options.AddUserProfilePreference("intl.accept_languages", language);
        if (blocksOthersCookies)
        {
            options.AddUserProfilePreference("profile.block_third_party_cookies", true);
            options.AddUserProfilePreference("profile.cookie_controls_mode", 1);
        }

        options.SetLoggingPreference(LogType.Browser, LogLevel.Warning);
        var driver = new ChromeDriver(ChromeDriverService.CreateDefaultService("/usr/bin", "chromedriver"), options);
        Profiles[driver] = profile;
        return driver;
    }

    private static void End(ChromeDriver driver)
    {
        if (!Profiles.TryRemove(driver, out var profile))
            return;
        driver.Quit();
        driver.Dispose();
        try
        {
            Directory.Delete(profile, recursive: true);
        }
        catch (IOException)
        {
            // A helper process of the browser may still be closing its files.
        }
    }
}
