using System.Globalization;
using LooseLantern.Formats.Tables;

namespace LooseLantern.Server.Features.Bookings;

/// <summary>A session's guests as a table for other programs, in UTF-8.</summary>
public static class SessionTable
{
    public static string Write(SessionDetail session) =>
        TableWriting.Write(
            session
                .Guests.Select(guest =>
                {
                    var (row, companions, answers) = guest;
                    return (IEnumerable<string>)
                        [
                            row.GuestName,
                            row.GuestEmail,
                            row.Party.ToString(CultureInfo.InvariantCulture),
                            string.Join(
                                ", ",
                                companions.Select(one => one.Name.Length == 0 ? one.Email : $"{one.Name} ({one.Email})")
                            ),
                            row.BookerName,
                            row.BookerEmail,
                            row.BookedAt.ToString("uuuu-MM-dd'T'HH:mm:ss'Z'", CultureInfo.InvariantCulture),
                            .. answers,
                        ];
                })
                .Prepend([
                    "Guest",
                    "Email",
                    "People",
                    "Brings",
                    "Booked by",
                    "Their email",
                    "Booked at",
                    .. session.Questions,
                ])
        );
}
