namespace LooseLantern.Server.Features.Record;

/// <summary>What the record of what was done needs.</summary>
public static class RecordFeature
{
    public static IServiceCollection AddRecord(this IServiceCollection services) =>
        services.AddScoped<RecordKeeping>().AddScoped<RecordLists>();
}
