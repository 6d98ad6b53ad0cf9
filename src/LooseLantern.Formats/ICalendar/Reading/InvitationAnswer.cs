using Ical.Net;
using Ical.Net.CalendarComponents;
using Ical.Net.DataTypes;
using LooseLantern.Core;
using NodaTime;

namespace LooseLantern.Formats.ICalendar.Reading;

/// <summary>
/// What an invited person answers (PARTSTAT of RFC 5545 section 3.2.12, and COUNTER of RFC 5546 section 3.2.7).
/// </summary>
public enum AnswerKind
{
    Accepted,
    Tentative,
    Declined,

    /// <summary>Another time would suit better.</summary>
    Counter,
}

/// <summary>An answer to an invitation.</summary>
/// <param name="Attendee">The mail address of who answers.</param>
/// <param name="Wish">The time asked for, of a counter.</param>
/// <param name="Comment">Words that came along; may be empty.</param>
public sealed record InvitationAnswer(
    AnswerKind Kind,
    string Uid,
    int Sequence,
    string Attendee,
    Span? Wish,
    string Comment
)
{
    /// <summary>When it was given (DTSTAMP); null where it does not say.</summary>
    public Instant? Stamp { get; init; }
}

/// <summary>Reads answers to invitations as they come by mail (iMIP, RFC 6047).</summary>
public static class AnswerFile
{
    public const int MostCharacters = 256 * 1024;

    /// <exception cref="AnswerException">Says in words why it can't be taken for an answer.</exception>
    public static InvitationAnswer Read(string text)
    {
        if (text.Length > MostCharacters)
            throw new AnswerException("Its calendar part is too large to be an answer.");
        var calendar = Load(text);
        var method = calendar.Method?.ToUpperInvariant();
        if (method is not ("REPLY" or "COUNTER"))
            throw new AnswerException(
                $"Its calendar part is no answer but {(string.IsNullOrEmpty(method) ? "an event without a METHOD" : method)}."
            );
        if (calendar.Events is not [{ } answered])
            throw new AnswerException("Its calendar part has not one event but several, or none.");
        if (string.IsNullOrEmpty(answered.Uid))
            throw new AnswerException("Its calendar part does not say which event it answers.");
        if (answered.Attendees is not [{ } attendee])
            throw new AnswerException("Its calendar part does not say who answers.");
        var isCounter = method == "COUNTER";
        return new InvitationAnswer(
            isCounter ? AnswerKind.Counter : KindOf(attendee),
            answered.Uid,
            answered.Sequence,
            AddressOf(attendee),
            isCounter ? WishOf(answered) : null,
            string.Join('\n', answered.Comments ?? []).Trim()
        )
        {
            Stamp = StampOf(answered),
        };
    }

    private static Instant? StampOf(CalendarEvent answered)
    {
        try
        {
            return answered.DtStamp is { HasTime: true } stamp ? Instant.FromDateTimeUtc(stamp.AsUtc) : null;
        }
        catch (Exception e) when (e is not OutOfMemoryException)
        {
            // The library throws whatever it stumbles on; an answer without a stamp is one all the same.
            return null;
        }
    }

    private static Calendar Load(string text)
    {
        try
        {
            return CalendarCollection.Load(text) is [{ } calendar]
                ? calendar
                : throw new AnswerException("Its calendar part can’t be read.");
        }
        // The reader throws whatever it stumbles on.
        catch (Exception e) when (e is not AnswerException)
        {
            throw new AnswerException("Its calendar part can’t be read.");
        }
    }

    private static AnswerKind KindOf(Attendee attendee) =>
        attendee.ParticipationStatus?.ToUpperInvariant() switch
        {
            "ACCEPTED" => AnswerKind.Accepted,
            "TENTATIVE" => AnswerKind.Tentative,
            "DECLINED" => AnswerKind.Declined,
            _ => throw new AnswerException(
                $"Its calendar part neither accepts nor declines ({attendee.ParticipationStatus ?? "nothing"})."
            ),
        };

    private static string AddressOf(Attendee attendee)
    {
        var value = attendee.Value?.OriginalString ?? "";
        return value.StartsWith("mailto:", StringComparison.OrdinalIgnoreCase)
            ? Uri.UnescapeDataString(value["mailto:".Length..]).Trim()
            : value;
    }

    private static Span WishOf(CalendarEvent answered)
    {
        try
        {
            if (answered.DtStart is not { HasTime: true } start)
                throw new AnswerException("It asks for another time, but for a whole day or for none.");
            var end = answered.DtEnd ?? (answered.Duration is { } length ? start.Add(length) : start);
            return new Span(Instant.FromDateTimeUtc(start.AsUtc), Instant.FromDateTimeUtc(end.AsUtc));
        }
        catch (Exception e) when (e is not AnswerException)
        {
            throw new AnswerException("It asks for another time, but in a zone that is not known here.");
        }
    }
}

/// <summary>Why something is no answer to an invitation, in words.</summary>
public sealed class AnswerException(string message) : Exception(message);
