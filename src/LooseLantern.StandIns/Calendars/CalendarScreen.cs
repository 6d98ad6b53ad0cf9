using System.Globalization;
using System.Net;
using System.Text;
using Ical.Net.CalendarComponents;
using Microsoft.AspNetCore.Mvc;
using NodaTime;
using NodaTime.Text;

namespace LooseLantern.StandIns.Calendars;

/// <summary>
/// The stand-in's own screen: the events of one calendar in the order of time, each to be moved or deleted, and a line
/// to make a new one.
/// </summary>
internal static class CalendarScreen
{
    private const string Style = """
        body{font:16px/1.45 system-ui,sans-serif;margin:0 auto;max-width:60rem;padding:1.2rem;background:#f2f4f3;color:#1d2a2a}
        h1{font-size:1.3rem}nav a{margin-right:.8rem}table{border-collapse:collapse;width:100%;background:#fff}
        td,th{border:1px solid #cfd8d6;padding:.4rem .6rem;text-align:left;vertical-align:top}form{display:inline-flex;gap:.4rem;flex-wrap:wrap;align-items:center}
        input,button{font:inherit;padding:.2rem .4rem}.note{color:#4d6060}
        """;

    private static readonly LocalDateTimePattern Field = LocalDateTimePattern.CreateWithInvariantCulture(
        "uuuu-MM-dd'T'HH:mm"
    );
    private static readonly LocalDateTimePattern Shown = LocalDateTimePattern.Create(
        "ddd d MMM uuuu, HH:mm",
        CultureInfo.GetCultureInfo("en-GB")
    );

