using System.Text.Json;
using System.Text.Json.Nodes;
using LooseLantern.Core;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Desks;
using LooseLantern.Server.Hosting;
using Microsoft.EntityFrameworkCore;

namespace LooseLantern.Server.Features.Pages;

/// <summary>
/// Pages made from others: copied here, or written to a file and read from one, which names hosts and desk instead of
/// their ids.
/// </summary>
public sealed class PageCopies(LanternDb db, PageEditing editing)
{
    public const string Format = "loose-lantern/page";
    public const int Version = 1;

    private const int MostTries = 5;

    private static readonly PageFormRules Checks = new();

    /// <summary>A draft with all that the page has, under an address of its own.</summary>
    public async Task<Page> CopyAsync(Guid id, CancellationToken ct)
    {
        var page = await editing.GetAsync(id, ct);
        var form = page.Draft ?? PageView.FormOf(page);
        var title = $"Copy of {form.Title}";
        return await CreateAsync(
            form with
            {
                Title = CutText.At(title, Words.MostOfALine),
                Details = Unmarked(form.Details!),
            },
            ct
        );
    }

    /// <summary>
    /// A page as JSON. Files and pictures are not in it, nor which calendars it asks: those are told by ids that mean
    /// nothing elsewhere.
    /// </summary>
    public async Task<JsonObject> ExportAsync(Guid id, CancellationToken ct)
    {
        var page = await editing.GetAsync(id, ct);
        var form = page.Draft ?? PageView.FormOf(page);
        var json = JsonSerializer.SerializeToNode(form, Json.Options)!.AsObject();
        json.Remove("deskId");
        json["desk"] = await db
            .Desks.Where(desk => desk.Id == form.DeskId)
            .Select(desk => desk.Address)
            .SingleAsync(ct);
        var times = json["times"]!.AsObject();
        times.Remove("calendars");
        // The hours go along as they are; another workspace has no set of that name to follow.
        times.Remove("hoursOf");
        var names = await db.Hosts.ToDictionaryAsync(host => host.Id, host => host.Name, ct);
        foreach (var (seat, at) in form.Times.LineUp.Select((seat, at) => (seat, at)))
        {
            var written = times["lineUp"]![at]!.AsObject();
            written.Remove("hostIds");
            written["hosts"] = new JsonArray([
                .. seat.HostIds.Select(host => JsonValue.Create(names.GetValueOrDefault(host, ""))),
            ]);
        }

        return new JsonObject
        {
            ["format"] = Format,
            ["version"] = Version,
            ["page"] = json,
        };
    }

    /// <summary>A draft made from a file.</summary>
    /// <exception cref="Refusal">400 naming every fault of it, as page.… where the page is meant.</exception>
    public async Task<Page> ImportAsync(byte[] file, CancellationToken ct)
    {
        var page = Read(file);
        var faults = new Dictionary<string, Phrase[]>();
        var desks = await db.Desks.OrderBy(desk => desk.Name).ToListAsync(ct);
        var desk = desks.Find(row => row.Address == TextOf(page["desk"])) ?? desks[0];
        page.Remove("desk");
        page["deskId"] = desk.Id;
        await NameHostsAsync(page, faults, ct);
        var form = Deserialize(page, faults);
        if (form is not null)
        {
            foreach (
                var found in Checks.Validate(form).Errors.GroupBy(error => Validation.CamelCase(error.PropertyName))
            )
            {
                // Of a seat whose hosts nobody knows, that is all there is to mend.
                var field = $"page.{found.Key.Replace("hostIds", "hosts", StringComparison.Ordinal)}";
                if (
                    !(
                        field.EndsWith(".hosts", StringComparison.Ordinal)
                        && faults.Keys.Any(told => told.StartsWith($"{field}[", StringComparison.Ordinal))
                    )
                )
                    faults[field] = [.. found.Select(Validation.MendOf).DistinctBy(Phrases.Mend)];
            }
        }

        if (faults.Count > 0)
            throw Refusal.Invalid(faults);
        var kinds = await db.Workspaces.Select(row => row.Kinds).SingleAsync(ct);
        var details = Unmarked(form!.Details ?? PageDetails.Usual);
        if (!kinds.Contains(details.Naming.Kind))
            details = details with { Naming = details.Naming with { Kind = "" } };
        return await CreateAsync(form with { Details = details }, ct);
    }

