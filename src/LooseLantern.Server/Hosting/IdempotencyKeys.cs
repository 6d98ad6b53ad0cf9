namespace LooseLantern.Server.Hosting;

/// <summary>Keys by which a request that is sent again, after a lost answer, does nothing twice.</summary>
public static class IdempotencyKeys
{
    private const int Most = 200;

    /// <param name="key">Null for none.</param>
    /// <exception cref="Refusal">400 for one that is empty or too long.</exception>
    public static void Require(string? key)
    {
        if (key is { Length: 0 or > Most })
            throw Refusal.Invalid("Idempotency-Key", "idempotency-key");
    }
}
