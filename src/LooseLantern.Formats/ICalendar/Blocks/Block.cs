using NodaTime;

namespace LooseLantern.Formats.ICalendar.Blocks;

/// <summary>A run of office hours on one wall clock.</summary>
/// <param name="Length">Minutes of wall clock, up to a day; it may run over midnight.</param>
/// <param name="Rule">How it repeats (RFC 5545 section 3.3.10), without "RRULE:"; null for once.</param>
/// <param name="Without">Dates on which it does not start.</param>
public sealed record Block(LocalDateTime Start, int Length, string? Rule, IReadOnlyCollection<LocalDate> Without);

/// <summary>A block's rule that can't be read; the message says what.</summary>
public sealed class BlockRuleException(string fault) : Exception(fault);