    private static JsonObject Read(byte[] file)
    {
        JsonNode? root;
        try
        {
            root = JsonNode.Parse(file);
        }
        catch (JsonException)
        {
            throw Refusal.Invalid("file", "page-file-json");
        }

        if (root is not JsonObject whole || TextOf(whole["format"]) != Format || whole["page"] is not JsonObject page)
            throw Refusal.Invalid("file", "page-file-empty");
        if (whole["version"]?.ToJsonString() != Version.ToString(System.Globalization.CultureInfo.InvariantCulture))
            throw Refusal.Invalid("version", Phrase.Of("page-file-version", ("version", Version)));
        return page.DeepClone().AsObject();
    }

    private async Task NameHostsAsync(JsonObject page, Dictionary<string, Phrase[]> faults, CancellationToken ct)
    {
        if ((page["times"] as JsonObject)?["lineUp"] is not JsonArray lineUp)
            return;
        var known = (
            await db
                .Hosts.Where(host => host.RetiredAt == null)
                .Select(host => new { host.Id, host.Name })
                .ToListAsync(ct)
        ).ToLookup(host => host.Name, host => host.Id, StringComparer.OrdinalIgnoreCase);
        for (var at = 0; at < lineUp.Count; at++)
        {
            if (lineUp[at] is not JsonObject seat || seat["hosts"] is not JsonArray hosts)
                continue;
            var ids = new JsonArray();
            for (var place = 0; place < hosts.Count; place++)
            {
                var name = TextOf(hosts[place]) ?? "";
                var found = known[name.Trim()].ToList();
                if (found.Count == 1)
                    ids.Add(found[0]);
                else
                    faults[$"page.times.lineUp[{at}].hosts[{place}]"] =
                    [
                        found.Count == 0
                            ? Phrase.Of("nobody-called", ("name", name))
                            : Phrase.Of("several-called", ("name", name)),
                    ];
            }

            seat.Remove("hosts");
            seat["hostIds"] = ids;
        }
    }

    private static string? TextOf(JsonNode? node) =>
        node is JsonValue value && value.TryGetValue<string>(out var text) ? text : null;

    private static PageForm? Deserialize(JsonObject page, Dictionary<string, Phrase[]> faults)
    {
        try
        {
            return page.Deserialize<PageForm>(Json.Options);
        }
        catch (JsonException e)
        {
            faults[e.Path is { Length: > 2 } path ? $"page.{path[2..]}" : "page"] = ["missing-or-odd"];
            return null;
        }
    }

    /// <summary>
    /// Under the next address that is free; where somebody takes that one at the same moment, under the one after it.
    /// </summary>
    private async Task<Page> CreateAsync(PageForm form, CancellationToken ct)
    {
        for (var tries = 1; ; tries++)
        {
            try
            {
                return await editing.CreateAsync(
                    form with
                    {
                        Address = await FreeAsync(form.DeskId, form.Address, ct),
                    },
                    ct
                );
            }
            catch (Refusal taken)
                when (tries < MostTries && taken.Errors.ContainsKey("address") && Address.IsWellFormed(form.Address))
            {
                db.ChangeTracker.Clear();
            }
        }
    }

    /// <summary>Marks tell pages apart, so a copy gets one of its own.</summary>
    private static PageDetails Unmarked(PageDetails details) =>
        details with
        {
            Naming = details.Naming with { Mark = null },
        };

    private async Task<string> FreeAsync(Guid deskId, string address, CancellationToken ct)
    {
        var taken = await db.Pages.Where(page => page.DeskId == deskId).Select(page => page.Address).ToListAsync(ct);
        if (!taken.Contains(address))
            return address;
        var stem =
            address.Length > Address.MostCharacters - 5
                ? address[..(Address.MostCharacters - 5)].TrimEnd('-')
                : address;
        return Enumerable
            .Range(2, taken.Count + 1)
            .Select(number => $"{stem}-{number}")
            .First(candidate => !taken.Contains(candidate));
    }
}
