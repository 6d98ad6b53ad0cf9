using System.Globalization;
using LooseLantern.Core;
using LooseLantern.Core.Openings;
using LooseLantern.Core.TimeText;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Bookings;
using LooseLantern.Server.Features.Guests;
using LooseLantern.Server.Features.Pages;
using LooseLantern.Server.Features.Reserving;
using LooseLantern.Server.Hosting;
using NodaTime;

namespace LooseLantern.Server.Features.Post;

/// <summary>Who reads a message: the language, clock and zone that it is written in.</summary>
public sealed record Reader(string Name, string Email, string Language, Clock Clock, string Zone)
{
    /// <summary>Whether it is the guest, or somebody who comes along with them.</summary>
    public bool IsGuest { get; init; }

    /// <summary>Whether it is somebody who comes along with the guest.</summary>
    public bool IsCompanion { get; init; }

    /// <summary>Whether the reader has a sign-in, and so can open what the team sees.</summary>
    public bool SignsIn { get; init; }

    public static Reader Of(Person person) =>
        new(
            person.Name,
            person.Email!,
            person.Language,
            person.Clock == ClockForm.H12 ? Clock.Hours12 : Clock.Hours24,
            person.Zone
        )
        {
            SignsIn = true,
        };

    /// <summary>
    /// Whoever reads the mails of a booking: the guest, who booked it for them, or both. Nobody where there is no
    /// address, and of a time among ourselves.
    /// </summary>
    public static IReadOnlyList<Reader> AllOf(Booking booking)
    {
        var isForAnother = booking.BookerEmail.Length > 0;
        var all = new List<Reader>();
        if (booking.GuestEmail.Length > 0 && (!isForAnother || booking.MailTo != MailGoesTo.Booker))
            all.Add(Of(booking));
        if (isForAnother && booking.MailTo != MailGoesTo.Guest)
            all.Add(Of(booking) with { Name = booking.BookerName, Email = booking.BookerEmail });
        return all;
    }

    /// <summary>As the guest reads it.</summary>
    public static Reader Of(Booking booking) =>
        new(
            booking.GuestName,
            booking.GuestEmail,
            booking.GuestLanguage,
            booking.GuestClock switch
            {
                ClockForm.H12 => Clock.Hours12,
                ClockForm.H24 => Clock.Hours24,
                _ => Clock.Usual,
            },
            booking.GuestZone
        )
        {
            IsGuest = true,
        };
}

/// <summary>What is known of a booking, as words for a reader, by the names that templates have for them.</summary>
public sealed class PostWords(PublicAddress site, IClock clock)
{
    /// <summary>Names that own words of a page may use, each with what it stands for.</summary>
    public static readonly IReadOnlyDictionary<string, string> Tokens = new Dictionary<string, string>
    {
        ["first_name"] = "the guest’s first name",
        ["guest"] = "the guest’s name",
        ["guest_email"] = "the guest’s email",
        ["companions"] = "who comes along with the guest",
        ["company"] = "the guest’s company, as their mail address tells it",
        ["hosts"] = "the hosts’ names",
        ["page"] = "the page’s title",
        ["workspace"] = "your workspace’s name",
        ["desk"] = "the desk’s name",
        ["day"] = "the day, on the reader’s clock",
        ["time"] = "the time, on the reader’s clock",
        ["zones"] = "the zone that they are in",
        ["was"] = "when it was before it was moved",
        ["place"] = "the place, or who calls whom",
        ["description"] = "the page’s description",
        ["directions"] = "how to get there",
        ["afterwards"] = "the words that are read once it is booked",
        ["room"] = "the link of the video room",
        ["word"] = "the word that came with a cancellation",
        ["link"] = "the guest’s private link",
        ["page_link"] = "the page’s address",
        ["links"] = "the links that go along",
        ["answers"] = "what the guest answered, a line each",
        ["party"] = "how many come; empty where it is one",
        ["for_line"] = "whom it is booked for, where somebody else booked it",
        ["booker"] = "who booked it for the guest; empty where the guest did",
        ["booker_email"] = "the email of who booked it for the guest",
        ["booked_by"] = "who of your team booked it; empty where the guest did",
        ["can_move"] = "“yes” where the guest may move it",
        ["can_cancel"] = "“yes” where the guest may cancel it",
        ["contact"] = "whom to write to for a change",
    };

