using LooseLantern.Core.Links;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Hosting;
using Microsoft.EntityFrameworkCore;

namespace LooseLantern.Server.Features.Letters;

/// <summary>The patterns from which a letter can make a link: those whose times nobody has to pick first.</summary>
public static class LetterPatterns
{
    /// <summary>By name.</summary>
    public static async Task<IReadOnlyList<NamedPattern>> ListAsync(LanternDb db, CancellationToken ct) =>
        [
            .. (await db.LinkPatterns.AsNoTracking().OrderBy(row => row.Name).ToListAsync(ct))
                .Where(row => row.Form.Times.Offer.By != OfferBy.Picked)
                .Select(row => new NamedPattern(row.Id, row.Name)),
        ];

    /// <exception cref="Refusal">400 naming the field where there is none, or its times are to be picked.</exception>
    public static async Task<LinkPattern> RequireAsync(LanternDb db, Guid? id, string field, CancellationToken ct)
    {
        var pattern = await db.LinkPatterns.AsNoTracking().FirstOrDefaultAsync(row => row.Id == id, ct)
            ?? throw Refusal.Invalid(field, "letter-pattern");
        return pattern.Form.Times.Offer.By == OfferBy.Picked
            ? throw Refusal.Invalid(field, "letter-pattern-picked")
            : pattern;
    }
}
