namespace LooseLantern.Testing;

/// <summary>The folder of the checkout these tests were built from.</summary>
public static class Checkout
{
    public static string Root { get; } = Find();

    private static string Find()
    {
        var folder = new DirectoryInfo(AppContext.BaseDirectory);
        while (folder is not null && !File.Exists(Path.Combine(folder.FullName, "LooseLantern.slnx")))
            folder = folder.Parent;
        return folder?.FullName ?? throw new InvalidOperationException("The checkout's folder was not found.");
    }
}
