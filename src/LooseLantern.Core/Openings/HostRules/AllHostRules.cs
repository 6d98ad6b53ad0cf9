using LooseLantern.Core.Reasons;

namespace LooseLantern.Core.Openings.HostRules;

/// <summary>The rules that are asked of single hosts, in the order of their numbers.</summary>
internal static class AllHostRules
{
    private static readonly IHostRule[] Rules =
    [
        new StretchGridRule(),
        new HoursRule(),
        new CalendarRule(),
        new CommitmentRule(),
        new HostCapRule(),
    ];

    /// <summary>Keeps of some starts those that a host can take.</summary>
    public static void Keep(StartSet starts, HostFacts host, StartsAsked asked)
    {
        foreach (var rule in Rules)
            rule.Remove(starts, host, asked);
    }

    /// <summary>All that a host lacks for an appointment; empty for one who can take it.</summary>
    public static IReadOnlyList<Reason> Reasons(HostFacts host, AppointmentAsked asked) =>
        [.. Rules.SelectMany(rule => rule.Say(host, asked))];
}
