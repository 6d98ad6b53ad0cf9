using System.Collections.Concurrent;
using System.Net.Sockets;
using System.Text;

namespace Server.Tests;

/// <summary>A name server (RFC 1035) that stands in for others', with the records that a test gives it.</summary>
public sealed class NameServer : IAsyncDisposable
{
    private const byte Text = 16;
    private const byte Service = 33;

    private readonly UdpClient _names = new(new IPEndPoint(IPAddress.Loopback, 0));
    private readonly Task _answering;

    public NameServer() => _answering = AnswerAsync();

    public string Address => _names.Client.LocalEndPoint!.ToString()!;

    /// <summary>TXT records, by name.</summary>
    public ConcurrentDictionary<string, string> Texts { get; } = new(StringComparer.OrdinalIgnoreCase);

    /// <summary>SRV records, by name.</summary>
    public ConcurrentDictionary<string, (string Host, ushort Port)> Services { get; } =
        new(StringComparer.OrdinalIgnoreCase);

    public async ValueTask DisposeAsync()
    {
        _names.Close();
        await _answering;
        _names.Dispose();
    }

    private async Task AnswerAsync()
    {
        try
        {
            while (true)
            {
                var asked = await _names.ReceiveAsync();
                await _names.SendAsync(AnswerTo(asked.Buffer), asked.RemoteEndPoint);
            }
        }
        catch (Exception e) when (e is ObjectDisposedException or SocketException)
        {
            // Closed.
        }
    }

    private byte[] AnswerTo(byte[] asked)
    {
        var (labels, end) = (new List<string>(), 12);
        while (asked[end] != 0)
        {
            labels.Add(Encoding.ASCII.GetString(asked, end + 1, asked[end]));
            end += asked[end] + 1;
        }

        var (question, type) = (asked[12..(end + 5)], asked[end + 2]);
        var data = DataOf(string.Join('.', labels), type);
        byte[] head = [.. asked[..2], 0x81, 0x80, 0, 1, 0, (byte)(data is null ? 0 : 1), 0, 0, 0, 0, .. question];
        return data is null
            ? head
            : [.. head, 0xC0, 12, 0, type, 0, 1, 0, 0, 0, 60, (byte)(data.Length >> 8), (byte)data.Length, .. data];
    }

    private byte[]? DataOf(string name, byte type)
    {
        if (type == Text && Texts.TryGetValue(name, out var text))
            return [(byte)text.Length, .. Encoding.ASCII.GetBytes(text)];
        if (type == Service && Services.TryGetValue(name, out var at))
            return
            [
                0,
                1,
                0,
                1,
                (byte)(at.Port >> 8),
                (byte)at.Port,
                .. at
                    .Host.Split('.')
                    .SelectMany(label => new[] { (byte)label.Length }.Concat(Encoding.ASCII.GetBytes(label))),
                0,
            ];
        return null;
    }
}
