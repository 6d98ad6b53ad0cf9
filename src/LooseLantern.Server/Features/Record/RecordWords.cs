using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using Microsoft.EntityFrameworkCore;

namespace LooseLantern.Server.Features.Record;

/// <summary>
/// Says lines of the record. What guests are called is not kept in it: a line names its guest by a mark, and says who
/// that is as it is read, so that it stays true when a guest is renamed, merged or erased.
/// </summary>
public static class RecordWords
{
    /// <summary>Stands for the guest whom the line's subject, a booking or a guest, is of.</summary>
    public const string Guest = "{guest}";

    private const string Nobody = "a guest";

    /// <summary>Lines in the order of these entries.</summary>
    public static async Task<List<string>> SaidAsync(LanternDb db, List<RecordEntry> entries, CancellationToken ct)
    {
        var subjects = entries
            .Where(entry => entry.What.Contains(Guest, StringComparison.Ordinal))
            .Select(entry => entry.SubjectId)
            .Distinct()
            .ToList();
        if (subjects.Count == 0)
            return entries.ConvertAll(entry => entry.What);
        var names = await db
            .Guests.Where(guest => subjects.Contains(guest.Id))
            .Select(guest => new { guest.Id, guest.Name })
            .Concat(
                db.Bookings.IgnoreQueryFilters([LanternDb.NotCancelled])
                    .Where(booking => subjects.Contains(booking.Id))
                    .Select(booking => new { booking.Id, Name = booking.GuestName })
            )
            .ToDictionaryAsync(one => one.Id, one => one.Name, ct);
        return entries.ConvertAll(entry =>
            entry.What.Replace(Guest, names.GetValueOrDefault(entry.SubjectId, Nobody), StringComparison.Ordinal)
        );
    }
}
