using LooseLantern.Server.Hosting;
using SkiaSharp;

namespace LooseLantern.Server.Features.Desks;

/// <summary>
/// Makes pictures anew: decoded, cut to shape and encoded, so that neither what was hidden in a file nor more of it
/// than is shown goes out.
/// </summary>
public static class PictureDrawing
{
    private const int MostPixels = 40_000_000;
    private const int JpegQuality = 86;

    /// <param name="width">Of what is made of it, in pixels; the middle of the picture as large as fits.</param>
    /// <param name="mayBeClear">Whether there may be nothing behind it; else it is white there.</param>
    /// <param name="kindMend">The mend for a file that is no picture of a kind that is read.</param>
    /// <exception cref="Refusal">When the file is no picture that can be read, or has too many pixels.</exception>
    public static (byte[] Bytes, string Type) Anew(
        byte[] bytes,
        int width,
        int height,
        bool mayBeClear,
        string kindMend,
        bool mayBeWebp = false
    )
    {
        using var data = SKData.CreateCopy(bytes);
        using var codec = SKCodec.Create(data);
        if (
            codec is null
            || !(
                codec.EncodedFormat is SKEncodedImageFormat.Png or SKEncodedImageFormat.Jpeg
                || (mayBeWebp && codec.EncodedFormat == SKEncodedImageFormat.Webp)
            )
        )
            throw Refusal.Invalid("file", kindMend);
        if ((long)codec.Info.Width * codec.Info.Height > MostPixels)
            throw Refusal.Invalid("file", "picture-pixels");
        using var decoded = new SKBitmap(
            new SKImageInfo(codec.Info.Width, codec.Info.Height, SKColorType.Rgba8888, SKAlphaType.Premul)
        );
        // Half a picture is none: nobody would know what of it guests see.
        if (codec.GetPixels(decoded.Info, decoded.GetPixels()) != SKCodecResult.Success)
            throw Refusal.Invalid("file", "picture-broken");
        using var upright = Upright(decoded, codec.EncodedOrigin);

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
            canvas.Clear(mayBeClear ? SKColors.Transparent : SKColors.White);
            canvas.DrawImage(
                image,
                source,
                SKRect.Create(width, height),
                new SKSamplingOptions(SKCubicResampler.Mitchell)
            );
        }

        var format = mayBeClear ? SKEncodedImageFormat.Png : SKEncodedImageFormat.Jpeg;
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
