using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using Microsoft.EntityFrameworkCore;

namespace LooseLantern.Server.Features.Post;

/// <summary>Somebody of the team who hears of a booking.</summary>
/// <param name="HostId">As a host of it, or a former one.</param>
/// <param name="IsFormer">Whose time is free again.</param>
public sealed record Notified(Person Person, Notify When, Guid? HostId, bool IsFormer);

/// <summary>Who of the team hears of what, as each chose.</summary>
public sealed class NotifiedPeople(LanternDb db)
{
    public async Task<IReadOnlyList<Notified>> OfAsync(AboutBooking about, Telling telling, CancellationToken ct)
    {
        var heard = new Dictionary<Guid, Notified>();
        foreach (var host in about.Hosts.Where(host => telling.NewHosts is null || telling.NewHosts.Contains(host.Id)))
        {
            if (about.PersonOf(host) is { } person)
                heard.TryAdd(person.Id, new Notified(person, person.Notifications.Own, host.Id, IsFormer: false));
        }

        var former =
            telling.FormerHosts.Count == 0
                ? []
                : await db.Hosts.AsNoTracking().Where(host => telling.FormerHosts.Contains(host.Id)).ToListAsync(ct);
        foreach (var host in former)
        {
            if (about.PersonOf(host) is { } person)
                heard.TryAdd(person.Id, new Notified(person, person.Notifications.Own, host.Id, IsFormer: true));
        }

        // Who takes part is told first; the others hear of what becomes of the booking.
        if (telling.NewHosts is null)
        {
            var hostIds = about.Hosts.Select(host => host.Id).ToList();
            var actors = await db
                .ActingFor.AsNoTracking()
                .Where(row => hostIds.Contains(row.HostId))
                .Select(row => row.PersonId)
                .Distinct()
                .ToListAsync(ct);
            var makers = await MakersAsync(about, ct);
            foreach (var person in about.People.Values)
            {
                var when = actors.Contains(person.Id)
                    ? Sooner(person.Notifications.ActedFor, person.Notifications.Others)
                    : person.Notifications.Others;
                if (makers.Contains(person.Id))
                    when = Sooner(person.Notifications.Made, when);
                // Whoever acts for a host can answer what waits; of all else they hear as they chose.
                if (telling.Occasion == Occasion.Asked && actors.Contains(person.Id) && when == Notify.Daily)
                    when = Notify.AtOnce;
                if (person.IsOwner || person.IsCoordinator || actors.Contains(person.Id))
                    heard.TryAdd(person.Id, new Notified(person, when, HostId: null, IsFormer: false));
            }
        }

        return
        [
            .. heard
                .Values.Where(notified =>
                    notified.When != Notify.Never || (telling.Occasion == Occasion.Asked && notified.HostId is not null)
                )
                .OrderBy(notified => notified.HostId is null)
                .ThenBy(notified => notified.Person.Id),
        ];
    }

    /// <summary>Who made the page or link that it came by, or sent it.</summary>
    private async Task<IReadOnlyCollection<Guid>> MakersAsync(AboutBooking about, CancellationToken ct)
    {
        if (about.Page.Offer is null)
            return about.Page.MadeBy is { } maker ? [maker] : [];
        var link = await db
            .Links.AsNoTracking()
            .Where(row => row.Id == about.Page.Id)
            .Select(row => new { row.MadeBy, row.SentBy })
            .SingleAsync(ct);
        return [.. new[] { link.MadeBy, link.SentBy }.OfType<Guid>()];
    }

    /// <summary>Of two ways to hear of the same, the one that comes first.</summary>
    private static Notify Sooner(Notify one, Notify other) => (Notify)Math.Min((int)one, (int)other);
}
