using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Hosting;
using LooseLantern.Server.Tenancy;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using SkiaSharp;

namespace LooseLantern.Server.Features.Desks;

/// <summary>
/// Pictures that guests see. None is passed on as it came: each is decoded, cut to shape and encoded anew, so that
/// neither what was hidden in it nor more of it than is shown goes out.
/// </summary>
public sealed class Pictures(LanternDb db, Tenant tenant, IClock clock)
{
    public const string Choose = "picture";

    private const int MostPixels = 40_000_000;
    private const int JpegQuality = 86;

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

    private static (byte[] Bytes, string Type) MadeAnew(byte[] bytes, PictureKind kind)
    {
        using var data = SKData.CreateCopy(bytes);
        using var codec = SKCodec.Create(data);
        if (codec is null || codec.EncodedFormat is not (SKEncodedImageFormat.Png or SKEncodedImageFormat.Jpeg))
            throw Refusal.Invalid("file", "picture-kind");
        if ((long)codec.Info.Width * codec.Info.Height > MostPixels)
            throw Refusal.Invalid("file", "picture-pixels");
        using var decoded = new SKBitmap(
            new SKImageInfo(codec.Info.Width, codec.Info.Height, SKColorType.Rgba8888, SKAlphaType.Premul)
        );
        // Half a picture is none: nobody would know what of it guests see.
        if (codec.GetPixels(decoded.Info, decoded.GetPixels()) != SKCodecResult.Success)
            throw Refusal.Invalid("file", "picture-broken");
        using var upright = Upright(decoded, codec.EncodedOrigin);

        var (width, height) = kind == PictureKind.Logo ? (256, 256) : (1600, 600);
        using var cut = new SKBitmap(width, height);
        using (var canvas = new SKCanvas(cut))
        {
            // The middle of it, as large as fits the shape.
            var scale = Math.Max((float)width / upright.Width, (float)height / upright.Height);
            var (shownWidth, shownHeight) = (width / scale, height / scale);
            var source = SKRect.Create(
                (upright.Width - shownWidth) / 2,
                (upright.Height - shownHeight) / 2,
                shownWidth,
                shownHeight
            );
            using var image = SKImage.FromBitmap(upright);
            canvas.Clear(kind == PictureKind.Logo ? SKColors.Transparent : SKColors.White);
            canvas.DrawImage(
                image,
                source,
                SKRect.Create(width, height),
                new SKSamplingOptions(SKCubicResampler.Mitchell)
            );
        }

        // A logo may have nothing behind it; a banner is a photograph, and white where it is none.
        var format = kind == PictureKind.Logo ? SKEncodedImageFormat.Png : SKEncodedImageFormat.Jpeg;
        using var encoded = cut.Encode(format, JpegQuality);
        return (encoded.ToArray(), format == SKEncodedImageFormat.Png ? "image/png" : "image/jpeg");
    }

    /// <summary>Cameras tell in the file which side is up; that is lost with all else it tells.</summary>
    private static SKBitmap Upright(SKBitmap picture, SKEncodedOrigin origin)
    {
        var degrees = origin switch
        {
            SKEncodedOrigin.BottomRight => 180,
            SKEncodedOrigin.RightTop => 90,
            SKEncodedOrigin.LeftBottom => 270,
            _ => 0,
        };
        if (degrees == 0)
            return picture.Copy();
        var turned =
            degrees == 180 ? new SKBitmap(picture.Width, picture.Height) : new SKBitmap(picture.Height, picture.Width);
        using var canvas = new SKCanvas(turned);
        canvas.Translate(turned.Width / 2f, turned.Height / 2f);
        canvas.RotateDegrees(degrees);
        canvas.Translate(-picture.Width / 2f, -picture.Height / 2f);
        canvas.DrawBitmap(picture, 0, 0, new SKSamplingOptions(SKFilterMode.Nearest));
        return turned;
    }
}
