using LooseLantern.Server.Data;
using LooseLantern.Server.Demo;
using LooseLantern.Server.Features.GuestBook.Erasing;
using LooseLantern.Server.Hosting;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using Npgsql;

var builder = WebApplication.CreateBuilder(args);
builder.AddLantern();
var app = builder.Build();
app.UseLantern();

if (!DesignTime.IsBuilding)
{
    await using (var scope = app.Services.CreateAsyncScope())
    {
        var database = scope.ServiceProvider.GetRequiredService<LanternDb>().Database;
        if (
            (await database.GetAppliedMigrationsAsync()).Except(database.GetMigrations()).FirstOrDefault() is
            { } unknown
        )
            throw new InvalidOperationException(
                $"This database was made by another build, which had the migration {unknown}. "
                    + "Start that build, or another database: ./lantern up --fresh throws the old one away."
            );
        await database.MigrateAsync();
    }

    if (app.Configuration.GetValue<bool>("Demo"))
        await DemoFilling.FillOnceAsync(app.Services, CancellationToken.None);
    if (app.Configuration.GetValue<bool>("LargeDemo"))
        await LargeDemo.FillOnceAsync(app.Services, LargeDemoSize.Usual, CancellationToken.None);
    if (app.Services.GetRequiredService<IClock>() is StartedClock started)
        await NewestRow.GoOnFromAsync(started, app.Services.GetRequiredService<NpgsqlDataSource>());
    await ErasureReplaying.RunAsync(app.Services, CancellationToken.None);
    // What is loaded is copied from then on; nothing is served, and nothing written to calendars, by this one.
    if (app.Configuration.GetValue<bool>("DemoOnly"))
        return;
}

// Where it listens is known only once it does.
await app.StartAsync();
try
{
    app.Services.GetRequiredService<PublicAddress>().Require();
}
catch (InvalidOperationException)
{
    await app.StopAsync();
    throw;
}

await app.WaitForShutdownAsync();

/// <summary>Named so that tests can start the same program.</summary>
public partial class Program;
