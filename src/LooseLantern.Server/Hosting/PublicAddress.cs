namespace LooseLantern.Server.Hosting;

/// <summary>Where the site is reached from outside, for links that are sent away.</summary>
public static class PublicAddress
{
    /// <summary>
    /// The operator's setting where there is one, else the address the request came to. No slash at its end.
    /// </summary>
    public static string Of(HttpRequest request) =>
        request.HttpContext.RequestServices.GetRequiredService<IConfiguration>()["PublicAddress"] is { Length: > 0 } set
            ? set.TrimEnd('/')
            : $"{request.Scheme}://{request.Host}";
}
