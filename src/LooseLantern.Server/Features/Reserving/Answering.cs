using LooseLantern.Core;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Calendars.Writing;
using LooseLantern.Server.Features.Post;
using LooseLantern.Server.Features.Record;
using LooseLantern.Server.Hosting;
using LooseLantern.Server.Jobs;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Reserving;

/// <param name="Word">For the guest; may be empty.</param>
/// <param name="Offered">Starts of other times that would suit, of the page's openings.</param>
public sealed record DeclineForm(string Word = "", IReadOnlyList<Instant>? Offered = null);

/// <summary>
/// Answers what was asked: a booking that waits is accepted or declined, once, and lapses where nobody answers in time.
/// </summary>
public sealed class Answering(
    LanternDb db,
    Cancelling cancelling,
    TimeLocks locks,
    EventWishes wishes,
    Tellings tellings,
    RecordKeeping record,
    IClock clock
)
{
    private const int MostOffered = 6;

    public static readonly DueKind Lapses = new(
        TimeSpan.FromSeconds(2),
        Duration.FromMinutes(1),
        (db, now, _, most, ct) =>
            db
                .Database.SqlQuery<DueRow>(
                    $"SELECT id, workspace_id FROM bookings WHERE cancelled_at IS NULL AND waits_until <= {now} ORDER BY waits_until LIMIT {most}"
                )
                .ToListAsync(ct),
        (services, id, ct) => services.GetRequiredService<Answering>().LapseAsync(id, ct)
    );

    /// <exception cref="Refusal">409 where it was answered already, or nobody did in time.</exception>
    public async Task AcceptAsync(Guid bookingId, CancellationToken ct)
    {
        await using var transaction = await db.Database.BeginTransactionAsync(ct);
        await locks.TakeAsync(new TimeLock { PageOfBooking = bookingId }, ct);
        var booking = await db
            .Bookings.IgnoreQueryFilters([LanternDb.NotCancelled])
            .Include(row => row.Session!)
                .ThenInclude(row => row.Hosts)
            .FirstOrDefaultAsync(row => row.Id == bookingId, ct)
            ?? throw Refusal.NotFound("booking");
        RequireWaiting(booking);
        booking.WaitsUntil = null;
        booking.Session!.Sequence++;
        record.Note(
            bookingId,
            $"Accepted what {RecordWords.Guest} asked for",
            [.. booking.Session.Hosts.Select(host => host.HostId)]
        );
        tellings.Add(booking.Session.PageId, [bookingId], new Telling(Occasion.Accepted));
        await wishes.SaveAsync([booking.Session], ct);
        await transaction.CommitAsync(ct);
    }

    /// <exception cref="Refusal">400 for a word or offers that are too long, 409 where it was answered already, or
    /// nobody did in time.</exception>
    public async Task DeclineAsync(Guid bookingId, DeclineForm form, CancellationToken ct)
    {
        var booking = await db
            .Bookings.IgnoreQueryFilters([LanternDb.NotCancelled])
            .AsNoTracking()
            .Include(row => row.Session)
            .FirstOrDefaultAsync(row => row.Id == bookingId, ct)
            ?? throw Refusal.NotFound("booking");
        RequireWaiting(booking);
        if (form.Offered is { Count: > MostOffered })
            throw Refusal.Invalid("offered", Phrase.Of("offered-too-many", ("most", MostOffered)));
        if (form.Offered?.Any(start => start <= clock.GetCurrentInstant()) == true)
            throw Refusal.Invalid("offered", "offered-past");
        var length = booking.Session!.Time.UpperBound - booking.Session.Time.LowerBound;
        var telling = new Telling(Occasion.Declined)
        {
            Offered = [.. (form.Offered ?? []).Order().Select(start => new Span(start, start + length))],
        };
        if (
            !await cancelling.EndAsync(
                bookingId,
                CancelledBy.Declined,
                form.Word,
                telling,
                row => row.WaitsUntil is not null,
                ct
            )
        )
            throw Answered();
    }

    private Task LapseAsync(Guid bookingId, CancellationToken ct) =>
        cancelling.EndAsync(
            bookingId,
            CancelledBy.Lapsed,
            "",
            new Telling(Occasion.Lapsed),
            row => row.WaitsUntil <= clock.GetCurrentInstant(),
            ct
        );

    private void RequireWaiting(Booking booking)
    {
        if (
            booking.CancelledBy == CancelledBy.Lapsed
            || (booking.CancelledAt is null && booking.WaitsUntil <= clock.GetCurrentInstant())
        )
            throw new Refusal(StatusCodes.Status409Conflict, "lapsed");
        if (booking.CancelledAt is not null)
            throw new Refusal(
                StatusCodes.Status409Conflict,
                "answered",
                booking.CancelledBy == CancelledBy.Guest ? "answered.taken-back" : "answered.declined"
            );
        if (booking.WaitsUntil is null)
            throw Answered();
    }

    private static Refusal Answered() => new(StatusCodes.Status409Conflict, "answered");
}

/// <summary>Lets what nobody answers in time lapse.</summary>
public sealed class LapseWorker(IServiceScopeFactory scopes, IClock clock, ILogger<LapseWorker> logger)
    : BackgroundService
{
    protected override Task ExecuteAsync(CancellationToken stoppingToken) =>
        DueWork.RunAsync(Answering.Lapses, scopes, clock, logger, stoppingToken);
}
