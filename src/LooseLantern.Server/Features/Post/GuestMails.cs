using LooseLantern.Server.Data.Model;

namespace LooseLantern.Server.Features.Post;

/// <summary>
/// What guests read: in words of the page's own where it has some, else in ours and in their language.
/// </summary>
public static class GuestMails
{
    // The usual text of an appointment: both clocks where they differ, with whom, where, and what the page says of it.
    private const string Text =
        "{% if both_clocks != \"\" %}{{ day }}, {{ time }}{% endif %}\n{% if for_line != \"\" %}{{ for_line }}\n{% endif %}{{ hosts }}\n{{ room }}\n{{ links }}\n\n"
        + "{% if says_description != \"\" %}{{ description }}{% endif %}\n\n"
        + "{% if says_directions != \"\" %}{{ directions }}{% endif %}\n\n"
        + "{% if says_afterwards != \"\" %}{{ afterwards }}{% endif %}";

    /// <param name="letter">What is written instead; null for what the page says.</param>
    public static WrittenMail Write(
        PagePost post,
        MessageKind kind,
        string language,
        IReadOnlyDictionary<string, string> words,
        OwnWords? letter = null
    )
    {
        var own = letter
            ?? kind switch
            {
                MessageKind.BookedForGuest => post.Booked,
                MessageKind.MovedForGuest => post.Moved,
                MessageKind.CancelledForGuest => post.Cancelled,
                MessageKind.ReminderForGuest => post.Reminder,
                _ => null,
            };
        if (own is not { } written)
            return PostTemplates.Write(kind, language, words);
        try
        {
            return InOwnWords(kind, written, language, words);
        }
        catch (Exception e) when (PostTemplates.IsOfTemplate(e))
        {
            // They were tried when they were saved; what fails all the same keeps nobody from their mail.
            return PostTemplates.Write(kind, language, words) with { OwnWordsFault = e.Message };
        }
    }

    private static WrittenMail InOwnWords(
        MessageKind kind,
        OwnWords written,
        string language,
        IReadOnlyDictionary<string, string> words
    )
    {
        // One of the two may be ours still.
        if (written.Subject.Length == 0 || written.Body.Length == 0)
        {
            var ours = PostTemplates.Write(kind, language, words);
            if (written.Body.Length == 0)
                return ours with { Subject = PostTemplates.Write(written, words).Subject };
            return WithLink(kind, written, words) with { Subject = ours.Subject };
        }

        return WithLink(kind, written, words);
    }

    private static WrittenMail WithLink(MessageKind kind, OwnWords own, IReadOnlyDictionary<string, string> words)
    {
        var mail = PostTemplates.Write(own, words);
        // Whatever a page says, its guests can get back to their booking.
        return
            kind is MessageKind.CancelledForGuest or MessageKind.DeclinedForGuest
            || mail.Text.Contains(words["link"], StringComparison.Ordinal)
            ? mail
            : PostTemplates.Write(own with { Body = own.Body + "\n\n{{ link }}" }, words);
    }

    /// <summary>
    /// The appointment as it stands in guests' calendars: its title, and its text, which bears the private link.
    /// </summary>
    public static WrittenMail Appointment(AboutBooking about, IReadOnlyDictionary<string, string> words)
    {
        var post = about.Page.Post;
        var title = post.EventTitle.Length == 0 ? "{{ page }}, {{ workspace }}" : post.EventTitle;
        var text = post.EventText.Length == 0 ? Text : post.EventText;
        WrittenMail mail;
        try
        {
            mail = PostTemplates.WriteTitled(new OwnWords(title, text), words);
        }
        catch (Exception e) when (PostTemplates.IsOfTemplate(e))
        {
            mail = PostTemplates.WriteTitled(new OwnWords("{{ page }}, {{ workspace }}", Text), words) with
            {
                OwnWordsFault = e.Message,
            };
        }

        return mail.Text.Contains(words["link"], StringComparison.Ordinal)
            ? mail
            : mail with
            {
                Text = $"{mail.Text}\n{words["link"]}",
            };
    }
}
