using System.Text.Json;
using LooseLantern.Core;
using LooseLantern.Core.Hours;
using LooseLantern.Core.LineUps;
using LooseLantern.Core.Openings;
using NodaTime;
using NodaTime.Text;

namespace LooseLantern.Formats.Cases;

/// <summary>
/// Writes an input as a case file (version 1) that <see cref="CaseFile"/> reads back to the same openings. What the
/// computation does not ask for, such as the sources of busy spans, is left out. Instants are written to the second;
/// where one is finer, ends are raised and all others cut, so that what is taken never becomes less.
/// </summary>
public static class CaseWriter
{
    private static readonly string[] Days = ["mon", "tue", "wed", "thu", "fri", "sat", "sun"];

    /// <param name="durations">The lengths the page offers, in minutes; the input's own is added where it is not among
    /// them.</param>
    /// <returns>JSON in UTF-8, indented.</returns>
    public static byte[] Write(OpeningsInput input, IReadOnlyList<int> durations)
    {
        using var stream = new MemoryStream();
        using (var json = new Utf8JsonWriter(stream, new JsonWriterOptions { Indented = true, NewLine = "\n" }))
        {
            json.WriteStartObject();
            json.WriteNumber("version", CaseFile.Version);
            json.WriteString("now", Cut(input.Now));
            json.WriteString("from", Date(input.From));
            json.WriteString("to", Date(input.To));
            json.WriteNumber("duration", input.Duration);
            json.WriteString("asHolder", input.AsHolder);
            json.WriteString("moving", input.Moving);
            json.WriteNumber("party", input.Party);
            json.WriteString("keeper", input.Keeper);
            json.WritePropertyName("page");
            Page(json, input.Page, durations.Contains(input.Duration) ? durations : [.. durations, input.Duration]);
            List(json, "hosts", input.Hosts, Host);
            json.WriteEndObject();
        }

        return stream.ToArray();
    }

    private static void Page(Utf8JsonWriter json, PageRules page, IReadOnlyList<int> durations)
    {
        json.WriteStartObject();
        json.WriteString("id", page.Id);
        json.WriteString("zone", page.Zone.Id);
        List(json, "durations", durations, (writer, duration) => writer.WriteNumberValue(duration));
        json.WriteNumber("step", page.Step);
        json.WriteNumber("stepOffset", page.StepOffset);
        json.WriteString("stepFrom", page.StepFrom == StepFrom.Open ? "open" : "clock");
        json.WriteNumber("bufferBefore", page.BufferBefore);
        json.WriteNumber("bufferAfter", page.BufferAfter);
        json.WriteNumber("notice", page.Notice);
        json.WritePropertyName("window");
        Window(json, page.Window);
        json.WriteString(
            "hoursMode",
            page.HoursMode switch
            {
                HoursMode.Page => "page",
                HoursMode.Both => "both",
                _ => "hosts",
            }
        );
        Hours(json, page.Hours);
        Cap(json, "dailyCap", page.DailyCap);
        Cap(json, "weeklyCap", page.WeeklyCap);
        json.WriteNumber("places", page.Places);
        List(json, "lineup", page.LineUp, (writer, seat) =>
        {
            writer.WriteStartObject();
            List(writer, "anyOf", seat.AnyOf, (inner, host) => inner.WriteStringValue(host));
            writer.WriteString(
                "keeper",
                seat.Keeper switch
                {
                    SeatKeeper.First => "first",
                    SeatKeeper.Only => "only",
                    _ => "counts",
                }
            );
            writer.WriteEndObject();
        });
        Only(json, page.Only);
        List(json, "sessions", page.Sessions, (writer, session) =>
        {
            writer.WriteStartObject();
            writer.WriteString("id", session.Id);
            writer.WriteString("start", Cut(session.Start));
            writer.WriteString("end", Raised(session.End));
            writer.WriteNumber("guests", session.Guests);
            writer.WriteEndObject();
        });
        json.WriteEndObject();
    }

    private static void Window(Utf8JsonWriter json, BookingWindow window)
    {
        json.WriteStartObject();
        switch (window)
        {
            case BookingWindow.Ahead ahead:
                json.WriteString("kind", "ahead");
                json.WriteNumber("days", ahead.Days);
                break;
            case BookingWindow.Dates dates:
                json.WriteString("kind", "dates");
                json.WriteString("from", Date(dates.From));
                json.WriteString("to", Date(dates.To));
                break;
            default:
                json.WriteString("kind", "open");
                break;
        }

        json.WriteEndObject();
    }

