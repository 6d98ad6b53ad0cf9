using LooseLantern.Server.Features.ActingFor;
using LooseLantern.Server.Features.AskingFirst;
using LooseLantern.Server.Features.Board;
using LooseLantern.Server.Features.Bookings;
using LooseLantern.Server.Features.Calendars;
using LooseLantern.Server.Features.Calendars.Feeds;
using LooseLantern.Server.Features.Calendars.Writing;
using LooseLantern.Server.Features.Covers;
using LooseLantern.Server.Features.Desks;
using LooseLantern.Server.Features.Find;
using LooseLantern.Server.Features.FirstRun;
using LooseLantern.Server.Features.Flagged;
using LooseLantern.Server.Features.GuestBook;
using LooseLantern.Server.Features.GuestBook.Erasing;
using LooseLantern.Server.Features.GuestBook.Importing;
using LooseLantern.Server.Features.Guests;
using LooseLantern.Server.Features.Hours;
using LooseLantern.Server.Features.Letters;
using LooseLantern.Server.Features.Links;
using LooseLantern.Server.Features.Live;
using LooseLantern.Server.Features.Load;
using LooseLantern.Server.Features.Mailings;
using LooseLantern.Server.Features.Openings;
using LooseLantern.Server.Features.Pages;
using LooseLantern.Server.Features.Post;
using LooseLantern.Server.Features.Profile;
using LooseLantern.Server.Features.Record;
using LooseLantern.Server.Features.SignIn;
using LooseLantern.Server.Features.SignUp;
using LooseLantern.Server.Features.Supply;
using LooseLantern.Server.Features.Team;
using LooseLantern.Server.Features.TimeZones;
using LooseLantern.Server.Features.Undo;
using LooseLantern.Server.Features.Usual;
using LooseLantern.Server.Features.Workspaces;
using LooseLantern.Server.Jobs;
using LooseLantern.Server.Tenancy;
using Microsoft.AspNetCore.Antiforgery;
using Microsoft.AspNetCore.Diagnostics.HealthChecks;
using Microsoft.Extensions.Diagnostics.HealthChecks;

namespace LooseLantern.Server.Hosting;

public static class PipelineSetup
{
    // What they do belongs to the workspace of the link that is opened, or to one that is only made: in the browser of
    // whoever is signed in elsewhere, too.
    private static readonly string[] OfNoWorkspace =
    [
        "/api/sign-up",
        "/api/sign-in",
        "/api/join",
        "/api/password-resets",
        "/api/address-proofs",
    ];

    public static void UseLantern(this WebApplication app)
    {
        app.UseForwardedHeaders();
        app.UseExceptionHandler();
        // Told by https alone, as it came to the proxy in front.
        app.UseHsts();
        app.UseResponseCompression();
        app.UseStatusCodePages();
        app.Use(SecurityHeaders);
        FrontEnd.UseFiles(app);
        app.UseRouting();
        app.UseRateLimiter();
        app.Use(WorkPace.Count);
        app.UseAuthentication();
        app.Use(EnterWorkspace);
        app.UseAuthorization();
        app.Use(RefuseOtherTypes);
        FrontEnd.UseScreens(app);

        app.MapHealthChecks("/health/live", new HealthCheckOptions { Predicate = _ => false });
        app.MapHealthChecks("/health/ready", new HealthCheckOptions { ResponseWriter = Readiness });
        app.MapOpenApi("/openapi/{documentName}.json");

        var guests = app.MapGroup("/api/public")
            .RequireRateLimiting(RateLimits.Guests)
            .AddEndpointFilter(IMailsTo.RefuseUnreachable);
        guests.MapGuestPages();
        guests.MapGuestDesks();
        guests.MapGuestLinks();
        guests.MapSuitedTimesOfGuests();
        guests.MapLooks();
        guests.MapPrivateBookings();
        guests.MapAnswers();
        guests.MapPublicBusyTimes();
        guests.MapPublicFeeds();
        guests.MapPublicLive();

        var team = app.MapGroup("/api")
            .RequireAuthorization()
            .AddEndpointFilter(AskForToken)
            .AddEndpointFilter(IMailsTo.RefuseUnreachable);
        team.MapSignIn();
        team.MapSignUp();
        team.MapAddressProofs();
        team.MapMe();
        team.MapSecurity();
        team.MapNotifications();
        team.MapActingFor();
        team.MapRecord();
        team.MapUsual();
        team.MapWorkspace();
        team.MapFirstRun();
        team.MapLoad();
        team.MapTeam();
        team.MapInvitations();
        team.MapCalendars();
        team.MapBusyTimes();
        team.MapFeed();
        team.MapOutsideChanges();
        team.MapLive();
        team.MapBoard();
        team.MapDesks();
        team.MapPages();
        team.MapSharing();
        team.MapPageFiles();
        team.MapPostPreview();
        team.MapSupply();
        team.MapLinks();
        team.MapSuitedTimes();
        team.MapLooksOfPages();
        team.MapGuestPreviews();
        team.MapCases();
        team.MapHours();
        team.MapZones();
        team.MapGuestBook();
        team.MapErasing();
        team.MapLetters();
        team.MapMailings();
        team.MapGuestFiles();
        team.MapBookings();
        team.MapBookingLists();
        team.MapBookingWork();
        team.MapFind();
        team.MapUndo();
        team.MapFlagged();
        team.MapCovers();
        team.MapSessions();
        team.MapPost();
    }

    /// <summary>Names the zone tables by which this server counts: other machines may have other ones.</summary>
    private static Task Readiness(HttpContext context, HealthReport report) =>
        context.Response.WriteAsJsonAsync(new { status = report.Status.ToString(), zones = ZoneList.Version });

    private static Task SecurityHeaders(HttpContext context, RequestDelegate next)
    {
        var headers = context.Response.Headers;
        headers.XContentTypeOptions = "nosniff";
        // A private link's address is its key; it is told to no other site.
        headers["Referrer-Policy"] = "same-origin";
        // Screens have a policy of their own.
        headers.ContentSecurityPolicy = ContentSecurity.Nothing;
        if (context.Request.Path.StartsWithSegments("/api"))
            headers.CacheControl = "no-store";
        return next(context);
    }

    /// <summary>Routing itself finds that a body is of no type that is read; here it is said.</summary>
    private static async Task RefuseOtherTypes(HttpContext context, RequestDelegate next)
    {
        await next(context);
        if (context.Response is { StatusCode: StatusCodes.Status415UnsupportedMediaType, HasStarted: false })
            throw Refusal.ContentType("application/json");
    }

    private static Task EnterWorkspace(HttpContext context, RequestDelegate next)
    {
        // Guests' requests have no user, and belong to the workspace of what they open.
        if (
            context.User.FindFirst(Roles.WorkspaceClaim) is { } claim
            && !Array.Exists(OfNoWorkspace, path => context.Request.Path.StartsWithSegments(path))
        )
        {
            context.RequestServices.GetRequiredService<Tenant>().Enter(Guid.Parse(claim.Value));
        }

        return next(context);
    }

    private static async ValueTask<object?> AskForToken(
        EndpointFilterInvocationContext context,
        EndpointFilterDelegate next
    )
    {
        var request = context.HttpContext.Request;
        if (
            !HttpMethods.IsGet(request.Method)
            && !HttpMethods.IsHead(request.Method)
            && !await context
                .HttpContext.RequestServices.GetRequiredService<IAntiforgery>()
                .IsRequestValidAsync(context.HttpContext)
        )
        {
            throw new Refusal(StatusCodes.Status400BadRequest, "token");
        }

        return await next(context);
    }
}
