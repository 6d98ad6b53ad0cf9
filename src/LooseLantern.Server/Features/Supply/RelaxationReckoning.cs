using System.Text.Json.Nodes;
using LooseLantern.Core.Openings;
using LooseLantern.Core.Relaxations;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.ActingFor;
using LooseLantern.Server.Features.Openings;
using Microsoft.EntityFrameworkCore;

namespace LooseLantern.Server.Features.Supply;

/// <summary>One change of a rule, with the openings it would add.</summary>
/// <param name="From">The value now: minutes of notice, buffers and durations, days of a window, sessions of a cap;
/// null for other rules.</param>
/// <param name="To">The value then.</param>
/// <param name="HostId">Whose cap is raised, who is added to a seat, or who becomes optional.</param>
/// <param name="Seat">The seat that is opened or left out, by position from 0.</param>
/// <param name="Gained">How many openings it adds.</param>
/// <param name="Lost">How many it takes.</param>
/// <param name="Change">A JSON merge patch (RFC 7396) of the times that were sent; null where it is no change of
/// them.</param>
public sealed record RelaxationView(
    RelaxedRule Rule,
    int? From,
    int? To,
    Guid? HostId,
    string? Host,
    int? Seat,
    int Gained,
    int Lost,
    JsonObject? Change
);

/// <summary>What would open more: the largest gains first, then what adds nothing.</summary>
public sealed record RelaxationsAnswer(int Weeks, int Duration, IReadOnlyList<RelaxationView> Relaxations);

/// <summary>What would open more of a page, saved or not.</summary>
public sealed class RelaxationReckoning(LanternDb db, OpeningsInputs inputs, Allowances allowances)
{
    // Each is tried in each seat, and all is computed anew for each.
    private const int MostHostsTried = 12;

    /// <param name="page">With its seats and hours.</param>
    /// <param name="duration">Minutes, or null for the preset one.</param>
    /// <param name="change">What a relaxation changes of the form that is asked for.</param>
    public async Task<RelaxationsAnswer> OfAsync(
        Page page,
        int? duration,
        int weeks,
        Func<Relaxation, OpeningsInput, JsonObject?> change,
        CancellationToken ct
    )
    {
        var wanted = await WantedAsync(page, duration, weeks, ct);
        return await OfAsync(wanted, weeks, change, ct);
    }

    /// <summary>What it asks for.</summary>
    public async Task<FactsWanted> WantedAsync(Page page, int? duration, int weeks, CancellationToken ct)
    {
        var rules = inputs.Rules(page) with { MoreHosts = await MoreHostsAsync(page, ct) };
        var today = inputs.Today(rules);
        var to = today.PlusDays((weeks * 7) - 1);
        // A longer window shows only where it is looked beyond its end.
        if (PageRulesOf.DatesOf(page, today).Last <= to)
            to = to.PlusDays(RelaxationsComputation.MoreDays);
        return new FactsWanted(rules, today, to, SupplyReckoning.DurationOf(page, duration));
    }

    /// <param name="wanted">As <see cref="WantedAsync"/> gave it.</param>
    public async Task<RelaxationsAnswer> OfAsync(
        FactsWanted wanted,
        int weeks,
        Func<Relaxation, OpeningsInput, JsonObject?> change,
        CancellationToken ct
    )
    {
        var (rules, today, to, minutes) = (wanted.Page, wanted.From, wanted.To, wanted.Duration);
        await inputs.PrepareAsync(rules, today, to, minutes, ct);
        var input = await inputs.ReadAsync(rules, today, to, minutes, ct);
        var names = await inputs.NamesAsync(rules.HostIds, ct);
        return new RelaxationsAnswer(
            weeks,
            minutes,
            [
                .. RelaxationsComputation
                    .Of(input, [.. (rules.MoreHosts ?? []).Select(OpeningsInputs.Id)])
                    .Select(relaxation => new RelaxationView(
                        relaxation.Rule,
                        relaxation.Value?.From,
                        relaxation.Value?.To,
                        relaxation.Host is { } id ? Guid.Parse(id) : null,
                        relaxation.Host is { } host ? names[host] : null,
                        relaxation.Seat,
                        relaxation.Gained.Count,
                        relaxation.Lost,
                        change(relaxation, input)
                    )),
            ]
        );
    }

    /// <summary>
    /// People of the team whose time may be offered and who have no seat yet; not rooms and things, which do nobody's
    /// work.
    /// </summary>
    private async Task<List<Guid>> MoreHostsAsync(Page page, CancellationToken ct)
    {
        var offered = await allowances.HostsAsync(Allowance.Offer, ct);
        var seated = page.Seats.SelectMany(seat => seat.Hosts).Select(host => host.HostId).ToHashSet();
        return await db
            .Hosts.Where(host =>
                host.RetiredAt == null
                && host.Kind == HostKind.Person
                && offered.Contains(host.Id)
                && !(page.Seats.Count == 1 && seated.Contains(host.Id))
            )
            .OrderBy(host => host.Name)
            .Select(host => host.Id)
            .Take(MostHostsTried)
            .ToListAsync(ct);
    }
}
