using LooseLantern.Core;
using LooseLantern.Server.Features.Desks;
using LooseLantern.Server.Features.Guests;
using LooseLantern.Server.Features.Post;
using LooseLantern.Server.Features.SignIn;
using LooseLantern.Server.Hosting;
using Microsoft.AspNetCore.Http.HttpResults;

namespace LooseLantern.Server.Features.SignUp;

/// <param name="ByMail">Whether one begins with the address, to which a link is mailed; else with the whole
/// form.</param>
public sealed record SignUpWay(bool ByMail);

public sealed record AskSignUpRequest(string Email) : IMailsTo
{
    public IEnumerable<(string Field, string? Address)> MailsTo() => [("email", Email)];
}

/// <param name="Email">Whose link it is.</param>
public sealed record SignUpLinkView(string Email);

public static class SignUpEndpoints
{
    public static void MapSignUp(this IEndpointRouteBuilder api)
    {
        var open = api.MapGroup("/sign-up").WithTags("Sign-up").AllowAnonymous();

        open.MapGet("/", (SigningUp opening) => new SignUpWay(opening.IsByMail)).WithName("getSignUpWay");

        open.MapPost("/links", NoContent (AskSignUpRequest request, HttpRequest http, LinkQueue queue) =>
            {
                if (EmailAddress.Read(request.Email.Trim()) is null)
                    throw Refusal.Invalid("email", "email");
                var (email, language) = (request.Email.Trim(), GuestLanguage.Of(http));
                queue.Ask((services, ct) => services.GetRequiredService<SignUpLinks>().MakeAsync(email, language, ct));
                return TypedResults.NoContent();
            })
            .RequireRateLimiting(RateLimits.SignIns)
            .WithName("askSignUpLink")
            .WithDescription("The answer is the same whether or not anybody has the address.")
            .ProducesValidationProblem();

        open.MapGet("/links/{secret}", async (string secret, SignUpLinks links, CancellationToken ct) =>
                new SignUpLinkView((await links.FindAsync(secret, ct)).Email)
            )
            .WithName("getSignUpLink")
            .ProducesProblem(404)
            .ProducesProblem(410);

        open.MapPost(
                "/",
                async Task<NoContent> (
                    SignUpRequest request,
                    HttpContext context,
                    SigningUp opening,
                    SignInSessions sessions,
                    KnownBrowser known,
                    CancellationToken ct
                ) =>
                {
                    var person = await opening.SignUpAsync(request, ct);
                    known.Remember(context, person.Email!);
                    await sessions.OpenAsync(context, person, ct);
                    return TypedResults.NoContent();
                }
            )
            .RequireRateLimiting(RateLimits.SignIns)
            .WithName("signUp")
            .ProducesValidationProblem()
            .ProducesProblem(404)
            .ProducesProblem(410);

        open.MapGet("/desk-address", async (string address, DeskMaking desks, CancellationToken ct) =>
                await desks.CheckAsync(address, ct)
            )
            .WithName("checkDeskAddress");
    }
}
