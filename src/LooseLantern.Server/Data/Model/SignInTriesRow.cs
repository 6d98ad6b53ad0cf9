using NodaTime;

namespace LooseLantern.Server.Data.Model;

/// <summary>How often a sign-in was tried of late, by a hash of the address (and browser); of no workspace.</summary>
public sealed class SignInTriesRow
{
    public required byte[] Key { get; init; }

    public required int Tries { get; init; }

    public required Instant LastAt { get; init; }
}
