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
    /// path.
    /// </summary>
    public static void MapFallback(WebApplication app)
    {
        app.MapFallback("/", SendIndex);
        app.MapFallback("{**path:nonfile:regex(^(?!(api|health|openapi)(/|$)))}", SendIndex);

        // Takes its services from the request: were they parameters, the code that is made at build time would drop the
        // fallback's pattern.
        async Task SendIndex(HttpContext context)
        {
            var (db, security) = (
                context.RequestServices.GetRequiredService<LanternDb>(),
                context.RequestServices.GetRequiredService<ContentSecurity>()
            );
            if (await OwnHostNames.LeadsToAsync(context.Request, db, context.RequestAborted) is { } path)
            {
                context.Response.Redirect(path + context.Request.QueryString);
                return;
            }

            var index = app.Environment.WebRootFileProvider.GetFileInfo("index.html");
            if (!index.Exists)
                throw Refusal.NotFound("page");
            context.Response.ContentType = "text/html; charset=utf-8";
            context.Response.Headers.CacheControl = "no-cache";
            context.Response.Headers.ContentSecurityPolicy = await security.OfAsync(
                context.Request.Path,
                db,
                context.RequestAborted
            );
            await context.Response.SendFileAsync(index);
        }
    }
}
