namespace LooseLantern.Server.Features.Calendars.Joining;

/// <summary>Whom a calendar is to count for.</summary>
/// <param name="HostId">Whose it is; null for one of the whole team.</param>
/// <param name="HostIds">Whom one of the whole team counts for; left out for somebody's own.</param>
public sealed record CalendarOwners(Guid? HostId, IReadOnlyList<Guid>? HostIds = null);

/// <param name="Address">Where an iCalendar file is fetched; never shown again.</param>
/// <param name="Name">Null for what the calendar calls itself.</param>
public sealed record AddressForm(CalendarOwners For, string Address, string? Name = null);

/// <param name="Server">The calendar server's address or name, or a mail address whose server is meant.</param>
public sealed record AccountForm(string Server, string UserName, string Password);

/// <summary>A calendar that an account has.</summary>
/// <param name="Path">By which it is named when it is joined.</param>
/// <param name="IsJoined">Whether it is joined already, for the host that was asked about.</param>
public sealed record AccountCalendar(string Path, string Name, bool MayWrite, bool IsJoined);

public sealed record AccountFound(string Server, IReadOnlyList<AccountCalendar> Calendars);

/// <param name="Calendars">The paths of those to join.</param>
/// <param name="WriteTo">The path of the one to which new bookings are written; null to leave that as it is.</param>
public sealed record JoinAccountForm(
    CalendarOwners For,
    AccountForm Account,
    IReadOnlyList<string> Calendars,
    string? WriteTo = null
);

/// <param name="Password">The new password of an account.</param>
public sealed record PasswordForm(string Password);
