using System.Text;
using System.Xml.Linq;
using static LooseLantern.StandIns.Calendars.CalDavXml;

namespace LooseLantern.StandIns.Calendars;

/// <summary>
/// The protocol: discovery (RFC 6764 section 5, RFC 5397), collections and objects (RFC 4791), what changed (RFC 6578).
/// Accounts lie at /dav/NAME/, their calendars at /dav/NAME/CALENDAR/. A calendar can also be read whole, by anybody,
/// at /published/NAME/CALENDAR.ics.
/// </summary>
internal static class CalDavEndpoints
{
    private const string Allowed = "OPTIONS, GET, PUT, DELETE, PROPFIND, REPORT";

    public static void Map(WebApplication app, CalendarStore store)
    {
        app.MapMethods("/.well-known/caldav", ["GET", "PROPFIND"], () =>
            Results.Redirect("/dav/", permanent: true, preserveMethod: true)
        );
        app.MapGet("/published/{user}/{calendar}.ics", (string user, string calendar, HttpRequest request) =>
            Published(store, user, calendar, request)
        );

        Add(app, "/dav/", (method, user, _, _, request) =>
            method == "PROPFIND" ? FindAsync(request, _ => [Root(user)]) : null
        );
        Add(app, "/dav/{owner}/", (method, user, owner, _, request) =>
            method == "PROPFIND"
                ? FindAsync(request, depth =>
                    depth == "0"
                        ? [Home(owner)]
                        :
                        [
                            Home(owner),
                            .. store.Calendars(owner).Select(calendar => Collection(store, owner, calendar)),
                        ]
                )
                : null
        );
        Add(app, "/dav/{owner}/{calendar}/", (method, user, owner, calendar, request) => !store.Has(owner, calendar)
                ? Task.FromResult(Results.NotFound())
                : method switch
                {
                    "PROPFIND" => FindAsync(request, depth =>
                        depth == "0"
                            ? [Collection(store, owner, calendar)]
                            :
                            [
                                Collection(store, owner, calendar),
                                .. store.Events(owner, calendar).Select(each => Object(owner, calendar, each)),
                            ]
                    ),
                    "REPORT" => ReportAsync(store, owner, calendar, request),
                    _ => null,
                });
        Add(app, "/dav/{owner}/{calendar}/{name}", (method, user, owner, calendar, request) =>
            !store.Has(owner, calendar)
                ? Task.FromResult(Results.NotFound())
                : ObjectAsync(store, method, owner, calendar, request.RouteValues["name"]!.ToString()!, request)
        );

        void Add(
            WebApplication to,
            string path,
            Func<string, string, string, string, HttpRequest, Task<IResult>?> answer
        ) =>
            to.MapMethods(
                path,
                ["OPTIONS", "GET", "PUT", "DELETE", "PROPFIND", "REPORT"],
                async (HttpContext context) =>
                {
                    context.Response.Headers["DAV"] = "1, 3, calendar-access";
                    context.Response.Headers.Allow = Allowed;
                    if (context.Request.Method == "OPTIONS")
                        return Results.Ok();
                    var user = UserOf(context.Request, store);
                    var owner = context.Request.RouteValues["owner"]?.ToString() ?? user;
                    if (user is null)
                    {
                        context.Response.Headers.WWWAuthenticate =
                            "Basic realm=\"Calendar stand-in\", charset=\"UTF-8\"";
                        return Results.Unauthorized();
                    }

                    if (owner != user)
                        return Results.StatusCode(StatusCodes.Status403Forbidden);
                    return await (
                        answer(
                            context.Request.Method,
                            user,
                            owner,
                            context.Request.RouteValues["calendar"]?.ToString() ?? "",
                            context.Request
                        ) ?? Task.FromResult(Results.StatusCode(StatusCodes.Status405MethodNotAllowed))
                    );
                }
            );
    }

