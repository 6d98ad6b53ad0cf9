using System.Text.Json;
using System.Text.RegularExpressions;
using Microsoft.AspNetCore.Diagnostics;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;
using Npgsql;

namespace LooseLantern.Server.Hosting;

/// <summary>
/// Turns refusals and unreadable requests into problems (RFC 9457). Anything else stays a plain 500 with nothing of its
/// inside told.
/// </summary>
public sealed partial class RefusalHandler(IProblemDetailsService problems) : IExceptionHandler
{
    public async ValueTask<bool> TryHandleAsync(
        HttpContext context,
        Exception exception,
        CancellationToken cancellationToken
    )
    {
        var refusal = exception switch
        {
            Refusal known => known,
            BadHttpRequestException { InnerException: JsonException json } => Unreadable(json),
            BadHttpRequestException { StatusCode: StatusCodes.Status415UnsupportedMediaType } => Refusal.ContentType(
                "application/json"
            ),
            BadHttpRequestException bad when Parameter().Match(bad.Message) is { Success: true } match =>
                Refusal.Invalid(match.Groups[1].Value, Phrase.Of("unread-value", ("value", match.Groups[2].Value))),
            BadHttpRequestException bad => new Refusal(
                bad.StatusCode,
                "unreadable",
                Phrase.Of("unreadable", ("fault", bad.Message))
            ),
            // Two saved the same at one moment, where nothing closer to it says more.
            DbUpdateConcurrencyException => new Refusal(StatusCodes.Status409Conflict, "changed-meanwhile"),
            _ => InDatabase(exception),
        };
        if (refusal is null)
            return false;

        var problem =
            refusal.Errors.Count > 0
                ? new HttpValidationProblemDetails(
                    refusal.Errors.ToDictionary(field => field.Key, field => field.Value.Select(Phrases.Mend).ToArray())
                )
                : new ProblemDetails();
        problem.Status = refusal.Status;
        problem.Type = "urn:loose-lantern:" + refusal.Code;
        problem.Title = Phrases.Title(refusal.Phrase);
        problem.Detail = refusal.OwnWords.Length > 0 ? refusal.OwnWords : Phrases.Detail(refusal.Phrase);
        // The same by key, for whoever phrases it in another language than English.
        problem.Extensions["phrase"] = refusal.Phrase;
        if (refusal.OwnWords.Length > 0)
            problem.Extensions["ownWords"] = true;
        if (refusal.Errors.Count > 0)
            problem.Extensions["mends"] = refusal.Errors;
        foreach (var (name, value) in refusal.More)
            problem.Extensions[name] = value;

        context.Response.StatusCode = refusal.Status;
        if (refusal.RetryAfter is { } wait)
            context.Response.Headers.RetryAfter = ((int)wait.TotalSeconds).ToString(
                System.Globalization.CultureInfo.InvariantCulture
            );
        return await problems.TryWriteAsync(
            new ProblemDetailsContext
            {
                HttpContext = context,
                ProblemDetails = problem,
                Exception = exception,
            }
        );
    }

    // The framework's own words for a value that is not of its kind, and for members that are not there.
    [GeneratedRegex("^Failed to bind parameter \"\\S+ (\\S+)\" from \"(.*)\"\\.$")]
    private static partial Regex Parameter();

    [GeneratedRegex("missing required properties including: (.*)$")]
    private static partial Regex Missing();

    [GeneratedRegex("'([^']+)'")]
    private static partial Regex Name();

    /// <summary>
    /// What stands in the way in the database: a text that can't be kept, somebody else who was quicker where nothing
    /// closer to it says more, or a database that is away or has no room just now. Null for any other fault. All of it
    /// is rolled back with the transaction it happened in.
    /// </summary>
    /// <summary>Whether the database can't be asked just now.</summary>
    public static bool IsAway(Exception exception) =>
        InDatabase(exception)?.Status == StatusCodes.Status503ServiceUnavailable;

    private static Refusal? InDatabase(Exception exception)
    {
        for (var cause = exception; cause is not null; cause = cause.InnerException)
        {
            switch (cause)
            {
                // No text is kept with the character NUL in it, which nobody types.
                case PostgresException
                {
                    SqlState: PostgresErrorCodes.CharacterNotInRepertoire or PostgresErrorCodes.UntranslatableCharacter
                }:
                    return new Refusal(StatusCodes.Status400BadRequest, "unkept-character");
                case PostgresException
                {
                    SqlState: PostgresErrorCodes.UniqueViolation
                        or PostgresErrorCodes.ForeignKeyViolation
                        or PostgresErrorCodes.ExclusionViolation
                }:
                    return new Refusal(StatusCodes.Status409Conflict, "changed-meanwhile");
                case NpgsqlException { IsTransient: true }
                or PostgresException
                {
                    SqlState: PostgresErrorCodes.AdminShutdown
                        or PostgresErrorCodes.CrashShutdown
                        or PostgresErrorCodes.CannotConnectNow
                }:
                    return new Refusal(StatusCodes.Status503ServiceUnavailable, "away")
                    {
                        RetryAfter = TimeSpan.FromSeconds(5),
                    };
            }
        }

        return null;
    }

    private static Refusal Unreadable(JsonException json)
    {
        // "$.guest.email" is said as guest.email, as in every other problem.
        var path = json.Path is { Length: > 2 } full ? full[2..] : "";
        var missing = Missing().Match(json.Message);
        if (missing.Success)
        {
            return Refusal.Invalid(
                Name()
                    .Matches(missing.Groups[1].Value)
                    .ToDictionary(
                        name => path.Length == 0 ? name.Groups[1].Value : $"{path}.{name.Groups[1].Value}",
                        _ => new Phrase[] { "missing" }
                    )
            );
        }

        if (json.Message.Contains("could not be mapped to any .NET member", StringComparison.Ordinal))
            return Refusal.Invalid(path, "unknown-field");
        return path.Length == 0
            ? new Refusal(
                StatusCodes.Status400BadRequest,
                "unreadable",
                Phrase.Of("unreadable.json", ("fault", json.Message))
            )
            : Refusal.Invalid(path, "missing-or-odd");
    }
}
