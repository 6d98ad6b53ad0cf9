using System.Globalization;
using System.Net;
using System.Text.RegularExpressions;

namespace LooseLantern.StandIns.Mail;

/// <summary>The mailboxes on the stand-ins' screen.</summary>
internal static partial class MailScreen
{
    private const string Style = """
        body{font:16px/1.45 system-ui,sans-serif;margin:0 auto;max-width:60rem;padding:1.2rem;background:#f2f4f3;color:#1d2a2a}
        h1{font-size:1.3rem}article{background:#fff;border:1px solid #cfd8d6;padding:.8rem 1rem;margin:.8rem 0}pre{white-space:pre-wrap;overflow-wrap:anywhere}
        h2{font-size:1.05rem;margin:0}.note{color:#4d6060;margin:.2rem 0}
        """;

    public static void Map(WebApplication app, MailStore store, AnswerRoute? route)
    {
        app.MapGet("/mail", () =>
            Html(
                "Mail stand-in",
                $"<p>Whose mail?</p><ul>{string.Concat(store.Boxes().Select(box => $"<li><a href=\"/mail/{Uri.EscapeDataString(box)}\">{Text(box)}</a></li>"))}</ul>"
            )
        );
        app.MapGet("/mail/{box}", (string box) =>
            Html($"Mail of {box}", string.Concat(store.Mails(box).Select(mail => ArticleOf(box, mail))))
        );

        app.MapPost(
                "/mail/{box}/{id}/answer",
                async (string box, string id, HttpRequest request, CancellationToken ct) =>
                {
                    var form = await request.ReadFormAsync(ct);
                    var (answer, word) = (form["answer"].ToString(), form["word"].ToString());
                    if (store.Mails(box).FirstOrDefault(mail => mail.Id == id) is not { } mail)
                        return Results.NotFound();
                    var start = DateTime.TryParse(form["start"], CultureInfo.InvariantCulture, out var other)
                        ? other
                        : (DateTime?)null;
                    if (answer == "counter" && start is null)
                        return Html("Not sent", "<p>Say which other time.</p>");
                    var written =
                        answer == "words"
                            ? Answering.WriteWords(mail, box, word)
                            : Answering.Write(mail, box, answer, start, word);
                    if (
                        route is null
                        || !written.To.Mailboxes.All(to =>
                            to.Domain.Equals(route.Domain, StringComparison.OrdinalIgnoreCase)
                        )
                    )
                        return Html("Not sent", $"<p>Nobody takes mail for {Text(written.To.ToString())}.</p>");
                    try
                    {
                        await Answering.SendAsync(written, route, ct);
                        return Html(
                            "Sent",
                            $"<p>Your answer went to {Text(written.To.ToString())}.</p><p><a href=\"/mail/{Uri.EscapeDataString(box)}\">Back to the box</a></p>"
                        );
                    }
                    catch (Exception e)
                        when (e
                                is IOException
                                    or System.Net.Sockets.SocketException
                                    or MailKit.CommandException
                                    or MailKit.ProtocolException
                        )
                    {
                        return Html("Not sent", $"<p>It was refused: {Text(e.Message)}</p>");
                    }
                }
            )
            .DisableAntiforgery();
    }

    private static string ArticleOf(string box, StoredMail mail) =>
        $"""
            <article><h2>{Text(mail.Subject)}</h2>
            <p class="note">from {Text(mail.From)}, {Text(
                mail.At.ToString("d MMM yyyy, HH:mm 'UTC'", CultureInfo.GetCultureInfo("en-GB"))
            )}{(mail.Method is null ? "" : $", with an invitation ({Text(mail.Method)})")}</p>
            <pre>{Linked(mail.Text)}</pre>{PressedIn(mail.Html)}{(
                mail.Calendar is null
                    ? ""
                    : $"<details><summary>The calendar part</summary><pre>{Text(mail.Calendar)}</pre></details>"
            )}{FilesOf(mail)}{AnswersOf(box, mail)}</article>
            """;

    /// <summary>What can be pressed in a mail whose HTML part has more to press than its text.</summary>
    private static string PressedIn(string html)
    {
        var presses = Press().Matches(html).Where(press => press.Groups[2].Value != press.Groups[1].Value).ToList();
        return presses.Count == 0
            ? ""
            : $"<p class=\"note\">To press in it: {string.Join(", ", presses.Select(press => $"<a href=\"{press.Groups[1].Value}\">{press.Groups[2].Value}</a>"))}</p>";
    }

    [GeneratedRegex("<a href=\"(http[^\"]*)\">([^<]*)</a>")]
    private static partial Regex Press();

    private static string FilesOf(StoredMail mail) =>
        mail.Files.Count == 0 ? "" : $"<p class=\"note\">with {Text(string.Join(", ", mail.Files))}</p>";

    /// <summary>What somebody who got it can answer, for trying things.</summary>
    private static string AnswersOf(string box, StoredMail mail) =>
        $"""
        <details><summary>Answer this {(mail.Method == "REQUEST" ? "invitation" : "mail")}</summary>
        <form method="post" action="/mail/{Uri.EscapeDataString(box)}/{Uri.EscapeDataString(mail.Id)}/answer">
        <p><label>A word <input name="word" size="40"></label></p>
        {(mail.Method == "REQUEST" ? """
        <p><button name="answer" value="accepted">Accept</button> <button name="answer" value="tentative">Maybe</button> <button name="answer" value="declined">Decline</button></p>
        <p><label>Another time (UTC) <input type="datetime-local" name="start"></label> <button name="answer" value="counter">Ask for it</button></p>
        """ : "")}<p><button name="answer" value="words">Answer in words</button></p></form></details>
        """;

    private static string Linked(string text) =>
        string.Join(
            '\n',
            text.Split('\n')
                .Select(line =>
                    line.StartsWith("http", StringComparison.Ordinal)
                        ? $"<a href=\"{Text(line.Trim())}\">{Text(line.Trim())}</a>"
                        : Text(line)
                )
        );

    private static IResult Html(string title, string body) =>
        Results.Content(
            $"<!doctype html><html lang=\"en\"><head><meta charset=\"utf-8\"><meta name=\"viewport\" content=\"width=device-width\"><title>{Text(title)}</title><style>{Style}</style></head>"
                + $"<body><nav><a href=\"/mail\">All mailboxes</a></nav><h1>{Text(title)}</h1>{body}</body></html>",
            "text/html; charset=utf-8"
        );

    private static string Text(string text) => WebUtility.HtmlEncode(text);
}
