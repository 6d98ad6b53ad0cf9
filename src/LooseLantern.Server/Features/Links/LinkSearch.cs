using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Hosting;
using Microsoft.EntityFrameworkCore;
using Npgsql;

namespace LooseLantern.Server.Features.Links;

/// <summary>Finds links by words.</summary>
public static class LinkSearch
{
    // As the index ix_links_words has it.
    private const string Written = "(l.notes || E'\\n' || l.started_from || E'\\n' || CAST(l.guests AS text))";

    /// <summary>
    /// The links that bear all of these words, in their titles, guests, notes, or what they were started from; all of
    /// them where nothing is typed.
    /// </summary>
    public static IQueryable<AvailabilityLink> LinksContaining(this LanternDb db, string typed)
    {
        var (sql, values) = Containing(typed);
        // What was typed is in the values alone.
        var found = "SELECT l.* FROM links l WHERE true" + sql;
        return sql.Length == 0
            ? db.Links
            : db.Links.FromSqlRaw(found, [.. values.Select(value => new NpgsqlParameter(value.Key, value.Value))]);
    }

    /// <summary>The same as a condition on the table "l", beginning with AND, and the values it names.</summary>
    public static (string Sql, IReadOnlyDictionary<string, object> Values) Containing(string typed)
    {
        var (sql, values) = ("", new Dictionary<string, object>());
        foreach (var (i, word) in typed.Split(' ', StringSplitOptions.RemoveEmptyEntries).Index())
        {
            values[$"word{i}"] = Words.Containing(word);
            // As it stands in JSON.
            values[$"json{i}"] = Words.Containing(word.Replace("\\", "\\\\").Replace("\"", "\\\""));
            // Guests are kept as JSON, of which only what they are called is searched: the index tells of whatever may
            // be one, and what it finds is looked at.
            sql += $"""
                 AND l.id IN (
                    SELECT p.id FROM pages p WHERE p.title ILIKE @word{i}
                    UNION ALL SELECT l.id FROM links l WHERE {Written} ILIKE @word{i} AND (l.notes ILIKE @word{i} OR l.started_from ILIKE @word{i})
                    UNION ALL SELECT l.id FROM links l WHERE {Written} ILIKE @json{i} AND EXISTS (
                        SELECT 1 FROM jsonb_array_elements(l.guests) AS guest WHERE guest->>'name' ILIKE @word{i} OR guest->>'email' ILIKE @word{i}))
                """;
        }

        return (sql, values);
    }
}
