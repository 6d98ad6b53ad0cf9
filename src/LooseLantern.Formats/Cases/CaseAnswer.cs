using System.Buffers;
using System.Text;
using System.Text.Json;
using LooseLantern.Core;
using LooseLantern.Core.LineUps;
using LooseLantern.Core.Openings;
using LooseLantern.Core.Reasons;
using NodaTime;
using NodaTime.Text;
using NodaTime.TimeZones;

namespace LooseLantern.Formats.Cases;

/// <summary>Writes what came of a case, on one line.</summary>
public static class CaseAnswer
{
    /// <summary>
    /// {"openings": […]}, or {"faults": […]}, with {"case": name} before it where a name is given, and with the release
    /// of the zone tables that it was reckoned by in "zones".
    /// </summary>
    public static string Write(CaseReading reading, string? name = null) =>
        Line(reading, name, (writer, input) => Openings(writer, OpeningsComputation.Openings(input)));

    /// <summary>
    /// Why <paramref name="start"/> is not offered: {"start", "end", "opening", "reasons": […], "next"}, or the faults.
    /// </summary>
    public static string WriteReasons(CaseReading reading, Instant start, string? name = null) =>
        Line(reading, name, (writer, input) => Reasons(writer, input, ReasonsComputation.For(input, start)));

    private static string Line(CaseReading reading, string? name, Action<Utf8JsonWriter, OpeningsInput> answer)
    {
        var buffer = new ArrayBufferWriter<byte>();
        using (
            var writer = new Utf8JsonWriter(
                buffer,
                new JsonWriterOptions
                {
                    Encoder = System.Text.Encodings.Web.JavaScriptEncoder.UnsafeRelaxedJsonEscaping,
                }
            )
        )
        {
            writer.WriteStartObject();
            if (name is not null)
                writer.WriteString("case", name);
            if (reading.Input is { } input)
                answer(writer, input);
            else
                Faults(writer, reading.Faults);
            // By other tables the same case may come out otherwise.
            writer.WriteString("zones", TzdbDateTimeZoneSource.Default.TzdbVersion);
            writer.WriteEndObject();
        }

        return Encoding.UTF8.GetString(buffer.WrittenSpan);
    }

    private static void Openings(Utf8JsonWriter writer, IReadOnlyList<Opening> openings)
    {
        writer.WriteStartArray("openings");
        foreach (var opening in openings)
        {
            writer.WriteStartObject();
            writer.WriteString("start", At(opening.Start));
            writer.WriteString("end", At(opening.End));
            writer.WriteNumber("placesLeft", opening.PlacesLeft);
            writer.WriteEndObject();
        }

        writer.WriteEndArray();
    }

    private static void Reasons(Utf8JsonWriter writer, OpeningsInput input, StartReasons why)
    {
        writer.WriteString("start", At(why.Start));
        writer.WriteString("end", At(why.End));
        writer.WriteBoolean("opening", why.Opening is not null);
        // Where a seat waits for one host alone, since the guest is theirs.
        if (Keepers.OnlyOf(input) is { } keeper)
            writer.WriteString("onlyKeeper", keeper);
        ReasonList(writer, why.Reasons);
        if (why.Next is { } next)
            writer.WriteString("next", At(next.Start));
        else
            writer.WriteNull("next");
    }

    private static void ReasonList(Utf8JsonWriter writer, IReadOnlyList<Reason> reasons)
    {
        writer.WriteStartArray("reasons");
        foreach (var reason in reasons)
        {
            writer.WriteStartObject();
            writer.WriteNumber("rule", (int)reason.Rule);
            writer.WriteString("name", JsonNamingPolicy.CamelCase.ConvertName(reason.Rule.ToString()));
            if (reason.Host is not null)
                writer.WriteString("host", reason.Host);
            if (reason.Span is { } span)
                Pair(writer, "span", span);
            if (reason.Cap is { } cap)
            {
                writer.WriteString("cap", cap.Period == CapPeriod.Day ? "day" : "week");
                writer.WriteNumber("most", cap.Cap);
                writer.WriteNumber("counted", cap.Counted);
            }

            if (reason.Commitment is { } commitment)
            {
                writer.WriteString("kind", commitment.Kind == CommitmentKind.Hold ? "hold" : "booking");
                writer.WriteString("holder", commitment.Holder);
            }

            if (reason.Session is not null)
                writer.WriteString("session", reason.Session);
            if (reason.Seats is { } seats)
            {
                writer.WriteStartArray("seats");
                foreach (var seat in seats)
                    writer.WriteNumberValue(seat);
                writer.WriteEndArray();
            }

            if (reason.Shared is { } shared)
            {
                writer.WriteStartArray("shared");
                foreach (var host in shared)
                    writer.WriteStringValue(host);
                writer.WriteEndArray();
            }

            if (reason.Pool is { } pool)
                Pool(writer, pool);
            writer.WriteEndObject();
        }

        writer.WriteEndArray();
    }

    private static void Pool(Utf8JsonWriter writer, IReadOnlyList<HostLacks> pool)
    {
        writer.WriteStartArray("pool");
        foreach (var host in pool)
        {
            writer.WriteStartObject();
            writer.WriteString("host", host.Host);
            ReasonList(writer, host.Reasons);
            writer.WriteEndObject();
        }

        writer.WriteEndArray();
    }

    private static void Pair(Utf8JsonWriter writer, string name, Span span)
    {
        writer.WriteStartArray(name);
        writer.WriteStringValue(At(span.Start));
        writer.WriteStringValue(At(span.End));
        writer.WriteEndArray();
    }

    private static void Faults(Utf8JsonWriter writer, IReadOnlyList<CaseFault> faults)
    {
        writer.WriteStartArray("faults");
        foreach (var fault in faults)
        {
            writer.WriteStartObject();
            writer.WriteString("path", fault.Path);
            writer.WriteString("fault", fault.Fault);
            writer.WriteEndObject();
        }

        writer.WriteEndArray();
    }

    private static string At(Instant instant) => InstantPattern.General.Format(instant);
}
