using System.Collections.Concurrent;
using Microsoft.EntityFrameworkCore;

[assembly: AssemblyFixture(typeof(Server.Tests.OwnWorlds))]

namespace Server.Tests;

/// <summary>
/// Worlds of which a test has one to itself, with a mail server beside it: it may move the clock, and count all that
/// is there. To make one takes longer than many a test, so one that a test has done with is emptied and goes on to
/// the next.
/// </summary>
public sealed class OwnWorlds : IAsyncDisposable
{
    private static readonly ConcurrentBag<OwnWorld> Idle = [];

    internal static async Task<OwnWorld> TakeAsync() => Idle.TryTake(out var idle) ? idle : await OwnWorld.StartAsync();

    internal static async Task GiveBackAsync(OwnWorld world)
    {
        await world.EmptyAsync();
        Idle.Add(world);
    }

    public async ValueTask DisposeAsync()
    {
        foreach (var world in Idle)
            await world.EndAsync();
    }
}

/// <summary>A world that is one test's at a time.</summary>
internal sealed class OwnWorld(World world, StandIn standIn) : IAsyncDisposable
{
    /// <param name="mailPort">Where mail goes instead of to the mail server.</param>
    public static async Task<OwnWorld> StartAsync(int? mailPort = null, MailLimits? limits = null)
    {
        var standIn = await StandIn.StartAsync(null);
        standIn.MailPort = mailPort ?? standIn.MailPort;
        var world = new World(standIn, limits);
        await world.InitializeAsync();
        return new OwnWorld(world, standIn);
    }

    public World World => world;

    public StandIn StandIn => standIn;

    public async ValueTask DisposeAsync() => await OwnWorlds.GiveBackAsync(this);

    /// <summary>Everything goes that a test made, also what is on its way at this moment.</summary>
    public async Task EmptyAsync()
    {
        await Outside.AwaitAsync(
            () =>
                world.LookAsync(async db =>
                {
                    await db.Messages.IgnoreQueryFilters().Where(row => row.SendingUntil == null).ExecuteDeleteAsync();
                    await db.SignUpLinks.Where(row => row.SendingUntil == null).ExecuteDeleteAsync();
                    return !await db.Messages.IgnoreQueryFilters().AnyAsync() && !await db.SignUpLinks.AnyAsync();
                }),
            "what is being sent to be sent"
        );
        await world.LookAsync(db => db.Workspaces.IgnoreQueryFilters().ExecuteDeleteAsync());
        standIn.EmptyMail();
        File.Delete(world.Erasures);
        world.Clock.Reset(World.Now);
    }

    public async Task EndAsync()
    {
        await world.DisposeAsync();
        await standIn.DisposeAsync();
    }
}
