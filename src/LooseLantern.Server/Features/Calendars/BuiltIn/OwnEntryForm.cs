using FluentValidation;
using LooseLantern.Server.Hosting;
using NodaTime;

namespace LooseLantern.Server.Features.Calendars.BuiltIn;

public enum EntryShows
{
    Busy,
    Tentative,
    Free,
}

public enum EntryRepeats
{
    Once,
    Daily,
    Weekly,
    Monthly,
}

/// <summary>An entry of the calendar that is kept here, on its host's wall clock.</summary>
/// <param name="Start">Local date and time; of a whole day its midnight.</param>
/// <param name="End">Local date and time at which it is over; of whole days the midnight after the last.</param>
/// <param name="Until">The last date on which it may start, of one that repeats; null for no end.</param>
public sealed record OwnEntryForm(
    string Title,
    LocalDateTime Start,
    LocalDateTime End,
    bool WholeDay,
    EntryShows Shows,
    EntryRepeats Repeats,
    LocalDate? Until
);

internal sealed class OwnEntryRules : AbstractValidator<OwnEntryForm>
{
    private const int MostDays = 366;

    public OwnEntryRules()
    {
        RuleFor(form => form.Title).Must(Words.FitOneLine).WithMend("entry-title");
        RuleFor(form => form.Start).Must(start => start.Year is >= 2000 and <= 2200).WithMend("entry-date");
        RuleFor(form => form.Start)
            .Must((form, start) => !form.WholeDay || start.TimeOfDay == LocalTime.Midnight)
            .WithMend("whole-day-start");
        RuleFor(form => form.End).Must((form, end) => end > form.Start).WithMend("entry-end");
        RuleFor(form => form.End)
            .Must((form, end) => !form.WholeDay || end.TimeOfDay == LocalTime.Midnight)
            .WithMend("whole-day-end");
        RuleFor(form => form.End)
            .Must((form, end) => end <= form.Start || Period.DaysBetween(form.Start.Date, end.Date) <= MostDays)
            .WithMend("entry-length");
        RuleFor(form => form.Shows).IsInEnum();
        RuleFor(form => form.Repeats).IsInEnum();
        RuleFor(form => form.Until)
            .Must((form, until) => until is null || form.Repeats != EntryRepeats.Once)
            .WithMend("entry-once");
        RuleFor(form => form.Until)
            .Must((form, until) => until is null || until >= form.Start.Date)
            .WithMend("entry-until");
    }
}
