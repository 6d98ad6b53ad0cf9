using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Hosting;
using LooseLantern.Server.Tenancy;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Desks;

/// <summary>
/// Pictures that guests see. None is passed on as it came: each is decoded, cut to shape and encoded anew, so that
/// neither what was hidden in it nor more of it than is shown goes out.
/// </summary>
public sealed class Pictures(LanternDb db, Tenant tenant, IClock clock)
{
    public const string Choose = "picture";

    /// <exception cref="Refusal">When the file is no picture that can be read, or too large.</exception>
    public async Task SetAsync(Guid ownerId, PictureKind kind, Upload upload, CancellationToken ct)
    {
        var (bytes, type) = MadeAnew(upload.Bytes, kind);
        // In one statement, so that two at once are no fault and the later one stays.
        await db.Database.ExecuteSqlAsync(
            $"""
            INSERT INTO pictures (owner_id, kind, workspace_id, bytes, media_type, set_at) VALUES ({ownerId}, {kind.ToString()}, {tenant.WorkspaceId!.Value}, {bytes}, {type}, {clock.GetCurrentInstant()})
            ON CONFLICT (owner_id, kind) DO UPDATE SET bytes = excluded.bytes, media_type = excluded.media_type, set_at = excluded.set_at
            """,
            ct
        );
    }

    public Task RemoveAsync(Guid ownerId, PictureKind kind, CancellationToken ct) =>
        db.Pictures.Where(picture => picture.OwnerId == ownerId && picture.Kind == kind).ExecuteDeleteAsync(ct);

    /// <summary>
    /// Where the pictures of a desk or a page are, from the root of the site; null where there is none.
    /// </summary>
    public async Task<(string? Logo, string? Banner)> PathsAsync(Guid ownerId, string under, CancellationToken ct)
    {
        var known = await db
            .Pictures.Where(picture => picture.OwnerId == ownerId)
            .Select(picture => new { picture.Kind, picture.SetAt })
            .ToListAsync(ct);
        string? Path(PictureKind kind) =>
            known.Find(picture => picture.Kind == kind) is { } found
                ? $"{under}/pictures/{(kind == PictureKind.Logo ? "logo" : "banner")}?v={found.SetAt.ToUnixTimeMilliseconds()}"
                : null;
        return (Path(PictureKind.Logo), Path(PictureKind.Banner));
    }

    public Task<Picture?> FindAsync(Guid ownerId, PictureKind kind, CancellationToken ct) =>
        db
            .Pictures.AsNoTracking()
            .FirstOrDefaultAsync(picture => picture.OwnerId == ownerId && picture.Kind == kind, ct);

    /// <summary>"logo" or "banner", as paths have them.</summary>
    /// <exception cref="Refusal">404 for anything else.</exception>
    public static PictureKind KindOf(string kind) =>
        kind switch
        {
            "logo" => PictureKind.Logo,
            "banner" => PictureKind.Banner,
            _ => throw Refusal.NotFound("picture"),
        };

    private static (byte[] Bytes, string Type) MadeAnew(byte[] bytes, PictureKind kind) =>
        kind == PictureKind.Logo
            ? PictureDrawing.Anew(bytes, 256, 256, mayBeClear: true, "picture-kind")
            : PictureDrawing.Anew(bytes, 1600, 600, mayBeClear: false, "picture-kind");
}
