using LooseLantern.Server.Hosting;

namespace LooseLantern.Server.Features.Reserving;

/// <summary>What reserving, moving, holding and freeing hosts’ time needs, and what it does beside requests.</summary>
public static class ReservingFeature
{
    public static IServiceCollection AddReserving(this IServiceCollection services)
    {
        services
            .AddScoped<HandingOver>()
            .AddScoped<WhyNotFree>()
            .AddScoped<SessionMoving>()
            .AddScoped<HostChanging>()
            .AddScoped<GoneTimes>()
            .AddSingleton<PageQueue>()
            .AddScoped<WishedPages>()
            .AddScoped<SessionFinding>()
            .AddScoped<BookingWriting>()
            .AddScoped<TimeReserving>()
            .AddScoped<TimeLocks>()
            .AddScoped<LinkTaking>()
            .AddScoped<Holding>()
            .AddScoped<Cancelling>()
            .AddScoped<BookingMoving>()
            .AddScoped<BringingAlong>()
            .AddScoped<AnswerChanging>()
            .AddScoped<Answering>();
        // What only describes the program serves nobody.
        return DesignTime.IsBuilding
            ? services
            : services.AddHostedService<LapseWorker>().AddHostedService<HoldWorker>();
    }
}