    private static void Only(Utf8JsonWriter json, OnlyTimes? only)
    {
        if (only is null)
        {
            json.WriteNull("only");
            return;
        }

        json.WriteStartObject("only");
        if (only is OnlyTimes.Painted painted)
            List(json, "spans", painted.Spans, Span);
        if (only is OnlyTimes.Exact exact)
            List(json, "starts", exact.Starts, (writer, start) => writer.WriteStringValue(Cut(start)));
        json.WriteEndObject();
    }

    private static void Host(Utf8JsonWriter json, HostFacts host)
    {
        json.WriteStartObject();
        json.WriteString("id", host.Id);
        json.WriteString("zone", host.Zone.Id);
        Cap(json, "dailyCap", host.DailyCap);
        Cap(json, "weeklyCap", host.WeeklyCap);
        json.WriteString("calendars", host.IgnoresCalendars ? "ignore" : "respect");
        Hours(json, host.Hours);
        List(json, "busy", host.Busy, Span);
        List(json, "commitments", host.Commitments, (writer, commitment) =>
        {
            writer.WriteStartObject();
            writer.WriteString("kind", commitment.Kind == CommitmentKind.Hold ? "hold" : "booking");
            writer.WriteString("holder", commitment.Holder);
            if (commitment.Kind == CommitmentKind.Booking)
                writer.WriteString("page", commitment.Page);
            writer.WriteString("start", Cut(commitment.Start));
            writer.WriteString("end", Raised(commitment.End));
            writer.WriteNumber("bufferBefore", commitment.BufferBefore);
            writer.WriteNumber("bufferAfter", commitment.BufferAfter);
            writer.WriteEndObject();
        });
        json.WriteEndObject();
    }

    private static void Hours(Utf8JsonWriter json, HoursSet? hours)
    {
        if (hours is null)
        {
            json.WriteNull("hours");
            return;
        }

        json.WriteStartObject("hours");
        json.WriteString("zone", hours.Zone.Id);
        json.WriteStartObject("week");
        foreach (var (day, open) in hours.Week.OrderBy(day => day.Key))
            Open(json, Days[(int)day - 1], open);
        json.WriteEndObject();
        List(json, "changes", hours.Changes, (writer, change) =>
        {
            writer.WriteStartObject();
            writer.WriteString("from", Date(change.From));
            writer.WriteString("to", Date(change.To));
            Open(writer, "open", change.Open);
            writer.WriteEndObject();
        });
        json.WriteEndObject();
    }

    private static void Open(Utf8JsonWriter json, string name, IReadOnlyList<OpenTime> open) =>
        List(json, name, open, (writer, time) =>
        {
            writer.WriteStartArray();
            writer.WriteStringValue(OpenTime.FormatMinute(time.From));
            writer.WriteStringValue(OpenTime.FormatMinute(time.To));
            writer.WriteEndArray();
        });

    private static void Span(Utf8JsonWriter json, Span span)
    {
        json.WriteStartArray();
        json.WriteStringValue(Cut(span.Start));
        json.WriteStringValue(Raised(span.End));
        json.WriteEndArray();
    }

    private static void List<T>(
        Utf8JsonWriter json,
        string name,
        IReadOnlyList<T> items,
        Action<Utf8JsonWriter, T> write
    )
    {
        json.WriteStartArray(name);
        foreach (var item in items)
            write(json, item);
        json.WriteEndArray();
    }

    private static void Cap(Utf8JsonWriter json, string name, int? cap)
    {
        if (cap is { } number)
            json.WriteNumber(name, number);
        else
            json.WriteNull(name);
    }

    private static string Date(LocalDate date) => LocalDatePattern.Iso.Format(date);

    private static string Cut(Instant instant) => InstantPattern.General.Format(instant);

    private static string Raised(Instant instant)
    {
        var whole = Instant.FromUnixTimeSeconds(instant.ToUnixTimeSeconds());
        return InstantPattern.General.Format(whole == instant ? instant : whole + Duration.FromSeconds(1));
    }
}
