namespace LooseLantern.Server.Hosting;

/// <summary>
/// A request that can't be carried out as asked, told to the caller as a problem (RFC 9457). Thrown before anything is
/// written, or inside a transaction that is then rolled back.
/// </summary>
public sealed class Refusal(int status, string code, string title, string? detail = null) : Exception(title)
{
    public int Status { get; } = status;

    /// <summary>Short and stable, for programs; the problem's type is urn:loose-lantern:CODE.</summary>
    public string Code { get; } = code;

    public string? Detail { get; } = detail;

    /// <summary>Faults by field, each with its mend.</summary>
    public IDictionary<string, string[]> Errors { get; init; } = new Dictionary<string, string[]>();

    /// <summary>
    /// How long to wait before trying again (RFC 9110 section 10.2.3); null where waiting doesn't help.
    /// </summary>
    public TimeSpan? RetryAfter { get; init; }

    /// <summary>Further members of the problem.</summary>
    public IDictionary<string, object?> More { get; init; } = new Dictionary<string, object?>();

    public static Refusal Invalid(string field, string mend) =>
        Invalid(new Dictionary<string, string[]> { [field] = [mend] });

    public static Refusal Invalid(IDictionary<string, string[]> errors) =>
        new(StatusCodes.Status400BadRequest, "invalid", "Some fields need mending.") { Errors = errors };

    public static Refusal NotFound(string what) =>
        new(StatusCodes.Status404NotFound, "not-found", $"There is no such {what}.");
}
