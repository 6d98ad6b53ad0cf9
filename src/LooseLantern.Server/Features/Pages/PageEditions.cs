using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.ActingFor;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Pages;

/// <summary>A page as it once was published, newest first in lists.</summary>
/// <param name="By">Who published it; empty for the product itself.</param>
public sealed record EditionView(int Number, Instant At, string By, PageForm Form);

/// <summary>Keeps what pages were when they were published, and where.</summary>
public sealed class PageEditions(LanternDb db, Actor actor, IClock clock)
{
    private const int MostListed = 50;

    /// <summary>Adds the page as it is now to what is about to be saved.</summary>
    public async Task AddAsync(Page page, CancellationToken ct)
    {
        var last = await db
            .PageEditions.Where(edition => edition.PageId == page.Id)
            .MaxAsync(edition => (int?)edition.Number, ct)
            ?? 0;
        db.PageEditions.Add(
            new PageEdition
            {
                WorkspaceId = page.WorkspaceId,
                PageId = page.Id,
                Number = last + 1,
                At = clock.GetCurrentInstant(),
                By = actor.Person?.Name ?? "",
                Form = PageView.FormOf(page),
            }
        );
    }

    public async Task<IReadOnlyList<EditionView>> OfAsync(Guid pageId, CancellationToken ct) =>
        (
            await db
                .PageEditions.AsNoTracking()
                .Where(edition => edition.PageId == pageId)
                .OrderByDescending(edition => edition.Number)
                .Take(MostListed)
                .ToListAsync(ct)
        ).ConvertAll(edition => new EditionView(edition.Number, edition.At, edition.By, edition.Form));

    /// <summary>
    /// Before a page goes to another address: where guests knew the old one, it leads on from now on. A page that goes
    /// to an address takes it from whichever was there once.
    /// </summary>
    public async Task MoveAsync(Page page, Guid deskId, string address, CancellationToken ct)
    {
        var former = await db.FormerAddresses.FirstOrDefaultAsync(
            row => row.DeskId == deskId && row.Address == address,
            ct
        );
        if (former is not null)
            db.FormerAddresses.Remove(former);
        if (page.Address.Length == 0 || !await db.PageEditions.AnyAsync(edition => edition.PageId == page.Id, ct))
            return;
        if (
            await db.FormerAddresses.FirstOrDefaultAsync(
                row => row.DeskId == page.DeskId && row.Address == page.Address,
                ct
            ) is
            { } known
        )
            known.PageId = page.Id;
        else
            db.FormerAddresses.Add(
                new FormerAddress
                {
                    WorkspaceId = page.WorkspaceId,
                    DeskId = page.DeskId,
                    Address = page.Address,
                    PageId = page.Id,
                }
            );
    }
}
