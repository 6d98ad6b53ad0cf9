using System.Threading.Channels;
using LooseLantern.Server.Hosting;

namespace LooseLantern.Server.Features.SignIn;

/// <summary>
/// Works off requests for new passwords after they were answered: nobody learns from how long an answer took whether
/// anybody has an address. What is lost with a program that ends is asked for again.
/// </summary>
public sealed partial class ResetQueue(IServiceScopeFactory scopes, ILogger<ResetQueue> logger) : BackgroundService
{
    private const int Most = 500;

    private readonly Channel<string> _asked = Channel.CreateBounded<string>(
        new BoundedChannelOptions(Most) { SingleReader = true }
    );

    /// <exception cref="Refusal">503 where so many wait that one more would wait too long.</exception>
    public void Ask(string email)
    {
        if (!_asked.Writer.TryWrite(email))
            throw new Refusal(StatusCodes.Status503ServiceUnavailable, "too-many")
            {
                RetryAfter = TimeSpan.FromSeconds(30),
            };
    }

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        await foreach (var email in _asked.Reader.ReadAllAsync(stoppingToken))
        {
            try
            {
                await using var scope = scopes.CreateAsyncScope();
                await scope.ServiceProvider.GetRequiredService<PasswordResetting>().SendAsync(email, stoppingToken);
            }
            catch (Exception e) when (!stoppingToken.IsCancellationRequested)
            {
                LogFailed(logger, e);
            }
        }
    }

    [LoggerMessage(Level = LogLevel.Error, Message = "A new password that was asked for could not be sent")]
    private static partial void LogFailed(ILogger logger, Exception fault);
}
