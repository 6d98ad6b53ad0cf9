using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Views;
using LooseLantern.Server.Hosting;

namespace LooseLantern.Server.Features.Bookings;

public sealed record SavedBookingView(Guid Id, string Name, BookingFilter Filter);

public sealed record BookingViewForm(string Name, BookingFilter Filter);

/// <summary>Choices of bookings that are saved under a name, for the whole team.</summary>
public sealed class BookingSavedViews(SavedViews views, BookingFinding finding)
{
    public Task<IReadOnlyList<SavedBookingView>> ListAsync(CancellationToken ct) =>
        views.ListAsync(
            ViewOf.Bookings,
            (Guid id, string name, BookingFilter filter) => new SavedBookingView(id, name, filter),
            ct
        );

    /// <summary>Saves it; one of the same name is replaced.</summary>
    /// <exception cref="Refusal">400 naming each fault.</exception>
    public async Task<Guid> SaveAsync(BookingViewForm form, CancellationToken ct)
    {
        await finding.OfAsync(form.Filter, ct);
        return await views.SaveAsync(ViewOf.Bookings, form.Name, form.Filter, ct);
    }

    /// <exception cref="Refusal">404 where there is none.</exception>
    public Task RemoveAsync(Guid id, CancellationToken ct) => views.RemoveAsync(ViewOf.Bookings, id, ct);
}
