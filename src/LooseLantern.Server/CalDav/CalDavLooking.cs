using System.Net;
using LooseLantern.Server.Outside;

namespace LooseLantern.Server.CalDav;

/// <summary>What a look at a collection brought.</summary>
/// <param name="Objects">Those that are new or changed, or may be.</param>
/// <param name="Gone">Paths of what was known and is there no more.</param>
/// <param name="SyncToken">From which the next look goes on; null where the server tells no changes.</param>
public sealed record CollectionLook(IReadOnlyList<DavObject> Objects, IReadOnlyList<string> Gone, string? SyncToken);

/// <summary>
/// Reads what changed in a collection: by its sync token where the server offers that (RFC 6578), else by comparing
/// entity tags.
/// </summary>
public static class CalDavLooking
{
    public const int MostObjects = 20_000;

    private const int AtOnce = 80;
    private const int MostPages = 60;
    private const long MostBytes = 60L * 1024 * 1024;

    /// <param name="known">The entity tags of what was read before, by path.</param>
    /// <param name="whole">Whether all of it is read, whatever the server says is unchanged.</param>
    /// <exception cref="OutsideException">When the collection can't be read as a whole; nothing of it counts
    /// then.</exception>
    public static async Task<CollectionLook> LookAsync(
        CalDavServer server,
        string path,
        IReadOnlyDictionary<string, string?> known,
        string? token,
        bool tellsChanges,
        bool whole,
        CancellationToken ct
    )
    {
        var listing = tellsChanges ? await ChangesAsync(server, path, whole ? null : token, ct) : null;
        listing ??= await ListAsync(server, path, ct);
        var (tags, gone, nextToken, isWhole) = listing.Value;
        if (tags.Count > MostObjects)
            throw new OutsideException(
                OutsideFault.TooLarge,
                $"The calendar has more than {MostObjects} events; that is more than is read."
            );

        // A tag that is the same speaks for the same text; one that is missing for nothing.
        var wanted = tags.Where(pair =>
                whole || pair.Value is null || !known.TryGetValue(pair.Key, out var tag) || tag != pair.Value
            )
            .Select(pair => pair.Key)
            .ToList();
        var vanished = isWhole ? known.Keys.Where(each => !tags.ContainsKey(each)).ToList() : [.. gone];
        var (objects, missing) = await FetchAsync(server, path, wanted, ct);
        // Gone between the list and the fetch.
        vanished.AddRange(missing.Where(known.ContainsKey));
        return new CollectionLook(objects, vanished, nextToken);
    }

    private static async Task<(
        Dictionary<string, string?> Tags,
        List<string> Gone,
        string? Token,
        bool IsWhole
    )?> ChangesAsync(CalDavServer server, string path, string? token, CancellationToken ct)
    {
        var (tags, gone, isWhole) = (new Dictionary<string, string?>(), new List<string>(), token is null);
        for (var page = 0; page < MostPages; page++)
        {
            var answer = await server.ReportAsync(path, "0", Dav.SyncCollection(token), ct);
            if (!answer.IsGood)
            {
                // A token that is not known any more (section 3.2, valid-sync-token): from the beginning, once.
                if (
                    token is not null
                    && answer.Status
                        is HttpStatusCode.Forbidden
                            or HttpStatusCode.Conflict
                            or HttpStatusCode.PreconditionFailed
                            or HttpStatusCode.BadRequest
                            or HttpStatusCode.Gone
                    && !isWhole
                )
                    return await ChangesAsync(server, path, null, ct);
                if (
                    answer.Status is HttpStatusCode.Unauthorized or HttpStatusCode.NotFound
                    || (int)answer.Status >= 500 && answer.Status != HttpStatusCode.NotImplemented
                )
                    CalDavServer.Good(answer);
                return null;
            }

            var status = Dav.Read(answer);
            var isCutShort = false;
            foreach (var resource in status.Resources)
            {
                if (resource.Status is HttpStatusCode.InsufficientStorage)
                    isCutShort = true;
                else if (IsCollection(resource.Path, path))
                    continue;
                else if (resource.Status is HttpStatusCode.NotFound or HttpStatusCode.Gone)
                {
                    tags.Remove(resource.Path);
                    gone.Add(resource.Path);
                }
                else
                {
                    tags[resource.Path] = resource.Text(Dav.D + "getetag");
                    gone.Remove(resource.Path);
                }
            }

            if (status.SyncToken is null)
                return null;
            if (!isCutShort)
                return (tags, gone, status.SyncToken, isWhole);
            if (tags.Count > MostObjects)
                break;
            token = status.SyncToken;
        }

        throw new OutsideException(OutsideFault.TooLarge, "The calendar’s list of changes has no end.");
    }

    private static async Task<(
        Dictionary<string, string?> Tags,
        List<string> Gone,
        string? Token,
        bool IsWhole
    )> ListAsync(CalDavServer server, string path, CancellationToken ct)
    {
        var status = await server.PropFindAsync(path, "1", Dav.PropFind(Dav.D + "getetag", Dav.D + "resourcetype"), ct);
        var tags = status
            .Resources.Where(resource =>
                !IsCollection(resource.Path, path) && !resource.Has(Dav.D + "resourcetype", Dav.D + "collection")
            )
            .GroupBy(resource => resource.Path)
            .ToDictionary(group => group.Key, group => group.First().Text(Dav.D + "getetag"));
        return (tags, [], null, true);
    }

    /// <summary>
    /// The objects at these paths, and the paths at which there is none any more. What is listed but not sent is asked
    /// for by itself: it may not be taken for nothing.
    /// </summary>
    private static async Task<(IReadOnlyList<DavObject> Objects, IReadOnlyList<string> Missing)> FetchAsync(
        CalDavServer server,
        string path,
        List<string> wanted,
        CancellationToken ct
    )
    {
        var (objects, missing, bytes) = (new List<DavObject>(), new List<string>(), 0L);
        foreach (var some in wanted.Chunk(AtOnce))
        {
            var sent = await ManyAsync(server, path, some, ct);
            foreach (var each in some)
            {
                if ((sent.TryGetValue(each, out var found) ? found : await server.GetAsync(each, ct)) is not { } one)
                {
                    missing.Add(each);
                    continue;
                }

                bytes += one.Body.Length;
                if (bytes > MostBytes)
                    throw new OutsideException(
                        OutsideFault.TooLarge,
                        $"The calendar is larger than {MostBytes / 1024 / 1024} MB; that is more than is read."
                    );
                objects.Add(one);
            }
        }

        return (objects, missing);
    }

    /// <summary>What the server sends of these paths: an object, or null where it says that there is none.</summary>
    private static async Task<Dictionary<string, DavObject?>> ManyAsync(
        CalDavServer server,
        string path,
        IReadOnlyList<string> some,
        CancellationToken ct
    )
    {
        var sent = new Dictionary<string, DavObject?>();
        foreach (
            var resource in Dav.Read(
                CalDavServer.Good(await server.ReportAsync(path, "1", Dav.MultiGet(some), ct))
            ).Resources
        )
        {
            if (resource.Properties.GetValueOrDefault(Dav.C + "calendar-data")?.Value is { } text)
                sent[resource.Path] = new DavObject(
                    resource.Path,
                    resource.Text(Dav.D + "getetag"),
                    CalDavServer.Bytes(text)
                );
            else if (resource.Status is HttpStatusCode.NotFound or HttpStatusCode.Gone)
                sent[resource.Path] = null;
        }

        return sent;
    }

    private static bool IsCollection(string path, string collection) => path.TrimEnd('/') == collection.TrimEnd('/');
}
