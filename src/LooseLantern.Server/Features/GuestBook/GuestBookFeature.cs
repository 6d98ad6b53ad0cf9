using LooseLantern.Server.Features.GuestBook.Erasing;
using LooseLantern.Server.Features.GuestBook.Importing;
using LooseLantern.Server.Hosting;

namespace LooseLantern.Server.Features.GuestBook;

/// <summary>What the book of guests needs.</summary>
public static class GuestBookFeature
{
    public static IServiceCollection AddGuestBook(this IServiceCollection services)
    {
        services
            .AddScoped<GuestFinding>()
            .AddScoped<GuestLists>()
            .AddScoped<GuestDetails>()
            .AddScoped<GuestHistory>()
            .AddScoped<GuestEditing>()
            .AddScoped<GuestNotes>()
            .AddScoped<GuestMerging>()
            .AddScoped<GuestFieldEditing>()
            .AddScoped<GuestSavedViews>()
            .AddScoped<GuestExport>()
            .AddScoped<GuestData>()
            .AddScoped<GuestImporting>()
            .AddScoped<ImportPlanning>()
            .AddScoped<ImportWriting>()
            .AddScoped<ImportUndoing>()
            .AddScoped<GuestErasing>()
            .AddScoped<ErasedRows>()
            .AddScoped<ErasureList>()
            .AddScoped<RetentionLooking>()
            .AddScoped<RetentionEditing>()
            .AddScoped<RetentionRunning>()
            .AddSingleton(provider => new ErasureFile(provider.GetRequiredService<IConfiguration>()["Erasures:File"]));
        return DesignTime.IsBuilding ? services : services.AddHostedService<RetentionWatch>();
    }
}
