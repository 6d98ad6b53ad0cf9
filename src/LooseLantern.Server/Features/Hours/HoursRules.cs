using FluentValidation;
using FluentValidation.Results;
using LooseLantern.Core.Hours;
using LooseLantern.Server.Hosting;
using NodaTime;

namespace LooseLantern.Server.Features.Hours;

/// <summary>What makes hours readable: a known zone, each day's open times in order and apart.</summary>
public sealed class HoursRules : AbstractValidator<HoursDocument>
{
    public const int MostChanges = 500;

    private const int MostDaysOfAChange = 5 * 366;

    public HoursRules()
    {
        RuleFor(hours => hours.Zone).Must(Zones.IsKnown).WithMessage("Choose a time zone from the list.");
        RuleFor(hours => hours.Week).NotNull().WithMessage("Say which hours are open.").SetValidator(new WeekRules());
        RuleFor(hours => hours.Changes).NotNull().WithMessage("Send an empty list where there are no dated changes.");
        RuleFor(hours => hours.Changes)
            .Must(changes => changes is not { Count: > MostChanges })
            .WithMessage($"Keep up to {MostChanges} dated changes; take away those that are past.");
        RuleForEach(hours => hours.Changes)
            .ChildRules(change =>
            {
                change
                    .RuleFor(row => row.From)
                    .Must(date => date.Year is >= 1990 and <= 2190)
                    .WithMessage("Choose a date from 1990 to 2190.");
                change
                    .RuleFor(row => row.To)
                    .GreaterThanOrEqualTo(row => row.From)
                    .WithMessage("A dated change ends on or after its first date.");
                change
                    .RuleFor(row => row.To)
                    .Must((row, to) => to < row.From || Period.DaysBetween(row.From, to) <= MostDaysOfAChange)
                    .WithMessage("A dated change runs five years at the most; change the week for good instead.");
                change
                    .RuleFor(row => row.Name)
                    .Must(name => name is null || Words.FitOneLine(name))
                    .WithMessage("Name the change in up to 120 characters, or not at all.");
                change
                    .RuleFor(row => row.Weekdays)
                    .Must(HasSome)
                    .WithMessage("Choose at least one weekday that lies in the run, each once.");
                change.RuleFor(row => row.Open).Custom(CheckDay);
            });
    }

    private static bool HasSome(DatedChangeDocument change, IReadOnlyList<WeekdayName>? weekdays) =>
        weekdays is null
        || change.To < change.From
        || (
            weekdays.Distinct().Count() == weekdays.Count
            && Enumerable.Range(0, 7).Select(change.From.PlusDays).Any(change.Covers)
        );

    private static void CheckDay<T>(IReadOnlyList<OpenTimeDocument>? open, ValidationContext<T> context)
    {
        if (open is null || open.Any(time => time is null))
        {
            context.AddFailure("Send an empty list for a closed day.");
            return;
        }

        var previousEnd = -1;
        for (var i = 0; i < open.Count; i++)
        {
            var path = $"{context.PropertyPath}[{i}]";
            if (!OpenTime.TryParseMinute(open[i].From, out var from) || from == OpenTime.MinutesOfDay)
            {
                Fail(".from", "Write a time from 00:00 to 23:59, such as 09:00.");
                return;
            }

            if (!OpenTime.TryParseMinute(open[i].To, out var to))
            {
                Fail(".to", "Write a time from 00:01 to 24:00, such as 17:00.");
                return;
            }

            if (to <= from)
            {
                Fail(
                    ".to",
                    "This ends before it starts. For hours over midnight, end at 24:00 and start the next day at 00:00."
                );
                return;
            }

            if (from < previousEnd)
            {
                Fail(".from", "This starts before the one above ends; join the two or move one.");
                return;
            }

            previousEnd = to;

            // Named whole: adding a failure by name alone would set the path before it once more.
            void Fail(string member, string mend) => context.AddFailure(new ValidationFailure(path + member, mend));
        }
    }

    private sealed class WeekRules : AbstractValidator<WeekDocument>
    {
        public WeekRules()
        {
            RuleFor(week => week.Mon).Custom(CheckDay);
            RuleFor(week => week.Tue).Custom(CheckDay);
            RuleFor(week => week.Wed).Custom(CheckDay);
            RuleFor(week => week.Thu).Custom(CheckDay);
            RuleFor(week => week.Fri).Custom(CheckDay);
            RuleFor(week => week.Sat).Custom(CheckDay);
            RuleFor(week => week.Sun).Custom(CheckDay);
        }
    }
}

/// <summary>Time zones by IANA id.</summary>
public static class Zones
{
    public static bool IsKnown(string? id) =>
        id is not null && DateTimeZoneProviders.Tzdb.GetZoneOrNull(id) is not null;
}
