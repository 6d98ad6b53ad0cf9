namespace Browser.Tests;

/// <summary>Somebody's mail, on the mail server's own screen.</summary>
internal static class MailSteps
{
    public static void AwaitMail(this Chromium mail, string box, string subject) =>
        mail.Await(
            browser =>
            {
                browser.Open("/mail/" + box);
                return browser.Shows(subject) ? "there" : null;
            },
            $"the mail “{subject}”"
        );

    /// <summary>Where a link in that mail leads on our site.</summary>
    /// <param name="within">What its path has in it.</param>
    public static string AwaitLink(this Chromium mail, string box, string subject, string within)
    {
        mail.AwaitMail(box, subject);
        return new Uri(
            mail.All("pre a")
                .Select(a => a.GetAttribute("href")!)
                .First(href => href.Contains(within, StringComparison.Ordinal))
        ).AbsolutePath;
    }
}
