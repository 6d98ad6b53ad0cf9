using System.Collections.Concurrent;
using System.Net;
using System.Security.Cryptography;

namespace LooseLantern.StandIns.Video;

/// <summary>A room as it stands here.</summary>
internal sealed record Room(
    string Title,
    DateTimeOffset Start,
    DateTimeOffset End,
    string Link,
    string Code,
    bool IsEnded
);

/// <summary>
/// A small maker of video rooms: PUT and DELETE of /rooms/{key} (JSON), and a door to look at for each. Whoever asks
/// again for a room of the same key gets the same one at another time. Rooms are kept as long as it runs.
/// </summary>
internal static class VideoStandIn
{
    private sealed record Wish(string Title, DateTimeOffset Start, DateTimeOffset End);

    private sealed record Made(string Link, string Code);

    public static void Map(WebApplication app)
    {
        var rooms = new ConcurrentDictionary<Guid, Room>();

        app.MapPut("/rooms/{key:guid}", (Guid key, Wish wish, HttpRequest request) =>
        {
            var room = rooms.AddOrUpdate(
                key,
                _ => new Room(
                    wish.Title,
                    wish.Start,
                    wish.End,
                    $"{request.Scheme}://{request.Host}/room/{key:N}",
                    Digits(),
                    IsEnded: false
                ),
                (_, known) => known with { Title = wish.Title, Start = wish.Start, End = wish.End, IsEnded = false }
            );
            return Results.Json(new Made(room.Link, room.Code));
        });

        app.MapDelete("/rooms/{key:guid}", (Guid key) =>
        {
            if (!rooms.TryGetValue(key, out var room))
                return Results.NotFound();
            rooms[key] = room with { IsEnded = true };
            return Results.NoContent();
        });

        app.MapGet("/room/{key:guid}", (Guid key) =>
            Html(
                rooms.TryGetValue(key, out var room)
                    ? $"<h1>{Text(room.Title)}</h1><p>{(room.IsEnded ? "This room is closed." : $"Open {Text(room.Start.ToString("d MMMM yyyy, HH:mm", System.Globalization.CultureInfo.GetCultureInfo("en-GB")))} to {room.End:HH:mm} UTC. The code is asked for at the door.")}</p>"
                    : "<h1>No such room</h1>"
            )
        );
    }

    private static string Digits() =>
        RandomNumberGenerator.GetInt32(100_000, 1_000_000).ToString(System.Globalization.CultureInfo.InvariantCulture);

    private static IResult Html(string body) =>
        Results.Content(
            $"<!doctype html><html lang=\"en\"><head><meta charset=\"utf-8\"><meta name=\"viewport\" content=\"width=device-width\"><title>Video stand-in</title></head><body style=\"font:16px/1.5 system-ui,sans-serif;margin:2rem\">{body}</body></html>",
            "text/html; charset=utf-8"
        );

    private static string Text(string text) => WebUtility.HtmlEncode(text);
}
