namespace LooseLantern.Server.Data.Model;

/// <summary>What guests of a page are sent.</summary>
public enum GuestMail
{
    /// <summary>Mail with an invitation that calendars can take up.</summary>
    Invitation,

    /// <summary>Mail alone.</summary>
    Plain,

    /// <summary>Nothing; the private link says all.</summary>
    None,
}

/// <summary>Words of a page's own in place of ours, as templates with tokens of the booking.</summary>
public sealed record OwnWords(string Subject, string Body);

/// <summary>An address that goes along in mail to guests.</summary>
public sealed record PostLink(string Title, string Address);

/// <summary>What a page sends, and in which words.</summary>
/// <param name="Reminders">Minutes before the start, each once.</param>
/// <param name="Booked">Null for our own words, in the guest's language; so too those that follow.</param>
/// <param name="EventTitle">The title of the appointment in guests' calendars, a template; empty for the usual
/// one.</param>
/// <param name="EventText">The text of the appointment in guests' calendars, a template; empty for the usual
/// one.</param>
/// <param name="HostWords">What only hosts read; may be empty.</param>
public sealed record PagePost(
    GuestMail ToGuests,
    IReadOnlyList<int> Reminders,
    OwnWords? Booked,
    OwnWords? Moved,
    OwnWords? Cancelled,
    OwnWords? Reminder,
    string EventTitle,
    string EventText,
    string HostWords,
    IReadOnlyList<PostLink> Links
)
{
    /// <summary>Whether mails and calendars of guests bear the page's description.</summary>
    public bool SaysDescription { get; init; } = true;

    /// <summary>Whether they bear how to get there.</summary>
    public bool SaysDirections { get; init; } = true;

    /// <summary>Whether they bear the words that are read once it is booked.</summary>
    public bool SaysAfterwards { get; init; } = true;

    public static readonly PagePost Usual = new(
        GuestMail.Invitation,
        [24 * 60, 60],
        null,
        null,
        null,
        null,
        "",
        "",
        "",
        []
    );
}

/// <summary>A file that goes along in a page's mail to guests.</summary>
public sealed class PageFile : Tenancy.IBelongsToWorkspace
{
    public Guid Id { get; init; } = Guid.CreateVersion7();

    public required Guid WorkspaceId { get; init; }

    public required Guid PageId { get; init; }

    public required string Name { get; init; }

    public required string MediaType { get; init; }

    public required byte[] Bytes { get; init; }
}
