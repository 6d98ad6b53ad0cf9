using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Profile;
using LooseLantern.Server.Hosting;
using LooseLantern.Server.Tenancy;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using NodaTime.Text;

namespace LooseLantern.Server.Features.GuestBook;

/// <summary>A choice of guests as SQL.</summary>
/// <param name="From">The tables after FROM, of which "g" are the guests, then WHERE with whatever must hold.</param>
/// <param name="Values">By their names in the SQL.</param>
/// <param name="IsWhole">Whether all bookings or guests are read to find them, however few are shown: who asks twice
/// keeps what was found.</param>
public sealed record FoundGuests(string From, IReadOnlyDictionary<string, object> Values, bool IsWhole);

/// <summary>Says what a choice of guests is in SQL: for lists, views, files, and offers to many.</summary>
public sealed class GuestFinding(LanternDb db, Tenant tenant, IClock clock)
{
    private const int MostConditions = 10;
    private const int MostWords = 8;

    /// <summary>
    /// The indexes by words know three letters and more; what is shorter is looked for along the order of the list.
    /// </summary>
    private const int Shortest = 3;

    private const string Comes =
        "SELECT 1 FROM bookings b JOIN sessions s ON s.id = b.session_id WHERE b.guest_id = g.id AND b.cancelled_at IS NULL";

    /// <exception cref="Refusal">400 naming a condition that asks for what is not there.</exception>
    public async Task<FoundGuests> OfAsync(GuestFilter filter, CancellationToken ct)
    {
        var values = new Dictionary<string, object>
        {
            ["workspace"] = tenant.WorkspaceId!.Value,
            ["now"] = clock.GetCurrentInstant(),
        };
        var sql = "guests g WHERE g.workspace_id = @workspace AND g.merged_into IS NULL";
        foreach (var (i, word) in WordsOf(filter.Search).Index())
        {
            values[$"word{i}"] = Words.Containing(word);
            // Counted, since what only exists would be looked for among all emails before the first guest is.
            sql +=
                word.Length < Shortest
                    ? $" AND ({Written("g")} ILIKE @word{i} OR (SELECT count(*) FROM guest_emails e WHERE e.guest_id = g.id AND e.key ILIKE @word{i}) > 0)"
                    : $"""
                         AND g.id IN (
                            SELECT w.id FROM guests w WHERE w.workspace_id = @workspace AND {Written(
                            "w"
                        )} ILIKE @word{i}
                            UNION ALL SELECT e.guest_id FROM guest_emails e WHERE e.workspace_id = @workspace AND e.key ILIKE @word{i})
                        """;
        }

        if (filter.WithoutKeeper)
            sql += " AND g.keeper_id IS NULL";
        else if (filter.Keeper is { } keeper)
        {
            values["keeper"] = keeper;
            sql += " AND g.keeper_id = @keeper";
        }

        sql += filter.Appointments switch
        {
            GuestAppointments.ToCome => $" AND EXISTS ({Comes} AND upper(s.time) > @now)",
            GuestAppointments.Past => $" AND EXISTS ({Comes} AND upper(s.time) <= @now)",
            GuestAppointments.None => $" AND NOT EXISTS ({Comes})",
            _ => "",
        };
        sql += filter.Offers switch
        {
            GuestOffers.Out => """
                 AND EXISTS (SELECT 1 FROM link_guests lg JOIN links l ON l.id = lg.link_id WHERE lg.guest_id = g.id
                    AND l.takes_more AND l.ends_at > @now AND (l.out_at IS NOT NULL OR l.given_at IS NOT NULL))
                """,
            GuestOffers.None => " AND NOT EXISTS (SELECT 1 FROM link_guests lg WHERE lg.guest_id = g.id)",
            _ => "",
        };
        if (filter.NotSince is { } date)
        {
            var zone = await db.Workspaces.Select(row => row.Zone).SingleAsync(ct);
            values["since"] = date.AtStartOfDayInZone(DateTimeZoneProviders.Tzdb[zone]).ToInstant();
            sql += """
                 AND g.id IN (SELECT b.guest_id FROM bookings b JOIN sessions s ON s.id = b.session_id
                    WHERE b.workspace_id = @workspace AND b.cancelled_at IS NULL GROUP BY b.guest_id
                    HAVING min(upper(s.time)) <= @now AND max(upper(s.time)) <= @since)
                """;
        }

        if (filter.Language.Length > 0)
        {
            if (!MeEndpoints.Languages.Contains(filter.Language))
                throw Refusal.Invalid("language", Phrase.Of("languages", ("languages", MeEndpoints.Languages)));
            values["language"] = filter.Language;
            sql += " AND g.language = @language";
        }

        if (filter.Flagged)
            sql +=
                " AND EXISTS (SELECT 1 FROM bookings b WHERE b.guest_id = g.id AND b.cancelled_at IS NULL AND cardinality(b.flags) > 0)";
        if (filter.WithoutEmail)
            sql += " AND NOT EXISTS (SELECT 1 FROM guest_emails e WHERE e.guest_id = g.id)";
        if (filter.Doubles)
            sql += $" AND {IsDouble}";
        if (filter.Fields is { Count: > 0 } conditions)
            sql += await ConditionsAsync(conditions, values, ct);
        return new FoundGuests(sql, values, filter.Doubles || filter.NotSince is not null);
    }

