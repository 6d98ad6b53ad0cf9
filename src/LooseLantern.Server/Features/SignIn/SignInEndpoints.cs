using LooseLantern.Core;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Hosting;
using Microsoft.AspNetCore.Antiforgery;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Identity;
using NodaTime;

namespace LooseLantern.Server.Features.SignIn;

/// <param name="Code">Of the authenticator, or a recovery code; for people with a second factor.</param>
public sealed record SignInRequest(string Email, string Password, string? Code = null);

/// <summary>Goes back in the header X-Lantern-Token with every request that changes something.</summary>
/// <param name="Now">The server's time, which is told also to those who are not signed in yet.</param>
public sealed record TokenAnswer(string Token, Instant Now);

public sealed record AskResetRequest(string Email);

public sealed record SetPasswordRequest(string Password);

public static class SignInEndpoints
{
    public static void MapSignIn(this IEndpointRouteBuilder api)
    {
        var open = api.MapGroup("").WithTags("Sign-in").AllowAnonymous();

        open.MapGet("/token", (HttpContext context, IAntiforgery antiforgery, IClock clock) =>
            {
                context.Response.Headers.CacheControl = "no-store";
                return new TokenAnswer(antiforgery.GetAndStoreTokens(context).RequestToken!, clock.GetCurrentInstant());
            })
            .WithName("getToken");

        open.MapPost(
                "/sign-in",
                async Task<NoContent> (
                    SignInRequest request,
                    HttpContext context,
                    UserManager<Person> people,
                    SecondFactor factor,
                    SignInSessions sessions,
                    SignInTries tries,
                    KnownBrowser known,
                    PasswordWork work,
                    CancellationToken ct
                ) =>
                {
                    var email = request.Email.Trim();
                    var browser = known.Of(context, email);
                    if (!await tries.TakeAsync(email, browser, ct))
                        throw Locked();

                    // One answer and one amount of work for an unknown address and a wrong password, so that nobody
                    // learns who has a sign-in.
                    var person = await people.FindByEmailAsync(email);
                    var here = person is { LeftAt: null } ? person : null;
                    if (!await work.IsRightAsync(people, here, request.Password, ct))
                        throw new Refusal(StatusCodes.Status401Unauthorized, "wrong");
                    if (person!.TwoFactorEnabled)
                    {
                        if (string.IsNullOrWhiteSpace(request.Code))
                            throw new Refusal(
                                StatusCodes.Status401Unauthorized,
                                "code-needed",
                                "code-needed.second-factor"
                            );
                        if (!await factor.AcceptsAsync(person, request.Code))
                            throw new Refusal(StatusCodes.Status401Unauthorized, "code-wrong");
                    }

                    await tries.ForgetAsync(email, browser, ct);
                    await tries.TidyAsync(ct);
                    known.Remember(context, email);
                    await sessions.OpenAsync(context, person, ct);
                    return TypedResults.NoContent();
                }
            )
            .RequireRateLimiting(RateLimits.SignIns)
            .WithName("signIn")
            .ProducesProblem(401)
            .ProducesProblem(429);

        open.MapPost("/password-resets", NoContent (AskResetRequest request, LinkQueue queue) =>
            {
                if (!EmailAddress.IsPlausible(request.Email.Trim()))
                    throw Refusal.Invalid("email", "email");
                var email = request.Email.Trim();
                queue.Ask((services, ct) => services.GetRequiredService<PasswordResetting>().SendAsync(email, ct));
                return TypedResults.NoContent();
            })
            .RequireRateLimiting(RateLimits.SignIns)
            .WithName("askPasswordReset")
            .WithDescription("The answer is the same whether or not anybody has the address.")
            .ProducesValidationProblem();

        open.MapPost(
                "/password-resets/{secret}",
                async Task<NoContent> (
                    string secret,
                    SetPasswordRequest request,
                    PasswordResetting resetting,
                    CancellationToken ct
                ) =>
                {
                    await resetting.SetAsync(secret, request.Password, ct);
                    return TypedResults.NoContent();
                }
            )
            .WithName("resetPassword")
            .ProducesValidationProblem()
            .ProducesProblem(404)
            .ProducesProblem(410);

        open.MapPost(
                "/sign-out",
                async Task<NoContent> (HttpContext context, SignInSessions sessions, CancellationToken ct) =>
                {
                    await sessions.CloseAsync(context, ct);
                    return TypedResults.NoContent();
                }
            )
            .WithName("signOut");
    }

    private static Refusal Locked() =>
        new(StatusCodes.Status429TooManyRequests, "locked") { RetryAfter = SignInTries.Closed.ToTimeSpan() };
}
