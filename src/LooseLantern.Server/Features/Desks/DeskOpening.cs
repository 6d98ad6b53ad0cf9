using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Hosting;
using LooseLantern.Server.Tenancy;
using Microsoft.EntityFrameworkCore;
using Npgsql;

namespace LooseLantern.Server.Features.Desks;

/// <summary>Opens desks. A desk's address is its own over all workspaces.</summary>
public sealed class DeskOpening(LanternDb db, Tenant tenant)
{
    /// <exception cref="Refusal">When the address is no address, kept for the product's own paths, or taken.</exception>
    public async Task<Desk> OpenAsync(string address, string name, CancellationToken ct)
    {
        if (!Address.IsWellFormed(address)) throw Refusal.Invalid("deskAddress", Address.Mend);
        if (!Address.IsFreeForDesks(address)) throw Taken(address);

        var desk = new Desk { WorkspaceId = tenant.WorkspaceId!.Value, Address = address, Name = name.Trim() };
        db.Desks.Add(desk);
        try
        {
            await db.SaveChangesAsync(ct);
        }
        catch (DbUpdateException e) when (e.InnerException is PostgresException { ConstraintName: LanternDb.OneDeskAddress })
        {
            throw Taken(address);
        }

        return desk;
    }

    private static Refusal Taken(string address) =>
        Refusal.Invalid("deskAddress", $"The address {address} is taken; add a word to it, such as {address}-desk.");
}
