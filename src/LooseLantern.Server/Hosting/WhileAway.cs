namespace LooseLantern.Server.Hosting;

/// <summary>
/// What a screen is sent while the database is away: it stands without what was to be asked, and says itself what it
/// hears from the API.
/// </summary>
public static class WhileAway
{
    public static async Task<T> OrAsync<T>(this Task<T> asking, T otherwise)
    {
        try
        {
            return await asking;
        }
        catch (Exception fault) when (RefusalHandler.IsAway(fault))
        {
            return otherwise;
        }
    }
}
