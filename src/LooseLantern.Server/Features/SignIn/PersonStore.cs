using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using Microsoft.AspNetCore.DataProtection;
using Microsoft.AspNetCore.Identity;
using Microsoft.AspNetCore.Identity.EntityFrameworkCore;

namespace LooseLantern.Server.Features.SignIn;

/// <summary>
/// Keeps people's secrets (the authenticator's key, recovery codes) encrypted, so that who reads the database alone
/// can't sign in.
/// </summary>
public sealed class PersonStore(
    LanternDb db,
    IDataProtectionProvider protection,
    IdentityErrorDescriber? describer = null
) : UserOnlyStore<Person, LanternDb, Guid>(db, describer)
{
    private readonly IDataProtector _protector = protection.CreateProtector("person-token");

    public override Task SetTokenAsync(
        Person user,
        string loginProvider,
        string name,
        string? value,
        CancellationToken cancellationToken
    ) =>
        base.SetTokenAsync(
            user,
            loginProvider,
            name,
            value is null ? null : _protector.Protect(value),
            cancellationToken
        );

    public override async Task<string?> GetTokenAsync(
        Person user,
        string loginProvider,
        string name,
        CancellationToken cancellationToken
    ) =>
        await base.GetTokenAsync(user, loginProvider, name, cancellationToken) is { } kept
            ? _protector.Unprotect(kept)
            : null;
}
