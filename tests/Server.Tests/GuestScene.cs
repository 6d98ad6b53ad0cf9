namespace Server.Tests;

/// <summary>What tests of the book of guests ask for again and again.</summary>
internal static class GuestScene
{
    public static object Form(
        string name,
        string[]? emails = null,
        string organisation = "",
        string phone = "",
        string? zone = null,
        string? language = null,
        string? clock = null,
        Guid? keeper = null,
        Dictionary<Guid, string>? fields = null
    ) =>
        new
        {
            name,
            emails = emails ?? [],
            organisation,
            phone,
            zone,
            language,
            clock,
            keeperId = keeper,
            fields = fields ?? [],
        };

    /// <summary>A guest whom the team writes down.</summary>
    public static async Task<JsonElement> AddGuestAsync(this Coordinator who, object form) =>
        await (await who.PostAsync("/api/guests", form)).ReadAsync(HttpStatusCode.Created);

    /// <summary>A guest whom the owner writes down.</summary>
    public static async Task<Guid> GuestAsync(this Scene scene) =>
        (await scene.Owner.AddGuestAsync(Form("Ottilie Wren"))).Id();

    /// <summary>Makes one of two as they are at first.</summary>
    public static async Task<HttpResponseMessage> MergeAsync(this Coordinator who, Guid one, Guid other)
    {
        var version = (await who.GetAsync($"/api/guests/{one}")).GetProperty("version").GetInt32();
        return await who.PostAsync(
            $"/api/guests/{one}/merge",
            new
            {
                other,
                version,
                otherVersion = 1,
                take = Array.Empty<string>(),
            }
        );
    }

    /// <summary>The rows of the list of guests, as a filter chooses them.</summary>
    public static async Task<JsonElement> GuestsAsync(this Coordinator who, object? filter = null, string query = "") =>
        await (await who.PostAsync("/api/guests/list" + query, filter ?? new { })).ReadAsync(HttpStatusCode.OK);

    public static IReadOnlyList<string> Names(this JsonElement list) =>
        [.. list.GetProperty("rows").EnumerateArray().Select(row => row.GetProperty("name").GetString()!)];

    /// <summary>The one guest with this name, whole.</summary>
    public static async Task<JsonElement> GuestAsync(this Coordinator who, string name)
    {
        var row = (await who.GuestsAsync(new { search = name }))
            .GetProperty("rows")
            .EnumerateArray()
            .ShouldHaveSingleItem();
        return await who.GetAsync($"/api/guests/{row.Id()}");
    }

    public static Guid Id(this JsonElement row) => row.GetProperty("id").GetGuid();

    public static string Text(this JsonElement row, string name) => row.GetProperty(name).GetString() ?? "";

    /// <summary>What happened with a guest, the latest first.</summary>
    public static async Task<IReadOnlyList<JsonElement>> HistoryAsync(this Coordinator who, Guid guest) =>
        [.. (await who.GetAsync($"/api/guests/{guest}/history")).GetProperty("events").EnumerateArray()];

    /// <summary>A pattern by which whatever is free is offered.</summary>
    public static async Task<Guid> PatternAsync(this Coordinator ada)
    {
        var form = ada.Link(draft =>
            {
                (draft.By, draft.Picked, draft.Guests) = ("free", [], []);
                draft.Notice = 24 * 60;
            })
            .Form();
        return (
            await (await ada.PostAsync("/api/links/patterns", new { name = "First talk", form })).ReadAsync(
                HttpStatusCode.OK
            )
        ).Id();
    }
}
