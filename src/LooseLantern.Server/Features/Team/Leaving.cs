using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Record;
using LooseLantern.Server.Features.Reserving;
using LooseLantern.Server.Hosting;
using LooseLantern.Server.Tenancy;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Team;

/// <param name="ToHostId">Who takes over their seats and bookings; needed where they have any.</param>
/// <param name="Sessions">Who takes over which session, where it is somebody else.</param>
public sealed record LeaveForm(Guid? ToHostId, IReadOnlyDictionary<Guid, Guid>? Sessions = null);

/// <summary>What went over to others.</summary>
public sealed record LeaveAnswer(int Pages, int Sessions);

/// <summary>
/// Lets somebody leave: their seats on pages and their bookings to come go to others, nobody acts for them or by them
/// any more, and they are signed out everywhere. All of it, or nothing.
/// </summary>
public sealed class Leaving(
    LanternDb db,
    Tenant tenant,
    PeopleEditing people,
    HandingOver handing,
    RecordKeeping record,
    IClock clock
)
{
    /// <exception cref="Refusal">409 for the last owner, where somebody must take over, or where they are not free
    /// (with each clash).</exception>
    public async Task<LeaveAnswer> LeaveAsync(Guid personId, LeaveForm form, CancellationToken ct)
    {
        var heirs = form.Sessions ?? new Dictionary<Guid, Guid>();
        var found = await db.Hosts.FirstOrDefaultAsync(row => row.PersonId == personId && row.RetiredAt == null, ct);
        await CheckHeirsAsync(found, form.ToHostId, heirs, ct);
        if (found is not null && form.ToHostId is { } asked)
            await handing.PrepareAsync(found, heirs, asked, ct);
        db.ChangeTracker.Clear();

        await using var transaction = await db.Database.BeginTransactionAsync(ct);
        await people.LockOwnersAsync(ct);
        // Locked first, so that what is read from now on stays so: no page is given the host, and no guest books them,
        // meanwhile.
        if (found is not null)
            await handing.LockAsync(found, heirs, form.ToHostId, ct);
        var person = await db.Users.FirstOrDefaultAsync(row => row.Id == personId && row.LeftAt == null, ct)
            ?? throw Refusal.NotFound("person");
        if (person.IsOwner)
            await people.RequireAnotherOwnerAsync(personId, ct);
        var host = await db.Hosts.FirstOrDefaultAsync(row => row.PersonId == personId && row.RetiredAt == null, ct);

        var answer = new LeaveAnswer(0, 0);
        if (host is not null)
        {
            answer = await HandOverAsync(host, form.ToHostId, heirs, ct);
            host.RetiredAt = clock.GetCurrentInstant();
        }

        await HandGuestsOverAsync(personId, form.ToHostId, ct);
        await db.SignedIn.Where(row => row.PersonId == personId).ExecuteDeleteAsync(ct);
        await db
            .ActingFor.Where(row => row.PersonId == personId || row.HostId == (host == null ? Guid.Empty : host.Id))
            .ExecuteDeleteAsync(ct);
        await db.Invitations.Where(row => row.ByPersonId == personId && row.TakenUpAt == null).ExecuteDeleteAsync(ct);
        record.Note(
            personId,
            $"{person.Name} left; {answer.Pages} pages and {answer.Sessions} bookings went over",
            host is null ? [] : [host.Id]
        );

        person.LeftAt = clock.GetCurrentInstant();
        // Their address is free for a sign-in elsewhere from now on.
        (person.Email, person.NormalizedEmail) = (null, null);
        (person.UserName, person.NormalizedUserName) = ($"left-{person.Id:N}", $"LEFT-{person.Id:N}");
        await db.SaveChangesAsync(ct);
        await transaction.CommitAsync(ct);
        return answer;
    }

    /// <summary>Guests whom they kept are the heir's, or nobody's where that is a room or a thing.</summary>
    private async Task HandGuestsOverAsync(Guid personId, Guid? heir, CancellationToken ct)
    {
        var keeper = await db.Hosts.Where(row => row.Id == heir).Select(row => row.PersonId).FirstOrDefaultAsync(ct);
        await db
            .Guests.Where(guest => guest.KeeperId == personId)
            .ExecuteUpdateAsync(
                set =>
                    set.SetProperty(guest => guest.KeeperId, keeper)
                        .SetProperty(guest => guest.Version, guest => guest.Version + 1),
                ct
            );
    }

    private async Task CheckHeirsAsync(
        Host? host,
        Guid? heir,
        IReadOnlyDictionary<Guid, Guid> heirs,
        CancellationToken ct
    )
    {
        var asked = heirs.Values.Concat(heir is { } one ? [one] : []).Distinct().ToList();
        var known = await db.Hosts.CountAsync(
            row => asked.Contains(row.Id) && row.RetiredAt == null && (host == null || row.Id != host.Id),
            ct
        );
        if (known != asked.Count)
            throw Refusal.Invalid("toHostId", "heir");
    }

    private async Task<LeaveAnswer> HandOverAsync(
        Host host,
        Guid? heir,
        IReadOnlyDictionary<Guid, Guid> heirs,
        CancellationToken ct
    )
    {
        var now = clock.GetCurrentInstant();
        // What a link that is over offered is nobody's any more.
        var offering = db.OfferingPages(now).Select(page => page.Id);
        var seats = await db.Set<SeatRow>()
            .Include(seat => seat.Hosts)
            .Where(seat => offering.Contains(seat.PageId) && seat.Hosts.Any(row => row.HostId == host.Id))
            .ToListAsync(ct);
        var hasSessions = await db.Sessions.AnyAsync(
            session => session.Time.UpperBound > now && session.Hosts.Any(row => row.HostId == host.Id),
            ct
        );
        if (seats.Count == 0 && !hasSessions)
            return new LeaveAnswer(0, 0);
        if (heir is not { } to)
        {
            throw new Refusal(
                StatusCodes.Status409Conflict,
                "heir-needed",
                Phrase.Of(seats.Count == 0 ? "heir-needed.bookings" : "heir-needed.seats", ("name", host.Name))
            );
        }

        var (sessions, clashes) = await handing.HandOverAsync(host, heirs, to, ct);
        if (clashes.Count > 0)
        {
            throw new Refusal(StatusCodes.Status409Conflict, "clashes", Phrase.Of("clashes", ("count", clashes.Count)))
            {
                More = { ["clashes"] = clashes },
            };
        }

        return new LeaveAnswer(await HandOverSeatsAsync(host, to, seats, ct), sessions);
    }

    private async Task<int> HandOverSeatsAsync(Host host, Guid to, List<SeatRow> seats, CancellationToken ct)
    {
        var ids = seats.Select(seat => seat.PageId).Distinct().ToList();
        var pages = await db
            .Pages.Include(page => page.Seats)
                .ThenInclude(seat => seat.Hosts)
            .AsSplitQuery()
            .Where(page => ids.Contains(page.Id))
            .ToListAsync(ct);
        foreach (var page in pages)
        {
            foreach (var seat in page.Seats)
            {
                if (seat.Hosts.Find(row => row.HostId == host.Id) is not { } old)
                    continue;
                seat.Hosts.Remove(old);
                db.Remove(old);
                // One host can't sit twice: where the heir has a seat by now, the others of this one remain.
                var isOnPage = page.Seats.Exists(other => other.Hosts.Exists(row => row.HostId == to));
                if (!isOnPage)
                    seat.Hosts.Add(
                        new SeatHost
                        {
                            WorkspaceId = tenant.WorkspaceId!.Value,
                            HostId = to,
                            Position = old.Position,
                            Since = clock.GetCurrentInstant(),
                        }
                    );
                else if (seat.Hosts.Count == 0)
                {
                    throw new Refusal(
                        StatusCodes.Status409Conflict,
                        "seat-empty",
                        Phrase.Of("seat-empty", ("page", page.Title))
                    );
                }
            }

            page.Version++;
        }

        return pages.Count;
    }
}
