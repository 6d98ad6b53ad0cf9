using LooseLantern.Core;
using LooseLantern.Core.Days;
using LooseLantern.Core.Hours;
using LooseLantern.Formats.ICalendar.Availability;
using LooseLantern.Formats.ICalendar.Reading;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Hosting;
using NodaTime;

namespace LooseLantern.Server.Features.Hours;

/// <param name="Changes">A closed run of dates for each whole-day event still to come, by date.</param>
/// <param name="Skipped">How many events of the file are no whole days, or could not be read.</param>
public sealed record HolidaysRead(IReadOnlyList<DatedChangeDocument> Changes, int Skipped);

/// <summary>Hours from and to iCalendar files. What is read is handed back to be looked at; nothing is saved.</summary>
public sealed class HoursFiles(IClock clock)
{
    public const int YearsOfHolidays = 2;

    /// <summary>The hours as VAVAILABILITY (RFC 7953).</summary>
    public string Write(HoursRow row) =>
        AvailabilityWriter.Write(
            row.Document.ToCore(),
            $"{row.Id:D}@loose-lantern.example",
            row.Name,
            clock.GetCurrentInstant(),
            date => row.Document.Changes.LastOrDefault(change => change.Covers(date))?.Name
        );

    /// <exception cref="Refusal">When the file holds no hours that can be read.</exception>
    public HoursDocument ReadAvailability(byte[] file, DateTimeZone owner, CancellationToken ct)
    {
        try
        {
            var read = AvailabilityReader.Read(file, Today(owner), owner, ct);
            if (read.Changes.Count > HoursRules.MostChanges)
                throw Refusal.Invalid("file", Phrase.Of("hours-no-week", ("most", HoursRules.MostChanges)));
            return new HoursDocument(
                read.Zone.Id,
                new WeekDocument(Day(1), Day(2), Day(3), Day(4), Day(5), Day(6), Day(7)),
                [
                    .. read.Changes.Select(change => new DatedChangeDocument(
                        change.From,
                        change.To,
                        Times(change.Open),
                        Words.FitOneLine(change.Name) ? change.Name : null
                    )),
                ]
            );

            IReadOnlyList<OpenTimeDocument> Day(int day) => Times(read.Week[(IsoDayOfWeek)day]);
        }
        catch (CalendarFileException e)
        {
            throw Refusal.Invalid("file", Phrase.Told(e.Message));
        }
    }

    /// <exception cref="Refusal">When the file can't be read as a whole.</exception>
    public HolidaysRead ReadHolidays(byte[] file, DateTimeZone owner, CancellationToken ct)
    {
        try
        {
            var calendar = CalendarFile.Parse(file);
            var today = Today(owner);
            var range = new Span(
                LocalDays.Start(owner, today),
                LocalDays.Start(owner, today.PlusYears(YearsOfHolidays))
            );
            var reading = calendar.Read(range, owner, new ReadingBudget(ct));
            var days = reading
                .Entries.Where(entry => entry.WholeDay)
                .Select(entry => new DatedChangeDocument(
                    entry.Time.Start.InZone(owner).Date,
                    entry.Time.End.InZone(owner).Date.PlusDays(-1),
                    [],
                    Words.FitOneLine(entry.Title) ? entry.Title : null
                ))
                .Distinct()
                .ToList();
            return new HolidaysRead(
                days,
                reading.Entries.Where(entry => !entry.WholeDay).Select(entry => entry.Uid).Distinct().Count()
                    + reading.Unread.Count
            );
        }
        catch (CalendarFileException e)
        {
            throw Refusal.Invalid("file", Phrase.Told(e.Message));
        }
    }

    private LocalDate Today(DateTimeZone zone) => clock.GetCurrentInstant().InZone(zone).Date;

    private static OpenTimeDocument[] Times(IReadOnlyList<OpenTime> open) =>
        [
            .. open.Select(time => new OpenTimeDocument(
                OpenTime.FormatMinute(time.From),
                OpenTime.FormatMinute(time.To)
            )),
        ];
}
