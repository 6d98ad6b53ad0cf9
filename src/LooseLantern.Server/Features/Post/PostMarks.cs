namespace LooseLantern.Server.Features.Post;

/// <summary>Marks that stand for a booking's secrets in what is kept of a message, so that whoever reads the post, or the database, opens no link by it.</summary>
public static class PostMarks
{
    /// <summary>The secret of the guest's private link.</summary>
    public const string Link = "[[private-link]]";

    /// <summary>The address that answers come to.</summary>
    public const string Reply = "private-reply@loose-lantern.invalid";

    private const string Masked = "••••••";

    public static string PutIn(string text, string linkSecret, string replyAddress) =>
        text.Replace(Link, linkSecret, StringComparison.Ordinal).Replace(Reply, replyAddress, StringComparison.Ordinal);

    public static string Mask(string text) => text.Replace(Link, Masked, StringComparison.Ordinal).Replace(Reply, Masked, StringComparison.Ordinal);

    /// <summary>What somebody typed can't be taken for a mark.</summary>
    public static string Harmless(string typed) => typed.Replace("[[", "[ [", StringComparison.Ordinal).Replace(Reply, "", StringComparison.OrdinalIgnoreCase);
}
