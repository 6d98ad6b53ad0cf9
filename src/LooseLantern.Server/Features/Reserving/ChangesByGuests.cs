using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Hosting;
using NodaTime;

namespace LooseLantern.Server.Features.Reserving;

/// <summary>What a page lets its guests do with their bookings, and until when.</summary>
public static class ChangesByGuests
{
    /// <summary>Until when a guest may move a booking that starts then; null where the page lets nobody.</summary>
    public static Instant? MoveUntil(ChangeRules rules, Instant start) =>
        rules.MayMove ? start - Duration.FromMinutes(rules.MoveUntil) : null;

    public static Instant? CancelUntil(ChangeRules rules, Instant start) =>
        rules.MayCancel ? start - Duration.FromMinutes(rules.CancelUntil) : null;

    /// <exception cref="Refusal">409 where it is too late, or never allowed.</exception>
    public static void RequireMayMove(ChangeRules rules, Instant start, Instant now) =>
        Require(MoveUntil(rules, start), now, "too-late.moving", "too-late.never-moving", rules.AskWhom);

    /// <inheritdoc cref="RequireMayMove"/>
    public static void RequireMayCancel(ChangeRules rules, Instant start, Instant now) =>
        Require(CancelUntil(rules, start), now, "too-late.cancelling", "too-late.never-cancelling", rules.AskWhom);

    private static void Require(Instant? until, Instant now, string late, string never, string askWhom)
    {
        if (until is { } last && now < last)
            return;
        throw new Refusal(StatusCodes.Status409Conflict, "too-late", until is null ? never : late)
        {
            OwnWords = askWhom,
        };
    }
}
