using System.Text.RegularExpressions;

namespace LooseLantern.Server.Features.Post;

/// <summary>What is put in the place of inserts when a message goes out.</summary>
/// <param name="Link">The secret of the guest's private link.</param>
/// <param name="Reply">The address that answers come to.</param>
/// <param name="Own">The secret of this message's own.</param>
/// <param name="RoomLink">Of the video room; words where there is none yet, empty where there will be none.</param>
public sealed record InsertValues(string Link, string Reply, string Own, string RoomLink, string RoomCode)
{
    private const string Masked = "••••••";

    /// <summary>For everybody but the reader: secrets are masked.</summary>
    public InsertValues Hidden() => this with { Link = Masked, Reply = Masked, Own = Masked };
}

/// <summary>
/// Inserts that stand for secrets in what is kept of a message, so that whoever reads the post, or the database, opens
/// no link by it.
/// </summary>
public static partial class PostInserts
{
    /// <summary>The secret of the guest's private link.</summary>
    public const string Link = "[[private-link]]";

    /// <summary>A secret of the message's own, such as that of a link to a new password.</summary>
    public const string Own = "[[own-secret]]";

    /// <summary>The video room's link, with its code on a line of its own.</summary>
    public const string Room = "[[room]]";

    /// <summary>The video room's link.</summary>
    public const string RoomLink = "[[room-link]]";

    /// <summary>The address that answers come to.</summary>
    public const string Reply = "private-reply@loose-lantern.invalid";

    /// <summary>The room's link to press, as it stands in HTML.</summary>
    public const string RoomToPress = $"<a href=\"{RoomLink}\">{Room}</a>";

    public static string PutIn(string text, InsertValues values) =>
        // Words in the place of a link are nothing to press. All are found before any is put in: what is put in may
        // look like one.
        Any()
            .Replace(
                Uri.IsWellFormedUriString(values.RoomLink, UriKind.Absolute)
                    ? text
                    : text.Replace(RoomToPress, Room, StringComparison.Ordinal),
                found =>
                    found.Value switch
                    {
                        Link => values.Link,
                        Reply => values.Reply,
                        Own => values.Own,
                        RoomLink => values.RoomLink,
                        _ => values.RoomCode.Length == 0 ? values.RoomLink : $"{values.RoomLink} ({values.RoomCode})",
                    }
            );

    /// <summary>What somebody typed can't be taken for a mark.</summary>
    public static string Harmless(string typed) =>
        typed.Replace("[[", "[ [", StringComparison.Ordinal).Replace(Reply, "", StringComparison.OrdinalIgnoreCase);

    /// <summary>For who reads what is kept: nothing leads anywhere.</summary>
    public static string Masked(string text) => Any().Replace(text, "••••••");

    [GeneratedRegex(@"\[\[(?:private-link|own-secret|room|room-link)\]\]|private-reply@loose-lantern\.invalid")]
    private static partial Regex Any();
}
