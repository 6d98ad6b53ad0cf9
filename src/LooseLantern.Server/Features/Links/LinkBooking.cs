using LooseLantern.Core;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.ActingFor;
using LooseLantern.Server.Features.Record;
using LooseLantern.Server.Features.Reserving;
using LooseLantern.Server.Hosting;

namespace LooseLantern.Server.Features.Links;

/// <summary>Books an offered time by hand.</summary>
public sealed class LinkBooking(
    LinkEditing editing,
    TimeReserving reserving,
    Allowances allowances,
    Actor actor,
    LanternDb db,
    RecordKeeping record
)
{
    public async Task<BookedForGuest> BookAsync(Guid id, BookForGuestRequest request, string? key, CancellationToken ct)
    {
        IdempotencyKeys.Require(key);
        var link = await editing.GetAsync(id, ct);
        var page = link.Page!;
        await allowances.RequireAsync(LinkEditing.HostsOf(link), Allowance.Book, ct);
        Guests.MoveRequest.Check(new Guests.MoveRequest(request.Start));
        var guests = GuestsOf(link, request);
        var booked = await reserving.BookAsync(
            new BookingWish(
                id,
                request.Start,
                request.Duration,
                guests[0].Name,
                guests[0].Email,
                link.GuestZone.Length == 0 ? page.Zone : link.GuestZone,
                link.GuestLanguage
            )
            {
                ByTeam = true,
                BookedBy = actor.Person?.Id,
                GuestClock = link.Text.Clock,
                Others = [.. guests.Skip(1)],
                IsAmongOurselves = link.IsAmongOurselves,
            },
            key,
            ct
        );
        if (booked.IsNew)
        {
            record.Note(
                booked.BookingId,
                link.IsAmongOurselves ? $"Booked “{page.Title}”" : $"Booked a time for {RecordWords.Guest}",
                LinkEditing.HostsOf(link)
            );
            await db.SaveChangesAsync(ct);
        }

        return new BookedForGuest(booked.BookingId, booked.Time.Start, booked.Time.End);
    }

    /// <summary>A time among ourselves has no guest; who arranges it stands for one, and is mailed nothing.</summary>
    /// <exception cref="Refusal">400 naming the guest's field.</exception>
    private List<LinkGuest> GuestsOf(AvailabilityLink link, BookForGuestRequest request)
    {
        if (link.IsAmongOurselves)
            return [new LinkGuest(actor.Person?.Name ?? link.Page!.Desk!.Name, "")];
        var guests = (request.Guests ?? link.Guests)
            .Select(guest => new LinkGuest(guest?.Name?.Trim() ?? "", guest?.Email?.Trim() ?? ""))
            .ToList();
        var faults = new Dictionary<string, Phrase[]>();
        if (guests.Count is 0 or > LinkFormRules.MostGuests)
            faults["guests"] = [Phrase.Of("guests-to-book", ("most", LinkFormRules.MostGuests))];
        for (var i = 0; i < guests.Count; i++)
        {
            if (!Words.FitOneLine(guests[i].Name))
                faults[$"guests[{i}].name"] = ["guest-name"];
            if (guests[i].Email.Length > 0 && !EmailAddress.IsPlausible(guests[i].Email))
                faults[$"guests[{i}].email"] = ["email-or-none"];
        }

        return faults.Count == 0 ? guests : throw Refusal.Invalid(faults);
    }
}
