using FluentValidation;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.ActingFor;
using LooseLantern.Server.Features.Calendars;
using LooseLantern.Server.Features.Calendars.BuiltIn;
using LooseLantern.Server.Features.Hours;
using LooseLantern.Server.Features.Openings;
using LooseLantern.Server.Features.Record;
using LooseLantern.Server.Hosting;
using LooseLantern.Server.Tenancy;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Team;

/// <summary>A room or thing to be booked.</summary>
/// <param name="Zone">IANA id.</param>
/// <param name="HoursId">Named hours; null for one that is always open.</param>
public sealed record PlaceForm(HostKind Kind, string Name, string Zone, Guid? HoursId);

/// <summary>What the team decides about a host.</summary>
/// <param name="Name">Of a room or thing; a person's name is theirs to change, and null here.</param>
/// <param name="Zone">IANA id, of a room or thing; null for a person.</param>
/// <param name="Weight">The share of balanced work, beside the weights of others.</param>
/// <param name="DailyCap">Most sessions a day, of all pages together; null for any number.</param>
/// <param name="WeeklyCap">Most sessions a week, of all pages together; null for any number.</param>
public sealed record HostForm(string? Name, string? Zone, Guid? HoursId, int Weight, int? DailyCap, int? WeeklyCap);

public sealed record OwnHoursRequest(Guid? HoursId);

