using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Bookings;
using LooseLantern.Server.Features.Post;
using LooseLantern.Server.Features.SignIn;
using LooseLantern.Server.Hosting;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Team;

public sealed record InvitationForm(string Name, string Email, RolesForm Roles) : IMailsTo
{
    public IEnumerable<(string Field, string? Address)> MailsTo() => [("email", Email)];
}

/// <param name="Path">Where it is taken up, from the root of the site.</param>
public sealed record InvitationView(
    Guid Id,
    string Name,
    string Email,
    RolesForm Roles,
    Instant ExpiresAt,
    string Path
);

/// <summary>What somebody who opens an invitation reads.</summary>
/// <param name="Zone">IANA id of the workspace's zone.</param>
public sealed record InvitationRead(
    string Workspace,
    string Zone,
    string By,
    string Name,
    string Email,
    RolesForm Roles
);

/// <param name="LetInviter">Whether whoever invited may act for them, where they become a host.</param>
public sealed record JoinForm(string Name, string Password, string Zone, bool LetInviter);

public static class InvitationEndpoints
{
    public static void MapInvitations(this IEndpointRouteBuilder api)
    {
        var invitations = api.MapGroup("/invitations").WithTags("Team").RequireAuthorization(Roles.Owner);

        invitations
            .MapGet("/", async (LanternDb db, PrivateLinks links, IClock clock, CancellationToken ct) =>
            {
                var now = clock.GetCurrentInstant();
                var rows = await db
                    .Invitations.AsNoTracking()
                    .Where(row => row.TakenUpAt == null && row.ExpiresAt > now)
                    .OrderBy(row => row.Name)
                    .ToListAsync(ct);
                return rows.ConvertAll(row => Of(row, links));
            })
            .WithName("listInvitations");

        invitations
            .MapPost(
                "/",
                async Task<Created<InvitationView>> (
                    InvitationForm form,
                    Inviting inviting,
                    PrivateLinks links,
                    CancellationToken ct
                ) =>
                {
                    var row = await inviting.InviteAsync(form, ct);
                    return TypedResults.Created($"/api/invitations/{row.Id}", Of(row, links));
                }
            )
            .WithName("invite")
            .ProducesValidationProblem();

        invitations
            .MapDelete("/{id:guid}", async Task<NoContent> (Guid id, LanternDb db, CancellationToken ct) =>
            {
                if (
                    await db.Invitations.Where(row => row.Id == id && row.TakenUpAt == null).ExecuteDeleteAsync(ct) == 0
                )
                    throw Refusal.NotFound("invitation");
                return TypedResults.NoContent();
            })
            .WithName("takeBackInvitation")
            .ProducesProblem(404);

        var join = api.MapGroup("/join/{secret}").WithTags("Team").AllowAnonymous();
        join.MapGet("/", async (string secret, Inviting inviting, CancellationToken ct) =>
                await inviting.ReadAsync(secret, ct)
            )
            .WithName("readInvitation")
            .ProducesProblem(404)
            .ProducesProblem(410);

        join.MapPost(
                "/",
                async Task<NoContent> (
                    string secret,
                    JoinForm form,
                    HttpContext context,
                    Inviting inviting,
                    SignInSessions sessions,
                    CancellationToken ct
                ) =>
                {
                    await sessions.OpenAsync(context, await inviting.JoinAsync(secret, form, ct), ct);
                    return TypedResults.NoContent();
                }
            )
            .WithName("join")
            .ProducesValidationProblem()
            .ProducesProblem(404)
            .ProducesProblem(410);
    }

    private static InvitationView Of(Invitation row, PrivateLinks links) =>
        new(
            row.Id,
            row.Name,
            row.Email,
            new RolesForm(row.IsOwner, row.IsCoordinator, row.IsHost),
            row.ExpiresAt,
            $"/join/{links.Reveal(row.ProtectedSecret)}"
        );
}
