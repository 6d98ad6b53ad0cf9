namespace LooseLantern.Server.Features.SignIn;

/// <summary>Names of the claims and policies that say what a person may do (docs/permissions.md).</summary>
public static class Roles
{
    /// <summary>Policy: whoever sets up pages, hours and calendars, which owners may too.</summary>
    public const string Coordinator = "coordinator";

    /// <summary>Policy: whoever decides about people and the workspace itself.</summary>
    public const string Owner = "owner";

    public const string WorkspaceClaim = "workspace";

    public const string SignInClaim = "sign-in";

    public const string CoordinatorClaim = "coordinates";

    public const string OwnerClaim = "owns";
}
