using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Hosting;
using LooseLantern.Server.Tenancy;
using Microsoft.EntityFrameworkCore;
using Npgsql;

namespace LooseLantern.Server.Features.Desks;

/// <param name="Free">Whether a desk could have the address.</param>
/// <param name="Mend">What to do where it could not.</param>
/// <param name="Offers">Free addresses like it, where it is taken.</param>
public sealed record DeskAddressAnswer(bool Free, string? Mend, IReadOnlyList<string> Offers);

/// <summary>Opens desks. A desk's address is its own over all workspaces.</summary>
public sealed class DeskMaking(LanternDb db, Tenant tenant)
{
    private const int MostOffers = 3;

    private static readonly string[] Endings = ["desk", "team", "booking", "office"];

    /// <summary>Whether the address is free, and what is free like it.</summary>
    public async Task<DeskAddressAnswer> CheckAsync(string address, CancellationToken ct)
    {
        if (!Address.IsWellFormed(address))
            return new DeskAddressAnswer(false, Phrases.Mend(Address.Mend), []);
        var stem =
            address.Length > Address.MostCharacters - 12
                ? address[..(Address.MostCharacters - 12)].TrimEnd('-')
                : address;
        string[] others =
        [
            .. Endings.Select(ending => $"{stem}-{ending}"),
            .. Enumerable.Range(2, 20).Select(number => $"{stem}-{number}"),
        ];
        var taken = await db
            .Desks.IgnoreQueryFilters()
            .Where(desk => desk.Address == address || others.Contains(desk.Address))
            .Select(desk => desk.Address)
            .ToListAsync(ct);
        return Address.IsFreeForDesks(address) && !taken.Contains(address)
            ? new DeskAddressAnswer(true, null, [])
            : new DeskAddressAnswer(
                false,
                Phrases.Mend(Phrase.Of("desk-address-taken.offers", ("address", address))),
                [.. others.Except(taken).Take(MostOffers)]
            );
    }

    /// <exception cref="Refusal">When the address is no address, kept for the product's own paths, or
    /// taken.</exception>
    public Task<Desk> MakeAsync(string address, string name, CancellationToken ct) =>
        MakeAsync(address, name, null, "deskAddress", ct);

    /// <param name="hostId">Whose desk it is; null for one of its own pages.</param>
    /// <param name="field">What the address is called where it came from.</param>
    /// <exception cref="Refusal">When the address is no address, kept for the product's own paths, or
    /// taken.</exception>
    public async Task<Desk> MakeAsync(string address, string name, Guid? hostId, string field, CancellationToken ct)
    {
        if (!Address.IsWellFormed(address))
            throw Refusal.Invalid(field, Address.Mend);
        if (!Address.IsFreeForDesks(address))
            throw Taken(field, address);

        var desk = new Desk
        {
            WorkspaceId = tenant.WorkspaceId!.Value,
            Address = address,
            Name = name.Trim(),
            HostId = hostId,
        };
        db.Desks.Add(desk);
        try
        {
            await db.SaveChangesAsync(ct);
        }
        catch (DbUpdateException e)
            when (e.InnerException is PostgresException { ConstraintName: LanternDb.OneDeskAddress })
        {
            throw Taken(field, address);
        }

        return desk;
    }

    private static Refusal Taken(string field, string address) =>
        Refusal.Invalid(field, Phrase.Of("desk-address-taken", ("address", address)));
}
