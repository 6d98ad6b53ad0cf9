using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Views;
using LooseLantern.Server.Hosting;

namespace LooseLantern.Server.Features.GuestBook;

public sealed record SavedGuestView(Guid Id, string Name, GuestFilter Filter);

public sealed record GuestViewForm(string Name, GuestFilter Filter);

/// <summary>Choices of guests that are saved under a name, for the whole team.</summary>
public sealed class GuestSavedViews(SavedViews views, GuestFinding finding)
{
    public Task<IReadOnlyList<SavedGuestView>> ListAsync(CancellationToken ct) =>
        views.ListAsync(
            ViewOf.Guests,
            (Guid id, string name, GuestFilter filter) => new SavedGuestView(id, name, filter),
            ct
        );

    /// <summary>Saves it; one of the same name is replaced.</summary>
    /// <exception cref="Refusal">400 naming each fault.</exception>
    public async Task<Guid> SaveAsync(GuestViewForm form, CancellationToken ct)
    {
        // Whatever it asks for that is not there is told now, and not whenever somebody opens it.
        await finding.OfAsync(form.Filter, ct);
        return await views.SaveAsync(ViewOf.Guests, form.Name, form.Filter, ct);
    }

    /// <exception cref="Refusal">404 where there is none.</exception>
    public Task RemoveAsync(Guid id, CancellationToken ct) => views.RemoveAsync(ViewOf.Guests, id, ct);
}
