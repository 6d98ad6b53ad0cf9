using System.Net.ServerSentEvents;
using System.Runtime.CompilerServices;
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
                    IHostApplicationLifetime lifetime,
                    CancellationToken ct
                ) =>
                {
                    var found = await finding.FindAsync(desk, page, ct);
                    return Stream(live, found.Page.WorkspaceId, lifetime, ct);
                }
            )
            .WithName("watchPage")
            .WithTags("Guests")
            .Produces(200, contentType: "text/event-stream")
            .ProducesProblem(404)
            .ProducesProblem(503);

        open.MapGet(
                "/links/{address}/changes",
                async (
                    string address,
                    GuestLinkFinding finding,
                    LiveChanges live,
                    IHostApplicationLifetime lifetime,
                    CancellationToken ct
                ) => Stream(live, (await finding.FindAsync(address, ct)).WorkspaceId, lifetime, ct)
            )
            .WithName("watchLink")
            .WithTags("Guests")
            .Produces(200, contentType: "text/event-stream")
            .ProducesProblem(404)
            .ProducesProblem(503);
    }

    /// <summary>For people of the team: each event means that something in their workspace changed.</summary>
    public static void MapLive(this IEndpointRouteBuilder api) =>
        api.MapGet(
                "/changes",
                (Tenant tenant, LiveChanges live, IHostApplicationLifetime lifetime, CancellationToken ct) =>
                    Stream(live, tenant.WorkspaceId!.Value, lifetime, ct)
            )
            .WithName("watchWorkspace")
            .WithTags("Workspace")
            .Produces(200, contentType: "text/event-stream")
            .ProducesProblem(503);

    private static ServerSentEventsResult<string> Stream(
        LiveChanges live,
        Guid workspace,
        IHostApplicationLifetime lifetime,
        CancellationToken ct
    ) =>
        live.HasRoom
            ? TypedResults.ServerSentEvents(EventsAsync(live, workspace, lifetime.ApplicationStopping, ct))
            : throw new Refusal(StatusCodes.Status503ServiceUnavailable, "too-many", "too-many.screens");

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
