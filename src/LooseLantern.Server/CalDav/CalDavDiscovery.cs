using System.Net;
using LooseLantern.Server.Outside;

namespace LooseLantern.Server.CalDav;

/// <param name="Path">Absolute path of the collection.</param>
/// <param name="MayWrite">Whether the account may put events into it (RFC 3744 section 5.4); taken for granted where
/// the server does not say.</param>
/// <param name="TellsChanges">Whether it offers sync-collection (RFC 6578).</param>
public sealed record FoundCalendar(string Path, string Name, bool MayWrite, bool TellsChanges);

/// <param name="Origin">The server that has the calendars: scheme, name and port.</param>
/// <param name="Principal">Where they were found.</param>
public sealed record FoundAccount(Uri Origin, string Principal, IReadOnlyList<FoundCalendar> Calendars);

/// <summary>
/// Finds the calendars of an account from as little as its server's name: through service records and the well-known
/// address (RFC 6764), the principal of who asks (RFC 5397), and the principal's calendar home (RFC 4791 section
/// 6.2.1).
/// </summary>
public sealed class CalDavDiscovery(OutsideHttp http, ServiceRecords records)
{
    private const int MostCalendars = 100;

    /// <param name="server">An address, a server's name, or a mail address whose server is meant.</param>
    /// <exception cref="OutsideException">Where there is no calendar server, or it does not let the name
    /// in.</exception>
    public async Task<FoundAccount> FindAsync(string server, Credentials credentials, CancellationToken ct)
    {
        OutsideException? last = null;
        foreach (var candidate in await CandidatesAsync(server.Trim(), ct))
        {
            try
            {
                if (await TryAsync(candidate, credentials, ct) is { } found)
                    return found;
            }
            catch (OutsideException e) when (e.Fault is not (OutsideFault.NotLetIn or OutsideFault.Inside))
            {
                last = e;
            }
        }

        throw last is { Fault: not OutsideFault.Gone }
            ? last
            : new OutsideException(
                OutsideFault.Odd,
                "There is no calendar account at this address. Whoever runs the calendar server knows the right one."
            );
    }

    /// <summary>What to try, the most definite first.</summary>
    private async Task<IReadOnlyList<Uri>> CandidatesAsync(string server, CancellationToken ct)
    {
        if (Uri.TryCreate(server, UriKind.Absolute, out var address) && address.Scheme is "http" or "https")
        {
            // A name and password within it would be kept with the address; they are asked for by themselves.
            var given = new UriBuilder(address) { UserName = "", Password = "" }.Uri;
            return given.AbsolutePath == "/"
                ? [new Uri(given, "/.well-known/caldav"), given]
                : [given, new Uri(given, "/.well-known/caldav")];
        }

        var domain = server[(server.LastIndexOf('@') + 1)..].TrimEnd('/', '.');
        if (
            domain.Length == 0
            || Uri.CheckHostName(domain.Split(':', '/')[0]) == UriHostNameType.Unknown
            || !Uri.TryCreate($"https://{domain}", UriKind.Absolute, out var plain)
        )
            throw new OutsideException(OutsideFault.Odd, "calendar-server");
        List<Uri> candidates = plain.AbsolutePath == "/" ? [] : [plain];
        candidates.AddRange(await records.CalendarServersAsync(plain.IdnHost, ct));
        candidates.Add(new Uri(plain, "/.well-known/caldav"));
        candidates.Add(new Uri(plain, "/"));
        return candidates;
    }

    private async Task<FoundAccount?> TryAsync(Uri candidate, Credentials credentials, CancellationToken ct)
    {
        var server = new CalDavServer(http, candidate, credentials);
        var answer = await server.TryPropFindAsync(
            candidate.PathAndQuery,
            "0",
            Dav.PropFind(Dav.D + "current-user-principal", Dav.D + "resourcetype", Dav.C + "calendar-home-set"),
            ct
        );
        if (answer.Status is HttpStatusCode.Unauthorized or HttpStatusCode.Forbidden)
            CalDavServer.Good(answer);
        if (!answer.IsGood)
            return null;
        // A redirection may have led from http to https.
        var origin = new Uri(answer.Address, "/");
        server = new CalDavServer(http, origin, credentials);
        var here = Dav.Read(answer).Resources.FirstOrDefault();
        if (here is null)
            return null;

        var principal = here.Hrefs(Dav.D + "current-user-principal")
            .Select(href => Dav.PathOf(href, origin))
            .FirstOrDefault(path => path is not null);
        var homes = principal is null
            ? []
            : (await server.PropFindAsync(principal, "0", Dav.PropFind(Dav.C + "calendar-home-set"), ct))
                .Resources.SelectMany(HomesOf)
                .ToList();
        if (homes.Count == 0)
            homes = [.. HomesOf(here)];
        if (homes.Count == 0 && here.Has(Dav.D + "resourcetype", Dav.C + "calendar"))
            homes = [here.Path];
        if (homes.Count == 0)
            return null;

        var calendars = new List<FoundCalendar>();
        foreach (var home in homes.Distinct())
            calendars.AddRange(await CalendarsInAsync(server, home, ct));
        return new FoundAccount(
            origin,
            principal ?? here.Path,
            [.. calendars.DistinctBy(calendar => calendar.Path).OrderBy(calendar => calendar.Name).Take(MostCalendars)]
        );

        IEnumerable<string> HomesOf(DavResource resource) =>
            resource.Hrefs(Dav.C + "calendar-home-set").Select(href => Dav.PathOf(href, origin)).OfType<string>();
    }

    private static async Task<IEnumerable<FoundCalendar>> CalendarsInAsync(
        CalDavServer server,
        string home,
        CancellationToken ct
    )
    {
        var status = await server.PropFindAsync(
            home,
            "1",
            Dav.PropFind(
                Dav.D + "resourcetype",
                Dav.D + "displayname",
                Dav.C + "supported-calendar-component-set",
                Dav.D + "current-user-privilege-set",
                Dav.D + "supported-report-set"
            ),
            ct
        );
        return status
            .Resources.Where(resource =>
                resource.Has(Dav.D + "resourcetype", Dav.C + "calendar") && TakesEvents(resource)
            )
            .Select(Of);
    }

    /// <summary>A collection may be for tasks alone (RFC 4791 section 5.2.3).</summary>
    private static bool TakesEvents(DavResource resource) =>
        !resource.Properties.TryGetValue(Dav.C + "supported-calendar-component-set", out var set)
        || set.Elements(Dav.C + "comp")
            .Any(comp => comp.Attribute("name")?.Value.Equals("VEVENT", StringComparison.OrdinalIgnoreCase) == true);

    private static FoundCalendar Of(DavResource resource)
    {
        var mayWrite =
            !resource.Properties.TryGetValue(Dav.D + "current-user-privilege-set", out var privileges)
            || privileges
                .Descendants()
                .Any(privilege =>
                    privilege.Name == Dav.D + "write"
                    || privilege.Name == Dav.D + "write-content"
                    || privilege.Name == Dav.D + "all"
                );
        var tellsChanges =
            resource.Properties.TryGetValue(Dav.D + "supported-report-set", out var reports)
            && reports.Descendants(Dav.D + "sync-collection").Any();
        var name = resource.Text(Dav.D + "displayname");
        return new FoundCalendar(
            resource.Path,
            string.IsNullOrEmpty(name) ? Uri.UnescapeDataString(resource.Path.TrimEnd('/').Split('/')[^1]) : name,
            mayWrite,
            tellsChanges
        );
    }
}
