using LooseLantern.Server.Data.Model;

namespace LooseLantern.Server.Features.Post;

/// <summary>
/// What guests read: in words of the page's own where it has some, else in ours and in their language.
/// </summary>
public static class GuestMails
{
    // The usual text of an appointment: with whom, where, and what the page says of it.
    private const string Text =
        "{{ hosts }}\n{{ room }}\n{{ links }}\n\n"
        + "{% if says_description != \"\" %}{{ description }}{% endif %}\n\n"
        + "{% if says_directions != \"\" %}{{ directions }}{% endif %}\n\n"
        + "{% if says_afterwards != \"\" %}{{ afterwards }}{% endif %}";

    public static Letter Write(
        PagePost post,
        MessageKind kind,
        string language,
        IReadOnlyDictionary<string, string> words
    )
    {
        var own = kind switch
        {
            MessageKind.BookedForGuest => post.Booked,
            MessageKind.MovedForGuest => post.Moved,
            MessageKind.CancelledForGuest => post.Cancelled,
            MessageKind.ReminderForGuest => post.Reminder,
            _ => null,
        };
        if (own is null)
            return PostTemplates.Write(kind, language, words);
        var letter = PostTemplates.Write(own, words);
        // Whatever a page says, its guests can get back to their booking.
        return kind == MessageKind.CancelledForGuest || letter.Text.Contains(words["link"], StringComparison.Ordinal)
            ? letter
            : PostTemplates.Write(own with { Body = own.Body + "\n\n{{ link }}" }, words);
    }

    /// <summary>
    /// The appointment as it stands in guests' calendars: its title, and its text, which bears the private link.
    /// </summary>
    public static Letter Appointment(AboutBooking about, IReadOnlyDictionary<string, string> words)
    {
        var post = about.Page.Post;
        var title = post.EventTitle.Length == 0 ? "{{ page }}, {{ workspace }}" : post.EventTitle;
        var text = post.EventText.Length == 0 ? Text : post.EventText;
        var letter = PostTemplates.Write(new OwnWords(title, text), words);
        return letter.Text.Contains(words["link"], StringComparison.Ordinal)
            ? letter
            : letter with
            {
                Text = $"{letter.Text}\n{words["link"]}",
            };
    }
}
