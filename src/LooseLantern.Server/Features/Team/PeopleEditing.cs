using LooseLantern.Server.Data;
using LooseLantern.Server.Features.Hours;
using LooseLantern.Server.Features.Record;
using LooseLantern.Server.Hosting;
using LooseLantern.Server.Tenancy;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Team;

/// <summary>The roles somebody holds; any mix, but at least one.</summary>
public sealed record RolesForm(bool IsOwner, bool IsCoordinator, bool IsHost)
{
    public bool IsEmpty => !IsOwner && !IsCoordinator && !IsHost;
}

/// <summary>Gives people roles and takes them away.</summary>
public sealed class PeopleEditing(
    LanternDb db,
    TeamBuilding team,
    HostEditing hosts,
    RecordKeeping record,
    Tenant tenant,
    IClock clock
)
{
    public const string NoRole = "no-role";

    /// <exception cref="Refusal">409 when it would leave the workspace without an owner, or a host is still
    /// needed.</exception>
    public async Task ChangeRolesAsync(Guid id, RolesForm form, CancellationToken ct)
    {
        if (form.IsEmpty)
            throw Refusal.Invalid("isHost", NoRole);
        await using var transaction = await db.Database.BeginTransactionAsync(ct);
        // Two owners who take the role from each other at once must not both get through.
        await LockOwnersAsync(ct);
        var person = await db.Users.FirstOrDefaultAsync(row => row.Id == id && row.LeftAt == null, ct)
            ?? throw Refusal.NotFound("person");
        if (person.IsOwner && !form.IsOwner)
            await RequireAnotherOwnerAsync(id, ct);
        (person.IsOwner, person.IsCoordinator) = (form.IsOwner, form.IsCoordinator);
        if (!form.IsOwner && !form.IsCoordinator)
            await db.ActingFor.Where(grant => grant.PersonId == id).ExecuteDeleteAsync(ct);

        var host = await db.Hosts.FirstOrDefaultAsync(row => row.PersonId == id, ct);
        if (form.IsHost && host is null)
            await team.AddHostAsync(
                new NewHost(person.Name, person.Zone, UsualHours.Weekdays(person.Zone)),
                person,
                ct
            );
        else if (form.IsHost)
            host!.RetiredAt = null;
        else if (host is { RetiredAt: null })
        {
            await hosts.RequireNothingAheadAsync(host, ct);
            host.RetiredAt = clock.GetCurrentInstant();
        }

        record.Note(id, $"Made {person.Name} {Words(form)}");
        await db.SaveChangesAsync(ct);
        await transaction.CommitAsync(ct);
    }

    public async Task RequireAnotherOwnerAsync(Guid id, CancellationToken ct)
    {
        if (!await db.Users.AnyAsync(row => row.Id != id && row.IsOwner && row.LeftAt == null, ct))
            throw new Refusal(StatusCodes.Status409Conflict, "last-owner");
    }

    /// <summary>
    /// One change of owners at a time. The lock is one that rows which only point at the workspace (a guest's booking)
    /// don't wait for.
    /// </summary>
    public Task LockOwnersAsync(CancellationToken ct) =>
        db.Database.ExecuteSqlAsync($"SELECT 1 FROM workspaces WHERE id = {tenant.WorkspaceId} FOR NO KEY UPDATE", ct);

    private static string Words(RolesForm form)
    {
        var roles = new List<string>();
        if (form.IsOwner)
            roles.Add("owner");
        if (form.IsCoordinator)
            roles.Add("coordinator");
        if (form.IsHost)
            roles.Add("host");
        return string.Join(", ", roles);
    }
}
