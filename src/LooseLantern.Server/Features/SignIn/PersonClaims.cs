using System.Security.Claims;
using LooseLantern.Server.Data.Model;
using Microsoft.AspNetCore.Identity;
using Microsoft.Extensions.Options;

namespace LooseLantern.Server.Features.SignIn;

/// <summary>Puts the workspace and the roles of a person into the sign-in cookie.</summary>
public sealed class PersonClaims(UserManager<Person> people, IOptions<IdentityOptions> options)
    : UserClaimsPrincipalFactory<Person>(people, options)
{
    protected override async Task<ClaimsIdentity> GenerateClaimsAsync(Person user)
    {
        var identity = await base.GenerateClaimsAsync(user);
        identity.AddClaim(new Claim(Roles.WorkspaceClaim, user.WorkspaceId.ToString()));
        if (user.IsCoordinator || user.IsOwner) identity.AddClaim(new Claim(Roles.CoordinatorClaim, "yes"));
        return identity;
    }
}
