using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Pages;
using LooseLantern.Server.Hosting;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Links;

/// <summary>Links' forms as rows, and back.</summary>
public sealed class LinkFilling(LanternDb db, PageFilling filling, CalendarChoosing choices, IClock clock)
{
    private static readonly LinkFormRules Checks = new();
    private static readonly LinkTimesRules TimesChecks = new();

    /// <summary>The form as it is kept.</summary>
    /// <exception cref="Refusal">400 naming every field that is wrong.</exception>
    public async Task<LinkForm> CheckAsync(LinkForm form, CancellationToken ct)
    {
        Checks.Check(form);
        if (!await db.Desks.AnyAsync(desk => desk.Id == form.DeskId, ct))
            throw Refusal.Invalid("deskId", "your-desk");
        var details = form.Details;
        return form with
        {
            Title = form.Title.Trim(),
            Description = form.Description.Trim(),
            Place = form.Place.Trim(),
            Times = await RequireAsync(form.Times, ct),
            Guests = [.. form.Guests.Select(guest => new LinkGuest(guest.Name.Trim(), guest.Email.Trim()))],
            Details = details with
            {
                HostWords = details.HostWords.Trim(),
                Notes = details.Notes.Trim(),
                Topic = details.Topic.Length == 0 ? LinkAddresses.TopicOf(form.Title) : details.Topic,
                AlsoInvited =
                [
                    .. details
                        .AlsoInvited.Select(one => new InvitedAlong(one.Name.Trim(), one.Email.Trim()))
                        .DistinctBy(one => one.Email, StringComparer.OrdinalIgnoreCase),
                ],
                Questions = QuestionRules.Tidy(details.Questions),
            },
        };
    }

    /// <summary>The page that such times would make, not saved: enough to compute its openings.</summary>
    /// <param name="of">The link whose own holds are not in the way; null for a new one.</param>
    public async Task<Page> TryOutAsync(LinkTimes times, Guid? of, CancellationToken ct)
    {
        TimesChecks.Check(times, "times.");
        var page = filling.Blank(Guid.Empty, clock.GetCurrentInstant(), of);
        FillTimes(page, await RequireAsync(times, ct), leavesFree: false);
        return page;
    }

    /// <param name="form">As <see cref="CheckAsync"/> gives it.</param>
    public void Fill(Page page, AvailabilityLink link, LinkForm form)
    {
        var details = form.Details;
        var usual = PageDetails.Usual;
        filling.Fill(
            page,
            new PageForm(
                form.Title,
                form.DeskId,
                page.Address,
                form.Description,
                form.PlaceKind,
                form.Place,
                KeepsHosts: false,
                form.Times.AsPage(),
                page.Changes,
                PagePost.Usual with
                {
                    HostWords = details.HostWords,
                    ToGuests = details.IsAmongOurselves ? GuestMail.None : GuestMail.Invitation,
                },
                ApprovalHours: null,
                details.Questions,
                usual with
                {
                    Lead = details.Lead,
                    AlsoInvited = details.AlsoInvited,
                    Face = usual.Face with { IsListed = false },
                    Place = usual.Place with { HostsRing = details.HostsRing },
                }
            )
        );
        FillTimes(page, form.Times, details.LeavesFree);

        (link.Guests, link.GuestZone, link.GuestLanguage) = (form.Guests, form.GuestZone, form.GuestLanguage);
        (link.Topic, link.EndsOn, link.Reopens) = (details.Topic, details.EndsOn, details.Reopens);
        (link.Together, link.BooksByItself, link.Takes) = (
            details.Together,
            details.BooksByItself,
            !details.Together && form.Guests.Count > 1 ? form.Guests.Count : details.Takes
        );
        (link.Notes, link.StartedFrom, link.IsAmongOurselves, link.Text) = (
            details.Notes,
            details.StartedFrom,
            details.IsAmongOurselves,
            details.Text
        );
    }

    /// <param name="link">With its page, whole.</param>
    public static LinkForm FormOf(AvailabilityLink link)
    {
        var page = link.Page!;
        var times = PageView.FormOf(page).Times;
        return new LinkForm(
            page.Title,
            page.DeskId,
            page.Description,
            page.PlaceKind,
            page.Place,
            new LinkTimes(
                page.Zone,
                times.LineUp,
                page.Durations,
                page.Step,
                page.BufferBefore,
                page.BufferAfter,
                page.Notice,
                page.Offer!.Times,
                page.Offer.Overridden,
                page.CalendarChoices
            ),
            link.Guests,
            link.GuestZone,
            link.GuestLanguage,
            new LinkDetails(
                page.Details.Lead,
                page.Details.AlsoInvited,
                page.Post.HostWords,
                link.Notes,
                page.Offer.LeavesFree,
                link.Takes,
                link.Reopens,
                link.EndsOn,
                link.Topic,
                link.Text,
                link.StartedFrom,
                link.IsAmongOurselves,
                page.Details.Place.HostsRing,
                page.Questions,
                link.Together,
                link.BooksByItself
            )
        );
    }

    private void FillTimes(Page page, LinkTimes times, bool leavesFree)
    {
        filling.FillTimes(page, times.AsPage());
        page.Offer = new LinkOffer(times.Offer, times.Overridden, leavesFree);
    }

    private async Task<LinkTimes> RequireAsync(LinkTimes times, CancellationToken ct)
    {
        await filling.RequireTeamAsync(times.LineUp, ct);
        var seated = times.LineUp.SelectMany(seat => seat.HostIds).ToHashSet();
        return times with
        {
            Calendars = await choices.CheckAsync(times.AsPage(), ct),
            Overridden = [.. times.Overridden.Distinct().Where(seated.Contains)],
            Offer = times.Offer with
            {
                Picked = [.. times.Offer.Picked.Order()],
                Days = [.. times.Offer.Days.Distinct().Order()],
            },
        };
    }
}
