using System.Security.Cryptography;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Hosting;
using LooseLantern.Server.Outside;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using Npgsql;

namespace LooseLantern.Server.Features.Desks;

/// <summary>What has to stand in the names of a desk's own host name so that the desk answers there.</summary>
/// <param name="Record">The name of the TXT record.</param>
/// <param name="Text">What it has to say.</param>
/// <param name="Since">When it was found; null for a host name that is not proven.</param>
public sealed record HostNameProof(string Record, string Text, Instant? Since)
{
    public static HostNameProof? Of(Desk desk) =>
        desk.HostName is { } name
            ? new HostNameProof($"_loose-lantern.{name}", desk.HostNameMark, desk.HostNameProvenAt)
            : null;
}

/// <summary>
/// Sees whether a host name is its desk's to use: whoever keeps its names has put the desk's mark there. That the name
/// leads to this server tells nothing, for anybody's desk could claim it then.
/// </summary>
public sealed class HostNameProving(LanternDb db, ServiceRecords records, IClock clock)
{
    private const int Bytes = 16;

    /// <summary>Sets the host name; another one than it was has to be proven anew.</summary>
    /// <exception cref="Refusal">400 for one that another desk has proven.</exception>
    public static async Task SetAsync(LanternDb db, Desk desk, string name, CancellationToken ct)
    {
        if ((desk.HostName ?? "") == name)
            return;
        if (await IsTakenAsync(db, desk.Id, name, ct))
            throw Refusal.Invalid("hostName", "host-name-taken");
        (desk.HostName, desk.HostNameProvenAt) = (name.Length == 0 ? null : name, null);
        desk.HostNameMark = name.Length == 0 ? "" : Convert.ToHexStringLower(RandomNumberGenerator.GetBytes(Bytes));
    }

    /// <exception cref="Refusal">422 where the record is not there, or says something else; 409 where another desk
    /// answers at that name.</exception>
    public async Task<Desk> ProveAsync(Guid deskId, CancellationToken ct)
    {
        var desk = await db.Desks.FirstOrDefaultAsync(row => row.Id == deskId, ct) ?? throw Refusal.NotFound("desk");
        if (HostNameProof.Of(desk) is not { } proof)
            throw new Refusal(StatusCodes.Status409Conflict, "no-host-name");
        if (proof.Since is not null)
            return desk;
        if (!(await records.TextsAsync(proof.Record, ct)).Contains(proof.Text))
            throw new Refusal(StatusCodes.Status422UnprocessableEntity, "host-name-unproven");
        desk.HostNameProvenAt = clock.GetCurrentInstant();
        try
        {
            await db.SaveChangesAsync(ct);
        }
        catch (DbUpdateException e)
            when (e.InnerException is PostgresException { ConstraintName: LanternDb.OneHostName })
        {
            throw new Refusal(StatusCodes.Status409Conflict, "host-name-gone");
        }

        return desk;
    }

    private static Task<bool> IsTakenAsync(LanternDb db, Guid deskId, string name, CancellationToken ct) =>
        db
            .Desks.IgnoreQueryFilters()
            .AnyAsync(row => row.HostName == name && row.HostNameProvenAt != null && row.Id != deskId, ct);
}
