using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.ActingFor;
using LooseLantern.Server.Features.SignIn;
using LooseLantern.Server.Hosting;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Profile;

/// <param name="Here">Whether it is the one that asks.</param>
public sealed record SignInView(
    Guid Id,
    string Device,
    string NetworkAddress,
    Instant Since,
    Instant SeenAt,
    bool Here
);

/// <param name="RecoveryCodes">How many are left.</param>
public sealed record SecurityView(bool SecondFactor, int RecoveryCodes, IReadOnlyList<SignInView> SignIns);

public sealed record CodeRequest(string Code);

public sealed record PasswordRequest(string Password);

public sealed record ChangePasswordRequest(string Password, string NewPassword);

public sealed record RecoveryCodesAnswer(IReadOnlyList<string> Codes);

/// <summary>How a person signs in: password, second factor, and where they are signed in.</summary>
public static class SecurityEndpoints
{
    public static void MapSecurity(this IEndpointRouteBuilder api)
    {
        var me = api.MapGroup("/me").WithTags("You");

        me.MapGet(
                "/security",
                async (
                    HttpContext context,
                    Actor actor,
                    UserManager<Person> people,
                    SecondFactor factor,
                    LanternDb db,
                    IClock clock,
                    CancellationToken ct
                ) =>
                {
                    var person = await PersonAsync(actor, people);
                    var here = SignInSessions.IdOf(context.User);
                    var since = clock.GetCurrentInstant() - SignInSessions.Validity;
                    var rows = await db
                        .SignedIn.AsNoTracking()
                        .Where(row => row.PersonId == person.Id && row.SeenAt >= since)
                        .OrderByDescending(row => row.SeenAt)
                        .ToListAsync(ct);
                    return new SecurityView(
                        person.TwoFactorEnabled,
                        person.TwoFactorEnabled ? await factor.RecoveryCodesLeftAsync(person) : 0,
                        rows.ConvertAll(row => new SignInView(
                            row.Id,
                            row.Device,
                            row.NetworkAddress,
                            row.Since,
                            row.SeenAt,
                            row.Id == here
                        ))
                    );
                }
            )
            .WithName("getSecurity");

        me.MapDelete(
                "/sign-ins/{id:guid}",
                async Task<NoContent> (Guid id, Actor actor, LanternDb db, CancellationToken ct) =>
                {
                    if (
                        await db
                            .SignedIn.Where(row => row.Id == id && row.PersonId == actor.Required.Id)
                            .ExecuteDeleteAsync(ct) == 0
                    )
                        throw Refusal.NotFound("sign-in");
                    return TypedResults.NoContent();
                }
            )
            .WithName("signOutThere")
            .ProducesProblem(404);

        me.MapPut(
                "/password",
                async Task<NoContent> (
                    ChangePasswordRequest request,
                    HttpContext context,
                    Actor actor,
                    UserManager<Person> people,
                    SignInSessions sessions,
                    PasswordWork work,
                    LanternDb db,
                    CancellationToken ct
                ) =>
                {
                    var person = await PersonAsync(actor, people);
                    await RequirePasswordAsync(work, people, person, request.Password, ct);
                    var workspace = await db.Workspaces.AsNoTracking().SingleAsync(ct);
                    using var place = await work.PlaceAsync(ct);
                    Passwords.Require("newPassword", request.NewPassword, person.Name, person.Email!, workspace.Name);
                    var result = await people.ChangePasswordAsync(person, request.Password, request.NewPassword);
                    if (!result.Succeeded)
                        throw Refusal.Invalid("newPassword", Passwords.Mend);
                    await sessions.CloseAllAsync(person.Id, SignInSessions.IdOf(context.User), ct);
                    return TypedResults.NoContent();
                }
            )
            .WithName("changePassword")
            .ProducesValidationProblem();

        var factorRoutes = me.MapGroup("/second-factor");
        factorRoutes
            .MapPost(
                "/start",
                async (
                    PasswordRequest request,
                    Actor actor,
                    UserManager<Person> people,
                    SecondFactor factor,
                    PasswordWork work,
                    CancellationToken ct
                ) =>
                {
                    var person = await PersonAsync(actor, people);
                    await RequirePasswordAsync(work, people, person, request.Password, ct);
                    return await factor.StartAsync(person);
                }
            )
            .WithName("startSecondFactor")
            .ProducesValidationProblem()
            .ProducesProblem(409);

        factorRoutes
            .MapPost(
                "/confirm",
                async (
                    CodeRequest request,
                    HttpContext context,
                    Actor actor,
                    UserManager<Person> people,
                    SecondFactor factor,
                    SignInSessions sessions,
                    CancellationToken ct
                ) =>
                {
                    var person = await PersonAsync(actor, people);
                    var codes = await factor.ConfirmAsync(person, request.Code);
                    // Whoever is signed in elsewhere came in by the password alone.
                    await sessions.CloseAllAsync(person.Id, SignInSessions.IdOf(context.User), ct);
                    return new RecoveryCodesAnswer(codes);
                }
            )
            .WithName("confirmSecondFactor")
            .ProducesValidationProblem();

        factorRoutes
            .MapPost(
                "/end",
                async Task<NoContent> (
                    PasswordRequest request,
                    Actor actor,
                    UserManager<Person> people,
                    SecondFactor factor,
                    PasswordWork work,
                    CancellationToken ct
                ) =>
                {
                    var person = await PersonAsync(actor, people);
                    await RequirePasswordAsync(work, people, person, request.Password, ct);
                    await factor.EndAsync(person);
                    return TypedResults.NoContent();
                }
            )
            .WithName("endSecondFactor")
            .ProducesValidationProblem();
    }

    private static async Task<Person> PersonAsync(Actor actor, UserManager<Person> people) =>
        (await people.FindByIdAsync(actor.Required.Id.ToString()))!;

    private static async Task RequirePasswordAsync(
        PasswordWork work,
        UserManager<Person> people,
        Person person,
        string password,
        CancellationToken ct
    )
    {
        if (!await work.IsRightAsync(people, person, password, ct))
            throw Refusal.Invalid("password", "password-wrong");
    }
}
