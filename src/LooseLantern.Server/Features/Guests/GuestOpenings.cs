using System.Text.Json;
using LooseLantern.Core.Openings;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Calendars;
using LooseLantern.Server.Features.Openings;
using LooseLantern.Server.Features.Pages.Kept;
using LooseLantern.Server.Hosting;
using NodaTime;

namespace LooseLantern.Server.Features.Guests;

/// <summary>
/// Works out the openings that a guest asks for, and keeps the answer where nothing changed meanwhile.
/// </summary>
public sealed class GuestOpenings(
    LanternDb db,
    GuestPageFinding finding,
    PageReading reading,
    OpeningsInputs inputs,
    CalendarUnrolling unrolling,
    KeptOpenings keptOpenings
)
{
    /// <exception cref="Refusal">404 where there is no such page, 400 naming each parameter that is wrong.</exception>
    public async Task<KeptAnswer> AnswerAsync(OpeningsAsked request, CancellationToken ct)
    {
        // Mostly all is as it was when the page was last read, which one round trip finds out with the rest.
        if (
            reading.Guess(request.Desk, request.Page) is { } guess
            && Understood(request, guess.Page) is { } same
            && await WorkOutAsync(request, same, guess, ct) is { IsSo: true } quick
        )
            return quick.Answer;
        var (page, _) = await finding.FindAsync(request.Desk, request.Page, ct);
        var asked = OpeningsQuery.Read(request.From, request.To, request.Duration, page, request.Party);
        var rules = inputs.Rules(page, asked.Party, PersonalAddresses.Known(request.For));
        if (WantedOf(rules, asked) is { } wanted)
            await unrolling.CoverAsync(rules.HostIds, wanted.Range, ct);
        return (await WorkOutAsync(request, asked, reading.Lately(page.Id)!, ct)).Answer;
    }

    /// <summary>Null where something is wrong with it, as far as that page goes.</summary>
    private static OpeningsQuery? Understood(OpeningsAsked request, Page page)
    {
        try
        {
            return OpeningsQuery.Read(request.From, request.To, request.Duration, page, request.Party);
        }
        catch (Refusal)
        {
            return null;
        }
    }

    /// <summary>Whatever is asked for, calendars are read no further than the page offers.</summary>
    private FactsWanted? WantedOf(AskedPage rules, OpeningsQuery asked)
    {
        var (first, last) = rules.Rules.Window.Within(asked.From, asked.To, inputs.Today(rules));
        return first > last ? null : new FactsWanted(rules, first, last, asked.Duration);
    }

    /// <summary>
    /// The answer, and whether it is so now: else the page changed since it was read, or a calendar is not read so far,
    /// and it is not kept.
    /// </summary>
    private async Task<(KeptAnswer Answer, bool IsSo)> WorkOutAsync(
        OpeningsAsked request,
        OpeningsQuery asked,
        KeptPage kept,
        CancellationToken ct
    )
    {
        var (rules, workspace) = (
            inputs.Rules(kept.Page, asked.Party, PersonalAddresses.Known(request.For)),
            kept.Workspace.Id
        );
        var (wanted, trip) = (WantedOf(rules, asked), new RoundTrip(db));
        var snapshot = trip.Ask($"SELECT pg_current_snapshot()::text", row => row.GetString(0));
        var isUnchanged = PageReading.AskUnchanged(trip, kept);
        var isCovered = wanted is null
            ? null
            : CalendarUnrolling.AskCovered(trip, workspace, rules.HostIds, wanted.Range);
        var facts = wanted is null ? null : inputs.Ask(trip, wanted, workspace);
        await trip.RunAsync(ct);
        var openings = facts is null ? [] : OpeningsComputation.Openings(await facts.InputAsync(db, ct));
        Guid[] themselves = [.. kept.DependsOn.Union(facts?.HoursIds ?? [])];
        var answer = KeptAnswer.Of(
            JsonSerializer.SerializeToUtf8Bytes(
                OpeningsAnswer.Of(kept.Page, asked, openings, request.Zone),
                Json.Options
            ),
            new FactsRead(
                [.. themselves.Union(rules.HostIds)],
                themselves,
                snapshot.Row,
                Instant.Min(inputs.GoodUntil(rules, openings), facts?.GoodUntil ?? Instant.MaxValue)
            )
        );
        var isSo = isUnchanged.Row && isCovered?.Row != false;
        // Whose guest somebody is may change, and nothing is noted of that.
        if (isSo && !(rules is { ConsidersKeepers: true, For: not null }))
            keptOpenings.Keep(request, answer);
        return (answer, isSo);
    }
}
