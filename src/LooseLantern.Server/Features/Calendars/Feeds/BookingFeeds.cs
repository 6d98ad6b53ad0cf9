using System.Text;
using LooseLantern.Formats.ICalendar.Writing;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.ActingFor;
using LooseLantern.Server.Features.Bookings;
using LooseLantern.Server.Features.Calendars.Writing;
using LooseLantern.Server.Hosting;
using LooseLantern.Server.Tenancy;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Calendars.Feeds;

/// <param name="All">Whether it has all of the workspace's bookings, which only coordinators may choose.</param>
public sealed record FeedForm(bool All);

/// <param name="Path">The secret address from the root of the site; null where there is none.</param>
public sealed record FeedAddress(string? Path, bool All);

/// <summary>A person's bookings, or all of the workspace's, for calendars of theirs to subscribe to.</summary>
public sealed class BookingFeeds(LanternDb db, Tenant tenant, SessionTexts texts, IClock clock)
{
    private const int MostSessions = 2_000;

    private static readonly Duration Behind = Duration.FromDays(60);

    /// <summary>The file of the address with this secret.</summary>
    /// <exception cref="Refusal">404 where nobody has it.</exception>
    public async Task<string> FileAsync(string secret, CancellationToken ct)
    {
        var hash = PrivateLinks.Hash(secret);
        var person = await db
            .Users.IgnoreQueryFilters()
            .AsNoTracking()
            .FirstOrDefaultAsync(row => row.FeedSecretHash == hash && row.LeftAt == null, ct)
            ?? throw Refusal.NotFound("address");
        tenant.Enter(person.WorkspaceId);
        var workspace = await db.Workspaces.Select(row => row.Name).SingleAsync(ct);
        // Who coordinates no more reads their own alone.
        var isAll = person.FeedsAll && (person.IsOwner || person.IsCoordinator);
        var hostId = await db
            .Hosts.Where(host => host.PersonId == person.Id && host.RetiredAt == null)
            .Select(host => (Guid?)host.Id)
            .FirstOrDefaultAsync(ct);
        var sessions =
            !isAll && hostId is null
                ? []
                : await texts.SessionsAsync(
                    isAll ? null : hostId,
                    clock.GetCurrentInstant() - Behind,
                    MostSessions,
                    ct
                );
        return SessionFile.WriteFeed(isAll ? $"Bookings of {workspace}" : $"Bookings of {person.Name}", sessions);
    }
}

public static class FeedEndpoints
{
    /// <summary>For whoever knows the address.</summary>
    public static void MapPublicFeeds(this IEndpointRouteBuilder open) =>
        open.MapGet("/bookings-of/{secret}.ics", async (string secret, BookingFeeds feeds, CancellationToken ct) =>
                Results.File(Encoding.UTF8.GetBytes(await feeds.FileAsync(secret, ct)), BookingFile.MediaType)
            )
            .WithName("getBookingFeed")
            .WithTags("Guests")
            .Produces(200, contentType: BookingFile.MediaType)
            .ProducesProblem(404);

    /// <summary>For the person whose feed it is.</summary>
    public static void MapFeed(this IEndpointRouteBuilder api)
    {
        var feed = api.MapGroup("/me/feed").WithTags("Calendars");

        feed.MapGet("/", async (Actor actor, LanternDb db, PrivateLinks links, CancellationToken ct) =>
                Of(await PersonAsync(actor, db, ct), links)
            )
            .WithName("getFeedAddress");

        // A new address each time: whoever has the old one learns nothing more.
        feed.MapPost("/", async (FeedForm form, Actor actor, LanternDb db, PrivateLinks links, CancellationToken ct) =>
            {
                if (form.All && !actor.Required.Coordinates)
                    throw Refusal.Invalid("all", "feed-of-all");
                var person = await PersonAsync(actor, db, ct);
                var secret = links.Create();
                (person.FeedSecretHash, person.ProtectedFeedSecret, person.FeedsAll) = (
                    secret.Hash,
                    secret.Protected,
                    form.All
                );
                await db.SaveChangesAsync(ct);
                return Of(person, links);
            })
            .WithName("makeFeedAddress")
            .ProducesValidationProblem();

        feed.MapDelete("/", async Task<NoContent> (Actor actor, LanternDb db, CancellationToken ct) =>
            {
                var person = await PersonAsync(actor, db, ct);
                (person.FeedSecretHash, person.ProtectedFeedSecret, person.FeedsAll) = (null, null, false);
                await db.SaveChangesAsync(ct);
                return TypedResults.NoContent();
            })
            .WithName("dropFeedAddress");
    }

    private static FeedAddress Of(Person person, PrivateLinks links) =>
        new(
            person.ProtectedFeedSecret is { } secret ? $"/api/public/bookings-of/{links.Reveal(secret)}.ics" : null,
            person.FeedsAll
        );

    private static Task<Person> PersonAsync(Actor actor, LanternDb db, CancellationToken ct) =>
        db.Users.SingleAsync(person => person.Id == actor.Required.Id, ct);
}
