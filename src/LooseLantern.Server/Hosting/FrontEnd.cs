using LooseLantern.Server.Data;

namespace LooseLantern.Server.Hosting;

/// <summary>
/// Serves the built front end. Its files bear hashes in their names and are kept by browsers; the page that names them
/// is not.
/// </summary>
public static class FrontEnd
{
    public static void UseFiles(WebApplication app) =>
        app.UseStaticFiles(
            new StaticFileOptions
            {
                OnPrepareResponse = file =>
                    file.Context.Response.Headers.CacheControl = file.Context.Request.Path.StartsWithSegments(
                        "/_app/immutable"
                    )
                        ? "public, max-age=31536000, immutable"
                        : "no-cache",
            }
        );

    /// <summary>
    /// Every path that is no file and no route of the API is a screen of the front end, which finds its way by the
    /// path. No route of its own: where one stands beside those of the API, what is sent to them in a wrong form would
    /// seem to be for it.
    /// </summary>
    public static void UseScreens(WebApplication app) =>
        app.Use(
            (context, next) =>
                context.GetEndpoint() is null && IsScreen(context.Request) ? SendIndexAsync(context) : next(context)
        );

    private static bool IsScreen(HttpRequest request)
    {
        var path = request.Path.Value ?? "";
        return (HttpMethods.IsGet(request.Method) || HttpMethods.IsHead(request.Method))
            && !path[(path.LastIndexOf('/') + 1)..].Contains('.', StringComparison.Ordinal)
            && !((string[])["/api", "/health", "/openapi"]).Any(others => request.Path.StartsWithSegments(others));
    }

    private static async Task SendIndexAsync(HttpContext context)
    {
        var services = context.RequestServices;
        var db = services.GetRequiredService<LanternDb>();
        if (await OwnHostNames.LeadsToAsync(context.Request, db, context.RequestAborted) is { } path)
        {
            context.Response.Redirect(path + context.Request.QueryString);
            return;
        }

        var index = services.GetRequiredService<IWebHostEnvironment>().WebRootFileProvider.GetFileInfo("index.html");
        if (!index.Exists)
            throw Refusal.NotFound("page");
        context.Response.ContentType = "text/html; charset=utf-8";
        context.Response.Headers.CacheControl = "no-cache";
        context.Response.Headers.ContentSecurityPolicy = await services
            .GetRequiredService<ContentSecurity>()
            .OfAsync(context.Request.Path, db, context.RequestAborted);
        await context.Response.SendFileAsync(index);
    }
}
