using LooseLantern.Server.Data.Model;
using Microsoft.EntityFrameworkCore;

namespace Server.Tests;

/// <summary>A group page of one host, as its guests and its team use it.</summary>
internal sealed class GroupScene(World world, Coordinator ada, string page)
{
    public const string Nine = "2026-12-08T08:00:00Z";
    public const string Ten = "2026-12-08T09:00:00Z";

    public Coordinator Ada => ada;

    public string Page => page;

    public static async Task<GroupScene> MakeAsync(World world, int places = 4, Action<PageDraft>? change = null)
    {
        var ada = await world.SignUpAsync();
        var page = await ada.PublishAsync(draft =>
        {
            draft.Places = places;
            change?.Invoke(draft);
        });
        return new GroupScene(world, ada, page);
    }

    public Task<HttpResponseMessage> TryAsync(string name, int? party = null, string at = Nine, bool oneMore = false) =>
        world.Guest().BookAsync(ada.Desk, page, at, name: name, email: EmailOf(name), party: party, oneMore: oneMore);

    /// <returns>The path of the private link's API.</returns>
    public async Task<string> BookAsync(string name, int? party = null, string at = Nine) =>
        ApiOf(await (await TryAsync(name, party, at)).ReadAsync(HttpStatusCode.Created));

    public static string ApiOf(JsonElement booked) =>
        "/api/public" + booked.GetProperty("path").GetString()!.Replace("/booking/", "/bookings/");

    public static string EmailOf(string name) => $"{name.Split(' ')[0].ToLowerInvariant()}@harbour.example";

    public Task<HttpResponseMessage> BringAsync(string path, int? party, params string[] emails) =>
        world
            .Guest()
            .PutAsJsonAsync(
                path + "/companions",
                new { people = emails.Select(email => new { name = "", email }), party }
            );

    public async Task<(string Start, int Left)[]> OpenAsync(int party = 1) =>
        [
            .. (
                await world
                    .Guest()
                    .GetFromJsonAsync<JsonElement>(
                        $"/api/public/desks/{ada.Desk}/pages/{page}/openings?from=2026-12-08&to=2026-12-08&party={party}"
                    )
            )
                .GetProperty("openings")
                .EnumerateArray()
                .Select(opening =>
                    (opening.GetProperty("start").GetString()!, opening.GetProperty("placesLeft").GetInt32())
                ),
        ];

    public async Task<Guid> SessionAsync() =>
        (await ada.GetAsync("/api/bookings")).GetProperty("rows")[0].GetProperty("sessionId").GetGuid();

    public async Task<List<Message>> MessagesAsync(params MessageKind[] kinds) =>
        await world.WithinAsync(await world.WorkspaceOfAsync(ada.Desk), db =>
            db.Messages.AsNoTracking()
                .Where(row => kinds.Contains(row.Kind))
                .OrderBy(row => row.ToEmail)
                .ThenBy(row => row.Id)
                .ToListAsync()
        );

    public async Task<int> PeopleAsync() =>
        (await ada.GetAsync($"/api/sessions/{await SessionAsync()}")).GetProperty("coming").GetInt32();
}
