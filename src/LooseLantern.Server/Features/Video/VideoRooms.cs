using System.Net;
using LooseLantern.Core;
using NodaTime;

namespace LooseLantern.Server.Features.Video;

/// <summary>A room as its provider made it.</summary>
/// <param name="Code">What has to be typed to get in; empty where nothing has to.</param>
public sealed record MadeRoom(string Link, string Code);

/// <summary>Whoever makes video rooms. Both acts may come again and then change nothing more.</summary>
public interface IVideoRooms
{
    /// <summary>Whether there is a provider at all.</summary>
    bool IsSet { get; }

    /// <summary>Makes the room of that key, or gives the one there is another time.</summary>
    /// <exception cref="HttpRequestException">The provider can't be used just now.</exception>
    Task<MadeRoom> PutAsync(Guid key, string title, Span time, CancellationToken ct);

    /// <summary>Ends it; one that is not there is ended.</summary>
    /// <exception cref="HttpRequestException">The provider can't be used just now.</exception>
    Task EndAsync(Guid key, CancellationToken ct);
}

/// <summary>Rooms by a small HTTP interface: PUT and DELETE of {address}/rooms/{key}, JSON.</summary>
public sealed class HttpVideoRooms(HttpClient http, IConfiguration configuration) : IVideoRooms
{
    private readonly string? _address = configuration["Video:Address"]?.TrimEnd('/');

    private sealed record RoomWish(string Title, Instant Start, Instant End);

    public bool IsSet => !string.IsNullOrEmpty(_address);

    public async Task<MadeRoom> PutAsync(Guid key, string title, Span time, CancellationToken ct)
    {
        using var answer = await http.PutAsJsonAsync(
            $"{_address}/rooms/{key:D}",
            new RoomWish(title, time.Start, time.End),
            Hosting.Json.Options,
            ct
        );
        answer.EnsureSuccessStatusCode();
        var made = await answer.Content.ReadFromJsonAsync<MadeRoom>(Hosting.Json.Options, ct);
        return
            made is { Link: { Length: > 0 and <= 500 } link }
            && Uri.TryCreate(link, UriKind.Absolute, out var uri)
            && uri.Scheme is "http" or "https"
            ? made with
            {
                Code = made.Code ?? "",
            }
            : throw new HttpRequestException("The provider’s answer names no room.");
    }

    public async Task EndAsync(Guid key, CancellationToken ct)
    {
        using var answer = await http.DeleteAsync($"{_address}/rooms/{key:D}", ct);
        if (answer.StatusCode != HttpStatusCode.NotFound)
            answer.EnsureSuccessStatusCode();
    }
}
