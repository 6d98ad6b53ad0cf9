using Microsoft.AspNetCore.Hosting;
using Microsoft.AspNetCore.Mvc.Testing;
using Microsoft.AspNetCore.TestHost;
using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.DependencyInjection.Extensions;
using NodaTime;

namespace LooseLantern.Testing;

/// <summary>The program itself, with its services as they are, over a database of its own and a clock that the test holds.</summary>
public sealed class LanternApp(string connectionString, IClock clock, bool demo = false) : WebApplicationFactory<Program>
{
    protected override void ConfigureWebHost(IWebHostBuilder builder)
    {
        builder.UseSetting("ConnectionStrings:Lantern", connectionString);
        builder.UseSetting("Demo", demo ? "true" : "false");
        if (Environment.GetEnvironmentVariable("LANTERN_WEB") is { } web) builder.UseWebRoot(web);
        builder.ConfigureTestServices(services => services.Replace(ServiceDescriptor.Singleton(clock)));
    }
}
