using System.Net;
using System.Net.Sockets;
using System.Text;

namespace Browser.Tests;

/// <summary>Somebody else's site, of another name than ours, with one page.</summary>
internal sealed class OuterSite : IDisposable
{
    private readonly HttpListener _listener = new();
    private byte[] _page = [];

    public OuterSite()
    {
        using (var free = new TcpListener(IPAddress.Loopback, 0))
        {
            free.Start();
            Origin = $"http://localhost:{((IPEndPoint)free.LocalEndpoint).Port}";
        }

        _listener.Prefixes.Add(Origin + "/");
        _listener.Start();
        _ = AnswerAsync();
    }

    public string Origin { get; }

    public void Serve(string html) => _page = Encoding.UTF8.GetBytes(html);

    public void Dispose() => _listener.Close();

    private async Task AnswerAsync()
    {
        while (_listener.IsListening)
        {
            HttpListenerContext context;
            try
            {
                context = await _listener.GetContextAsync();
            }
            catch (Exception e) when (e is HttpListenerException or ObjectDisposedException)
            {
                return;
            }

            context.Response.ContentType = "text/html; charset=utf-8";
            await context.Response.OutputStream.WriteAsync(_page);
            context.Response.Close();
        }
    }
}
