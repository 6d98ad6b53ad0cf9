namespace LooseLantern.Bench.Requests;

/// <summary>The built front end with a blank page beside it, for as long as it is measured.</summary>
internal sealed class WebRoot : IDisposable
{
    private readonly DirectoryInfo _copy = Directory.CreateTempSubdirectory("lantern-web");

    private WebRoot() { }

    public static WebRoot Copy()
    {
        var root = new WebRoot();
        if (Environment.GetEnvironmentVariable("LANTERN_WEB") is not { Length: > 0 } built)
            return root;
        foreach (var file in Directory.EnumerateFiles(built, "*", SearchOption.AllDirectories))
        {
            var to = Path.Combine(root._copy.FullName, Path.GetRelativePath(built, file));
            Directory.CreateDirectory(Path.GetDirectoryName(to)!);
            File.Copy(file, to);
        }

        File.WriteAllText(
            Path.Combine(root._copy.FullName, "blank.html"),
            "<!doctype html><html lang=en><title>Blank</title><body></body></html>"
        );
        Environment.SetEnvironmentVariable("LANTERN_WEB", root._copy.FullName);
        return root;
    }

    public void Dispose() => _copy.Delete(recursive: true);
}
