using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Guests;
using LooseLantern.Server.Features.Post;
using LooseLantern.Server.Hosting;

namespace LooseLantern.Server.Features.Bookings;

/// <summary>
/// Where an appointment is, in words that can stand alone: in mail, and as LOCATION of calendars (RFC 5545 section
/// 3.8.1.7). Empty only where a page in person, or in own words, names no place.
/// </summary>
public static class PlaceWords
{
    /// <summary>For the guest, in their language.</summary>
    /// <param name="booking">Theirs; null before there is one.</param>
    public static string ForGuest(Page page, Booking? booking, string language)
    {
        string Say(string key, params (string, string)[] values) => ScreenPhrases.Say(language, key, values);
        return page.PlaceKind switch
        {
            PlaceKind.Phone when page.Details.Place.HostsRing => With(
                NumberOf(booking) is { } number ? Say("place.we-ring-on", ("number", number)) : Say("place.we-ring"),
                page.Place
            ),
            PlaceKind.Phone => page.Place.Length == 0
                ? Say("place.phone")
                : Say("place.ring-us", ("place", page.Place)),
            PlaceKind.Video => OfVideo(page, language),
            _ => page.Place,
        };
    }

    /// <summary>
    /// For somebody whom a guest brings along: nobody rings them, and the guest's number is the guest's.
    /// </summary>
    public static string ForCompanion(Page page, string language) =>
        page.PlaceKind == PlaceKind.Phone && page.Details.Place.HostsRing
            ? With(ScreenPhrases.Say(language, "place.phone"), page.Place)
            : ForGuest(page, null, language);

    /// <summary>For the team: whom to ring, and on which number.</summary>
    /// <param name="guests">Of the session, in order.</param>
    public static string ForTeam(Page page, IReadOnlyList<Booking> guests, string language) =>
        page.PlaceKind switch
        {
            PlaceKind.Phone when page.Details.Place.HostsRing => With(
                guests.Count == 1 && NumberOf(guests[0]) is { } number
                    ? ScreenPhrases.Say(
                        language,
                        "place.ring-guest",
                        ("name", PostInserts.Harmless(guests[0].GuestName)),
                        ("number", number)
                    )
                    : ScreenPhrases.Say(language, "place.phone"),
                page.Place
            ),
            PlaceKind.Phone => With(ScreenPhrases.Say(language, "place.phone"), page.Place),
            PlaceKind.Video => OfVideo(page, language),
            _ => page.Place,
        };

    /// <summary>A room of its own is named beside it, once it is made.</summary>
    private static string OfVideo(Page page, string language) =>
        page.Place.Length == 0
            ? ScreenPhrases.Say(language, "place.video")
            : ScreenPhrases.Say(language, "place.video-at", ("place", page.Place));

    private static string With(string words, string place) => place.Length == 0 ? words : $"{words}. {place}";

    private static string? NumberOf(Booking? booking) =>
        booking?.Answers.FirstOrDefault(answer => answer.Key == GuestQuestions.Number) is { Text.Length: > 0 } answer
            ? PostInserts.Harmless(answer.Text)
            : null;
}
