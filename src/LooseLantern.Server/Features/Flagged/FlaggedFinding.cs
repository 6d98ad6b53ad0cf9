using LooseLantern.Core.Questions;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.ActingFor;
using LooseLantern.Server.Features.Bookings;
using LooseLantern.Server.Features.GuestBook;
using LooseLantern.Server.Features.Letters;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Flagged;

/// <summary>Finds the bookings to come of which a page's screening noted something, the soonest first.</summary>
public sealed class FlaggedFinding(LanternDb db, Allowances allowances, IClock clock)
{
    public const int Most = 100;

    public async Task<FlaggedBookings> FindAsync(CancellationToken ct)
    {
        var now = clock.GetCurrentInstant();
        var flagged = db.Bookings.Where(row => row.Flags.Length > 0 && row.Session!.Time.UpperBound > now);
        var rows = await BookingRows
            .Whole(flagged.AsNoTracking())
            .OrderBy(row => row.Session!.Time.LowerBound)
            .ThenBy(row => row.Id)
            .Take(Most)
            .ToListAsync(ct);
        var mine = await allowances.HostsAsync(Allowance.Move, ct);
        return new FlaggedBookings(
            now,
            rows.Count < Most ? rows.Count : await flagged.CountAsync(ct),
            rows.ConvertAll(row => ViewOf(row, mine)),
            [.. CallOffWriting.Blanks.Select(blank => new BlankView(blank.Key, blank.Value))]
        );
    }

    private static FlaggedBooking ViewOf(Booking row, HashSet<Guid> mine)
    {
        var (session, page) = (row.Session!, row.Session!.Page!);
        return new FlaggedBooking(
            row.Id,
            row.GuestId,
            row.GuestName,
            row.GuestEmail,
            page.Title,
            session.Time.LowerBound,
            session.Time.UpperBound,
            page.Zone,
            [.. session.Hosts.OrderBy(host => host.Seat).Select(host => host.Host!.Name)],
            row.Flags,
            [
                .. row.Answers.Select(answer => new EventAnswer(
                    answer.Words,
                    answer.Kind == QuestionKind.YesNo ? answer.Text : answer.Text.Replace('\n', ',')
                )),
            ],
            row.WaitsUntil is not null,
            session.Hosts.TrueForAll(host => mine.Contains(host.HostId))
        );
    }
}
