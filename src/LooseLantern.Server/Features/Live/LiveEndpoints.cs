using System.Net.ServerSentEvents;
using System.Runtime.CompilerServices;
using LooseLantern.Server.Features.ActingFor;
using LooseLantern.Server.Features.Guests;
using LooseLantern.Server.Hosting;
using LooseLantern.Server.Tenancy;
using Microsoft.AspNetCore.Http.HttpResults;

namespace LooseLantern.Server.Features.Live;

public static class LiveEndpoints
{
    /// <summary>For guests who watch a page: each event means that its openings may be others now.</summary>
    public static void MapPublicLive(this IEndpointRouteBuilder open)
    {
        open.MapGet(
                "/desks/{desk}/pages/{page}/changes",
                async (
                    string desk,
                    string page,
                    GuestPageFinding finding,
                    LiveChanges live,
                    HttpContext context,
                    IHostApplicationLifetime lifetime,
                    CancellationToken ct
                ) =>
                {
                    var found = await finding.FindAsync(desk, page, ct);
                    return Stream(live, found.Page.WorkspaceId, context, null, lifetime, ct);
                }
            )
            .WithName("watchPage")
            .WithTags("Guests")
            .Produces(200, contentType: "text/event-stream")
            .ProducesProblem(404)
            .ProducesProblem(429);

        open.MapGet(
                "/links/{address}/changes",
                async (
                    string address,
                    GuestLinkFinding finding,
                    LiveChanges live,
                    HttpContext context,
                    IHostApplicationLifetime lifetime,
                    CancellationToken ct
                ) => Stream(live, (await finding.FindAsync(address, ct)).WorkspaceId, context, null, lifetime, ct)
            )
            .WithName("watchLink")
            .WithTags("Guests")
            .Produces(200, contentType: "text/event-stream")
            .ProducesProblem(404)
            .ProducesProblem(429);
    }

    /// <summary>For people of the team: each event means that something in their workspace changed.</summary>
    public static void MapLive(this IEndpointRouteBuilder api) =>
        api.MapGet(
                "/changes",
                (
                    Tenant tenant,
                    Actor actor,
                    LiveChanges live,
                    HttpContext context,
                    IHostApplicationLifetime lifetime,
                    CancellationToken ct
                ) => Stream(live, tenant.WorkspaceId!.Value, context, actor.Required.Id, lifetime, ct)
            )
            .WithName("watchWorkspace")
            .WithTags("Workspace")
            .Produces(200, contentType: "text/event-stream")
            .ProducesProblem(429);

    private static ServerSentEventsResult<string> Stream(
        LiveChanges live,
        Guid workspace,
        HttpContext context,
        Guid? person,
        IHostApplicationLifetime lifetime,
        CancellationToken ct
    )
    {
        var place = live.Place(RateLimits.NetworkOf(context.Connection.RemoteIpAddress), person)
            ?? throw new Refusal(StatusCodes.Status429TooManyRequests, "too-many", "too-many.screens")
            {
                RetryAfter = TimeSpan.FromSeconds(30),
            };
        // Also where nobody ever reads of it.
        context.Response.RegisterForDispose(place);
        return TypedResults.ServerSentEvents(EventsAsync(live, workspace, lifetime.ApplicationStopping, ct));
    }

    /// <param name="stopping">A server that stops waits for nobody who only watches.</param>
    private static async IAsyncEnumerable<SseItem<string>> EventsAsync(
        LiveChanges live,
        Guid workspace,
        CancellationToken stopping,
        [EnumeratorCancellation] CancellationToken ct
    )
    {
        using var either = CancellationTokenSource.CreateLinkedTokenSource(ct, stopping);
        await foreach (var isChange in live.WatchAsync(workspace, either.Token))
            yield return new SseItem<string>("", isChange ? "changed" : "here");
    }
}
