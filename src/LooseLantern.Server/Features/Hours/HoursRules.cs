using FluentValidation;
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
        RuleFor(hours => hours.Zone).Must(Zones.IsKnown).WithMend("zone");
        RuleFor(hours => hours.Week).NotNull().WithMend("hours-missing").SetValidator(new WeekRules());
        RuleFor(hours => hours.Changes).NotNull().WithMend("changes-missing");
        RuleFor(hours => hours.Changes)
            .Must(changes => changes is not { Count: > MostChanges })
            .WithMend(Phrase.Of("changes-too-many", ("most", MostChanges)));
        RuleForEach(hours => hours.Changes)
            .ChildRules(change =>
            {
                change.RuleFor(row => row.From).Must(date => date.Year is >= 1990 and <= 2190).WithMend("date-far");
                change.RuleFor(row => row.To).GreaterThanOrEqualTo(row => row.From).WithMend("change-end");
                change
                    .RuleFor(row => row.To)
                    .Must((row, to) => to < row.From || Period.DaysBetween(row.From, to) <= MostDaysOfAChange)
                    .WithMend("change-length");
                change
                    .RuleFor(row => row.Name)
                    .Must(name => name is null || Words.FitOneLine(name))
                    .WithMend("change-name");
                change.RuleFor(row => row.Weekdays).Must(HasSome).WithMend("change-weekdays");
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
            context.AddMend("day-missing");
            return;
        }

        var previousEnd = -1;
        for (var i = 0; i < open.Count; i++)
        {
            var path = $"{context.PropertyPath}[{i}]";
            if (!OpenTime.TryParseMinute(open[i].From, out var from) || from == OpenTime.MinutesOfDay)
            {
                Fail(".from", "open-from");
                return;
            }

            if (!OpenTime.TryParseMinute(open[i].To, out var to))
            {
                Fail(".to", "open-to");
                return;
            }

            if (to <= from)
            {
                Fail(".to", "open-backwards");
                return;
            }

            if (from < previousEnd)
            {
                Fail(".from", "open-overlaps");
                return;
            }

            previousEnd = to;

            // Named whole: adding a failure by name alone would set the path before it once more.
            void Fail(string member, Phrase mend) => context.AddMend(path + member, mend);
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
