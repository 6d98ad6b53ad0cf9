namespace LooseLantern.Formats.Cases;

/// <summary>One thing that is wrong with a case file.</summary>
/// <param name="Path">Where, as a JSON path from the root, such as page.lineup[0].anyOf[1]; empty for the file
/// itself.</param>
public sealed record CaseFault(string Path, string Fault);
