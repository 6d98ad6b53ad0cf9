using Microsoft.Extensions.Diagnostics.HealthChecks;
using Npgsql;

namespace LooseLantern.Server.Hosting;

/// <summary>Ready means that the database answers.</summary>
public sealed class DatabaseHealth(NpgsqlDataSource database) : IHealthCheck
{
    public async Task<HealthCheckResult> CheckHealthAsync(
        HealthCheckContext context,
        CancellationToken cancellationToken = default
    )
    {
        try
        {
            await using var command = database.CreateCommand("SELECT 1");
            await command.ExecuteScalarAsync(cancellationToken);
            return HealthCheckResult.Healthy();
        }
        catch (NpgsqlException e)
        {
            return HealthCheckResult.Unhealthy("The database does not answer.", e);
        }
    }
}
