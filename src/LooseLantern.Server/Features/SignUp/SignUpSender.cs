using LooseLantern.Server.Features.Post;
using LooseLantern.Server.Jobs;
using NodaTime;

namespace LooseLantern.Server.Features.SignUp;

/// <summary>Sends sign-up links as they are asked for, where a mail server is set.</summary>
public sealed class SignUpSender(
    PostSettings settings,
    IServiceScopeFactory scopes,
    IClock clock,
    ILogger<SignUpSender> logger
) : BackgroundService
{
    protected override Task ExecuteAsync(CancellationToken stoppingToken) =>
        settings.Host is null
            ? Task.CompletedTask
            : DueWork.RunAsync(SignUpMail.Sends, scopes, clock, logger, stoppingToken);
}
