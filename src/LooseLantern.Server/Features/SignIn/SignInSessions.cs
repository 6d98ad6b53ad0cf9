using System.Security.Claims;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.ActingFor;
using LooseLantern.Server.Tenancy;
using Microsoft.AspNetCore.Authentication;
using Microsoft.AspNetCore.Authentication.Cookies;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.SignIn;

/// <summary>
/// Keeps a row for each place somebody is signed in. A cookie holds only while its row does, and what a person may do
/// is read with it, so signing out elsewhere, a change of roles and leaving count from the next request on.
/// </summary>
public sealed class SignInSessions(LanternDb db, Tenant tenant, IClock clock)
{
    /// <summary>How long a cookie holds that is not used.</summary>
    public static readonly Duration Validity = Duration.FromDays(14);

    private static readonly Duration SeenEvery = Duration.FromMinutes(5);

    /// <summary>Signs a person in here: the row, and the cookie that names it.</summary>
    public async Task OpenAsync(HttpContext context, Person person, CancellationToken ct)
    {
        tenant.Enter(person.WorkspaceId);
        var now = clock.GetCurrentInstant();
        var row = new SignedIn
        {
            WorkspaceId = person.WorkspaceId,
            PersonId = person.Id,
            Since = now,
            SeenAt = now,
            Device = Device.InWords(context.Request.Headers.UserAgent.ToString()),
            NetworkAddress = context.Connection.RemoteIpAddress?.ToString() ?? "",
        };
        db.SignedIn.Add(row);
        // Of places that were not seen for so long the cookie is gone as well.
        await db.SignedIn.Where(old => old.PersonId == person.Id && old.SeenAt < now - Validity).ExecuteDeleteAsync(ct);
        await db.SaveChangesAsync(ct);
        await context.SignInAsync(
            IdentityConstants.ApplicationScheme,
            new ClaimsPrincipal(Identity(row.Id, person.Id, person.WorkspaceId, person.IsCoordinator, person.IsOwner)),
            new AuthenticationProperties { IsPersistent = true }
        );
    }

    /// <summary>Signs out here.</summary>
    public async Task CloseAsync(HttpContext context, CancellationToken ct)
    {
        if (IdOf(context.User) is { } id)
            await db.SignedIn.IgnoreQueryFilters().Where(row => row.Id == id).ExecuteDeleteAsync(ct);
        await context.SignOutAsync(IdentityConstants.ApplicationScheme);
    }

    /// <summary>Signs a person out everywhere, or everywhere but where one sign-in is.</summary>
    public Task CloseAllAsync(Guid personId, Guid? except, CancellationToken ct) =>
        db.SignedIn.Where(row => row.PersonId == personId && row.Id != except).ExecuteDeleteAsync(ct);

    public static Guid? IdOf(ClaimsPrincipal principal) =>
        principal.FindFirstValue(Roles.SignInClaim) is { } id ? Guid.Parse(id) : null;

    /// <summary>Called with each request that bears a cookie.</summary>
    public static async Task ValidateAsync(CookieValidatePrincipalContext context)
    {
        // What guests do is done by guests, also in the browser of somebody who is signed in.
        if (context.HttpContext.Request.Path.StartsWithSegments("/api/public"))
        {
            context.RejectPrincipal();
            return;
        }

        var services = context.HttpContext.RequestServices;
        var db = services.GetRequiredService<LanternDb>();
        var id = context.Principal is { } principal ? IdOf(principal) : null;
        var found = await db
            .SignedIn.IgnoreQueryFilters()
            .AsNoTracking()
            .Where(row => row.Id == id)
            .Join(
                db.Users.IgnoreQueryFilters(),
                row => row.PersonId,
                person => person.Id,
                (row, person) => new { Row = row, Person = person }
            )
            .Where(pair => pair.Person.LeftAt == null)
            .Select(pair => new
            {
                pair.Row.SeenAt,
                pair.Person.Id,
                pair.Person.WorkspaceId,
                pair.Person.Name,
                pair.Person.IsOwner,
                pair.Person.IsCoordinator,
                Host = db
                    .Hosts.IgnoreQueryFilters()
                    .Where(host => host.PersonId == pair.Person.Id && host.RetiredAt == null)
                    .Select(host => (Guid?)host.Id)
                    .FirstOrDefault(),
            })
            .FirstOrDefaultAsync(context.HttpContext.RequestAborted);
        if (found is null)
        {
            context.RejectPrincipal();
            return;
        }

        services
            .GetRequiredService<Actor>()
            .Enter(new ActingPerson(found.Id, found.Name, found.IsOwner, found.IsCoordinator, found.Host));
        context.ReplacePrincipal(
            new ClaimsPrincipal(Identity(id!.Value, found.Id, found.WorkspaceId, found.IsCoordinator, found.IsOwner))
        );
        var now = services.GetRequiredService<IClock>().GetCurrentInstant();
        if (now - found.SeenAt >= SeenEvery)
            await db
                .SignedIn.IgnoreQueryFilters()
                .Where(row => row.Id == id)
                .ExecuteUpdateAsync(row => row.SetProperty(seen => seen.SeenAt, now), CancellationToken.None);
    }

    private static ClaimsIdentity Identity(Guid signIn, Guid person, Guid workspace, bool coordinates, bool owns)
    {
        var identity = new ClaimsIdentity(IdentityConstants.ApplicationScheme);
        identity.AddClaim(new Claim(ClaimTypes.NameIdentifier, person.ToString()));
        identity.AddClaim(new Claim(Roles.SignInClaim, signIn.ToString()));
        identity.AddClaim(new Claim(Roles.WorkspaceClaim, workspace.ToString()));
        if (coordinates || owns)
            identity.AddClaim(new Claim(Roles.CoordinatorClaim, "yes"));
        if (owns)
            identity.AddClaim(new Claim(Roles.OwnerClaim, "yes"));
        return identity;
    }
}