    /// <summary>Those of them whose words come from guests.</summary>
    public static readonly IReadOnlyList<string> ByGuests =
    [
        "first_name",
        "guest",
        "guest_email",
        "companions",
        "company",
        "place",
        "word",
        "answers",
        "for_line",
        "booker",
        "booker_email",
    ];

    public Dictionary<string, string> Of(AboutBooking about, Telling telling, Reader reader)
    {
        var (booking, page) = (about.Booking, about.Page);
        var (clocks, beside) = Clocks(reader, booking, page);
        var (day, time, zones) = InWords(about.Time, clocks, beside);
        // Of several guests the team reads everybody's names, and no one guest's particulars.
        var areAll = telling.AllGuests.Count > 1 && !reader.IsGuest;
        return new Dictionary<string, string>
        {
            ["page"] = page.Title,
            ["workspace"] = about.Workspace,
            ["desk"] = page.Desk!.Name,
            ["place"] = reader.IsGuest
                ? reader.IsCompanion
                    ? PlaceWords.ForCompanion(page, reader.Language)
                    : PlaceWords.ForGuest(page, booking, reader.Language)
                : PlaceWords.ForTeam(page, [booking], reader.Language),
            ["booked_by"] = about.BookedBy is { } bookedBy ? PostInserts.Harmless(bookedBy.Name) : "",
            ["can_move"] = ChangesByGuests.MoveUntil(page.Changes, about.Time.Start) is null ? "" : "yes",
            ["can_cancel"] = ChangesByGuests.CancelUntil(page.Changes, about.Time.Start) is null ? "" : "yes",
            ["contact"] = page.Changes.AskWhom.Trim() is { Length: > 0 } whom
                ? PostInserts.Harmless(whom)
                : $"{about.HostNames} ({PostInserts.Reply})",
            ["description"] = PostInserts.Harmless(Markdown.ToText(page.Description)),
            ["directions"] = PostInserts.Harmless(Markdown.ToText(page.Details.Place.Directions)),
            ["afterwards"] = PostInserts.Harmless(Markdown.ToText(page.Details.After.Words)),
            ["says_description"] = page.Post.SaysDescription ? "yes" : "",
            ["says_directions"] =
                page.Post.SaysDirections && page.Details.Place.Directions.Trim().Length > 0 ? "yes" : "",
            ["says_afterwards"] = page.Post.SaysAfterwards ? "yes" : "",
            ["guest"] = PostInserts.Harmless(areAll ? string.Join(", ", telling.AllGuests) : booking.GuestName),
            ["guest_email"] = areAll ? "" : booking.GuestEmail,
            // Who is greeted is who reads it.
            ["first_name"] = PostInserts.Harmless(
                (reader is { IsGuest: true, IsCompanion: false } ? reader.Name : booking.GuestName).Split(' ')[0]
            ),
            ["party"] = booking.Party > 1 && !areAll ? booking.Party.ToString(CultureInfo.InvariantCulture) : "",
            ["booker"] = areAll ? "" : PostInserts.Harmless(booking.BookerName),
            ["booker_email"] = booking.BookerEmail,
            ["for_line"] =
                booking.BookerName.Length == 0
                    ? ""
                    : ScreenPhrases.Say(
                        reader.Language,
                        "form.for-name",
                        ("name", PostInserts.Harmless(booking.GuestName))
                    ),
            ["hosts"] = about.HostNames,
            ["company"] = CompanyOf(booking.GuestEmail),
            ["reader"] = PostInserts.Harmless(reader.Name),
            ["companions"] = PostInserts.Harmless(
                string.Join(
                    ", ",
                    booking.Companions.Select(one => one.Name.Length == 0 ? one.Email : $"{one.Name} ({one.Email})")
                )
            ),
            ["day"] = day,
            ["time"] = time,
            ["zones"] = zones,
            ["both_clocks"] =
                beside.Length > 0 && !IsSameClock(Zone(clocks.Zone), Zone(beside), about.Time) ? "yes" : "",
            ["was"] = telling.Was is { } was ? DayAndTime(was, clocks, beside) : "",
            ["link"] = Link(PrivateLinks.Path(PostInserts.Link)),
            ["page_link"] = Link(PageView.PathOf(page)),
            ["booking_link"] = reader.SignsIn ? Link($"/work/bookings/{booking.Id:D}") : "",
            ["answer_link"] = Link($"/answer/{PostInserts.Own}"),
            ["room"] = about.HasRoom ? PostInserts.Room : "",
            ["host_words"] = page.Post.HostWords,
            ["links"] = string.Join('\n', page.Post.Links.Select(link => $"{link.Title}\n{link.Address}")),
            ["word"] = PostInserts.Harmless(
                telling.Reply?.Text ?? (telling.Word.Length > 0 ? telling.Word : booking.CancelWord)
            ),
            ["by"] = booking.CancelledBy?.ToString() ?? "",
            ["deadline"] = booking.WaitsUntil is { } until ? Deadline(until, clocks) : "",
            ["offered"] = string.Join('\n', telling.Offered.Select(span => DayAndTime(span, clocks, beside))),
            ["answers"] = areAll
                ? ""
                : PostInserts.Harmless(string.Join('\n', booking.Answers.Select(answer => answer.Line))),
            ["writer"] = PostInserts.Harmless(
                telling.Reply is not { } reply
                || reply.FromEmail.Equals(booking.GuestEmail, StringComparison.OrdinalIgnoreCase)
                    ? booking.GuestName
                : reply.FromName.Length == 0 ? reply.FromEmail
                : reply.FromName
            ),
            ["reply"] = telling.Reply?.Meaning.ToString() ?? "",
            ["wish"] = telling.Reply is { WishStart: { } from, WishEnd: { } to }
                ? DayAndTime(new Span(from, to), clocks, beside)
                : "",
        };
    }

