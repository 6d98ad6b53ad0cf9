using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Hosting;
using Microsoft.EntityFrameworkCore;

namespace LooseLantern.Server.Features.Links;

/// <summary>Finds links by words.</summary>
public static class LinkSearch
{
    /// <summary>
    /// The links that bear all of these words, in their titles, guests, notes, or what they were started from; all of
    /// them where nothing is typed.
    /// </summary>
    public static IQueryable<AvailabilityLink> LinksContaining(this LanternDb db, string typed)
    {
        var words = typed.Split(' ', StringSplitOptions.RemoveEmptyEntries).Select(Words.Containing).ToArray();
        if (words.Length == 0)
            return db.Links;
        // Guests are kept as JSON, of which only what they are called is searched.
        return db.Links.FromSql(
            $"""
            SELECT * FROM links WHERE id IN (
                SELECT l.id FROM links l JOIN pages p ON p.id = l.id WHERE NOT EXISTS (
                    SELECT 1 FROM unnest({words}) AS word WHERE NOT (
                        p.title ILIKE word OR l.notes ILIKE word OR l.started_from ILIKE word
                        OR EXISTS (SELECT 1 FROM jsonb_array_elements(l.guests) AS guest WHERE guest->>'name' ILIKE word OR guest->>'email' ILIKE word))))
            """
        );
    }
}
