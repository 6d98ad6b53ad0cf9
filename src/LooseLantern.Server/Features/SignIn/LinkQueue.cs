using System.Threading.Channels;
using LooseLantern.Server.Hosting;

namespace LooseLantern.Server.Features.SignIn;

/// <summary>
/// Works off requests for links by mail (a new password, a new workspace) after they were answered: nobody learns from
/// how long an answer took whether anybody has an address. What is lost with a program that ends is asked for again.
/// </summary>
public sealed partial class LinkQueue(IServiceScopeFactory scopes, ILogger<LinkQueue> logger) : BackgroundService
{
    private const int Most = 500;

    private readonly Channel<Func<IServiceProvider, CancellationToken, Task>> _asked = Channel.CreateBounded<
        Func<IServiceProvider, CancellationToken, Task>
    >(new BoundedChannelOptions(Most) { SingleReader = true });

    /// <param name="send">With the services of a request of its own.</param>
    /// <exception cref="Refusal">503 where so many wait that one more would wait too long.</exception>
    public void Ask(Func<IServiceProvider, CancellationToken, Task> send)
    {
        if (!_asked.Writer.TryWrite(send))
            throw new Refusal(StatusCodes.Status503ServiceUnavailable, "too-many")
            {
                RetryAfter = TimeSpan.FromSeconds(30),
            };
    }

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        await foreach (var send in _asked.Reader.ReadAllAsync(stoppingToken))
        {
            try
            {
                await using var scope = scopes.CreateAsyncScope();
                await send(scope.ServiceProvider, stoppingToken);
            }
            catch (Exception e) when (!stoppingToken.IsCancellationRequested)
            {
                LogFailed(logger, e);
            }
        }
    }

    [LoggerMessage(Level = LogLevel.Error, Message = "A link that was asked for by mail could not be sent")]
    private static partial void LogFailed(ILogger logger, Exception fault);
}
