using NodaTime;

namespace LooseLantern.Server.Features.GuestBook;

/// <summary>Which appointments a guest must have.</summary>
public enum GuestAppointments
{
    Any,
    ToCome,
    Past,

    /// <summary>None at all that stands.</summary>
    None,
}

public enum GuestOffers
{
    Any,

    /// <summary>A link of theirs is out, and a time of it can be taken.</summary>
    Out,

    /// <summary>None was ever made for them.</summary>
    None,
}

public enum GuestOrder
{
    Name,

    /// <summary>Latest made first.</summary>
    Newest,
}

public enum FieldTest
{
    /// <summary>The value is this one; of texts, this stands in it.</summary>
    Is,

    /// <summary>A number or date of at least this.</summary>
    From,

    /// <summary>A number or date of at most this.</summary>
    To,
    Filled,
    Blank,
}

/// <summary>What a field must say.</summary>
/// <param name="Value">Empty for filled and blank.</param>
public sealed record FieldCondition(Guid Field, FieldTest Test, string Value = "");

/// <summary>A choice among the guests of a workspace.</summary>
/// <param name="Search">Words that each stand in the name, an email, the organisation or the phone number; may be
/// empty.</param>
/// <param name="Keeper">Null for all.</param>
/// <param name="WithoutKeeper">Those whom nobody keeps.</param>
/// <param name="NotSince">Those who came, and not since this date in the workspace's zone; null for all.</param>
/// <param name="Language">Language tag; empty for all.</param>
/// <param name="Flagged">Those of whom screening noted something.</param>
/// <param name="WithoutEmail">Those who can't be written to.</param>
/// <param name="Doubles">Those who look like another guest.</param>
public sealed record GuestFilter(
    string Search = "",
    Guid? Keeper = null,
    bool WithoutKeeper = false,
    GuestAppointments Appointments = GuestAppointments.Any,
    GuestOffers Offers = GuestOffers.Any,
    LocalDate? NotSince = null,
    string Language = "",
    bool Flagged = false,
    bool WithoutEmail = false,
    bool Doubles = false,
    IReadOnlyList<FieldCondition>? Fields = null,
    GuestOrder Order = GuestOrder.Name
)
{
    public static readonly GuestFilter All = new();
}
