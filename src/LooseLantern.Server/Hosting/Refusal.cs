namespace LooseLantern.Server.Hosting;

/// <summary>
/// A request that can't be carried out as asked, told to the caller as a problem (RFC 9457). Thrown before anything is
/// written, or inside a transaction that is then rolled back.
/// </summary>
/// <param name="phrase">How it is said, where that is not by the code alone.</param>
public sealed class Refusal(int status, string code, Phrase? phrase = null) : Exception(code)
{
    public int Status { get; } = status;

    /// <summary>Short and stable, for programs; the problem's type is urn:loose-lantern:CODE.</summary>
    public string Code { get; } = code;

    /// <summary>How it is said, by the tables of words/refusals.</summary>
    public Phrase Phrase { get; } = phrase ?? code;

    /// <summary>What a team wrote on what to do about it, in place of the table's words; empty where it wrote
    /// nothing.</summary>
    public string OwnWords { get; init; } = "";

    /// <summary>Faults by field, each with its mend.</summary>
    public IReadOnlyDictionary<string, Phrase[]> Errors { get; init; } = new Dictionary<string, Phrase[]>();

    /// <summary>
    /// How long to wait before trying again (RFC 9110 section 10.2.3); null where waiting doesn't help.
    /// </summary>
    public TimeSpan? RetryAfter { get; init; }

    /// <summary>Further members of the problem.</summary>
    public IDictionary<string, object?> More { get; init; } = new Dictionary<string, object?>();

    public static Refusal Invalid(string field, Phrase mend) =>
        Invalid(new Dictionary<string, Phrase[]> { [field] = [mend] });

    public static Refusal Invalid(IReadOnlyDictionary<string, Phrase[]> errors) =>
        new(StatusCodes.Status400BadRequest, "invalid") { Errors = errors };

    /// <param name="expected">The media types that are read.</param>
    public static Refusal ContentType(string expected) =>
        new(
            StatusCodes.Status415UnsupportedMediaType,
            "content-type",
            Phrase.Of("content-type", ("expected", expected))
        );

    /// <param name="what">The thing's name in the tables, such as "page".</param>
    public static Refusal NotFound(string what) => new(StatusCodes.Status404NotFound, "not-found", $"not-found.{what}");
}
