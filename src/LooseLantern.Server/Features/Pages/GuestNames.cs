using LooseLantern.Server.Data;
using Microsoft.EntityFrameworkCore;

namespace LooseLantern.Server.Features.Pages;

/// <param name="Words">All that everybody can read of a page.</param>
public sealed record PublicWords(IReadOnlyList<string> Words);

/// <summary>Finds guests' names in words that everybody can read.</summary>
public sealed class GuestNames(LanternDb db)
{
    private const int MostLookedFor = 5_000;

    /// <summary>The names of guests that stand in the words, whole; single short words are no names.</summary>
    public async Task<IReadOnlyList<string>> InAsync(PublicWords words, CancellationToken ct)
    {
        var names = await db
            .Bookings.IgnoreQueryFilters([LanternDb.NotCancelled])
            .OrderByDescending(booking => booking.BookedAt)
            .Select(booking => booking.GuestName)
            .Take(MostLookedFor)
            .ToListAsync(ct);
        var text = string.Join('\n', words.Words.OfType<string>());
        return
        [
            .. names
                .Distinct(StringComparer.OrdinalIgnoreCase)
                .Where(name => name.Contains(' ', StringComparison.Ordinal) && StandsIn(text, name))
                .Order(StringComparer.Ordinal),
        ];
    }

    private static bool StandsIn(string text, string name)
    {
        for (
            var at = text.IndexOf(name, StringComparison.OrdinalIgnoreCase);
            at >= 0;
            at = text.IndexOf(name, at + 1, StringComparison.OrdinalIgnoreCase)
        )
        {
            var (before, after) = (
                at == 0 ? ' ' : text[at - 1],
                at + name.Length >= text.Length ? ' ' : text[at + name.Length]
            );
            if (!char.IsLetterOrDigit(before) && !char.IsLetterOrDigit(after))
                return true;
        }

        return false;
    }
}
