using System.Globalization;
using Microsoft.AspNetCore.Hosting;
using Microsoft.AspNetCore.Identity;
using Microsoft.AspNetCore.Mvc.Testing;
using Microsoft.AspNetCore.TestHost;
using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.DependencyInjection.Extensions;
using Microsoft.Extensions.Hosting;
using NodaTime;

namespace LooseLantern.Testing;

/// <summary>
/// The program itself, with its services as they are, over a database of its own and a clock that the test holds.
/// </summary>
/// <param name="standIn">The calendar and the mail server, which the demo needs; without it mail waits.</param>
/// <param name="patience">How long another server is waited for; the program's own patience where it is not
/// said.</param>
public sealed class LanternApp(
    string connectionString,
    IClock clock,
    bool demo = false,
    StandIn? standIn = null,
    TimeSpan? patience = null
) : WebApplicationFactory<LooseLantern.Server.Hosting.Refusal>
{
    /// <summary>How much one address may ask of guests' routes a minute; any number unless set.</summary>
    public (int Reads, int Writes)? Limits { get; init; }

    /// <summary>Where the site is reached from outside; where it listens, unless set.</summary>
    public string? PublicAddress { get; init; }

    /// <summary>How often one network may sign in a minute.</summary>
    public int SignIns { get; init; } = 1_000_000;

    /// <summary>Mails to strangers an hour in a workspace's first day.</summary>
    public int FirstDayMails { get; init; } = 1_000_000;

    /// <summary>Minutes between two mails to whoever is brought along.</summary>
    public int CompanionMinutes { get; init; }

    /// <summary>From how many bookings an hour a network's guests prove their address; 0 for never.</summary>
    public int ProveFrom { get; init; }

    /// <summary>
    /// Whether it leaves the work beside requests to another program on the same database: what it took would wait for
    /// a clock that stands still, once it stops.
    /// </summary>
    public bool OnlyAnswers { get; init; }

    /// <summary>The name server that is asked; the machine's own, unless set.</summary>
    public string? NameServer { get; init; }

    /// <summary>Where the list of erasures is kept outside the database; nowhere, unless set.</summary>
    public string? Erasures { get; init; }

    /// <summary>For how many minutes mail of a new workspace waits; tests read it at once, unless set.</summary>
    public int UndoMinutes { get; init; }

    /// <summary>How many screens of one network are told of changes.</summary>
    public int Streams { get; init; } = 1_000_000;

    protected override void ConfigureWebHost(IWebHostBuilder builder)
    {
        builder.UseSetting("ConnectionStrings:Lantern", connectionString);
        builder.UseSetting("Demo", demo ? "true" : "false");
        // All tests come from one address, and ask far more than a guest; a test of the limits sets its own.
        Set(builder, "Limits:Reads", Limits?.Reads ?? 1_000_000);
        Set(builder, "Limits:Writes", Limits?.Writes ?? 1_000_000);
        if (Erasures is { } erasures)
            builder.UseSetting("Erasures:File", erasures);
        if (PublicAddress is { } address)
            builder.UseSetting("PublicAddress", address);
        Set(builder, "Limits:SignIns", SignIns);
        Set(builder, "Limits:Streams", Streams);
        Set(builder, "Undo:Minutes", UndoMinutes);
        Set(builder, "Limits:FirstDayMails", FirstDayMails);
        Set(builder, "Limits:CompanionMinutes", CompanionMinutes);
        Set(builder, "Limits:ProveFrom", ProveFrom);
        if (NameServer is { } names)
            builder.UseSetting("Outside:NameServer", names);
        // What tests start beside the program is on this machine; the rest of its own network stays closed.
        builder.UseSetting("Outside:Inside", "127.0.0.1");
        if (standIn is not null)
        {
            builder.UseSetting("StandIns:Calendars", standIn.Address);
            builder.UseSetting("Post:Host", "127.0.0.1");
            Set(builder, "Post:Port", standIn.MailPort);
            builder.UseSetting("Post:Tls", "false");
            builder.UseSetting("Post:RepliesDomain", StandIn.RepliesDomain);
            Set(builder, "Post:RepliesPort", standIn.AnswersPort);
            builder.UseSetting("Video:Address", standIn.Address);
        }

        if (patience is { } set)
            Set(builder, "Outside:PatienceMilliseconds", (int)set.TotalMilliseconds);
        if (Environment.GetEnvironmentVariable("LANTERN_WEB") is { } web)
            builder.UseWebRoot(web);
        builder.ConfigureTestServices(services =>
        {
            services.Replace(ServiceDescriptor.Singleton(clock));
            if (OnlyAnswers)
                foreach (var work in services.Where(IsWork).ToList())
                    services.Remove(work);
            // Everybody in a test has a password; what makes one slow to guess is not what is tested.
            services.Configure<PasswordHasherOptions>(options => options.IterationCount = 1000);
        });
    }

    private static bool IsWork(ServiceDescriptor service) =>
        service.ServiceType == typeof(IHostedService)
        && service.ImplementationType?.Assembly == typeof(LooseLantern.Server.Hosting.Refusal).Assembly;

    private static void Set(IWebHostBuilder builder, string name, int value) =>
        builder.UseSetting(name, value.ToString(CultureInfo.InvariantCulture));
}
