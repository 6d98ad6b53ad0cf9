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
        RuleFor(form => form.Title).Must(Words.FitOneLine).WithMessage("Say what it is, in up to 120 characters.");
        RuleFor(form => form.Start)
            .Must(start => start.Year is >= 2000 and <= 2200)
            .WithMessage("Choose a date between 2000 and 2200.");
        RuleFor(form => form.Start)
            .Must((form, start) => !form.WholeDay || start.TimeOfDay == LocalTime.Midnight)
            .WithMessage("A whole day begins at midnight.");
        RuleFor(form => form.End)
            .Must((form, end) => end > form.Start)
            .WithMessage("It ends before it starts; choose a later end.");
        RuleFor(form => form.End)
            .Must((form, end) => !form.WholeDay || end.TimeOfDay == LocalTime.Midnight)
            .WithMessage("A whole day ends at midnight.");
        RuleFor(form => form.End)
            .Must((form, end) => end <= form.Start || Period.DaysBetween(form.Start.Date, end.Date) <= MostDays)
            .WithMessage("An entry lasts a year at the most.");
        RuleFor(form => form.Shows).IsInEnum();
        RuleFor(form => form.Repeats).IsInEnum();
        RuleFor(form => form.Until)
            .Must((form, until) => until is null || form.Repeats != EntryRepeats.Once)
            .WithMessage("It comes once; leave out until when it repeats.");
        RuleFor(form => form.Until)
            .Must((form, until) => until is null || until >= form.Start.Date)
            .WithMessage("It would end repeating before it starts; choose a later date.");
    }
}
