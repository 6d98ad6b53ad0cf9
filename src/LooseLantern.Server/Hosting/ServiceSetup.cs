using LooseLantern.Server.CalDav;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.ActingFor;
using LooseLantern.Server.Features.AskingFirst;
using LooseLantern.Server.Features.Board;
using LooseLantern.Server.Features.Bookings;
using LooseLantern.Server.Features.Calendars;
using LooseLantern.Server.Features.Calendars.Joining;
using LooseLantern.Server.Features.Covers;
using LooseLantern.Server.Features.Desks;
using LooseLantern.Server.Features.Find;
using LooseLantern.Server.Features.Flagged;
using LooseLantern.Server.Features.GuestBook;
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
using LooseLantern.Server.Features.Replies;
using LooseLantern.Server.Features.Reserving;
using LooseLantern.Server.Features.SignIn;
using LooseLantern.Server.Features.SignUp;
using LooseLantern.Server.Features.Supply;
using LooseLantern.Server.Features.Team;
using LooseLantern.Server.Features.Undo;
using LooseLantern.Server.Features.Video;
using LooseLantern.Server.Features.Views;
using LooseLantern.Server.Features.Workspaces;
using LooseLantern.Server.Jobs;
using LooseLantern.Server.Outside;
using LooseLantern.Server.Tenancy;
using Microsoft.AspNetCore.Authorization;
using Microsoft.AspNetCore.DataProtection;
using Microsoft.AspNetCore.Http.Features;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using NodaTime.Text;
using Npgsql;

namespace LooseLantern.Server.Hosting;

public static class ServiceSetup
{
    /// <summary>
    /// Adds everything the server needs. Settings: ConnectionStrings:Lantern; Clock:At, an offset date and time at
    /// which the clock starts; PublicAddress; Demo; Outside:Inside, addresses of our own network that may be asked.
    /// </summary>
    public static void AddLantern(this WebApplicationBuilder builder)
    {
        var services = builder.Services;
        services.AddSingleton(_ => StartClock(builder.Configuration["Clock:At"]));
        AddDatabase(services);
        AddIdentity(services);

        services
            .AddSingleton<WorkSignals>()
            .AddSingleton<WorkPace>()
            .AddScoped<Tenant>()
            .AddSingleton<ContentSecurity>()
            .AddSingleton<ScreenFiles>()
            .AddSingleton<FirstAnswerLimit>()
            .AddSingleton<PublicAddress>();
        services
            .AddActingFor()
            .AddRecord()
            .AddSignIn()
            .AddProfile()
            .AddTeam()
            .AddReserving()
            .AddLoad()
            .AddSignUp()
            .AddDesks()
            .AddCalendars()
            .AddBoard()
            .AddPages()
            .AddOpenings()
            .AddSupply()
            .AddGuests()
            .AddGuestBook()
            .AddSavedViews()
            .AddFind()
            .AddUndo(builder.Configuration)
            .AddLetters()
            .AddMailings()
            .AddWorkspaces()
            .AddLinks()
            .AddAskingFirst()
            .AddHours()
            .AddBookings()
            .AddFlagged()
            .AddCovers()
            .AddPost(builder.Configuration)
            .AddVideo()
            .AddReplies()
            .AddOutside()
            .AddCalDav()
            .AddLive();
        // What only describes the program serves nobody.
        if (!DesignTime.IsBuilding)
            services.AddHostedService<OldRows>();
        services.AddRateLimits(builder.Configuration);

        services.ConfigureHttpJsonOptions(options => Json.ConfigureRequests(options.SerializerOptions));
        services.Configure<RouteHandlerOptions>(options => options.ThrowOnBadRequest = true);
        services.Configure<FormOptions>(options =>
            options.MultipartBodyLengthLimit = CalendarJoining.MostBytes + 64 * 1024
        );
        services.AddProblemDetails().AddExceptionHandler<RefusalHandler>();
        services.AddOpenApi("v1", OpenApiSetup.Configure);
        services.AddHealthChecks().AddCheck<DatabaseHealth>("database");
        services.AddHsts(options => options.MaxAge = TimeSpan.FromDays(365));
        services.AddResponseCompression(options => options.EnableForHttps = false);
    }

    private static IClock StartClock(string? at)
    {
        if (string.IsNullOrEmpty(at))
            return SystemClock.Instance;
        var parsed = OffsetDateTimePattern.Rfc3339.Parse(at);
        if (!parsed.Success)
            parsed = OffsetDateTimePattern.CreateWithInvariantCulture("uuuu-MM-dd'T'HH:mmo<Z+HH:mm>").Parse(at);
        if (!parsed.Success)
            throw new FormatException(
                $"Clock:At \"{at}\" is no date and time with an offset, such as 2026-12-07T08:00+01:00."
            );
        return StartedClock.At(parsed.Value.ToInstant());
    }

