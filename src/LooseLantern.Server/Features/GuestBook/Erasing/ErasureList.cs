using System.Security.Cryptography;
using System.Text;
using System.Text.Json;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Hosting;
using LooseLantern.Server.Tenancy;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.GuestBook.Erasing;

/// <summary>Where the list of erasures is kept outside the database.</summary>
/// <param name="Path">A file that outlives the database; null to keep none.</param>
public sealed record ErasureFile(string? Path);

/// <summary>A line of the file.</summary>
/// <param name="Emails">SHA-256 of the workspace and each email.</param>
public sealed record ErasureLine(Guid Id, Guid Workspace, Guid Guest, IReadOnlyList<byte[]> Emails, Instant At);

/// <summary>
/// The list of who was erased, by hash: in the database, and in a file beside it, one JSON object a line. A database
/// that is restored from before knows them again; what the file has and the database has not is done anew at the start.
/// </summary>
public sealed class ErasureList(LanternDb db, Tenant tenant, ErasureFile file)
{
    /// <summary>Notes guests who are about to be erased; saved with what the caller saves next.</summary>
    public async Task AddAsync(Guid[] guests, Instant now, CancellationToken ct)
    {
        var emails = await db
            .GuestEmails.AsNoTracking()
            .Where(row => guests.Contains(row.GuestId))
            .Select(row => new { row.GuestId, row.Key })
            .ToListAsync(ct);
        foreach (var guest in guests)
        {
            db.GuestErasures.Add(
                new GuestErasure
                {
                    WorkspaceId = tenant.WorkspaceId!.Value,
                    GuestId = guest,
                    EmailHashes =
                    [
                        .. emails
                            .Where(row => row.GuestId == guest)
                            .Select(row => HashOf(tenant.WorkspaceId.Value, row.Key)),
                    ],
                    At = now,
                }
            );
        }
    }

    public static byte[] HashOf(Guid workspace, string key) =>
        SHA256.HashData(Encoding.UTF8.GetBytes($"{workspace:D} {key}"));

    /// <summary>Adds what is not in the file yet; the file may be shared by several servers.</summary>
    public async Task WriteOutAsync(CancellationToken ct)
    {
        if (file.Path is null)
            return;
        var known = (await ReadAsync(ct)).Select(line => line.Id).ToHashSet();
        var rows = await db.GuestErasures.AsNoTracking().IgnoreQueryFilters().OrderBy(row => row.At).ToListAsync(ct);
        var lines = rows.Where(row => !known.Contains(row.Id))
            .Select(row => new ErasureLine(row.Id, row.WorkspaceId, row.GuestId, row.EmailHashes, row.At))
            .Select(line => JsonSerializer.Serialize(line, Json.Options))
            .ToList();
        if (lines.Count == 0)
            return;
        if (Path.GetDirectoryName(Path.GetFullPath(file.Path)) is { } folder)
            Directory.CreateDirectory(folder);
        await File.AppendAllLinesAsync(file.Path, lines, ct);
    }

    /// <summary>What the file has and the database has not.</summary>
    public async Task<IReadOnlyList<ErasureLine>> LackingAsync(CancellationToken ct)
    {
        var known = await db.GuestErasures.AsNoTracking().IgnoreQueryFilters().Select(row => row.Id).ToHashSetAsync(ct);
        return [.. (await ReadAsync(ct)).Where(line => !known.Contains(line.Id)).DistinctBy(line => line.Id)];
    }

    /// <summary>
    /// Of the workspace at hand, who an erasure was of: by the id, and by the emails as long as they were known before
    /// it. Who became a guest only afterwards is another one.
    /// </summary>
    public async Task<IReadOnlyList<Guid>> FoundAsync(ErasureLine line, CancellationToken ct)
    {
        var trip = new RoundTrip(db);
        var found = trip.Ask(
            $"""
            SELECT g.id FROM guests g WHERE g.workspace_id = {line.Workspace} AND g.id = {line.Guest}
            UNION
            SELECT g.id FROM guest_emails e JOIN guests g ON g.id = e.guest_id
            WHERE e.workspace_id = {line.Workspace} AND g.made_at <= {line.At}
                AND sha256(convert_to(e.workspace_id::text || ' ' || e.key, 'UTF8')) = ANY({line.Emails.ToArray()})
            """,
            row => row.GetGuid(0)
        );
        await trip.RunAsync(ct);
        return found.Rows;
    }

    private async Task<IReadOnlyList<ErasureLine>> ReadAsync(CancellationToken ct) =>
        file.Path is null || !File.Exists(file.Path)
            ? []
            : [.. (await File.ReadAllLinesAsync(file.Path, ct)).Select(LineOf).OfType<ErasureLine>()];

    /// <summary>
    /// Null for what is no line: one that a server broke off in is written again from the database that has it.
    /// </summary>
    private static ErasureLine? LineOf(string line)
    {
        try
        {
            return line.Length == 0 ? null : JsonSerializer.Deserialize<ErasureLine>(line, Json.Options);
        }
        catch (JsonException)
        {
            return null;
        }
    }
}
