using System.Text;
using LooseLantern.Core;
using LooseLantern.Core.Openings;
using LooseLantern.Formats.ICalendar.Writing;
using LooseLantern.Server.Data;
using LooseLantern.Server.Features.ActingFor;
using LooseLantern.Server.Features.Bookings;
using LooseLantern.Server.Hosting;
using LooseLantern.Server.Tenancy;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Calendars;

/// <param name="Path">The secret address from the root of the site; null where busy times are not told.</param>
public sealed record BusyTimesAddress(string? Path);

/// <summary>A host's busy times for programs of theirs: when, and never what.</summary>
public sealed class BusyTimes(LanternDb db, Tenant tenant, CalendarUnrolling unrolling, IClock clock)
{
    private static readonly Duration Behind = Duration.FromDays(1);
    private static readonly Duration Ahead = Duration.FromDays(60);

    /// <summary>The file of the address with this secret.</summary>
    /// <exception cref="Refusal">404 where no host has it.</exception>
    public async Task<string> FileAsync(string secret, CancellationToken ct)
    {
        var hash = PrivateLinks.Hash(secret);
        var host = await db
            .Hosts.IgnoreQueryFilters()
            .AsNoTracking()
            .FirstOrDefaultAsync(row => row.BusySecretHash == hash && row.RetiredAt == null, ct)
            ?? throw Refusal.NotFound("address");
        tenant.Enter(host.WorkspaceId);

        // To the minute, so that a program that asks often is answered alike.
        var now = Instant.FromUnixTimeSeconds(clock.GetCurrentInstant().ToUnixTimeSeconds() / 60 * 60);
        var range = new Span(now - Behind, now + Ahead);
        await unrolling.CoverAsync([host.Id], range, ct);
        var asRange = range.ToRange();
        var entries = await db
            .CalendarEntries.AsNoTracking()
            .Include(entry => entry.Calendar)
            .Where(entry => entry.HostId == host.Id && entry.Span.Overlaps(asRange))
            .Where(AskedCalendars.IsUsuallyAsked)
            .Where(AskedCalendars.Counts)
            .ToListAsync(ct);
        var commitments = await db
            .Commitments.AsNoTracking()
            .Where(row =>
                row.HostId == host.Id && row.Span.Overlaps(asRange) && (row.HeldUntil == null || row.HeldUntil > now)
            )
            .ToListAsync(ct);
        // What is not known any more is told as busy, never as free.
        Span[] unknown = (await AskedCalendars.TooOldAsync(db, [host.Id], now, ct)).Count > 0 ? [range] : [];
        return FreeBusyFile.Write(
            $"{host.Id:D}@loose-lantern.example",
            now,
            range,
            [
                .. unknown,
                .. entries.Where(entry => !entry.Tentative).Select(entry => entry.Span.ToSpan()),
                .. commitments.Where(row => row.Kind == CommitmentKind.Booking).Select(row => row.Span.ToSpan()),
            ],
            [
                .. entries.Where(entry => entry.Tentative).Select(entry => entry.Span.ToSpan()),
                .. commitments.Where(row => row.Kind == CommitmentKind.Hold).Select(row => row.Span.ToSpan()),
            ]
        );
    }
}

public static class BusyTimesEndpoints
{
    /// <summary>For whoever knows the address.</summary>
    public static void MapPublicBusyTimes(this IEndpointRouteBuilder open) =>
        open.MapGet("/busy/{secret}.ics", async (string secret, BusyTimes times, CancellationToken ct) =>
                Results.File(Encoding.UTF8.GetBytes(await times.FileAsync(secret, ct)), BookingFile.MediaType)
            )
            .WithName("getBusyTimes")
            .WithTags("Guests")
            .Produces(200, contentType: BookingFile.MediaType)
            .ProducesProblem(404);

    /// <summary>For the host whose busy times they are.</summary>
    public static void MapBusyTimes(this IEndpointRouteBuilder api)
    {
        var busy = api.MapGroup("/me/busy-times").WithTags("Calendars");

        busy.MapGet("/", async (Actor actor, LanternDb db, PrivateLinks links, CancellationToken ct) =>
                Of(await HostAsync(actor, db, ct), links)
            )
            .WithName("getBusyTimesAddress")
            .ProducesProblem(409);

        // A new address each time: whoever has the old one learns nothing more.
        busy.MapPost("/", async (Actor actor, LanternDb db, PrivateLinks links, CancellationToken ct) =>
            {
                var host = await HostAsync(actor, db, ct);
                var secret = links.Create();
                (host.BusySecretHash, host.ProtectedBusySecret) = (secret.Hash, secret.Protected);
                await db.SaveChangesAsync(ct);
                return Of(host, links);
            })
            .WithName("tellBusyTimes")
            .ProducesProblem(409);

        busy.MapDelete("/", async Task<NoContent> (Actor actor, LanternDb db, CancellationToken ct) =>
            {
                var host = await HostAsync(actor, db, ct);
                (host.BusySecretHash, host.ProtectedBusySecret) = (null, null);
                await db.SaveChangesAsync(ct);
                return TypedResults.NoContent();
            })
            .WithName("stopTellingBusyTimes")
            .ProducesProblem(409);
    }

    private static BusyTimesAddress Of(Host host, PrivateLinks links) =>
        new(host.ProtectedBusySecret is { } secret ? $"/api/public/busy/{links.Reveal(secret)}.ics" : null);

    private static async Task<Host> HostAsync(Actor actor, LanternDb db, CancellationToken ct) =>
        actor.Required.HostId is { } id
            ? await db.Hosts.SingleAsync(host => host.Id == id, ct)
            : throw new Refusal(StatusCodes.Status409Conflict, "no-host");
}
