using LooseLantern.Server.Data.Model;

namespace LooseLantern.Server.Features.Pages.Kept;

/// <summary>
/// A page with all that belongs to it, and what of its workspace is asked with it, as they were when they were read.
/// Many requests share it: nobody changes what is in it.
/// </summary>
/// <param name="Page">With its desk, hours, blocks, seats and their hosts.</param>
/// <param name="Snapshot">Of the database (<c>pg_current_snapshot</c>), taken before it was read.</param>
/// <param name="DependsOn">Ids of the rows that it was read from; a change of one of them is noted.</param>
public sealed record KeptPage(Page Page, WorkspaceFacts Workspace, string Snapshot, Guid[] DependsOn);

/// <summary>What of a workspace is asked with each of its pages.</summary>
/// <param name="Clock">By which clock those read who said nothing of their own; null for none of its own.</param>
/// <param name="MostOpen">How many bookings to come one guest may have in it.</param>
public sealed record WorkspaceFacts(
    Guid Id,
    string Name,
    ClockForm? Clock,
    int MostOpen,
    IReadOnlyList<GuestField> GuestFields
);
