using System.Text.Json;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Hosting;
using LooseLantern.Server.Tenancy;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Views;

/// <summary>What a saved thing is found by.</summary>
public sealed record MadeId(Guid Id);

/// <summary>Choices of lists that are saved under a name, for the whole team.</summary>
public sealed class SavedViews(LanternDb db, Tenant tenant, IClock clock)
{
    /// <summary>Of one list.</summary>
    public const int MostViews = 50;

    /// <summary>By name.</summary>
    /// <param name="read">A view of its id, name and filter.</param>
    public async Task<IReadOnlyList<TView>> ListAsync<TFilter, TView>(
        ViewOf of,
        Func<Guid, string, TFilter, TView> read,
        CancellationToken ct
    ) =>
        [
            .. (
                await db
                    .SavedViews.AsNoTracking()
                    .Where(view => view.Of == of)
                    .OrderBy(view => view.Name)
                    .ThenBy(view => view.Id)
                    .ToListAsync(ct)
            ).Select(view => read(view.Id, view.Name, JsonSerializer.Deserialize<TFilter>(view.Filter, Json.Options)!)),
        ];

    /// <summary>Saves it; one of the same name is replaced.</summary>
    /// <param name="filter">Of which it is known that its list can be asked by it.</param>
    /// <exception cref="Refusal">400 naming each fault.</exception>
    public async Task<Guid> SaveAsync<TFilter>(ViewOf of, string name, TFilter filter, CancellationToken ct)
    {
        if (!Words.FitOneLine(name))
            throw Refusal.Invalid("name", "view-name");
        name = name.Trim();
        var (json, now) = (JsonSerializer.Serialize(filter, Json.Options), clock.GetCurrentInstant());
        var view = await db.SavedViews.FirstOrDefaultAsync(row => row.Of == of && row.Name == name, ct);
        if (view is null)
        {
            if (await db.SavedViews.CountAsync(row => row.Of == of, ct) >= MostViews)
                throw Refusal.Invalid("name", Phrase.Of("views-too-many", ("most", MostViews)));
            view = new SavedView
            {
                WorkspaceId = tenant.WorkspaceId!.Value,
                Of = of,
                Name = name,
                Filter = json,
                SavedAt = now,
            };
            db.SavedViews.Add(view);
        }
        else
            (view.Filter, view.SavedAt) = (json, now);
        await db.SaveChangesAsync(ct);
        return view.Id;
    }

    /// <exception cref="Refusal">404 where there is none.</exception>
    public async Task RemoveAsync(ViewOf of, Guid id, CancellationToken ct)
    {
        if (await db.SavedViews.Where(view => view.Of == of && view.Id == id).ExecuteDeleteAsync(ct) == 0)
            throw Refusal.NotFound("view");
    }
}
