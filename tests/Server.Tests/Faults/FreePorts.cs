using System.Net.Sockets;

namespace Server.Tests.Faults;

internal static class FreePorts
{
    public static int One()
    {
        using var listener = new TcpListener(IPAddress.Loopback, 0);
        listener.Start();
        return ((IPEndPoint)listener.LocalEndpoint).Port;
    }
}
