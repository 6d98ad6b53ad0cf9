using System.Globalization;
using System.Text;
using System.Text.RegularExpressions;
using LooseLantern.Server.Features.Calendars.Joining;
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
        var standIn = services.GetRequiredService<IConfiguration>()["StandIns:Calendars"]
            ?? throw new InvalidOperationException(
                "The demo needs the calendar stand-in; say where it is with the setting StandIns:Calendars."
            );
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
