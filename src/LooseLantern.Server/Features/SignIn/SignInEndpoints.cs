using System.Security.Claims;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.SignUp;
using LooseLantern.Server.Hosting;
using Microsoft.AspNetCore.Antiforgery;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.SignIn;

public sealed record SignInRequest(string Email, string Password);

/// <summary>Who is signed in.</summary>
/// <param name="Zone">IANA id of the workspace's zone.</param>
/// <param name="Now">The server's time.</param>
public sealed record Me(Guid Id, string Name, string Email, bool IsCoordinator, string Workspace, string Zone, Instant Now);

/// <summary>Goes back in the header X-Lantern-Token with every request that changes something.</summary>
public sealed record TokenAnswer(string Token);

public static class SignInEndpoints
{
    public static void MapSignIn(this IEndpointRouteBuilder api)
    {
        var open = api.MapGroup("").WithTags("Sign-in").AllowAnonymous();

        open.MapGet("/token", (HttpContext context, IAntiforgery antiforgery) =>
            {
                context.Response.Headers.CacheControl = "no-store";
                return new TokenAnswer(antiforgery.GetAndStoreTokens(context).RequestToken!);
            })
            .WithName("getToken");

        open.MapPost("/sign-in", async Task<NoContent> (SignInRequest request, SignInManager<Person> signIn, UserManager<Person> people) =>
            {
                var person = await people.FindByEmailAsync(request.Email);
                var result = person is null ? SignInResult.Failed : await signIn.CheckPasswordSignInAsync(person, request.Password, lockoutOnFailure: true);
                if (result.IsLockedOut)
                {
                    throw new Refusal(StatusCodes.Status429TooManyRequests, "locked", "Too many wrong passwords.",
                        "This sign-in is closed for a few minutes. Wait, then try again.");
                }

                // One answer for an unknown address and a wrong password, so that nobody learns who has a sign-in.
                if (!result.Succeeded)
                    throw new Refusal(StatusCodes.Status401Unauthorized, "wrong", "The email or the password is wrong.", "Check both and try again.");
                await signIn.SignInAsync(person!, isPersistent: true);
                return TypedResults.NoContent();
            })
            .WithName("signIn").ProducesProblem(401).ProducesProblem(429);

        open.MapPost("/sign-up", async Task<NoContent> (OpenWorkspaceRequest request, WorkspaceOpening opening, SignInManager<Person> signIn, CancellationToken ct) =>
            {
                var person = await opening.OpenAsync(request, ct);
                await signIn.SignInAsync(person, isPersistent: true);
                return TypedResults.NoContent();
            })
            .WithName("signUp").ProducesValidationProblem();

        open.MapPost("/sign-out", async Task<NoContent> (SignInManager<Person> signIn) =>
            {
                await signIn.SignOutAsync();
                return TypedResults.NoContent();
            })
            .WithName("signOut");

        api.MapGet("/me", async (ClaimsPrincipal principal, LanternDb db, IClock clock, CancellationToken ct) =>
            {
                var id = Guid.Parse(principal.FindFirstValue(ClaimTypes.NameIdentifier)!);
                var person = await db.Users.AsNoTracking().FirstOrDefaultAsync(row => row.Id == id, ct)
                    ?? throw new Refusal(StatusCodes.Status401Unauthorized, "signed-out", "You are signed out.", "Sign in again.");
                var workspace = await db.Workspaces.AsNoTracking().SingleAsync(ct);
                return new Me(person.Id, person.Name, person.Email!, person.IsCoordinator || person.IsOwner, workspace.Name, workspace.Zone,
                    clock.GetCurrentInstant());
            })
            .WithName("getMe").WithTags("Sign-in").ProducesProblem(401);
    }
}
