using System.Globalization;
using CsvHelper;
using CsvHelper.Configuration;

namespace LooseLantern.Server.Features.Bookings;

/// <summary>A session's guests as a table for other programs: CSV (RFC 4180), in UTF-8.</summary>
public static class SessionTable
{
    public const string MediaType = "text/csv";

    public static string Write(SessionDetail session)
    {
        using var text = new StringWriter(CultureInfo.InvariantCulture);
        using var csv = new CsvWriter(
            text,
            new CsvConfiguration(CultureInfo.InvariantCulture)
            {
                NewLine = "\r\n",
                // Guests type what stands here; no program is to take it for a formula.
                InjectionOptions = InjectionOptions.Escape,
            }
        );
        Line(
            csv,
            ["Guest", "Email", "People", "Brings", "Booked by", "Their email", "Booked at", .. session.Questions]
        );
        foreach (var (row, companions, answers) in session.Guests)
            Line(
                csv,
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
                ]
            );
        csv.Flush();
        return text.ToString();
    }

    private static void Line(CsvWriter csv, IEnumerable<string> cells)
    {
        foreach (var cell in cells)
            csv.WriteField(cell);
        csv.NextRecord();
    }
}
