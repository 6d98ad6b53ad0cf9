namespace LooseLantern.Server.Features.SignIn;

/// <summary>Names of the claims and policies that say what a person may do.</summary>
public static class Roles
{
    /// <summary>Policy: whoever sets up pages and calendars, which owners may too.</summary>
    public const string Coordinator = "coordinator";

    public const string WorkspaceClaim = "workspace";

    public const string CoordinatorClaim = "coordinates";
}
