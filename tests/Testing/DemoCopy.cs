using NodaTime;

namespace LooseLantern.Testing;

/// <summary>A database and stand-ins of a test's own: as they are once the demo is loaded, or empty.</summary>
public sealed class DemoCopy : IAsyncDisposable
{
    private DemoCopy(TestDatabase database, StandIn standIn) => (Database, StandIn) = (database, standIn);

    /// <summary>When the demo was loaded: Monday 7 December 2026, 08:00 in Copenhagen.</summary>
    public static Instant Start => Templates.DemoStart;

    public TestDatabase Database { get; }

    public StandIn StandIn { get; }

    public static async Task<DemoCopy> WithDemoAsync()
    {
        var (database, folder) = await Templates.DemoAsync();
        return new DemoCopy(
            await TestDatabase.CopyAsync(database),
            await StandIn.StartAsync(Templates.DemoDay, from: folder)
        );
    }

    public static async Task<DemoCopy> EmptyAsync() =>
        new(await TestDatabase.CreateAsync(), await StandIn.StartAsync(demo: null));

    public async ValueTask DisposeAsync()
    {
        await StandIn.DisposeAsync();
        await Database.DisposeAsync();
    }
}
