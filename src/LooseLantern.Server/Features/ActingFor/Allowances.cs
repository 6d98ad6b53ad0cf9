using LooseLantern.Server.Data;
using LooseLantern.Server.Hosting;
using Microsoft.EntityFrameworkCore;

namespace LooseLantern.Server.Features.ActingFor;

/// <summary>What of a host's work may be done for them.</summary>
public enum Allowance
{
    Offer,
    Book,
    Move,
    SeeTitles,
}

/// <summary>
/// Whose work the person at hand may do: their own, that of rooms and things where they coordinate, and that of hosts
/// who let them. The product itself (the demo, a guest's booking by a page's rules) needs nobody's leave.
/// </summary>
public sealed class Allowances(LanternDb db, Actor actor)
{
    /// <summary>The hosts for whom the person may do it.</summary>
    public async Task<HashSet<Guid>> HostsAsync(Allowance what, CancellationToken ct)
    {
        if (actor.Person is not { } person)
            return [.. await db.Hosts.Select(host => host.Id).ToListAsync(ct)];
        var hosts = new HashSet<Guid>();
        if (person.HostId is { } own)
            hosts.Add(own);
        if (person.Coordinates)
        {
            hosts.UnionWith(
                await db.Hosts.Where(host => host.PersonId == null).Select(host => host.Id).ToListAsync(ct)
            );
            hosts.UnionWith(await Granted(person.Id, what).ToListAsync(ct));
        }
        else if (what == Allowance.SeeTitles)
        {
            // What a room is taken for is nobody's secret.
            hosts.UnionWith(
                await db.Hosts.Where(host => host.PersonId == null).Select(host => host.Id).ToListAsync(ct)
            );
        }

        return hosts;
    }

    /// <summary>Holds work to hosts who let the person do it.</summary>
    /// <exception cref="Refusal">403, with the names of the hosts who do not.</exception>
    public async Task RequireAsync(IReadOnlyCollection<Guid> hostIds, Allowance what, CancellationToken ct)
    {
        if (actor.Person is null || hostIds.Count == 0)
            return;
        var allowed = await HostsAsync(what, ct);
        var refused = hostIds.Where(id => !allowed.Contains(id)).ToList();
        if (refused.Count == 0)
            return;
        var names = await db
            .Hosts.Where(host => refused.Contains(host.Id))
            .OrderBy(host => host.Name)
            .Select(host => host.Name)
            .ToListAsync(ct);
        if (names.Count == 0)
            return;
        throw new Refusal(StatusCodes.Status403Forbidden, "not-let", Phrase.Of(KeyOf(what), ("names", names)))
        {
            More = { ["hosts"] = refused },
        };
    }

    /// <summary>Of these hosts, those who are not the person at hand: work on them is done for somebody.</summary>
    public Guid[] Others(IEnumerable<Guid> hostIds) =>
        [.. hostIds.Distinct().Where(id => id != actor.Person?.HostId).Order()];

    private IQueryable<Guid> Granted(Guid personId, Allowance what)
    {
        var grants = db.ActingFor.Where(grant => grant.PersonId == personId);
        return (
            what switch
            {
                Allowance.Offer => grants.Where(grant => grant.MayOffer),
                Allowance.Book => grants.Where(grant => grant.MayBook),
                Allowance.Move => grants.Where(grant => grant.MayMove),
                _ => grants.Where(grant => grant.SeesTitles),
            }
        ).Select(grant => grant.HostId);
    }

    private static string KeyOf(Allowance what) =>
        what switch
        {
            Allowance.Offer => "not-let.offer",
            Allowance.Book => "not-let.book",
            Allowance.Move => "not-let.move",
            _ => "not-let.titles",
        };
}
