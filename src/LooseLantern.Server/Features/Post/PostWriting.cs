using System.Globalization;
using LooseLantern.Core.Openings;
using LooseLantern.Core.TimeText;
using LooseLantern.Formats.ICalendar.Writing;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Bookings;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Post;

/// <summary>What messages tell of.</summary>
public enum Occasion
{
    Booked,
    Moved,
    HostChanged,
    Cancelled,
}

/// <summary>
/// Writes messages about bookings, in the transaction of what they speak of and after it was saved there: each says what is so now. They go out later
/// (<see cref="PostSender"/>).
/// </summary>
public sealed class PostWriting(LanternDb db, SiteAddress site, IClock clock)
{
    /// <summary>Tells the guests of these bookings, and the people whose time they take.</summary>
    /// <param name="newHostId">Of a host who takes over: of the hosts only they are told.</param>
    public async Task TellAsync(IReadOnlyCollection<Guid> bookingIds, Occasion occasion, CancellationToken ct, Guid? newHostId = null)
    {
        var bookings = await db.Bookings.IgnoreQueryFilters([LanternDb.Standing]).AsNoTracking().Where(booking => bookingIds.Contains(booking.Id))
            .Include(booking => booking.Session!).ThenInclude(session => session.Page!).ThenInclude(page => page.Desk)
            .Include(booking => booking.Session!).ThenInclude(session => session.Hosts).ThenInclude(host => host.Host)
            .AsSplitQuery().OrderBy(booking => booking.Id).ToListAsync(ct);
        if (bookings.Count == 0) return;
        var workspace = await db.Workspaces.Select(row => row.Name).SingleAsync(ct);
        var personIds = bookings.SelectMany(booking => booking.Session!.Hosts).Select(host => host.Host!.PersonId).OfType<Guid>().Distinct().ToList();
        var people = await db.Users.AsNoTracking().Where(person => personIds.Contains(person.Id) && person.Email != null).ToDictionaryAsync(person => person.Id, ct);
        foreach (var booking in bookings)
        {
            var about = new About(booking, booking.Session!, booking.Session!.Page!, workspace, people);
            db.Messages.Add(ToGuest(about, occasion));
            foreach (var host in about.Session.Hosts.OrderBy(host => host.Seat).Select(host => host.Host!).Where(host => newHostId is null || host.Id == newHostId))
            {
                if (host.PersonId is { } id && people.TryGetValue(id, out var person)) db.Messages.Add(ToHost(about, occasion, person));
            }
        }
    }

    private Message ToGuest(About about, Occasion occasion)
    {
        var booking = about.Booking;
        var kind = occasion switch
        {
            Occasion.Booked => MessageKind.BookedForGuest,
            Occasion.Moved => MessageKind.MovedForGuest,
            Occasion.HostChanged => MessageKind.HostChangedForGuest,
            _ => MessageKind.CancelledForGuest,
        };
        var letter = PostTemplates.Write(kind, booking.GuestLanguage, WordsOf(about, booking.GuestLanguage, Clock.Usual, booking.GuestZone));
        var method = occasion == Occasion.Cancelled ? InvitationMethod.Cancel : InvitationMethod.Request;
        return Of(about, kind, booking.GuestName, booking.GuestEmail, letter, InvitationOf(about, method), InvitationFile.MethodOf(method));
    }

    private Message ToHost(About about, Occasion occasion, Person person)
    {
        var kind = occasion switch
        {
            Occasion.Moved => MessageKind.MovedForHost,
            Occasion.Cancelled => MessageKind.CancelledForHost,
            _ => MessageKind.BookedForHost,
        };
        var clockForm = person.Clock == ClockForm.H12 ? Clock.Hours12 : Clock.Hours24;
        return Of(about, kind, person.Name, person.Email!, PostTemplates.Write(kind, person.Language, WordsOf(about, person.Language, clockForm, person.Zone)), null, null);
    }