    public static void Map(WebApplication app, CalendarStore store)
    {
        app.MapGet("/", () =>
            Html(
                "Stand-ins",
                $"<p>Mail is at <a href=\"/mail\">the mail stand-in</a>.</p><p>Whose calendar?</p><ul>{string.Concat(store.Users().SelectMany(user => store.Calendars(user), (user, calendar) =>
            $"<li><a href=\"/screen/{user}/{calendar}\">{Text(user)}, {Text(calendar)}</a></li>"))}</ul>"
            )
        );

        app.MapGet("/screen/{user}/{calendar}", (string user, string calendar, string? zone) =>
            store.Has(user, calendar)
                ? Html($"{user}, {calendar}", Events(store, user, calendar, ZoneOf(zone)))
                : Results.NotFound()
        );

        app.MapPost(
                "/screen/{user}/{calendar}/make",
                (
                    string user,
                    string calendar,
                    [FromForm] string title,
                    [FromForm] string start,
                    [FromForm] string end,
                    [FromForm] string zone
                ) =>
                    Attempt(user, calendar, zone, start, end, (from, to) =>
                        store.Put(
                            user,
                            calendar,
                            $"{Guid.NewGuid():N}.ics",
                            EventText.Write(
                                $"{Guid.NewGuid():N}@stand-in.example",
                                title.Trim(),
                                from,
                                to,
                                ZoneOf(zone).Id
                            ),
                            _ => true
                        )
                            is not null
                    )
            )
            .DisableAntiforgery();

        app.MapPost(
                "/screen/{user}/{calendar}/{name}/move",
                (
                    string user,
                    string calendar,
                    string name,
                    [FromForm] string start,
                    [FromForm] string end,
                    [FromForm] string zone
                ) =>
                    Attempt(user, calendar, zone, start, end, (from, to) =>
                        store.Find(user, calendar, name) is { } found
                        && EventText.Read(found.Text) is { } read
                        && store.Put(user, calendar, name, EventText.Moved(read, from, to, ZoneOf(zone).Id), there =>
                            there is not null
                        )
                            is not null
                    )
            )
            .DisableAntiforgery();

        app.MapPost(
                "/screen/{user}/{calendar}/{name}/delete",
                (string user, string calendar, string name, [FromForm] string zone) =>
                {
                    store.Delete(user, calendar, name, _ => true);
                    return Back(user, calendar, zone);
                }
            )
            .DisableAntiforgery();
    }

    private static IResult Attempt(
        string user,
        string calendar,
        string zone,
        string start,
        string end,
        Func<LocalDateTime, LocalDateTime, bool> act
    )
    {
        var (from, to) = (Field.Parse(start), Field.Parse(end));
        if (!from.Success || !to.Success || to.Value <= from.Value)
            return Html("Not like this", "<p>The event needs a start, and an end after it.</p>");
        return act(from.Value, to.Value)
            ? Back(user, calendar, zone)
            : Html("Not there", "<p>The event is not there any more.</p>");
    }

    private static IResult Back(string user, string calendar, string zone) =>
        Results.Redirect($"/screen/{user}/{calendar}?zone={Uri.EscapeDataString(zone)}");

    private static DateTimeZone ZoneOf(string? zone) =>
        DateTimeZoneProviders.Tzdb.GetZoneOrNull(zone ?? "") ?? DateTimeZoneProviders.Tzdb["Europe/Copenhagen"];

    private static string Events(CalendarStore store, string user, string calendar, DateTimeZone zone)
    {
        var rows = store
            .Events(user, calendar)
            .Select(stored => (stored.Name, Event: EventText.Read(stored.Text)?.Events.FirstOrDefault()))
            .Where(row => row.Event?.DtStart is not null)
            .Select(row =>
                (
                    row.Name,
                    Event: row.Event!,
                    Start: Local(row.Event!.DtStart!, zone),
                    End: Local(row.Event.DtEnd ?? row.Event.DtStart!, zone)
                )
            )
            .OrderBy(row => row.Start)
            .ToList();
        var html = new StringBuilder($"<p class=\"note\">Times in {Text(zone.Id)}.</p>");
        html.Append(
                $"<form method=\"post\" action=\"/screen/{user}/{calendar}/make\"><strong>New event</strong><input name=\"title\" aria-label=\"Title\" required>"
            )
            .Append(
                "<input type=\"datetime-local\" name=\"start\" aria-label=\"Start\" required><input type=\"datetime-local\" name=\"end\" aria-label=\"End\" required>"
            )
            .Append($"<input type=\"hidden\" name=\"zone\" value=\"{Text(zone.Id)}\"><button>Make</button></form>");
        html.Append("<table><thead><tr><th>When</th><th>What</th><th>Move or delete</th></tr></thead><tbody>");
        foreach (var row in rows)
            html.Append(RowOf(user, calendar, zone, row.Name, row.Event, row.Start, row.End));
        return html.Append("</tbody></table>").ToString();
    }

    private static string RowOf(
        string user,
        string calendar,
        DateTimeZone zone,
        string name,
        CalendarEvent of,
        LocalDateTime start,
        LocalDateTime end
    )
    {
        var title = of.Summary ?? "(no title)";
        var path = $"/screen/{user}/{calendar}/{Uri.EscapeDataString(name)}";
        var hidden = $"<input type=\"hidden\" name=\"zone\" value=\"{Text(zone.Id)}\">";
        return $"""
            <tr><td>{Shown.Format(start)} to {Shown.Format(end)}{(of.RecurrenceRule is null ? "" : ", repeats")}{(
                of.Status == "TENTATIVE" ? ", tentative" : ""
            )}</td><td>{Text(title)}</td>
            <td><form method="post" action="{path}/move"><input type="datetime-local" name="start" aria-label="New start of {Text(
                title
            )}" value="{Field.Format(start)}">
            <input type="datetime-local" name="end" aria-label="New end of {Text(title)}" value="{Field.Format(
                end
            )}">{hidden}<button aria-label="Move {Text(title)}">Move</button></form>
            <form method="post" action="{path}/delete">{hidden}<button aria-label="Delete {Text(
                title
            )}">Delete</button></form></td></tr>
            """;
    }

    private static LocalDateTime Local(Ical.Net.DataTypes.CalDateTime time, DateTimeZone zone)
    {
        var local = LocalDateTime.FromDateTime(time.Value);
        if (!time.HasTime || time.TzId is null && !time.IsUtc)
            return local;
        var of = time.IsUtc
            ? DateTimeZone.Utc
            : DateTimeZoneProviders.Tzdb.GetZoneOrNull(time.TzId!)
                ?? DateTimeZoneProviders.Bcl.GetZoneOrNull(time.TzId!)
                ?? zone;
        return local.InZoneLeniently(of).WithZone(zone).LocalDateTime;
    }

    private static IResult Html(string title, string body) =>
        Results.Content(
            $"<!doctype html><html lang=\"en\"><head><meta charset=\"utf-8\"><meta name=\"viewport\" content=\"width=device-width\"><title>{Text(title)}</title><style>{Style}</style></head>"
                + $"<body><nav><a href=\"/\">All calendars</a></nav><h1>{Text(title)}</h1>{body}</body></html>",
            "text/html; charset=utf-8"
        );

    private static string Text(string text) => WebUtility.HtmlEncode(text);
}
