using LooseLantern.Server.Features.Calendars.Joining;
using Microsoft.AspNetCore.Http.Features;

namespace LooseLantern.Server.Hosting;

/// <summary>A form with one file.</summary>
public sealed record Upload(string FileName, byte[] Bytes, IFormCollection Form)
{
    public string? Field(string name) => Form.TryGetValue(name, out var value) ? value.ToString() : null;

    /// <exception cref="Refusal">When there is no file or it is too large.</exception>
    public static async Task<Upload> ReadAsync(
        HttpRequest request,
        CancellationToken ct,
        string mend = "calendar-file",
        int mostBytes = CalendarJoining.MostBytes
    )
    {
        if (!request.HasFormContentType)
            throw Refusal.ContentType("multipart/form-data");
        if (mostBytes > CalendarJoining.MostBytes)
        {
            var options = new FormOptions { MultipartBodyLengthLimit = mostBytes + (64 * 1024) };
            request.HttpContext.Features.Set<IFormFeature>(new FormFeature(request, options));
        }

        var form = await FormAsync(request, mostBytes, ct);
        if (form.Files.GetFile("file") is not { } file)
            throw Refusal.Invalid("file", mend);
        if (file.Length > mostBytes)
            throw TooLarge(mostBytes);

        using var bytes = new MemoryStream((int)file.Length);
        await file.CopyToAsync(bytes, ct);
        return new Upload(file.FileName, bytes.ToArray(), form);
    }

    private static async Task<IFormCollection> FormAsync(HttpRequest request, int mostBytes, CancellationToken ct)
    {
        try
        {
            return await request.ReadFormAsync(ct);
        }
        catch (Exception e)
            when (e
                    is InvalidDataException
                        or BadHttpRequestException { StatusCode: StatusCodes.Status413PayloadTooLarge }
            )
        {
            // What is larger than any form may be is not read to its end.
            throw TooLarge(mostBytes);
        }
        catch (Exception e) when (e is IOException or BadHttpRequestException)
        {
            throw CutShort();
        }
    }

    private static Refusal CutShort() => new(StatusCodes.Status400BadRequest, "cut-short");

    private static Refusal TooLarge(int mostBytes) =>
        Refusal.Invalid("file", Phrase.Of("file-over", ("megabytes", mostBytes / 1024 / 1024)));
}