/// <summary>Adds rooms and things, and changes and retires hosts.</summary>
public sealed class HostEditing(
    LanternDb db,
    Tenant tenant,
    Actor actor,
    Allowances allowances,
    HoursEffects effects,
    CalendarUnrolling unrolling,
    RecordKeeping record,
    IClock clock
)
{
    public const int MostWeight = 100;

    private static readonly PlaceRules PlaceChecks = new();
    private static readonly HostRules HostChecks = new();

    public async Task<Host> AddPlaceAsync(PlaceForm form, CancellationToken ct)
    {
        PlaceChecks.Check(form);
        await RequireHoursAsync(form.HoursId, ct);
        var host = new Host
        {
            WorkspaceId = tenant.WorkspaceId!.Value,
            Kind = form.Kind,
            Name = form.Name.Trim(),
            Zone = form.Zone,
            HoursId = form.HoursId,
        };
        db.Hosts.Add(host);
        db.Calendars.Add(OwnEntries.For(host, clock.GetCurrentInstant()));
        record.Note(host.Id, $"Added {host.Name}");
        await db.SaveChangesAsync(ct);
        return await GetAsync(host.Id, ct);
    }

    /// <returns>The host, and what other hours did to each page's openings; none where the hours stayed.</returns>
    public async Task<(Host Host, IReadOnlyList<PageEffect> Effects)> ChangeAsync(
        Guid id,
        HostForm form,
        CancellationToken ct
    )
    {
        HostChecks.Check(form);
        var host = await GetAsync(id, ct);
        IReadOnlyList<PageEffect> did = [];
        if (host.HoursId != form.HoursId)
        {
            await allowances.RequireAsync([id], Allowance.Offer, ct);
            did = await TakeHoursAsync(host, form.HoursId, ct);
        }

        if (host.PersonId is null)
        {
            if (!Words.FitOneLine(form.Name))
                throw Refusal.Invalid("name", "thing-name");
            if (!Zones.IsKnown(form.Zone))
                throw Refusal.Invalid("zone", "zone");
            if (host.Zone != form.Zone)
                await unrolling.ForgetAsync(id, ct);
            (host.Name, host.Zone) = (form.Name!.Trim(), form.Zone!);
        }

        (host.Weight, host.DailyCap, host.WeeklyCap) = (form.Weight, form.DailyCap, form.WeeklyCap);
        record.Note(id, $"Changed hours, weight or caps of {host.Name}", id);
        await db.SaveChangesAsync(ct);
        return (await GetAsync(id, ct), did);
    }

    /// <returns>What that did to each page's openings.</returns>
    public async Task<IReadOnlyList<PageEffect>> ChooseOwnHoursAsync(Guid? hoursId, CancellationToken ct)
    {
        var own = actor.Required.HostId ?? throw new Refusal(StatusCodes.Status409Conflict, "no-host");
        var did = await TakeHoursAsync(await GetAsync(own, ct), hoursId, ct);
        await db.SaveChangesAsync(ct);
        return did;
    }

    /// <exception cref="Refusal">409 while pages or bookings to come hang on it.</exception>
    public async Task RetireAsync(Guid id, CancellationToken ct)
    {
        var host = await GetAsync(id, ct);
        if (host.PersonId is not null)
            throw new Refusal(StatusCodes.Status409Conflict, "person", Phrase.Of("person", ("name", host.Name)));
        await RequireNothingAheadAsync(host, ct);
        host.RetiredAt = clock.GetCurrentInstant();
        record.Note(id, $"Took {host.Name} off the team");
        await db.SaveChangesAsync(ct);
    }

    /// <summary>Holds taking a host off the team to one that no page offers and nobody has booked.</summary>
    public async Task RequireNothingAheadAsync(Host host, CancellationToken ct)
    {
        var now = clock.GetCurrentInstant();
        var pages = await db.OfferingPages(now)
            .Where(page => page.Seats.Any(seat => seat.Hosts.Any(row => row.HostId == host.Id)))
            .OrderBy(page => page.Title)
            .Select(page => page.Title)
            .ToListAsync(ct);
        if (pages.Count > 0)
            throw new Refusal(
                StatusCodes.Status409Conflict,
                "on-pages",
                Phrase.Of("on-pages", ("name", host.Name), ("pages", pages))
            );
        var ahead = await db.Sessions.CountAsync(
            session => session.Time.UpperBound > now && session.Hosts.Any(row => row.HostId == host.Id),
            ct
        );
        if (ahead > 0)
            throw new Refusal(
                StatusCodes.Status409Conflict,
                "booked",
                Phrase.Of("booked", ("name", host.Name), ("count", ahead))
            );
    }

    private async Task<Host> GetAsync(Guid id, CancellationToken ct) =>
        await db
            .Hosts.Include(host => host.Hours)
            .FirstOrDefaultAsync(host => host.Id == id && host.RetiredAt == null, ct)
        ?? throw Refusal.NotFound("host");

    /// <summary>Told by what was just before: afterwards there is nothing to compare with.</summary>
    private async Task<IReadOnlyList<PageEffect>> TakeHoursAsync(Host host, Guid? hoursId, CancellationToken ct)
    {
        await RequireHoursAsync(hoursId, ct);
        var other = hoursId is { } id
            ? (await db.Hours.AsNoTracking().SingleAsync(row => row.Id == id, ct)).Document
            : null;
        var did = await effects.OfHostAsync(host.Id, other, ct);
        host.HoursId = hoursId;
        return did;
    }

    private async Task RequireHoursAsync(Guid? hoursId, CancellationToken ct)
    {
        if (hoursId is { } id && !await db.Hours.AnyAsync(row => row.Id == id && row.IsNamed, ct))
            throw Refusal.Invalid("hoursId", "named-hours");
    }

    private sealed class PlaceRules : AbstractValidator<PlaceForm>
    {
        public PlaceRules()
        {
            RuleFor(form => form.Kind).Must(kind => kind is HostKind.Room or HostKind.Thing).WithMend("host-kind");
            RuleFor(form => form.Name).Must(Words.FitOneLine).WithMend("thing-name");
            RuleFor(form => form.Zone).Must(Zones.IsKnown).WithMend("zone");
        }
    }

    private sealed class HostRules : AbstractValidator<HostForm>
    {
        public HostRules()
        {
            RuleFor(form => form.Weight)
                .InclusiveBetween(1, MostWeight)
                .WithMend(Phrase.Of("weight", ("most", MostWeight)));
            RuleFor(form => form.DailyCap).InclusiveBetween(1, PageLimits.MostCap).WithMend("day-cap");
            RuleFor(form => form.WeeklyCap).InclusiveBetween(1, PageLimits.MostCap).WithMend("week-cap");
        }
    }
}
