using LooseLantern.Server.Tenancy;
using NodaTime;

namespace LooseLantern.Server.Data.Model;

/// <summary>
/// That a guest was erased, without saying who it was: a database that is restored from before has them again, and by
/// this they are known then.
/// </summary>
public sealed class GuestErasure : IBelongsToWorkspace
{
    public Guid Id { get; init; } = Guid.CreateVersion7();

    public required Guid WorkspaceId { get; init; }

    /// <summary>The id the guest had.</summary>
    public required Guid GuestId { get; init; }

    /// <summary>SHA-256 of the workspace and each of the emails.</summary>
    public required byte[][] EmailHashes { get; init; }

    public required Instant At { get; init; }
}

/// <summary>For how long guests are kept. What is not said here is kept until somebody erases it.</summary>
/// <param name="Kinds">By the kind of the pages they booked on.</param>
/// <param name="WithoutBooking">Months after they became known, or were last written to or of, for who never
/// booked; null for ever.</param>
public sealed record GuestRetention(IReadOnlyList<KindRetention> Kinds, int? WithoutBooking)
{
    public static readonly GuestRetention Ever = new([], null);

    public bool IsEver => Kinds.Count == 0 && WithoutBooking is null;
}

/// <param name="Kind">One of the workspace's kinds; empty for pages of none, and for links.</param>
/// <param name="Months">After their last booking of that kind.</param>
public sealed record KindRetention(string Kind, int Months);
