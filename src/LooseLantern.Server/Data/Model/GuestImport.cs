using LooseLantern.Server.Features.GuestBook.Importing;
using LooseLantern.Server.Tenancy;
using NodaTime;

namespace LooseLantern.Server.Data.Model;

public enum ImportState
{
    /// <summary>Looked at; nothing came in yet.</summary>
    Draft,
    Done,
    Undone,
}

/// <summary>A file of guests that somebody brought in, or is about to.</summary>
public sealed class GuestImport : IBelongsToWorkspace
{
    public Guid Id { get; init; } = Guid.CreateVersion7();

    public required Guid WorkspaceId { get; init; }

    public required string FileName { get; init; }

    /// <summary>Null once it is done: what it held is in the guests then.</summary>
    public byte[]? Bytes { get; set; }

    public required string PersonName { get; init; }

    public required Instant MadeAt { get; init; }

    public ImportState State { get; set; }

    /// <summary>What each column was taken for, by its name; remembered for the next file.</summary>
    public IReadOnlyList<RememberedColumn> Columns { get; set; } = [];

    public int Made { get; set; }

    public int Changed { get; set; }

    public int Unchanged { get; set; }

    /// <summary>How many rows were left out, since something was wrong with them.</summary>
    public int LeftOut { get; set; }

    public Instant? DoneAt { get; set; }

    public Instant? UndoneAt { get; set; }
}

/// <summary>A guest who came in, or was changed, by an import.</summary>
public sealed class GuestImportRow : IBelongsToWorkspace
{
    public required Guid WorkspaceId { get; init; }

    public required Guid ImportId { get; init; }

    public required Guid GuestId { get; init; }

    /// <summary>The guest's version from then on; another one says that somebody changed them since.</summary>
    public required int Version { get; init; }

    /// <summary>What was known before; null for one who came in by it.</summary>
    public GuestFacts? Before { get; init; }

    /// <summary>The keys of emails that came with it.</summary>
    public string[] Emails { get; init; } = [];
}
