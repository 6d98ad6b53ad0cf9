using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Outside;
using Microsoft.AspNetCore.DataProtection;

namespace LooseLantern.Server.Features.Calendars;

/// <summary>
/// Passwords of accounts and secret addresses, as they are kept: encrypted, read for asking the server they belong to
/// and for nothing else.
/// </summary>
public sealed class CalendarSecrets(IDataProtectionProvider protection)
{
    private readonly IDataProtector _protector = protection.CreateProtector("calendar");

    public string Protect(string secret) => _protector.Protect(secret);

    public Credentials Of(CalendarAccount account) =>
        new(account.UserName, _protector.Unprotect(account.ProtectedPassword));

    public Uri Address(Calendar calendar) => new(_protector.Unprotect(calendar.ProtectedAddress!));
}