    private static string? UserOf(HttpRequest request, CalendarStore store)
    {
        if (
            request.Headers.Authorization.ToString() is not { Length: > 6 } header
            || !header.StartsWith("Basic ", StringComparison.OrdinalIgnoreCase)
        )
            return null;
        var bytes = new byte[header.Length];
        if (!Convert.TryFromBase64String(header[6..].Trim(), bytes, out var length))
            return null;
        return
            Encoding.UTF8.GetString(bytes, 0, length).Split(':', 2) is [var user, CalendarStandIn.Password]
            && store.Users().Contains(user)
            ? user
            : null;
    }

    private static async Task<IResult> FindAsync(
        HttpRequest request,
        Func<string, IReadOnlyList<(string Href, Dictionary<XName, XElement> Has)>> resources
    )
    {
        var asked = (await ReadAsync(request))
            ?.Element(D + "prop")
            ?.Elements()
            .Select(element => element.Name)
            .ToList();
        return MultiStatus(
            resources(request.Headers["Depth"].ToString())
                .Select(resource => Response(resource.Href, asked ?? [.. resource.Has.Keys], resource.Has))
        );
    }

    private static async Task<IResult> ReportAsync(
        CalendarStore store,
        string user,
        string calendar,
        HttpRequest request
    )
    {
        var report = await ReadAsync(request);
        var asked = report?.Element(D + "prop")?.Elements().Select(element => element.Name).ToList() ?? [];
        if (report?.Name == D + "sync-collection")
        {
            var (token, since) = (store.Token(), report.Element(D + "sync-token")?.Value.Trim() ?? "");
            if (since.Length == 0)
                return MultiStatus(store.Events(user, calendar).Select(each => Answer(each)), token);
            if (store.Since(user, calendar, since) is not { } changes)
                return Error(StatusCodes.Status403Forbidden, D + "valid-sync-token");
            return MultiStatus(
                changes.Select(change =>
                    !change.IsGone && store.Find(user, calendar, change.Name) is { } found
                        ? Answer(found)
                        : Gone(Href(user, calendar, change.Name))
                ),
                token
            );
        }

        if (report?.Name == C + "calendar-multiget")
        {
            return MultiStatus(
                report
                    .Elements(D + "href")
                    .Select(href => href.Value.Trim())
                    .Select(href =>
                        store.Find(user, calendar, Uri.UnescapeDataString(href.Split('/')[^1])) is { } found
                            ? Answer(found)
                            : Gone(href)
                    )
            );
        }

        if (report?.Name == C + "calendar-query")
            return MultiStatus(store.Events(user, calendar).Select(Answer));
        return Error(StatusCodes.Status403Forbidden, D + "supported-report");

        XElement Answer(StoredEvent each) =>
            Response(Href(user, calendar, each.Name), asked, Object(user, calendar, each).Has);
    }

    private static async Task<IResult> ObjectAsync(
        CalendarStore store,
        string method,
        string user,
        string calendar,
        string name,
        HttpRequest request
    )
    {
        var (ifMatch, ifNoneMatch) = (request.Headers.IfMatch.ToString(), request.Headers.IfNoneMatch.ToString());
        if (method == "GET")
        {
            if (store.Find(user, calendar, name) is not { } found)
                return Results.NotFound();
            request.HttpContext.Response.Headers.ETag = found.EntityTag;
            return Results.Text(found.Text, "text/calendar", Encoding.UTF8);
        }

        if (method == "DELETE")
        {
            if (store.Find(user, calendar, name) is null)
                return Results.NotFound();
            return store.Delete(user, calendar, name, found => ifMatch.Length == 0 || ifMatch == found.EntityTag)
                ? Results.NoContent()
                : Results.StatusCode(StatusCodes.Status412PreconditionFailed);
        }

        if (method != "PUT")
            return Results.StatusCode(StatusCodes.Status405MethodNotAllowed);
        using var reader = new StreamReader(request.Body, Encoding.UTF8);
        var text = await reader.ReadToEndAsync(request.HttpContext.RequestAborted);
        if (!CalendarStore.IsName(name) || EventText.Read(text) is null)
            return Error(StatusCodes.Status403Forbidden, C + "valid-calendar-data");
        var isNew = store.Find(user, calendar, name) is null;
        var put = store.Put(user, calendar, name, text, found =>
            (ifNoneMatch.Length == 0 || found is null) && (ifMatch.Length == 0 || found?.EntityTag == ifMatch)
        );
        if (put is null)
            return Results.StatusCode(StatusCodes.Status412PreconditionFailed);
        request.HttpContext.Response.Headers.ETag = put.EntityTag;
        return Results.StatusCode(isNew ? StatusCodes.Status201Created : StatusCodes.Status204NoContent);
    }

