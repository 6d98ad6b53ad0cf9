using System.Net;
using System.Threading.RateLimiting;
using Microsoft.AspNetCore.HttpOverrides;

namespace LooseLantern.Server.Hosting;

/// <summary>
/// How much one network address may ask of what is open to everybody. Settings: Limits:Reads and Limits:Writes, a
/// minute; Proxies, the addresses of proxies in front (beside this machine's own), whose word on where a request comes
/// from is taken.
/// </summary>
public static class RateLimits
{
    /// <summary>The name of the policy of routes for guests.</summary>
    public const string Guests = "guests";

    /// <summary>
    /// Of signing in, signing up and asking for a new password; the setting is Limits:SignIns, a minute.
    /// </summary>
    public const string SignIns = "sign-ins";

    private const int UsualReads = 1200;
    private const int UsualWrites = 120;
    private const int UsualSignIns = 40;

    public static void AddRateLimits(this IServiceCollection services, IConfiguration configuration)
    {
        var (reads, writes) = (ReadsOf(configuration), configuration.GetValue("Limits:Writes", UsualWrites));
        services.AddRateLimiter(options =>
        {
            options.AddPolicy(Guests, context =>
            {
                var isRead = HttpMethods.IsGet(context.Request.Method) || HttpMethods.IsHead(context.Request.Method);
                return OfMinute((NetworkOf(context.Connection.RemoteIpAddress), isRead), isRead ? reads : writes);
            });
            options.AddPolicy(SignIns, context =>
                OfMinute(
                    NetworkOf(context.Connection.RemoteIpAddress),
                    configuration.GetValue("Limits:SignIns", UsualSignIns)
                )
            );
            options.OnRejected = (_, _) =>
                throw new Refusal(StatusCodes.Status429TooManyRequests, "too-many")
                {
                    RetryAfter = TimeSpan.FromSeconds(10),
                };
        });
        services.Configure<ForwardedHeadersOptions>(options =>
        {
            options.ForwardedHeaders = ForwardedHeaders.XForwardedFor | ForwardedHeaders.XForwardedProto;
            foreach (
                var proxy in (configuration["Proxies"] ?? "").Split([',', ' '], StringSplitOptions.RemoveEmptyEntries)
            )
                options.KnownProxies.Add(IPAddress.Parse(proxy));
        });
    }

    /// <summary>How much one network address may read a minute.</summary>
    public static int ReadsOf(IConfiguration configuration) => configuration.GetValue("Limits:Reads", UsualReads);

    /// <summary>So many a minute.</summary>
    public static RateLimitPartition<T> OfMinute<T>(T of, int most) =>
        RateLimitPartition.GetSlidingWindowLimiter(of, _ => new SlidingWindowRateLimiterOptions
        {
            PermitLimit = most,
            Window = TimeSpan.FromMinutes(1),
            SegmentsPerWindow = 6,
        });

    /// <summary>Whoever holds an IPv6 address holds its whole /64.</summary>
    public static string NetworkOf(IPAddress? address)
    {
        if (address is null)
            return "";
        if (address.IsIPv4MappedToIPv6)
            address = address.MapToIPv4();
        return address.AddressFamily == System.Net.Sockets.AddressFamily.InterNetworkV6
            ? Convert.ToHexString(address.GetAddressBytes().AsSpan(0, 8))
            : address.ToString();
    }
}