    private static void AddDatabase(IServiceCollection services)
    {
        services.AddSingleton(provider => new NpgsqlDataSourceBuilder(ConnectionTo(provider)).UseNodaTime().Build());
        // By its text, and not by the source of connections above: what was worked out for a query is then kept for
        // all programs of a process, of which tests have many.
        services.AddDbContext<LanternDb>(
            (provider, options) =>
                options
                    .UseNpgsql(ConnectionTo(provider), npgsql => npgsql.UseNodaTime())
                    .UseSnakeCaseNamingConvention()
                    .AddInterceptors(Undoable)
        );
        var protection = services.AddDataProtection().SetApplicationName("loose-lantern");
        if (!DesignTime.IsBuilding)
            protection.PersistKeysToDbContext<LanternDb>();
    }

    private static readonly UndoTransactions Undoable = new();

    private static string ConnectionTo(IServiceProvider provider)
    {
        var connection = new NpgsqlConnectionStringBuilder(
            provider.GetRequiredService<IConfiguration>().GetConnectionString("Lantern")
                ?? "Host=127.0.0.1;Database=lantern"
        );
        // What is asked again and again is planned once for each connection.
        if (connection.MaxAutoPrepare == 0)
            (connection.MaxAutoPrepare, connection.AutoPrepareMinUsages) = (200, 3);
        // Some statements a request would undo what a session may have left behind when its connection goes back. There
        // are no settings or cursors beyond transactions here; who locks beyond one unlocks, and the one that listens
        // goes back only when the server stops.
        connection.NoResetOnClose = true;
        // What is asked for lies in memory, or on disks that need not turn, so that an index leads there sooner than
        // reading all does; and many ask at once, so that nobody needs a second processor; lists count on that
        // (ListRuns).
        connection.Options =
            $"{connection.Options} -c random_page_cost=1.1 -c max_parallel_workers_per_gather=0".Trim();
        return connection.ConnectionString;
    }

    private static void AddIdentity(IServiceCollection services)
    {
        services
            .AddIdentityCore<Person>(options =>
            {
                options.User.RequireUniqueEmail = true;
                options.User.AllowedUserNameCharacters = "";
                options.Password.RequiredLength = Passwords.Shortest;
                options.Password.RequireDigit = false;
                options.Password.RequireLowercase = false;
                options.Password.RequireUppercase = false;
                options.Password.RequireNonAlphanumeric = false;
            })
            .AddEntityFrameworkStores<LanternDb>()
            .AddUserStore<PersonStore>()
            .AddSignInManager()
            .AddTokenProvider<AuthenticatorTokenProvider<Person>>(TokenOptions.DefaultAuthenticatorProvider);

        services
            .AddAuthentication(IdentityConstants.ApplicationScheme)
            .AddCookie(IdentityConstants.ApplicationScheme, options =>
            {
                options.Cookie.Name = "lantern";
                options.Cookie.HttpOnly = true;
                options.Cookie.SameSite = SameSiteMode.Lax;
                options.ExpireTimeSpan = SignInSessions.Validity.ToTimeSpan();
                options.SlidingExpiration = true;
                options.Events.OnValidatePrincipal = SignInSessions.ValidateAsync;
                options.Events.OnRedirectToLogin = context => Refuse(StatusCodes.Status401Unauthorized, "signed-out");
                options.Events.OnRedirectToAccessDenied = context =>
                    context
                        .HttpContext.GetEndpoint()
                        ?.Metadata.GetOrderedMetadata<IAuthorizeData>()
                        .Any(data => data.Policy == Roles.Owner) == true
                        ? Refuse(StatusCodes.Status403Forbidden, "not-allowed", "not-allowed.owners")
                        : Refuse(StatusCodes.Status403Forbidden, "not-allowed", "not-allowed.coordinators");
            });
        services
            .AddAuthorizationBuilder()
            .AddPolicy(Roles.Coordinator, policy =>
                policy.RequireAuthenticatedUser().RequireClaim(Roles.CoordinatorClaim)
            )
            .AddPolicy(Roles.Owner, policy => policy.RequireAuthenticatedUser().RequireClaim(Roles.OwnerClaim));
        services.AddAntiforgery(options =>
        {
            options.HeaderName = "X-Lantern-Token";
            options.Cookie.Name = "lantern-token";
        });
    }

    private static Task Refuse(int status, string code, Phrase? phrase = null) =>
        throw new Refusal(status, code, phrase);
}
