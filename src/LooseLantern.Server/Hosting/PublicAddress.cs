using System.Net;
using Microsoft.AspNetCore.Hosting.Server;
using Microsoft.AspNetCore.Hosting.Server.Features;

namespace LooseLantern.Server.Hosting;

/// <summary>
/// Where the site is reached from outside, for links that are sent away: as the operator set it, and nowhere else. What
/// a request calls the server (its Host header) decides nothing of it, for anybody can write one, and a link to where
/// they chose would go out by our mail. A server on this machine alone needs no setting: it is where it listens.
/// </summary>
public sealed class PublicAddress(IConfiguration configuration, IServer server)
{
    private const string Here = "http://localhost";

    /// <summary>No slash at its end.</summary>
    public string Value =>
        configuration["PublicAddress"] is { Length: > 0 } set
            ? set.TrimEnd('/')
            : Listens().FirstOrDefault()?.TrimEnd('/') ?? Here;

    /// <exception cref="InvalidOperationException">Where the server listens to others than this machine, and nobody
    /// has set by which address they know it.</exception>
    public void Require()
    {
        if (configuration["PublicAddress"] is { Length: > 0 } set)
        {
            if (!Uri.TryCreate(set, UriKind.Absolute, out var address) || address.Scheme is not ("http" or "https"))
                throw new InvalidOperationException(
                    $"PublicAddress is \"{set}\"; write where guests reach the site, such as https://book.company.example."
                );
            return;
        }

        if (Listens().FirstOrDefault(address => !IsLoopback(address)) is { } open)
            throw new InvalidOperationException(
                $"This server listens at {open}, which others reach too, and PublicAddress is not set. Set where guests reach the site, such as https://book.company.example: links in mails lead there."
            );
    }

    private ICollection<string> Listens() => server.Features.Get<IServerAddressesFeature>()?.Addresses ?? [];

    // An address such as http://*:80 is no URI, and no loopback either.
    private static bool IsLoopback(string address) =>
        Uri.TryCreate(address, UriKind.Absolute, out var uri)
        && (
            uri.Host.Equals("localhost", StringComparison.OrdinalIgnoreCase)
            || (IPAddress.TryParse(uri.Host.Trim('[', ']'), out var ip) && IPAddress.IsLoopback(ip))
        );
}
