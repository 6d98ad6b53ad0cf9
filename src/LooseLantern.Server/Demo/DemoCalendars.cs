using System.Globalization;
using System.Text;
using System.Text.RegularExpressions;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Calendars;
using LooseLantern.Server.Features.Calendars.Joining;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Demo;

/// <summary>
/// The demo's calendars: accounts at the calendar stand-in (the setting StandIns:Calendars says where it is), an
/// address of it for the whole team, and a file. Dates in the file are written as days from the Monday of the week the
/// demo starts in.
/// </summary>
internal static partial class DemoCalendars
{
    public static async Task JoinAsync(
        IServiceProvider services,
        IReadOnlyDictionary<string, Guid> hosts,
        LocalDate today,
        CancellationToken ct
    )
    {
        var standIn = StandIn(services);
        var joining = services.GetRequiredService<CalendarJoining>();
        foreach (var (key, id) in hosts)
        {
            if (key == ByFile)
            {
                await joining.JoinFileAsync(
                    new CalendarOwners(id),
                    "Odile's calendar",
                    $"{key}.ics",
                    File(key, today),
                    ct
                );
                continue;
            }

            var account = new AccountForm(standIn, key, DemoPeople.Password);
            var found = await joining.FindAsync(account, id, ct);
            var work = found.Calendars.Single(calendar => calendar.Name == "Work").Path;
            await joining.JoinAccountAsync(
                new JoinAccountForm(
                    new CalendarOwners(id),
                    account,
                    [.. found.Calendars.Select(calendar => calendar.Path)],
                    work
                ),
                ct
            );
        }

        await joining.JoinAddressAsync(
            new AddressForm(
                new CalendarOwners(null, [.. hosts.Values]),
                $"{standIn}/published/yard/closures.ics",
                "Yard closures"
            ),
            ct
        );
    }

    /// <summary>
    /// The stand-in may listen at another port than when the demo was loaded; what was joined there is asked where it
    /// is now.
    /// </summary>
    public static async Task FollowAsync(IServiceProvider services, CancellationToken ct)
    {
        var db = services.GetRequiredService<LanternDb>();
        var secrets = services.GetRequiredService<CalendarSecrets>();
        var now = new Uri(StandIn(services));
        var calendars = await db
            .Calendars.Include(row => row.Account)
            .Where(row => row.Kind != CalendarKind.File)
            .ToListAsync(ct);
        var mailboxes = DemoPeople.Hosts.Select(host => host.Key).ToHashSet();
        var former = calendars
            .Where(row => row.Account is { } account && mailboxes.Contains(account.UserName))
            .Select(row => new Uri(row.Account!.Url).Authority)
            .FirstOrDefault();
        if (former is null || former == now.Authority)
            return;
        foreach (var calendar in calendars)
        {
            if (calendar.Account is { } account && new Uri(account.Url).Authority == former)
                (account.Url, calendar.Source) = (Moved(new Uri(account.Url)), now.Authority);
            else if (
                calendar.ProtectedAddress is not null
                && secrets.Address(calendar) is var address
                && address.Authority == former
            )
                calendar.ProtectedAddress = secrets.Protect(Moved(address));
        }

        await db.SaveChangesAsync(ct);

        string Moved(Uri address) => new Uri(now, address.PathAndQuery).AbsoluteUri;
    }

    private static string StandIn(IServiceProvider services) =>
        services.GetRequiredService<IConfiguration>()["StandIns:Calendars"]
        ?? throw new InvalidOperationException(
            "The demo needs the calendar stand-in; say where it is with the setting StandIns:Calendars."
        );

    private const string ByFile = "odile";

    /// <summary>A host's file, with its dates filled in; {{MON+9}} is the Wednesday of the week after.</summary>
    private static byte[] File(string host, LocalDate today)
    {
        var monday = today.With(DateAdjusters.PreviousOrSame(IsoDayOfWeek.Monday));
        var name = $"{typeof(DemoCalendars).Namespace}.Calendars.{host}.ics";
        using var stream = typeof(DemoCalendars).Assembly.GetManifestResourceStream(name)
            ?? throw new InvalidOperationException($"The demo has no calendar {name}.");
        using var reader = new StreamReader(stream, Encoding.UTF8);
        return Encoding.UTF8.GetBytes(
            DayMark()
                .Replace(reader.ReadToEnd(), mark =>
                    monday
                        .PlusDays(int.Parse(mark.Groups[1].Value, CultureInfo.InvariantCulture))
                        .ToString("uuuuMMdd", CultureInfo.InvariantCulture)
                )
        );
    }

    [GeneratedRegex(@"\{\{MON([+-]\d+)\}\}")]
    private static partial Regex DayMark();
}
