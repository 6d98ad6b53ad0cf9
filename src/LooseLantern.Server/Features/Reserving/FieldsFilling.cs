using System.Text.Json;
using LooseLantern.Server.Data;
using LooseLantern.Server.Hosting;

namespace LooseLantern.Server.Features.Reserving;

/// <summary>Keeps what answers tell of a guest in the fields that the questions fill.</summary>
public static class FieldsFilling
{
    /// <summary>Only where nothing is known yet: anybody may have typed it.</summary>
    /// <param name="values">By the fields' ids.</param>
    public static void Fill(RoundTrip trip, Guid bookingId, IReadOnlyDictionary<Guid, string> values)
    {
        if (values.Count == 0)
            return;
        var said = JsonSerializer.Serialize(values, Json.Options);
        trip.Do(
            $"""
            UPDATE guests SET fields = CAST({said} AS jsonb) || fields
            WHERE id = (SELECT guest_id FROM bookings WHERE id = {bookingId})
            """
        );
    }
}
