using LooseLantern.Server.Data;
using LooseLantern.Server.Features.Guests.First;
using Microsoft.AspNetCore.Http.Features;

namespace LooseLantern.Server.Hosting;

/// <summary>
/// Serves the built front end. Its files bear hashes in their names and are kept by browsers; the page that names them
/// is not.
/// </summary>
public static class FrontEnd
{
    public static void UseFiles(WebApplication app)
    {
        app.Use(
            (context, next) =>
            {
                Precompressed.Choose(context.Request, app.Environment.WebRootFileProvider);
                return next(context);
            }
        );
        app.UseStaticFiles(
            new StaticFileOptions
            {
                ContentTypeProvider = new Precompressed(),
                OnPrepareResponse = file =>
                {
                    Precompressed.Tell(file);
                    file.Context.Response.Headers.CacheControl = file.Context.Request.Path.StartsWithSegments(
                        "/_app/immutable"
                    )
                        ? "public, max-age=31536000, immutable"
                        : "no-cache";
                },
            }
        );
    }

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
        if (await OwnHostNames.LeadsToAsync(context.Request, db, context.RequestAborted).OrAsync(null) is { } path)
        {
            context.Response.Redirect(path + context.Request.QueryString);
            return;
        }

        var html = services.GetRequiredService<FirstAnswerHtml>();
        var first = await FirstAsync(context);
        if (first.MovedTo is { } moved)
        {
            context.Response.Redirect(moved);
            return;
        }

        if (first.IsMissing)
            context.Response.StatusCode = StatusCodes.Status404NotFound;
        // What everybody may read holds no secret that its length could tell.
        if (!first.IsPrivate && context.Features.Get<IHttpsCompressionFeature>() is { } compression)
            compression.Mode = HttpsCompressionMode.Compress;
        context.Response.ContentType = "text/html; charset=utf-8";
        // On the way back browsers show what they kept, whatever its age: of openings, and of the hour, that misleads.
        context.Response.Headers.CacheControl = first.IsPrivate || first.Data is not null ? "no-store" : "no-cache";
        context.Response.Headers.ContentSecurityPolicy = await services
            .GetRequiredService<ContentSecurity>()
            .OfAsync(context.Request.Path, db, context.RequestAborted);
        await context.Response.WriteAsync(html.Of(first), context.RequestAborted);
    }

    /// <summary>Of who asks too much the screen is sent alone; what it asks for then says why.</summary>
    private static async Task<FirstAnswer> FirstAsync(HttpContext context)
    {
        var none = new FirstAnswer("", "en");
        using var lease = context.RequestServices.GetRequiredService<FirstAnswerLimit>().Ask(context);
        if (!lease.IsAcquired)
            return none;
        // It belongs to the workspace of what is opened, whoever is signed in.
        await using var scope = context.RequestServices.CreateAsyncScope();
        return await scope
            .ServiceProvider.GetRequiredService<FirstAnswers>()
            .OfAsync(context.Request, context.RequestAborted)
            .OrAsync(null)
            ?? none;
    }
}
