using LooseLantern.Server.Hosting;

namespace LooseLantern.Server.Features.Video;

/// <summary>What video rooms needs, and what it does beside requests.</summary>
public static class VideoFeature
{
    public static IServiceCollection AddVideo(this IServiceCollection services)
    {
        services.AddHttpClient<IVideoRooms, HttpVideoRooms>(client => client.Timeout = TimeSpan.FromSeconds(15));
        services.AddScoped<RoomWishes>().AddScoped<RoomMaking>();
        // What only describes the program serves nobody.
        return DesignTime.IsBuilding ? services : services.AddHostedService<RoomWorker>();
    }
}