    private static IResult Published(CalendarStore store, string user, string calendar, HttpRequest request)
    {
        if (!store.Has(user, calendar))
            return Results.NotFound();
        var whole = new StoredEvent("", EventText.Joined(calendar, store.Events(user, calendar)));
        request.HttpContext.Response.Headers.ETag = whole.EntityTag;
        return request.Headers.IfNoneMatch == whole.EntityTag
            ? Results.StatusCode(StatusCodes.Status304NotModified)
            : Results.Text(whole.Text, "text/calendar", Encoding.UTF8);
    }

    private static string Href(string user, string calendar, string name) =>
        $"/dav/{Uri.EscapeDataString(user)}/{Uri.EscapeDataString(calendar)}/{Uri.EscapeDataString(name)}";

    private static (string Href, Dictionary<XName, XElement> Has) Root(string user) =>
        (
            "/dav/",
            new()
            {
                [D + "resourcetype"] = new XElement(D + "resourcetype", new XElement(D + "collection")),
                [D + "current-user-principal"] = Principal(user),
            }
        );

    private static (string Href, Dictionary<XName, XElement> Has) Home(string user) =>
        (
            $"/dav/{user}/",
            new()
            {
                [D + "resourcetype"] = new XElement(
                    D + "resourcetype",
                    new XElement(D + "collection"),
                    new XElement(D + "principal")
                ),
                [D + "displayname"] = new XElement(D + "displayname", user),
                [D + "current-user-principal"] = Principal(user),
                [C + "calendar-home-set"] = new XElement(
                    C + "calendar-home-set",
                    new XElement(D + "href", $"/dav/{user}/")
                ),
            }
        );

    private static (string Href, Dictionary<XName, XElement> Has) Collection(
        CalendarStore store,
        string user,
        string calendar
    ) =>
        (
            $"/dav/{user}/{calendar}/",
            new()
            {
                [D + "resourcetype"] = new XElement(
                    D + "resourcetype",
                    new XElement(D + "collection"),
                    new XElement(C + "calendar")
                ),
                [D + "displayname"] = new XElement(
                    D + "displayname",
                    char.ToUpperInvariant(calendar[0]) + calendar[1..].Replace('-', ' ')
                ),
                [D + "current-user-principal"] = Principal(user),
                [D + "current-user-privilege-set"] = new XElement(
                    D + "current-user-privilege-set",
                    new XElement(D + "privilege", new XElement(D + "all"))
                ),
                [D + "supported-report-set"] = new XElement(
                    D + "supported-report-set",
                    new[] { D + "sync-collection", C + "calendar-multiget", C + "calendar-query" }.Select(
                        report => new XElement(D + "supported-report", new XElement(D + "report", new XElement(report)))
                    )
                ),
                [D + "sync-token"] = new XElement(D + "sync-token", store.Token()),
                [C + "supported-calendar-component-set"] = new XElement(
                    C + "supported-calendar-component-set",
                    new XElement(C + "comp", new XAttribute("name", "VEVENT"))
                ),
            }
        );

    private static (string Href, Dictionary<XName, XElement> Has) Object(
        string user,
        string calendar,
        StoredEvent each
    ) =>
        (
            Href(user, calendar, each.Name),
            new()
            {
                [D + "resourcetype"] = new XElement(D + "resourcetype"),
                [D + "getetag"] = new XElement(D + "getetag", each.EntityTag),
                [D + "getcontenttype"] = new XElement(
                    D + "getcontenttype",
                    "text/calendar; charset=utf-8; component=VEVENT"
                ),
                [C + "calendar-data"] = new XElement(C + "calendar-data", each.Text),
            }
        );

    private static XElement Principal(string user) =>
        new(D + "current-user-principal", new XElement(D + "href", $"/dav/{user}/"));
}