    // Of names and numbers that come more than once; who was told apart from somebody is looked at by themselves.
    private const string IsDouble = """
        (g.name_key IN (SELECT o.name_key FROM guests o WHERE o.workspace_id = @workspace AND o.merged_into IS NULL
            GROUP BY o.name_key HAVING count(*) > 1)
        OR (g.phone_key <> '' AND g.phone_key IN (SELECT o.phone_key FROM guests o WHERE o.workspace_id = @workspace
            AND o.merged_into IS NULL AND o.phone_key <> '' GROUP BY o.phone_key HAVING count(*) > 1)))
        AND (cardinality(g.not_same) = 0 OR EXISTS (SELECT 1 FROM guests o WHERE o.workspace_id = @workspace AND o.id <> g.id
            AND o.merged_into IS NULL AND o.id <> ALL(g.not_same)
            AND (o.name_key = g.name_key OR (o.phone_key <> '' AND o.phone_key = g.phone_key))))
        """;

    /// <summary>As the index ix_guests_words has it.</summary>
    /// <param name="guest">The name of the guest's row.</param>
    private static string Written(string guest) =>
        $@"({guest}.name || E'\n' || {guest}.organisation || E'\n' || {guest}.phone)";

    /// <summary>What is searched for; more words than these would find nothing else.</summary>
    private static IEnumerable<string> WordsOf(string search) =>
        string.Concat(search.Select(letter => char.IsControl(letter) ? ' ' : letter))
            .Split(' ', StringSplitOptions.RemoveEmptyEntries)
            .Take(MostWords);

    private async Task<string> ConditionsAsync(
        IReadOnlyList<FieldCondition> conditions,
        Dictionary<string, object> values,
        CancellationToken ct
    )
    {
        if (conditions.Any(condition => condition is null))
            throw Refusal.Invalid("fields", "missing-or-odd");
        if (conditions.Count > MostConditions)
            throw Refusal.Invalid("fields", Phrase.Of("guest-conditions-too-many", ("most", MostConditions)));
        var fields = (await db.Workspaces.AsNoTracking().Select(row => row.GuestFields).SingleAsync(ct)).ToDictionary(
            field => field.Id
        );
        var sql = "";
        foreach (var (i, condition) in conditions.Index())
        {
            // One that was taken away since a view was saved asks for nothing.
            if (!fields.TryGetValue(condition.Field, out var field))
                continue;
            var value = $"(g.fields->>@field{i})";
            values[$"field{i}"] = field.Id.ToString("D");
            if (condition.Test == FieldTest.Filled)
                sql += $" AND {value} IS NOT NULL";
            else if (condition.Test == FieldTest.Blank)
                sql += $" AND {value} IS NULL";
            else
                sql += " AND " + Compared(field, condition, i, value, values);
        }

        return sql;
    }

    private static string Compared(
        GuestField field,
        FieldCondition condition,
        int i,
        string value,
        Dictionary<string, object> values
    )
    {
        var tidy = GuestFieldValues.Tidy(field, condition.Value) is { Length: > 0 } read
            ? read
            : throw Refusal.Invalid("fields", GuestFieldValues.MendOf(field));
        if (field.Kind == GuestFieldKind.Text)
        {
            values[$"value{i}"] = Words.Containing(tidy);
            return $"{value} ILIKE @value{i}";
        }

        var way = condition.Test switch
        {
            FieldTest.From => ">=",
            FieldTest.To => "<=",
            _ => "=",
        };
        values[$"value{i}"] = field.Kind switch
        {
            GuestFieldKind.Number => decimal.Parse(tidy, System.Globalization.CultureInfo.InvariantCulture),
            GuestFieldKind.Date => LocalDatePattern.Iso.Parse(tidy).Value,
            _ => tidy,
        };
        var type = field.Kind switch
        {
            GuestFieldKind.Number => "numeric",
            GuestFieldKind.Date => "date",
            _ => "text",
        };
        return $"CAST({value} AS {type}) {way} @value{i}";
    }
}