    public string Link(string path) => site.Value + path;

    /// <summary>An instant as a day and a time of day.</summary>
    public string Deadline(Instant until, Reader reader) =>
        DayAndTime(new Span(until, until + Duration.FromMinutes(1)), reader).Split('–')[0].Trim();

    /// <summary>A time as a day and times of day.</summary>
    /// <param name="beside">IANA id of another zone that it is told in as well, where clocks differ then; or
    /// empty.</param>
    public string Said(Span span, Reader reader, string beside = "") => DayAndTime(span, reader, beside);

    /// <summary>
    /// By whose clocks a time is told: by the reader's own, and beside it by that of the place for guests and by the
    /// guest's for the team. Where people meet in person the clock at the place comes first for guests, too.
    /// </summary>
    private static (Reader First, string Beside) Clocks(Reader reader, Booking booking, Page page) =>
        !reader.IsGuest ? (reader, booking.GuestZone)
        : page.PlaceKind == PlaceKind.InPerson ? (reader with { Zone = page.Zone }, reader.Zone)
        : (reader, page.Zone);

    private string DayAndTime(Span span, Reader reader, string beside = "")
    {
        var (day, time, _) = InWords(span, reader, beside);
        return $"{day}, {time}";
    }

    private (string Day, string Time, string Zones) InWords(Span span, Reader reader, string beside = "")
    {
        var zone = DateTimeZoneProviders.Tzdb[reader.Zone];
        var other = beside.Length == 0 ? zone : DateTimeZoneProviders.Tzdb[beside];
        var text = TimeTextWriter.Write(
            [new Opening(span.Start, span.End, 1)],
            new TimeTextRequest(
                CultureOf(reader.Language),
                reader.Clock,
                zone,
                IsSameClock(zone, other, span) ? null : other,
                MergeTouching: false,
                clock.GetCurrentInstant().InZone(zone).Date
            )
        );
        return (text.Days[0].Heading, text.Days[0].Times[0].Text, text.Zones);
    }

    private static DateTimeZone Zone(string id) => DateTimeZoneProviders.Tzdb[id];

    private static bool IsSameClock(DateTimeZone one, DateTimeZone other, Span span) =>
        one.GetUtcOffset(span.Start) == other.GetUtcOffset(span.Start)
        && one.GetUtcOffset(span.End) == other.GetUtcOffset(span.End);

    /// <summary>"holloway-finch.example" of an address there: what is known of a guest's company.</summary>
    private static string CompanyOf(string email) => email[(email.LastIndexOf('@') + 1)..];

    /// <summary>English is written as in Britain: the day before the month.</summary>
    private static CultureInfo CultureOf(string language) =>
        CultureInfo.GetCultureInfo(language == "en" ? "en-GB" : language);
}
