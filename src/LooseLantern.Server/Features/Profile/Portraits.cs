using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Desks;
using LooseLantern.Server.Hosting;
using LooseLantern.Server.Tenancy;
using Microsoft.EntityFrameworkCore;

namespace LooseLantern.Server.Features.Profile;

/// <summary>Pictures of people, made anew like all pictures: a camera tells in them where they were taken.</summary>
public sealed class Portraits(LanternDb db, Tenant tenant)
{
    public const int MostBytes = 512 * 1024;

    /// <summary>Of each side, in pixels: four times what the largest is shown at.</summary>
    private const int Size = 256;

    /// <exception cref="Refusal">When the file is no picture of a known kind, or too large.</exception>
    public async Task SetAsync(Guid personId, Upload upload, CancellationToken ct)
    {
        if (upload.Bytes.Length > MostBytes)
            throw Refusal.Invalid("file", "portrait-too-large");
        var (bytes, type) = PictureDrawing.Anew(
            upload.Bytes,
            Size,
            Size,
            mayBeClear: true,
            "portrait-kind",
            mayBeWebp: true
        );
        var row = await db.Portraits.FirstOrDefaultAsync(portrait => portrait.PersonId == personId, ct);
        if (row is null)
            db.Portraits.Add(
                new Portrait
                {
                    PersonId = personId,
                    WorkspaceId = tenant.WorkspaceId!.Value,
                    MediaType = type,
                    Bytes = bytes,
                }
            );
        else
            (row.MediaType, row.Bytes) = (type, bytes);
        await db.SaveChangesAsync(ct);
    }
}
