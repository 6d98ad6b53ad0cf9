using LooseLantern.Core.Reasons;

namespace LooseLantern.Core.Openings.HostRules;

/// <summary>
/// One rule that is asked of single hosts. What it takes away and what it says of it stand together, so that they
/// can't part.
/// </summary>
internal interface IHostRule
{
    /// <summary>Takes out the starts at which the host fails it.</summary>
    void Remove(StartSet starts, HostFacts host, StartsAsked asked);

    /// <summary>Everything of it that the host fails for one appointment, each with what fails it.</summary>
    IEnumerable<Reason> Say(HostFacts host, AppointmentAsked asked);
}
