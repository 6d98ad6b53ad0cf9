using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.ActingFor;
using LooseLantern.Server.Tenancy;
using NodaTime;

namespace LooseLantern.Server.Features.Record;

/// <summary>
/// Keeps the record of who did what, and for whom. A line is saved with the work it speaks of, or not at all.
/// </summary>
public sealed class RecordKeeping(LanternDb db, Tenant tenant, Actor actor, Allowances allowances, IClock clock)
{
    /// <summary>Adds a line to what is about to be saved; what the product does by itself leaves none.</summary>
    /// <param name="hosts">The hosts whose work it was; the person's own does not count as done for somebody.</param>
    public void Note(Guid subject, string what, params IEnumerable<Guid> hosts)
    {
        if (actor.Person is not { } person)
            return;
        db.Record.Add(
            new RecordEntry
            {
                WorkspaceId = tenant.WorkspaceId!.Value,
                At = clock.GetCurrentInstant(),
                PersonId = person.Id,
                PersonName = person.Name,
                ForHosts = allowances.Others(hosts),
                SubjectId = subject,
                ActId = db.Act?.Id,
                What = what,
            }
        );
    }
}
