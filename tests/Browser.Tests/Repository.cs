namespace Browser.Tests;

internal static class Repository
{
    /// <summary>The folder of the checkout these tests were built from.</summary>
    public static string Root { get; } = Find();

    private static string Find()
    {
        for (var folder = new DirectoryInfo(AppContext.BaseDirectory); folder is not null; folder = folder.Parent)
        {
            if (File.Exists(Path.Combine(folder.FullName, "LooseLantern.slnx"))) return folder.FullName;
        }

        throw new InvalidOperationException("The checkout's folder was not found.");
    }
}
