using System.Net.Http.Headers;
using System.Text;

namespace Server.Tests;

/// <summary>
/// A signed-in person who speaks to the API as the front end does: with the cookie, and the token on every change.
/// </summary>
public sealed class Coordinator(HttpClient http, string desk)
{
    private string? _token;

    public HttpClient Http { get; } = http;

    public string Desk { get; } = desk;

    public Guid DeskId { get; private set; }

    public Guid HostId { get; private set; }

    public Guid PersonId { get; private set; }

    public void ForgetToken() => _token = null;

    /// <summary>Looks up the desk that signing up made, and the person's own ids.</summary>
    public async Task LearnAsync()
    {
        DeskId = (await GetAsync("/api/desks"))[0].GetProperty("id").GetGuid();
        var me = await GetAsync("/api/me");
        PersonId = me.GetProperty("id").GetGuid();
        HostId =
            me.GetProperty("hostId").ValueKind == JsonValueKind.Null ? Guid.Empty : me.GetProperty("hostId").GetGuid();
    }

    /// <summary>Mail of what the team does waits from now on, and that can be taken back.</summary>
    public async Task LetMailWaitAsync() =>
        await (
            await PutAsync(
                "/api/workspace",
                new
                {
                    name = "Yard",
                    zone = "Europe/Copenhagen",
                    undoMinutes = 1,
                }
            )
        ).ReadAsync(HttpStatusCode.OK);

    public async Task<JsonElement> OwnHostAsync() =>
        (await GetAsync("/api/hosts")).EnumerateArray().Single(host => host.GetProperty("id").GetGuid() == HostId);

    public async Task<JsonElement> GetAsync(string path) => await Http.GetFromJsonAsync<JsonElement>(path);

    /// <summary>The first run of the list of pages.</summary>
    public async Task<JsonElement> PagesAsync() => (await GetAsync("/api/pages")).GetProperty("rows");

    /// <param name="key">The Idempotency-Key; null for none.</param>
    public Task<HttpResponseMessage> PostAsync(string path, object body, string? key = null) =>
        SendAsync(
            HttpMethod.Post,
            path,
            JsonContent.Create(body, options: LooseLantern.Server.Hosting.Json.Options),
            key
        );

    public Task<HttpResponseMessage> PutAsync(string path, object body) =>
        SendAsync(HttpMethod.Put, path, JsonContent.Create(body, options: LooseLantern.Server.Hosting.Json.Options));

    public Task<HttpResponseMessage> DeleteAsync(string path) => SendAsync(HttpMethod.Delete, path, null);

    /// <summary>Uploads a calendar file for the host.</summary>
    public Task<HttpResponseMessage> JoinCalendarAsync(string text, Guid? host = null) =>
        SendAsync(HttpMethod.Post, "/api/calendars", FileForm(text, host ?? HostId));

    /// <summary>Uploads a file to be read or kept, with further fields of the form.</summary>
    public Task<HttpResponseMessage> UploadAsync(
        HttpMethod method,
        string path,
        byte[] bytes,
        params (string Name, string Value)[] fields
    )
    {
        var form = new MultipartFormDataContent { { new ByteArrayContent(bytes), "file", "upload.bin" } };
        foreach (var (name, value) in fields)
            form.Add(new StringContent(value), name);
        return SendAsync(method, path, form);
    }

    public Task<HttpResponseMessage> ReplaceCalendarAsync(Guid calendar, string text) =>
        SendAsync(HttpMethod.Put, $"/api/calendars/{calendar}/file", FileForm(text, null));

    /// <summary>
    /// A published page of the host: 30 minutes every 30 minutes, weekdays 09:00 to 12:00 unless changed.
    /// </summary>
    /// <returns>The page's address under the desk.</returns>
    public async Task<string> PublishAsync(Action<PageDraft>? change = null)
    {
        var page = await (await PostAsync("/api/pages", Draft(change).Form())).ReadAsync(HttpStatusCode.Created);
        var published = await PostAsync(
            $"/api/pages/{page.GetProperty("id").GetGuid()}/publish",
            new { version = page.GetProperty("version").GetInt32() }
        );
        return (await published.ReadAsync(HttpStatusCode.OK)).GetProperty("path").GetString()!.Split('/')[^1];
    }

    public PageDraft Draft(Action<PageDraft>? change = null)
    {
        var draft = new PageDraft
        {
            DeskId = DeskId,
            HostId = HostId,
            Address = World.Unique("page"),
        };
        change?.Invoke(draft);
        return draft;
    }

    /// <summary>Sends a file along with a page's mail.</summary>
    public Task<HttpResponseMessage> AddPageFileAsync(Guid page, string name, string text) =>
        SendAsync(
            HttpMethod.Post,
            $"/api/pages/{page}/files",
            new MultipartFormDataContent { { new ByteArrayContent(Encoding.UTF8.GetBytes(text)), "file", name } }
        );

    private static MultipartFormDataContent FileForm(string text, Guid? host)
    {
        var file = new ByteArrayContent(Encoding.UTF8.GetBytes(text));
        file.Headers.ContentType = new MediaTypeHeaderValue("text/calendar");
        var form = new MultipartFormDataContent { { file, "file", "export.ics" } };
        if (host is { } id)
            form.Add(new StringContent(id.ToString()), "hostId");
        return form;
    }

    public async Task<HttpResponseMessage> SendAsync(
        HttpMethod method,
        string path,
        HttpContent? content,
        string? key = null
    )
    {
        _token ??= (await GetAsync("/api/token")).GetProperty("token").GetString();
        var request = new HttpRequestMessage(method, path) { Content = content };
        request.Headers.Add("X-Lantern-Token", _token);
        if (key is not null)
            request.Headers.Add("Idempotency-Key", key);
        return await Http.SendAsync(request);
    }

    /// <summary>A request of its own making, with the token; its answer is not read to its end.</summary>
    public async Task<HttpResponseMessage> SendAsync(HttpRequestMessage request)
    {
        _token ??= (await GetAsync("/api/token")).GetProperty("token").GetString();
        request.Headers.Add("X-Lantern-Token", _token);
        return await Http.SendAsync(request, HttpCompletionOption.ResponseHeadersRead);
    }
}