    private Message Of(About about, MessageKind kind, string name, string address, Letter letter, string? calendar, string? method)
    {
        var (id, now) = (Guid.CreateVersion7(), clock.GetCurrentInstant());
        return new Message
        {
            Id = id, WorkspaceId = about.Booking.WorkspaceId, Kind = kind, BookingId = about.Booking.Id, ToName = name, ToAddress = address, MessageId = $"{id:N}@loose-lantern.example",
            WrittenAt = now, DueAt = now, FromName = about.Page.Desk!.Name, Subject = letter.Subject, Text = letter.Text, Html = letter.Html, Calendar = calendar, CalendarMethod = method,
        };
    }

    /// <summary>For this guest alone: on a group page no guest ever sees another.</summary>
    private string InvitationOf(About about, InvitationMethod method)
    {
        var (booking, session) = (about.Booking, about.Session);
        var hosts = session.Hosts.OrderBy(host => host.Seat).Select(host => about.PartyOf(host.Host!)).ToList();
        var lead = hosts.Find(host => host is { Kind: PartyKind.Person, Address: not null }) ?? new Party(session.Id, about.Page.Desk!.Name, null);
        // Unfolded, so that no mark in it is torn apart before something is put in its place.
        return Folding.Unfold(InvitationFile.Write(new InvitationEvent(
            method, booking.Uid, booking.Sequence, clock.GetCurrentInstant(), new Core.Span(session.Time.LowerBound, session.Time.UpperBound),
            PostMarks.Harmless($"{about.Page.Title}, {about.Workspace}"), about.Page.Place.Length == 0 ? null : PostMarks.Harmless(about.Page.Place), Link(PrivateLinks.Path(PostMarks.Link)),
            lead, PostMarks.Reply, [new Party(booking.Id, PostMarks.Harmless(booking.GuestName), booking.GuestEmail)], hosts)));
    }

    private string Link(string path) => site.Value + path;

    private Dictionary<string, string> WordsOf(About about, string language, Clock clockForm, string zoneId)
    {
        var (booking, session, page) = (about.Booking, about.Session, about.Page);
        var zone = DateTimeZoneProviders.Tzdb[zoneId];
        var time = TimeTextWriter.Write(
            [new Opening(session.Time.LowerBound, session.Time.UpperBound, 1)],
            new TimeTextRequest(CultureOf(language), clockForm, zone, null, MergeTouching: false, clock.GetCurrentInstant().InZone(zone).Date));
        return new Dictionary<string, string>
        {
            ["page"] = page.Title, ["workspace"] = about.Workspace, ["place"] = page.Place, ["guest"] = PostMarks.Harmless(booking.GuestName), ["guest_email"] = booking.GuestEmail,
            ["first_name"] = PostMarks.Harmless(booking.GuestName.Split(' ')[0]), ["hosts"] = string.Join(", ", session.Hosts.OrderBy(host => host.Seat).Select(host => host.Host!.Name)),
            ["day"] = time.Days[0].Heading, ["time"] = time.Days[0].Times[0].Text, ["zones"] = time.Zones, ["link"] = Link(PrivateLinks.Path(PostMarks.Link)),
            ["page_link"] = Link($"/{page.Desk!.Address}/{page.Address}"), ["word"] = PostMarks.Harmless(booking.CancelWord),
            ["by"] = booking.CancelledBy?.ToString() ?? "",
        };
    }

    /// <summary>English is written as in Britain: the day before the month.</summary>
    private static CultureInfo CultureOf(string language) => CultureInfo.GetCultureInfo(language == "en" ? "en-GB" : language);

    private sealed record About(Booking Booking, Session Session, Page Page, string Workspace, IReadOnlyDictionary<Guid, Person> People)
    {
        public Party PartyOf(Host host) => new(
            host.Id, host.Name, host.PersonId is { } id && People.TryGetValue(id, out var person) ? person.Email : null,
            host.Kind switch { HostKind.Room => PartyKind.Room, HostKind.Thing => PartyKind.Thing, _ => PartyKind.Person });
    }
}
