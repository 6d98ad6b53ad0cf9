using System.Net;
using DnsClient;
using DnsClient.Protocol;

namespace LooseLantern.Server.Outside;

/// <summary>
/// What stands in the names of domains: where their calendar servers are (SRV and TXT records, RFC 6764 sections 3 to
/// 5), and texts by which they prove something.
/// </summary>
public sealed class ServiceRecords(IConfiguration configuration)
{
    private const int MostServers = 4;

    private readonly Lazy<LookupClient?> _names = new(() =>
    {
        var options = configuration["Outside:NameServer"] is { Length: > 0 } set
            ? new LookupClientOptions(IPEndPoint.Parse(set))
            : new LookupClientOptions();
        options.Timeout = TimeSpan.FromSeconds(2);
        options.Retries = 0;
        // Whoever has just written a record does not wait until it is forgotten that there was none.
        options.UseCache = false;
        options.ThrowDnsErrors = false;
        try
        {
            return new LookupClient(options);
        }
        catch (InvalidOperationException)
        {
            // A machine without a name server has no such records either.
            return null;
        }
    });

    /// <summary>The texts of a name's TXT records; none where nobody can be asked.</summary>
    public async Task<IReadOnlyList<string>> TextsAsync(string name, CancellationToken ct)
    {
        if (_names.Value is not { } names)
            return [];
        try
        {
            return
            [
                .. (await names.QueryAsync(name, QueryType.TXT, cancellationToken: ct))
                    .Answers.OfType<TxtRecord>()
                    .Select(record => string.Concat(record.Text)),
            ];
        }
        catch (DnsResponseException)
        {
            return [];
        }
    }

    /// <summary>
    /// The first addresses to try, the preferred one first; none where the domain says nothing, or nobody can be asked.
    /// </summary>
    public async Task<IReadOnlyList<Uri>> CalendarServersAsync(string domain, CancellationToken ct)
    {
        if (_names.Value is not { } names || IPAddress.TryParse(domain, out _))
            return [];
        try
        {
            var service = $"_caldavs._tcp.{domain}";
            var servers = (await names.QueryAsync(service, QueryType.SRV, cancellationToken: ct))
                .Answers.OfType<SrvRecord>()
                .Where(record => record.Target.Value != ".")
                .OrderBy(record => record.Priority)
                .ThenByDescending(record => record.Weight)
                .Take(MostServers)
                .ToList();
            if (servers.Count == 0)
                return [];
            var path = (await names.QueryAsync(service, QueryType.TXT, cancellationToken: ct))
                .Answers.OfType<TxtRecord>()
                .SelectMany(record => record.Text)
                .Where(text => text.StartsWith("path=/", StringComparison.Ordinal))
                .Select(text => text[5..])
                .FirstOrDefault()
                ?? "/.well-known/caldav";
            return
            [
                .. servers.Select(record =>
                    new UriBuilder("https", record.Target.Value.TrimEnd('.'), record.Port, path).Uri
                ),
            ];
        }
        catch (DnsResponseException)
        {
            return [];
        }
    }
}
