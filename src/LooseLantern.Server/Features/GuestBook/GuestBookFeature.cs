using LooseLantern.Server.Features.GuestBook.Importing;

namespace LooseLantern.Server.Features.GuestBook;

/// <summary>What the book of guests needs.</summary>
public static class GuestBookFeature
{
    public static IServiceCollection AddGuestBook(this IServiceCollection services) =>
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
            .AddScoped<ImportUndoing>();
}
