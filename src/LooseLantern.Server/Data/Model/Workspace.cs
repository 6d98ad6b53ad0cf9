namespace LooseLantern.Server.Data.Model;

/// <summary>One organisation's data.</summary>
public sealed class Workspace
{
    public Guid Id { get; init; } = Guid.CreateVersion7();

    public required string Name { get; set; }

    /// <summary>IANA id of the zone its new pages and boards start from.</summary>
    public required string Zone { get; set; }
}
