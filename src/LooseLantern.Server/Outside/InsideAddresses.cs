using System.Net;

namespace LooseLantern.Server.Outside;

/// <summary>
/// Which addresses are inside the network that the server stands in, so that nobody reads through it what is not open
/// to all. The operator may list some that are asked nevertheless: the setting Outside:Inside, separated by commas,
/// such as "127.0.0.1:5232, 10.4.0.0/16".
/// </summary>
public sealed class InsideAddresses
{
    // Special-purpose addresses that are not reachable from the whole internet (RFC 6890 and what followed).
    private static readonly IPNetwork[] Inside =
    [
        .. new[]
        {
            "0.0.0.0/8",
            "10.0.0.0/8",
            "100.64.0.0/10",
            "127.0.0.0/8",
            "169.254.0.0/16",
            "172.16.0.0/12",
            "192.0.0.0/24",
            "192.0.2.0/24",
            "192.168.0.0/16",
            "198.18.0.0/15",
            "198.51.100.0/24",
            "203.0.113.0/24",
            "224.0.0.0/4",
            "240.0.0.0/4",
            // None, this machine, and IPv4 addresses as they were once written.
            "::/96",
            "64:ff9b::/96",
            "64:ff9b:1::/48",
            "100::/64",
            "2001::/32",
            "2001:db8::/32",
            "2002::/16",
            "fc00::/7",
            "fe80::/10",
            "fec0::/10",
            "ff00::/8",
        }.Select(IPNetwork.Parse),
    ];

    private readonly List<(IPNetwork Network, int? Port)> _listed = [];

    /// <exception cref="FormatException">When the operator's list can't be read.</exception>
    public InsideAddresses(IConfiguration configuration)
    {
        foreach (
            var entry in (configuration["Outside:Inside"] ?? "").Split(
                ',',
                StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries
            )
        )
            _listed.Add(Read(entry));
    }

    /// <summary>
    /// Whether a connection may be made; to none that is an IPv4 address in the form of IPv6, which no name leads to.
    /// </summary>
    public bool MayConnect(IPAddress address, int port) =>
        (!address.IsIPv4MappedToIPv6 && !Inside.Any(network => network.Contains(address))) || IsListed(address, port);

    public bool IsListed(IPAddress address, int port)
    {
        var plain = address.IsIPv4MappedToIPv6 ? address.MapToIPv4() : address;
        return _listed.Exists(listed => listed.Network.Contains(plain) && (listed.Port is null || listed.Port == port));
    }

    private static (IPNetwork, int?) Read(string entry)
    {
        if (IPNetwork.TryParse(entry, out var network))
            return (network, null);
        if (IPAddress.TryParse(entry, out var address))
            return (new IPNetwork(address, address.GetAddressBytes().Length * 8), null);
        if (IPEndPoint.TryParse(entry, out var point))
            return (new IPNetwork(point.Address, point.Address.GetAddressBytes().Length * 8), point.Port);
        throw new FormatException(
            $"Outside:Inside has \"{entry}\"; write an address, an address with a port, or a network such as 10.4.0.0/16."
        );
    }
}
