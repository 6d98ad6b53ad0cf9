using System.Globalization;
using System.Net;

namespace LooseLantern.StandIns.Mail;

/// <summary>The mailboxes on the stand-ins' screen.</summary>
internal static class MailScreen
{
    private const string Style = """
        body{font:16px/1.45 system-ui,sans-serif;margin:0 auto;max-width:60rem;padding:1.2rem;background:#f2f4f3;color:#1d2a2a}
        h1{font-size:1.3rem}article{background:#fff;border:1px solid #cfd8d6;padding:.8rem 1rem;margin:.8rem 0}pre{white-space:pre-wrap;overflow-wrap:anywhere}
        h2{font-size:1.05rem;margin:0}.note{color:#4d6060;margin:.2rem 0}
        """;

    public static void Map(WebApplication app, MailStore store)
    {
        app.MapGet("/mail", () => Html("Mail stand-in", $"<p>Whose mail?</p><ul>{string.Concat(store.Boxes().Select(box => $"<li><a href=\"/mail/{Uri.EscapeDataString(box)}\">{Text(box)}</a></li>"))}</ul>"));
        app.MapGet("/mail/{box}", (string box) => Html($"Mail of {box}", string.Concat(store.Mails(box).Select(ArticleOf))));
    }

    private static string ArticleOf(StoredMail mail) => $"""
        <article><h2>{Text(mail.Subject)}</h2>
        <p class="note">from {Text(mail.From)}, {Text(mail.At.ToString("d MMM yyyy, HH:mm 'UTC'", CultureInfo.GetCultureInfo("en-GB")))}{(mail.Method is null ? "" : $", with an invitation ({Text(mail.Method)})")}</p>
        <pre>{Linked(mail.Text)}</pre>{(mail.Calendar is null ? "" : $"<details><summary>The calendar part</summary><pre>{Text(mail.Calendar)}</pre></details>")}</article>
        """;

    private static string Linked(string text) => string.Join('\n', text.Split('\n').Select(line => line.StartsWith("http", StringComparison.Ordinal)
        ? $"<a href=\"{Text(line.Trim())}\">{Text(line.Trim())}</a>" : Text(line)));

    private static IResult Html(string title, string body) => Results.Content(
        $"<!doctype html><html lang=\"en\"><head><meta charset=\"utf-8\"><meta name=\"viewport\" content=\"width=device-width\"><title>{Text(title)}</title><style>{Style}</style></head>"
        + $"<body><nav><a href=\"/mail\">All mailboxes</a></nav><h1>{Text(title)}</h1>{body}</body></html>", "text/html; charset=utf-8");

    private static string Text(string text) => WebUtility.HtmlEncode(text);
}
