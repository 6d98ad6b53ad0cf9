using LooseLantern.Server.Data;
using LooseLantern.Server.Demo;
using LooseLantern.Server.Hosting;
using Microsoft.EntityFrameworkCore;

var builder = WebApplication.CreateBuilder(args);
builder.AddLantern();
var app = builder.Build();
app.UseLantern();

if (!DesignTime.IsBuilding)
{
    await using (var scope = app.Services.CreateAsyncScope())
    {
        await scope.ServiceProvider.GetRequiredService<LanternDb>().Database.MigrateAsync();
    }

    if (app.Configuration.GetValue<bool>("Demo"))
        await DemoLoading.LoadOnceAsync(app.Services, CancellationToken.None);
}

await app.RunAsync();

/// <summary>Named so that tests can start the same program.</summary>
public partial class Program;
