using LooseLantern.Core;
using LooseLantern.Formats.ICalendar.Reading;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.ActingFor;
using LooseLantern.Server.Features.Openings;
using LooseLantern.Server.Hosting;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Links;

/// <summary>The people of an event, for a link that is started from it.</summary>
/// <param name="Guests">Who is not of the team.</param>
/// <param name="HostIds">Who is; whoever has it in a calendar of their own comes first.</param>
public sealed record PeopleOfEvent(IReadOnlyList<LinkGuest> Guests, IReadOnlyList<Guid> HostIds);

/// <summary>
/// Reads who took part in an event. It is asked of the calendar's text once somebody starts from it, so that no guest
/// of an event is kept anywhere else.
/// </summary>
public sealed class EventPeopleFinding(LanternDb db, Allowances allowances)
{
    /// <exception cref="Refusal">404 where there is no such event (any more), or whoever asks may not read what it
    /// is.</exception>
    public async Task<PeopleOfEvent> OfAsync(long id, CancellationToken ct)
    {
        var titled = await allowances.HostsAsync(Allowance.SeeTitles, ct);
        var entry = await db
            .CalendarEntries.AsNoTracking()
            .Include(row => row.Calendar)
            .FirstOrDefaultAsync(row => row.Id == id && titled.Contains(row.HostId), ct)
            ?? throw Refusal.NotFound("event");
        var people = await PeopleAsync(entry, ct);
        var emails = people.Select(person => person.Email.ToUpperInvariant()).ToList();
        var team = await db
            .Hosts.Where(host => host.RetiredAt == null && host.PersonId != null)
            .Join(
                db.Users.Where(person => emails.Contains(person.NormalizedEmail!)),
                host => host.PersonId,
                person => person.Id,
                (host, person) => new { host.Id, Email = person.NormalizedEmail! }
            )
            .ToListAsync(ct);
        var named = emails.SelectMany(email => team.Where(one => one.Email == email).Select(one => one.Id));
        var having = await db
            .CalendarEntries.Where(row =>
                row.Title == entry.Title && row.Span == entry.Span && titled.Contains(row.HostId)
            )
            .Select(row => row.HostId)
            .ToListAsync(ct);
        // A calendar of the whole team says of nobody that they were there, unless the event does.
        var own =
            entry.Calendar!.HostId is { } owner ? [owner, .. having]
            : team.Count > 0 ? []
            : having;
        var ids = own.Concat(named).Distinct().ToList();
        var still = await db
            .Hosts.Where(host => ids.Contains(host.Id) && host.RetiredAt == null)
            .Select(host => host.Id)
            .ToListAsync(ct);
        return new PeopleOfEvent(
            [
                .. people
                    .Where(person => !team.Exists(one => one.Email == person.Email.ToUpperInvariant()))
                    .Take(LinkFormRules.MostGuests)
                    .Select(person => new LinkGuest(NameOf(person), person.Email)),
            ],
            [.. ids.Where(still.Contains).Take(PageLimits.MostSeats)]
        );
    }

    private async Task<IReadOnlyList<EventPerson>> PeopleAsync(CalendarEntryRow entry, CancellationToken ct)
    {
        var body = await db
            .CalendarResources.Where(row => row.Id == entry.ResourceId)
            .Select(row => row.Body)
            .FirstOrDefaultAsync(ct);
        var zone = await db.Hosts.Where(host => host.Id == entry.HostId).Select(host => host.Zone).SingleAsync(ct);
        if (body is null)
            return [];
        try
        {
            var time = entry.Span.ToSpan();
            return
            [
                .. CalendarFile
                    .Parse(body)
                    .Read(time, DateTimeZoneProviders.Tzdb[zone], new ReadingBudget(ct))
                    .Entries.Where(read => read.Time == time && read.Title == entry.Title)
                    .SelectMany(read => read.People)
                    .Where(person => EmailAddress.IsPlausible(person.Email))
                    .DistinctBy(person => person.Email, StringComparer.OrdinalIgnoreCase),
            ];
        }
        catch (CalendarFileException)
        {
            // What can't be read names nobody.
            return [];
        }
    }

    /// <summary>What the event calls them, or the first part of their address.</summary>
    private static string NameOf(EventPerson person)
    {
        var name = new string([.. person.Name.Where(letter => !char.IsControl(letter))]).Trim();
        return Words.FitOneLine(name) && !name.Contains('@') ? name : person.Email[..person.Email.IndexOf('@')];
    }
}
