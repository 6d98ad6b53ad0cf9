using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Hosting;
using LooseLantern.Server.Tenancy;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.GuestBook;

public sealed record SavedGuestView(Guid Id, string Name, GuestFilter Filter);

public sealed record GuestViewForm(string Name, GuestFilter Filter);

/// <summary>Choices of guests that are saved under a name, for the whole team.</summary>
public sealed class GuestSavedViews(LanternDb db, Tenant tenant, GuestFinding finding, IClock clock)
{
    public const int MostViews = 50;

    public async Task<IReadOnlyList<SavedGuestView>> ListAsync(CancellationToken ct) =>
        await db
            .GuestViews.AsNoTracking()
            .OrderBy(view => view.Name)
            .ThenBy(view => view.Id)
            .Select(view => new SavedGuestView(view.Id, view.Name, view.Filter))
            .ToListAsync(ct);

    /// <summary>Saves it; one of the same name is replaced.</summary>
    /// <exception cref="Refusal">400 naming each fault.</exception>
    public async Task<Guid> SaveAsync(GuestViewForm form, CancellationToken ct)
    {
        if (!Words.FitOneLine(form.Name))
            throw Refusal.Invalid("name", "view-name");
        // Whatever it asks for that is not there is told now, and not whenever somebody opens it.
        await finding.OfAsync(form.Filter, ct);
        var name = form.Name.Trim();
        var view = await db.GuestViews.FirstOrDefaultAsync(row => row.Name == name, ct);
        if (view is null)
        {
            if (await db.GuestViews.CountAsync(ct) >= MostViews)
                throw Refusal.Invalid("name", Phrase.Of("views-too-many", ("most", MostViews)));
            view = new GuestView
            {
                WorkspaceId = tenant.WorkspaceId!.Value,
                Name = name,
                Filter = form.Filter,
                SavedAt = clock.GetCurrentInstant(),
            };
            db.GuestViews.Add(view);
        }
        else
            (view.Filter, view.SavedAt) = (form.Filter, clock.GetCurrentInstant());
        await db.SaveChangesAsync(ct);
        return view.Id;
    }

    /// <exception cref="Refusal">404 where there is none.</exception>
    public async Task RemoveAsync(Guid id, CancellationToken ct)
    {
        if (await db.GuestViews.Where(view => view.Id == id).ExecuteDeleteAsync(ct) == 0)
            throw Refusal.NotFound("view");
    }
}
