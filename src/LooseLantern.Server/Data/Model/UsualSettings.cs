namespace LooseLantern.Server.Data.Model;

/// <summary>
/// What new pages, links and polls start from. What is null is left to whoever is asked next: the workspace, then the
/// product.
/// </summary>
/// <param name="Duration">Minutes.</param>
/// <param name="BufferBefore">Minutes.</param>
/// <param name="BufferAfter">Minutes.</param>
/// <param name="Notice">Minutes.</param>
/// <param name="Reminders">Minutes before the start, each once.</param>
/// <param name="Language">Language tag (BCP 47).</param>
public sealed record UsualSettings(
    int? Duration,
    int? BufferBefore,
    int? BufferAfter,
    int? Notice,
    PlaceKind? PlaceKind,
    string? Place,
    IReadOnlyList<int>? Reminders,
    string? Language,
    ClockForm? Clock
)
{
    public static readonly UsualSettings None = new(null, null, null, null, null, null, null, null, null);
}
