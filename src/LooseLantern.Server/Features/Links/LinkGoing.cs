using LooseLantern.Core.Links;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.ActingFor;
using LooseLantern.Server.Features.Record;
using LooseLantern.Server.Hosting;
using NodaTime;

namespace LooseLantern.Server.Features.Links;

/// <summary>What becomes of a link once it is saved.</summary>
public enum LinkGoes
{
    Nowhere,

    /// <summary>Its times are given out as text; its address is not.</summary>
    AsText,

    /// <summary>Its guests can open it.</summary>
    Out,
}

/// <summary>Lets links go, once it is sure that they offer something. Nothing of it is saved yet.</summary>
public sealed class LinkGoing(RecordKeeping record, Actor actor, IClock clock)
{
    public void Let(AvailabilityLink link, LinkGoes goes)
    {
        if (goes == LinkGoes.Out)
            LetOut(link);
        if (goes != LinkGoes.AsText)
            return;
        RequireLiving(link);
        RequireSomething(link);
        if (link.GivenAt is null)
            record.Note(link.Id, $"Gave out times of “{link.Page!.Title}” as text", LinkEditing.HostsOf(link));
        link.GivenAt ??= clock.GetCurrentInstant();
    }

    public void LetOut(AvailabilityLink link)
    {
        RequireLiving(link);
        if (link.OutAt is not null)
            return;
        RequireSomething(link);
        Open(link);
        record.Note(link.Id, $"Sent out the link “{link.Page!.Title}”", LinkEditing.HostsOf(link));
    }

    public void Open(AvailabilityLink link)
    {
        (link.OutAt, link.Page!.State) = (clock.GetCurrentInstant(), PageState.Published);
        link.SentBy = actor.Person?.Id;
    }

    /// <exception cref="Refusal">400 naming what keeps it from offering anything.</exception>
    public void RequireSomething(AvailabilityLink link)
    {
        if (link.EndsOn < Today(link))
            throw Refusal.Invalid("details.endsOn", "link-end-past");
        var times = link.Page!.Offer!.Times;
        if (times.Until < Today(link))
            throw Refusal.Invalid("times.offer.until", "link-until-past");
        if (times is { By: OfferBy.Picked, Picked.Count: 0 })
            throw Refusal.Invalid("times.offer.picked", "pick-something");
        if (times is { By: OfferBy.Painted, Painted.Count: 0 })
            throw Refusal.Invalid("times.offer.painted", "paint-something");
    }

    public static void RequireLiving(AvailabilityLink link)
    {
        if (link.RevokedAt is not null)
            throw new Refusal(StatusCodes.Status409Conflict, "revoked", "revoked.repeat");
    }

    private LocalDate Today(AvailabilityLink link) =>
        clock.GetCurrentInstant().InZone(DateTimeZoneProviders.Tzdb[link.Page!.Zone]).Date;
}
