using LooseLantern.Server.Hosting;

namespace LooseLantern.Server.Features.Post;

/// <summary>
/// Where the site is reached from outside, also where no request is at hand: as the operator set it, else as the
/// request came.
/// </summary>
public sealed class SiteAddress(IConfiguration configuration, IHttpContextAccessor requests)
{
    public string Value =>
        requests.HttpContext is { } context
            ? PublicAddress.Of(context.Request)
            : configuration["PublicAddress"]?.TrimEnd('/') ?? "http://localhost";
}
