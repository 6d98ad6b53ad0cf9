using Microsoft.AspNetCore.StaticFiles;
using Microsoft.Extensions.FileProviders;
using Microsoft.Net.Http.Headers;

namespace LooseLantern.Server.Hosting;

/// <summary>
/// Files of the front end as they were compressed when it was built (Brotli, RFC 7932), for browsers that take them so:
/// more than a server has the time for on every answer.
/// </summary>
public sealed class Precompressed : IContentTypeProvider
{
    private const string Ending = ".br";

    private readonly FileExtensionContentTypeProvider _types = new();

    /// <summary>Leads a request to the compressed file, where there is one and it may be sent.</summary>
    public static void Choose(HttpRequest request, IFileProvider files)
    {
        if (
            request.Path.StartsWithSegments("/_app")
            && request
                .GetTypedHeaders()
                .AcceptEncoding.Any(coding => coding is { Value.Value: "br", Quality: null or > 0 })
            && files.GetFileInfo(request.Path + Ending).Exists
        )
        {
            request.Path += Ending;
        }
    }

    public static void Tell(StaticFileResponseContext file)
    {
        if (!file.File.Name.EndsWith(Ending, StringComparison.Ordinal))
            return;
        file.Context.Response.Headers.ContentEncoding = "br";
        file.Context.Response.Headers.Append(HeaderNames.Vary, HeaderNames.AcceptEncoding);
    }

    public bool TryGetContentType(
        string subpath,
        [System.Diagnostics.CodeAnalysis.MaybeNullWhen(false)] out string contentType
    ) =>
        _types.TryGetContentType(
            subpath.EndsWith(Ending, StringComparison.Ordinal) ? subpath[..^Ending.Length] : subpath,
            out contentType
        );
}
