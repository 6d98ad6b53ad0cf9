using LooseLantern.Core;
using LooseLantern.Formats.ICalendar.Reading;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Calendars;

/// <summary>
/// Sees what was done, in calendars, to events that we wrote there. The booking is not changed by it: that is for
/// people to choose.
/// </summary>
public sealed class OutsideNoticing(LanternDb db, IClock clock)
{
    /// <param name="changed">What is new in the calendar or different now, before it is in the place of what
    /// was.</param>
    /// <param name="gone">Paths of what is there no more.</param>
    public async Task NoticeAsync(
        Calendar calendar,
        IReadOnlyList<CalendarResource> changed,
        IReadOnlyList<string> gone,
        CancellationToken ct
    )
    {
        if (calendar.Kind != CalendarKind.Account || (changed.Count == 0 && gone.Count == 0))
            return;
        // What is not carried out yet is ours to settle first.
        var written = await db
            .WrittenEvents.Where(row =>
                row.CalendarId == calendar.Id && row.IsWanted && row.DueAt == null && row.Path != null
            )
            .ToListAsync(ct);
        foreach (var row in written)
        {
            if (gone.Contains(row.Path!))
                Deleted(row);
            else if (changed.FirstOrDefault(resource => resource.Path == row.Path) is { } resource)
                Compare(row, resource);
        }
    }

    /// <summary>
    /// Marks an event as moved where its text says another time than it was written with, or as deleted where it says
    /// it is cancelled.
    /// </summary>
    /// <returns>Whether it is as it was written, but for what does not matter here.</returns>
    public bool Compare(WrittenEvent row, CalendarResource resource)
    {
        row.EntityTag = resource.EntityTag;
        if (TimeOf(resource.Body, row.Uid) is not { } time)
        {
            Deleted(row);
            return false;
        }

        if (time.Start == row.WrittenStart && time.End == row.WrittenEnd)
        {
            // Moved, and moved back.
            (row.Outside, row.OutsideStart, row.OutsideEnd, row.NoticedAt) = (OutsideChange.None, null, null, null);
            return true;
        }

        if (row.Outside != OutsideChange.Moved || row.OutsideStart != time.Start || row.OutsideEnd != time.End)
            row.NoticedAt = clock.GetCurrentInstant();
        (row.Outside, row.OutsideStart, row.OutsideEnd) = (OutsideChange.Moved, time.Start, time.End);
        return false;
    }

    public void Deleted(WrittenEvent row)
    {
        if (row.Outside != OutsideChange.Deleted)
            row.NoticedAt = clock.GetCurrentInstant();
        (row.Outside, row.OutsideStart, row.OutsideEnd, row.EntityTag) = (OutsideChange.Deleted, null, null, null);
    }

    /// <summary>When a resource says that an event is; null where the event is not in it.</summary>
    public static Span? TimeOf(byte[] body, string uid)
    {
        try
        {
            return CalendarFile.Parse(body).TimeOf(uid);
        }
        catch (CalendarFileException)
        {
            // Whatever it is now, the event is not in it.
            return null;
        }
    }
}
