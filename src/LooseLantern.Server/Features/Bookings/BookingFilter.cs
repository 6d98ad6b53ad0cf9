using LooseLantern.Server.Hosting;
using Microsoft.AspNetCore.Mvc;
using NodaTime;

namespace LooseLantern.Server.Features.Bookings;

public enum WhichBookings
{
    /// <summary>A session that is under way is still to come.</summary>
    ToCome,

    Past,

    Cancelled,

    /// <summary>Everything that stands, whenever it is.</summary>
    All,
}

/// <summary>What became of a booking so far.</summary>
public enum BookingState
{
    Any,

    /// <summary>It waits for a yes.</summary>
    Asked,

    /// <summary>Nobody needs to say yes any more.</summary>
    Confirmed,

    /// <summary>It went from one time to another, at least once.</summary>
    Moved,

    Happened,
    Missed,

    /// <summary>It is over, and nobody noted whether the guest came.</summary>
    NotNoted,
}

public enum BookingOrder
{
    /// <summary>What waits for an answer first, then soonest first; past and all ones latest first, cancelled ones by
    /// when they were.</summary>
    Usual,

    Soonest,
    Latest,

    /// <summary>By when they were booked, the latest first.</summary>
    Newest,

    /// <summary>By name.</summary>
    Guest,

    /// <summary>By title.</summary>
    Page,
}

/// <summary>A choice among the bookings of a workspace.</summary>
/// <param name="Search">In what guests and bookers are called, their addresses, and titles of pages; may be empty.
/// </param>
/// <param name="Page">Of this page or link; null for all.</param>
/// <param name="Kind">Of pages of this kind; empty for all.</param>
/// <param name="Host">With this host; null for all.</param>
/// <param name="Guest">Of this guest, or booked by them; null for all.</param>
/// <param name="Keeper">Of guests whom this person keeps; null for all.</param>
/// <param name="Flagged">Of which screening noted something.</param>
/// <param name="From">First local date in the zone of whoever reads; null for all.</param>
/// <param name="To">Last local date, included; null for all.</param>
public sealed record BookingFilter(
    string Search = "",
    WhichBookings When = WhichBookings.ToCome,
    Guid? Page = null,
    string Kind = "",
    Guid? Host = null,
    Guid? Guest = null,
    Guid? Keeper = null,
    bool WithoutKeeper = false,
    BookingState State = BookingState.Any,
    bool Flagged = false,
    LocalDate? From = null,
    LocalDate? To = null,
    BookingOrder Order = BookingOrder.Usual
);

/// <summary>A <see cref="BookingFilter"/> as it stands in an address; what is left out asks for nothing.</summary>
public sealed record BookingQuery
{
    [FromQuery(Name = "search")]
    public string? Search { get; init; }

    [FromQuery(Name = "when")]
    public string? When { get; init; }

    [FromQuery(Name = "page")]
    public Guid? Page { get; init; }

    [FromQuery(Name = "kind")]
    public string? Kind { get; init; }

    [FromQuery(Name = "host")]
    public Guid? Host { get; init; }

    [FromQuery(Name = "guest")]
    public Guid? Guest { get; init; }

    [FromQuery(Name = "keeper")]
    public Guid? Keeper { get; init; }

    [FromQuery(Name = "withoutKeeper")]
    public bool? WithoutKeeper { get; init; }

    [FromQuery(Name = "state")]
    public string? State { get; init; }

    [FromQuery(Name = "flagged")]
    public bool? Flagged { get; init; }

    [FromQuery(Name = "from")]
    public string? From { get; init; }

    [FromQuery(Name = "to")]
    public string? To { get; init; }

    [FromQuery(Name = "order")]
    public string? Order { get; init; }

    /// <exception cref="Refusal">400 for what is no date, or none of the choices.</exception>
    public BookingFilter Read() =>
        new(
            Search ?? "",
            Choice<WhichBookings>("when", When),
            Page,
            Kind ?? "",
            Host,
            Guest,
            Keeper,
            WithoutKeeper ?? false,
            Choice<BookingState>("state", State),
            Flagged ?? false,
            IsoDates.Read("from", From),
            IsoDates.Read("to", To),
            Choice<BookingOrder>("order", Order)
        );

    /// <summary>The first of the choices where nothing is asked.</summary>
    private static T Choice<T>(string name, string? text)
        where T : struct, Enum =>
        string.IsNullOrEmpty(text) ? default
        : Enum.TryParse<T>(text, ignoreCase: true, out var choice)
        && Enum.IsDefined(choice)
        && !char.IsAsciiDigit(text[0])
            ? choice
        : throw Refusal.Invalid(name, "missing-or-odd");
}
