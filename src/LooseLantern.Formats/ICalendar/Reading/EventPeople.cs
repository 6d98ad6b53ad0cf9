namespace LooseLantern.Formats.ICalendar.Reading;

/// <summary>Somebody who takes part in an event.</summary>
/// <param name="Name">What the event calls them; empty where it does not.</param>
public sealed record EventPerson(string Name, string Email);

/// <summary>The people of an event: its ORGANIZER and ATTENDEEs (RFC 5545 sections 3.8.4.3 and 3.8.4.1).</summary>
internal static class EventPeople
{
    private const string MailTo = "mailto:";

    /// <summary>Everybody with a mail address, once, in the order of the file; rooms and things are nobody.</summary>
    public static IReadOnlyList<EventPerson> Of(Component component)
    {
        if (!component.Has("ATTENDEE") && !component.Has("ORGANIZER"))
            return [];
        var lines = component.All("ORGANIZER").Concat(component.All("ATTENDEE")).Where(line => !IsThing(line)).ToList();
        return
        [
            .. lines
                .Select(Read)
                .OfType<EventPerson>()
                .DistinctBy(person => person.Email, StringComparer.OrdinalIgnoreCase),
        ];
    }

    private static bool IsThing(ContentLine line) =>
        line.Parameters.GetValueOrDefault("CUTYPE")?.ToUpperInvariant() is "ROOM" or "RESOURCE" or "GROUP";

    private static EventPerson? Read(ContentLine line)
    {
        var address = line.Value.Trim();
        // The address may be of another kind; the mail address then stands beside it (RFC 7986 section 6.2).
        var email =
            line.Parameters.GetValueOrDefault("EMAIL")?.Trim() is { Length: > 0 } beside ? beside
            : address.StartsWith(MailTo, StringComparison.OrdinalIgnoreCase)
                ? Uri.UnescapeDataString(address[MailTo.Length..]).Trim()
            : "";
        return email.Length == 0 ? null : new EventPerson(line.Parameters.GetValueOrDefault("CN")?.Trim() ?? "", email);
    }
}
