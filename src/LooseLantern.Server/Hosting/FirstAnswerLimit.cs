using System.Threading.RateLimiting;

namespace LooseLantern.Server.Hosting;

/// <summary>
/// How many first answers one network address gets: as many as it may ask of what is open to everybody.
/// </summary>
public sealed class FirstAnswerLimit(IConfiguration configuration) : IDisposable
{
    private readonly PartitionedRateLimiter<HttpContext> _limiter = PartitionedRateLimiter.Create<HttpContext, string>(
        context =>
            RateLimits.OfMinute(
                RateLimits.NetworkOf(context.Connection.RemoteIpAddress),
                RateLimits.ReadsOf(configuration)
            )
    );

    public RateLimitLease Ask(HttpContext context) => _limiter.AttemptAcquire(context);

    public void Dispose() => _limiter.Dispose();
}
