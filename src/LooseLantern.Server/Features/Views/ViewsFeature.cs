namespace LooseLantern.Server.Features.Views;

/// <summary>What saved views of lists need.</summary>
public static class ViewsFeature
{
    public static IServiceCollection AddSavedViews(this IServiceCollection services) =>
        services.AddScoped<SavedViews>();
}
