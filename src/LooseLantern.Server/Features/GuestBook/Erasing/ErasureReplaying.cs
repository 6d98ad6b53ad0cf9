using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Tenancy;
using Microsoft.EntityFrameworkCore;

namespace LooseLantern.Server.Features.GuestBook.Erasing;

/// <summary>
/// Erases again, at the start of a server, who was erased since the backup that its database was restored from; and
/// writes out what the file does not have yet.
/// </summary>
public static partial class ErasureReplaying
{
    /// <returns>How many guests were erased again.</returns>
    public static async Task<int> RunAsync(IServiceProvider services, CancellationToken ct)
    {
        IReadOnlyList<ErasureLine> lacking;
        await using (var scope = services.CreateAsyncScope())
        {
            var list = scope.ServiceProvider.GetRequiredService<ErasureList>();
            await list.WriteOutAsync(ct);
            lacking = await list.LackingAsync(ct);
        }

        var again = 0;
        foreach (var line in lacking)
        {
            await using var scope = services.CreateAsyncScope();
            scope.ServiceProvider.GetRequiredService<Tenant>().Enter(line.Workspace);
            var db = scope.ServiceProvider.GetRequiredService<LanternDb>();
            // The file may be of several databases.
            if (!await db.Workspaces.AnyAsync(ct))
                continue;
            var found = await scope.ServiceProvider.GetRequiredService<ErasureList>().FoundAsync(line, ct);
            if (found.Count > 0)
                await scope.ServiceProvider.GetRequiredService<GuestErasing>().EraseAsync(found, isAsked: false, ct);
            db.GuestErasures.Add(
                new GuestErasure
                {
                    Id = line.Id,
                    WorkspaceId = line.Workspace,
                    GuestId = line.Guest,
                    EmailHashes = [.. line.Emails],
                    At = line.At,
                }
            );
            await db.SaveChangesAsync(ct);
            again += found.Count;
        }

        if (again > 0)
            Erased(services.GetRequiredService<ILoggerFactory>().CreateLogger("Erasures"), again);
        return again;
    }

    [LoggerMessage(
        Level = LogLevel.Information,
        Message = "{Count} guests who had been erased were in the database again, as it was restored; they are erased anew."
    )]
    private static partial void Erased(ILogger logger, int count);
}
