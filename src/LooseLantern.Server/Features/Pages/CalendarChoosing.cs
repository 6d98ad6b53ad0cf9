using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Hosting;
using Microsoft.EntityFrameworkCore;

namespace LooseLantern.Server.Features.Pages;

/// <summary>Checks which calendars a page asks and writes to, of the hosts of its line-up.</summary>
public sealed class CalendarChoosing(LanternDb db)
{
    /// <summary>The choices that differ from the usual, of hosts that are in the line-up.</summary>
    /// <exception cref="Refusal">Names what is no calendar of that host.</exception>
    public async Task<IReadOnlyList<CalendarChoice>> CheckAsync(PageTimes times, CancellationToken ct)
    {
        var seated = times.LineUp.SelectMany(seat => seat.HostIds).ToHashSet();
        var chosen = (times.Calendars ?? [])
            .Select((choice, index) => (Choice: choice, Index: index))
            .Where(pair =>
                seated.Contains(pair.Choice.HostId)
                && (pair.Choice.Asked is not null || pair.Choice.WrittenTo is not null)
            )
            .DistinctBy(pair => pair.Choice.HostId)
            .ToList();
        if (chosen.Count == 0)
            return [];

        var known = await db
            .CalendarHosts.Where(row => seated.Contains(row.HostId))
            .Join(
                db.Calendars,
                row => row.CalendarId,
                calendar => calendar.Id,
                (row, calendar) =>
                    new
                    {
                        row.HostId,
                        calendar.Id,
                        IsOwn = calendar.HostId == row.HostId,
                        calendar.Kind,
                        calendar.MayWrite,
                    }
            )
            .ToListAsync(ct);
        foreach (var (choice, index) in chosen)
        {
            foreach (var (asked, place) in (choice.Asked ?? []).Select((id, place) => (id, place)))
            {
                if (!known.Exists(calendar => calendar.HostId == choice.HostId && calendar.Id == asked))
                    throw Refusal.Invalid($"times.calendars[{index}].asked[{place}]", "joined-for-host");
            }

            if (
                choice.WrittenTo is { } writtenTo
                && !known.Exists(calendar =>
                    calendar.HostId == choice.HostId
                    && calendar.Id == writtenTo
                    && calendar.IsOwn
                    && (
                        calendar.Kind == CalendarKind.BuiltIn
                        || calendar is { Kind: CalendarKind.Account, MayWrite: true }
                    )
                )
            )
                throw Refusal.Invalid($"times.calendars[{index}].writtenTo", "writable-for-host");
        }

        return [.. chosen.Select(pair => pair.Choice with { Asked = pair.Choice.Asked?.Distinct().Order().ToList() })];
    }
}
