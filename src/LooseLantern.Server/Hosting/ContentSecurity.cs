using System.Security.Cryptography;
using System.Text;
using System.Text.RegularExpressions;
using LooseLantern.Server.Data;
using LooseLantern.Server.Features.Desks;
using Microsoft.EntityFrameworkCore;

namespace LooseLantern.Server.Hosting;

/// <summary>
/// What screens may load and run (Content Security Policy Level 3): files of this site alone, and of scripts in the
/// page only the one that starts it, told by its hash. Desks name who may show their pages in a frame.
/// </summary>
public sealed partial class ContentSecurity(IWebHostEnvironment environment)
{
    /// <summary>For all that is no screen.</summary>
    public const string Nothing = "default-src 'none'; frame-ancestors 'none'";

    private (DateTimeOffset Of, string Scripts)? _known;

    /// <summary>The policy of the screen at a path.</summary>
    public async Task<string> OfAsync(PathString path, LanternDb db, CancellationToken ct)
    {
        var framers = await FramersAsync(path, db, ct).OrAsync([]);
        return string.Join(
            "; ",
            "default-src 'none'",
            $"script-src 'self' {ScriptHashes()}",
            "style-src 'self' 'unsafe-inline'",
            "img-src 'self' data: blob:",
            "font-src 'self' data:",
            "connect-src 'self'",
            "base-uri 'none'",
            "form-action 'self'",
            "object-src 'none'",
            $"frame-ancestors 'self' {string.Join(' ', framers)}".TrimEnd()
        );
    }

    /// <summary>Who may show a desk's pages in a frame; nobody where the path is no desk's.</summary>
    private static async Task<string[]> FramersAsync(PathString path, LanternDb db, CancellationToken ct)
    {
        var first = path.Value?.Split('/', StringSplitOptions.RemoveEmptyEntries).FirstOrDefault();
        if (!Address.IsWellFormed(first) || !Address.IsFreeForDesks(first!))
            return [];
        return await db
            .Desks.IgnoreQueryFilters()
            .Where(desk => desk.Address == first)
            .Select(desk => desk.Framers)
            .FirstOrDefaultAsync(ct)
            ?? [];
    }

    private string ScriptHashes()
    {
        var index = environment.WebRootFileProvider.GetFileInfo("index.html");
        if (!index.Exists)
            return "";
        if (_known is { } known && known.Of == index.LastModified)
            return known.Scripts;
        using var reader = new StreamReader(index.CreateReadStream());
        var hashes = string.Join(
            ' ',
            Script()
                .Matches(reader.ReadToEnd())
                .Select(match =>
                    $"'sha256-{Convert.ToBase64String(SHA256.HashData(Encoding.UTF8.GetBytes(match.Groups[1].Value)))}'"
                )
        );
        _known = (index.LastModified, hashes);
        return hashes;
    }

    [GeneratedRegex("<script>(.*?)</script>", RegexOptions.Singleline)]
    private static partial Regex Script();
}
