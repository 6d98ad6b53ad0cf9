using System.Net.Sockets;
using LooseLantern.Server.Data.Model;
using LooseLantern.StandIns.Mail;
using MailKit.Net.Smtp;
using MailKit.Security;
using Microsoft.EntityFrameworkCore;
using MimeKit;

namespace Server.Tests;

/// <summary>A world of its own with a mail server beside it, and somebody who has signed up.</summary>
public sealed class MailScene : IAsyncDisposable
{
    public const string Nine = "2026-12-08T08:00:00Z";
    public const string HalfPastNine = "2026-12-08T08:30:00Z";
    public const string Ten = "2026-12-08T09:00:00Z";
    public const string Guest = "ottilie@wren-charters.example";

    private readonly OwnWorld _own;
    private readonly bool _isKept;
    private readonly HttpClient _screens = new();

    private MailScene(OwnWorld own, bool isKept, Coordinator ada) => (_own, _isKept, Ada) = (own, isKept, ada);

    public World World => _own.World;

    public Coordinator Ada { get; }

    public string AdasAddress => $"ada@{Ada.Desk}.example";

    /// <param name="mailPort">Where mail goes instead of to the mail server.</param>
    public static async Task<MailScene> MakeAsync(int? mailPort = null)
    {
        var own = mailPort is { } port ? await OwnWorld.StartAsync(port) : await OwnWorlds.TakeAsync();
        return new MailScene(own, isKept: mailPort is null, await own.World.SignUpAsync());
    }

    /// <summary>In a world with bounds on mail to strangers.</summary>
    internal static async Task<MailScene> MakeAsync(MailLimits limits, bool isProven = true)
    {
        var isKept = limits == MailLimits.None;
        var own = isKept ? await OwnWorlds.TakeAsync() : await OwnWorld.StartAsync(limits: limits);
        return new MailScene(own, isKept, await own.World.SignUpAsync(isProven));
    }

    public async ValueTask DisposeAsync()
    {
        _screens.Dispose();
        if (_isKept)
            await _own.DisposeAsync();
        else
            await _own.EndAsync();
    }

    /// <summary>Books at nine, and returns the path of the private link's API.</summary>
    public async Task<string> BookAsync(
        string page,
        string start = Nine,
        string email = Guest,
        string name = "Ottilie Wren"
    ) =>
        ApiOf(
            await (await World.Guest().BookAsync(Ada.Desk, page, start, name: name, email: email)).ReadAsync(
                HttpStatusCode.Created
            )
        );

    public Task<JsonElement> SeeAsync(string path) => World.Guest().GetFromJsonAsync<JsonElement>(path);

    public Task<HttpResponseMessage> MoveAsync(string path, string start) =>
        World.Guest().PostAsJsonAsync(path + "/move", new { start });

    public async Task<JsonElement> RowAsync(int at = 0) =>
        (await Ada.GetAsync("/api/bookings")).GetProperty("rows")[at];

    public async Task<JsonElement> DetailAsync() =>
        await Ada.GetAsync($"/api/bookings/{(await RowAsync()).GetProperty("id").GetGuid()}");

    public Task<List<Message>> MessagesAsync(params MessageKind[] kinds) =>
        World.LookAsync(db =>
            db.Messages.IgnoreQueryFilters()
                .AsNoTracking()
                .Where(row => kinds.Contains(row.Kind))
                .OrderBy(row => row.DueAt)
                .ThenBy(row => row.Id)
                .ToListAsync()
        );

    /// <summary>The mail to somebody, once one has that in its subject.</summary>
    public async Task<StoredMail> MailAsync(string address, string subject) =>
        await Outside.AwaitAsync(
            () =>
                Task.FromResult(
                    _own.StandIn.Mail.Mails(address)
                        .FirstOrDefault(mail => mail.Subject.Contains(subject, StringComparison.Ordinal))
                ),
            $"“{subject}” in the box of {address}"
        );

    public IReadOnlyList<StoredMail> Box(string address) => _own.StandIn.Mail.Mails(address);

    /// <summary>Answers an invitation on the mail server's own screen, from nothing but the invitation.</summary>
    public async Task<string> AnswerAsync(
        StoredMail mail,
        string box,
        string answer,
        string? start = null,
        string word = ""
    )
    {
        var fields = new Dictionary<string, string>
        {
            ["answer"] = answer,
            ["word"] = word,
            ["start"] = start ?? "",
        };
        using var form = new FormUrlEncodedContent(fields);
        var sent = await _screens.PostAsync($"{_own.StandIn.Address}/mail/{box}/{mail.Id}/answer", form);
        return await sent.Content.ReadAsStringAsync();
    }

    public Task<HttpResponseMessage> ScreenAsync(string address) => _screens.GetAsync(address);

    /// <summary>Sends a mail to whoever listens for answers.</summary>
    public async Task SendAsync(MimeMessage mail)
    {
        using var client = new SmtpClient();
        await Outside.AwaitAsync(
            async () =>
            {
                try
                {
                    await client.ConnectAsync("127.0.0.1", _own.StandIn.AnswersPort, SecureSocketOptions.None);
                    return true;
                }
                catch (SocketException)
                {
                    return false;
                }
            },
            "somebody who listens for answers"
        );
        await client.SendAsync(mail);
        await client.DisconnectAsync(quit: true);
    }

    public static MimeMessage Mail(
        string from,
        string to,
        string text,
        string? calendar = null,
        string method = "REPLY"
    )
    {
        var mail = new MimeMessage { Subject = "Re: Talk" };
        mail.From.Add(MailboxAddress.Parse(from));
        mail.To.Add(MailboxAddress.Parse(to));
        var body = new MultipartAlternative { new TextPart("plain") { Text = text } };
        if (calendar is not null)
        {
            var part = new TextPart("calendar") { Text = calendar };
            part.ContentType.Parameters.Add("method", method);
            body.Add(part);
        }

        mail.Body = body;
        return mail;
    }

    /// <summary>What stands last in the link of a mail that has such a path.</summary>
    public static string SecretIn(StoredMail mail, string path) =>
        mail.Text.Split('\n').First(line => line.Contains(path, StringComparison.Ordinal)).Trim().Split('/')[^1];

    public static string Unfolded(string text) =>
        text.ReplaceLineEndings("\n").Replace("\n ", "", StringComparison.Ordinal);

    /// <summary>The value of the first such property in an iCalendar text.</summary>
    public static string Property(string calendar, string name) =>
        Unfolded(calendar)
            .Split('\n')
            .First(line =>
                line.StartsWith(name + ":", StringComparison.Ordinal)
                || line.StartsWith(name + ";", StringComparison.Ordinal)
            );

    private static string ApiOf(JsonElement made) =>
        "/api/public"
        + made.GetProperty("path").GetString()!.Replace("/booking/", "/bookings/", StringComparison.Ordinal);
}
