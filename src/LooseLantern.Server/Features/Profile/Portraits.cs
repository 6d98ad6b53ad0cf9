using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Hosting;
using LooseLantern.Server.Tenancy;
using Microsoft.EntityFrameworkCore;

namespace LooseLantern.Server.Features.Profile;

/// <summary>Pictures of people. What a file is, is told by its first bytes and not by what it calls itself.</summary>
public sealed class Portraits(LanternDb db, Tenant tenant)
{
    public const int MostBytes = 512 * 1024;

    /// <exception cref="Refusal">When the file is no picture of a known kind, or too large.</exception>
    public async Task SetAsync(Guid personId, Upload upload, CancellationToken ct)
    {
        if (upload.Bytes.Length > MostBytes)
            throw Refusal.Invalid("file", "portrait-too-large");
        if (MediaTypeOf(upload.Bytes) is not { } type)
            throw Refusal.Invalid("file", "portrait-kind");
        var row = await db.Portraits.FirstOrDefaultAsync(portrait => portrait.PersonId == personId, ct);
        if (row is null)
            db.Portraits.Add(
                new Portrait
                {
                    PersonId = personId,
                    WorkspaceId = tenant.WorkspaceId!.Value,
                    MediaType = type,
                    Bytes = upload.Bytes,
                }
            );
        else
            (row.MediaType, row.Bytes) = (type, upload.Bytes);
        await db.SaveChangesAsync(ct);
    }

    private static string? MediaTypeOf(ReadOnlySpan<byte> bytes)
    {
        if (bytes.Length > 8 && bytes[0] == 0x89 && bytes[1..4].SequenceEqual("PNG"u8))
            return "image/png";
        if (bytes.Length > 3 && bytes[0] == 0xFF && bytes[1] == 0xD8 && bytes[2] == 0xFF)
            return "image/jpeg";
        return bytes.Length > 12 && bytes.StartsWith("RIFF"u8) && bytes[8..12].SequenceEqual("WEBP"u8)
            ? "image/webp"
            : null;
    }
}
