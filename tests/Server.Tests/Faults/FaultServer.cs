using System.Diagnostics;

namespace Server.Tests.Faults;

/// <summary>The program as a process of its own, which can be killed.</summary>
internal sealed class FaultServer(int port, IReadOnlyDictionary<string, string> settings) : IDisposable
{
    private static readonly HttpClient Asking = new() { Timeout = TimeSpan.FromSeconds(5) };

    private Process? _process;

    public int Port => port;

    public void Start()
    {
        var start = new ProcessStartInfo("dotnet", [Path.Combine(AppContext.BaseDirectory, "LooseLantern.Server.dll")])
        {
            WorkingDirectory = Path.Combine(Checkout.Root, "src/LooseLantern.Server"),
            RedirectStandardOutput = true,
            RedirectStandardError = true,
        };
        start.ArgumentList.Add("--urls");
        start.ArgumentList.Add($"http://127.0.0.1:{port}");
        foreach (var (name, value) in settings)
        {
            start.ArgumentList.Add("--" + name);
            start.ArgumentList.Add(value);
        }

        _process = Process.Start(start)!;
        // What it says of a database that is away is no news here; unread, it would fill the pipe.
        _process.OutputDataReceived += (_, _) => { };
        _process.ErrorDataReceived += (_, _) => { };
        _process.BeginOutputReadLine();
        _process.BeginErrorReadLine();
    }

    public async Task ReadyAsync()
    {
        using var patience = new CancellationTokenSource(TimeSpan.FromMinutes(2));
        while (true)
        {
            try
            {
                if (
                    (await Asking.GetAsync($"http://127.0.0.1:{port}/health/ready", patience.Token)).IsSuccessStatusCode
                )
                    return;
            }
            catch (Exception e)
                when (e is HttpRequestException or TaskCanceledException && !patience.IsCancellationRequested)
            {
                // Not yet.
            }

            await Task.Delay(100, patience.Token);
        }
    }

    /// <summary>SIGKILL: it says goodbye to nobody.</summary>
    public void Kill()
    {
        _process?.Kill(entireProcessTree: true);
        _process?.WaitForExit();
        _process?.Dispose();
        _process = null;
    }

    public void Dispose() => Kill();
}
