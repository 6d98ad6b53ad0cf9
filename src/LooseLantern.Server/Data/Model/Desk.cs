using LooseLantern.Server.Tenancy;
using NodaTime;

namespace LooseLantern.Server.Data.Model;

/// <summary>A public front with an address of its own, under which its pages stand.</summary>
public sealed class Desk : IBelongsToWorkspace
{
    public Guid Id { get; init; } = Guid.CreateVersion7();

    public required Guid WorkspaceId { get; init; }

    /// <summary>First part of a page's path; unique over all workspaces.</summary>
    public required string Address { get; set; }

    public required string Name { get; set; }

    /// <summary>Markdown; may be empty.</summary>
    public string Intro { get; set; } = "";

    /// <summary>#rrggbb, or empty for the product's own.</summary>
    public string Accent { get; set; } = "";

    /// <summary>
    /// A host name at which it answers as well once it is proven, in small letters; null for none.
    /// </summary>
    public string? HostName { get; set; }

    /// <summary>What has to stand at the host name, as a record or a file, to prove it; empty for none.</summary>
    public string HostNameMark { get; set; } = "";

    /// <summary>When the mark was found there. A proven host name is of one desk over all workspaces.</summary>
    public Instant? HostNameProvenAt { get; set; }

    /// <summary>Origins that may show its pages in a frame, such as https://www.example.com.</summary>
    public string[] Framers { get; set; } = [];

    /// <summary>
    /// Whose desk it is: it lists the pages on which this host has a seat, of whatever desk; null for a desk of its own
    /// pages.
    /// </summary>
    public Guid? HostId { get; set; }
}

public enum PictureKind
{
    Logo,
    Banner,
}

/// <summary>A picture of a desk or a page, made anew from what was uploaded.</summary>
public sealed class Picture : IBelongsToWorkspace
{
    public required Guid WorkspaceId { get; init; }

    /// <summary>The desk or the page.</summary>
    public required Guid OwnerId { get; init; }

    public required PictureKind Kind { get; init; }

    public required byte[] Bytes { get; set; }

    public required string MediaType { get; set; }

    public required Instant SetAt { get; set; }
}

/// <summary>An address of a page for one guest, who needs not be asked for name and email.</summary>
public sealed class PersonalAddress : IBelongsToWorkspace
{
    public Guid Id { get; init; } = Guid.CreateVersion7();

    public required Guid WorkspaceId { get; init; }

    public required Guid PageId { get; init; }

    public required string Name { get; init; }

    public required string Email { get; init; }

    public required Instant MadeAt { get; init; }

    /// <summary>SHA-256 of the secret in it.</summary>
    public required byte[] SecretHash { get; init; }
}
