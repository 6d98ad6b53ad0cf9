using FluentValidation;
using LooseLantern.Core.LineUps;
using LooseLantern.Core.Openings;
using LooseLantern.Formats.ICalendar.Blocks;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Desks;
using LooseLantern.Server.Features.Guests;
using LooseLantern.Server.Features.Hours;
using LooseLantern.Server.Features.Openings;
using LooseLantern.Server.Hosting;

namespace LooseLantern.Server.Features.Pages;

public sealed class PageFormRules : AbstractValidator<PageForm>
{
    public const int MostDescription = 4000;

    public PageFormRules()
    {
        RuleFor(form => form.Title).Must(Words.FitOneLine).WithMend("page-title");
        RuleFor(form => form.Address).Must(Address.IsWellFormed).WithMend(Address.Mend);
        RuleFor(form => form.Description)
            .MaximumLength(MostDescription)
            .WithMend("page-description")
            .Must(Markdown.CanBeShown)
            .WithMend("markdown");
        RuleFor(form => form.Place).Must(place => place.Length == 0 || Words.FitOneLine(place)).WithMend("place");
        RuleFor(form => form.PlaceKind).IsInEnum();
        RuleFor(form => form.Times).SetValidator(new PageTimesRules());
        RuleFor(form => form.ApprovalHours).InclusiveBetween(1, 24 * 14).WithMend("approval-hours");
        RuleFor(form => form.Questions!).SetValidator(new QuestionRules()).When(form => form.Questions is not null);
        RuleFor(form => form.Post!).SetValidator(new PagePostRules()).When(form => form.Post is not null);
        RuleFor(form => form.Details!).SetValidator(new PageDetailsRules()).When(form => form.Details is not null);
        RuleFor(form => form).Custom(ScreeningRules.Check).When(form => form.Details?.Screening is not null);
        RuleFor(form => form).Custom(KeeperRules.Check).When(form => form.Details?.Keepers is not null);
        RuleFor(form => form.Details!.Lead)
            .Must((form, lead) => lead >= 0 && lead < form.Times.LineUp.Count)
            .When(form => form.Details is not null)
            .WithMend("lead");
        RuleFor(form => form.Changes!).SetValidator(new ChangeRulesRules()).When(form => form.Changes is not null);
    }
}

public sealed class ChangeRulesRules : AbstractValidator<ChangeRules>
{
    public const int MostBrought = 20;
    private const int MostWords = 1000;
    private const string Until = "change-until";

    public ChangeRulesRules()
    {
        RuleFor(changes => changes.MoveUntil).InclusiveBetween(0, PageLimits.MostNoticeMinutes).WithMend(Until);
        RuleFor(changes => changes.CancelUntil).InclusiveBetween(0, PageLimits.MostNoticeMinutes).WithMend(Until);
        RuleFor(changes => changes.MostBrought)
            .InclusiveBetween(0, MostBrought)
            .WithMend(Phrase.Of("guests-bring", ("most", MostBrought)));
        RuleFor(changes => changes.CancelWords)
            .NotNull()
            .MaximumLength(MostWords)
            .WithMend(Phrase.Of("too-long", ("most", MostWords)));
        RuleFor(changes => changes.AskWhom).NotNull().MaximumLength(200).WithMend(Phrase.Of("too-long", ("most", 200)));
    }
}

public sealed class PageTimesRules : AbstractValidator<PageTimes>
{
    public PageTimesRules()
    {
        RuleFor(times => times.Zone).Must(Zones.IsKnown).WithMend("zone");
        RuleFor(times => times.Durations)
            .Must(durations => durations.Count is > 0 and <= PageLimits.MostDurations)
            .WithMend(Phrase.Of("durations-count", ("most", PageLimits.MostDurations)));
        RuleForEach(times => times.Durations).InclusiveBetween(5, PageLimits.MostDurationMinutes).WithMend("duration");
        RuleFor(times => times.Durations)
            .Must(durations => durations.Distinct().Count() == durations.Count)
            .WithMend("duration-twice");
        RuleFor(times => times.Step).InclusiveBetween(5, PageLimits.MostStepMinutes).WithMend("start-step");
        RuleFor(times => times.StepOffset)
            .Must((times, offset) => offset >= 0 && offset < Math.Max(times.Step, 1))
            .WithMend("start-offset");
        RuleFor(times => times.StepFrom).IsInEnum();
        RuleFor(times => times.BufferBefore).InclusiveBetween(0, PageLimits.MostBufferMinutes).WithMend("buffer");
        RuleFor(times => times.BufferAfter).InclusiveBetween(0, PageLimits.MostBufferMinutes).WithMend("buffer");
        RuleFor(times => times.Notice).InclusiveBetween(0, PageLimits.MostNoticeMinutes).WithMend("notice");
        RuleFor(times => times.AheadDays).InclusiveBetween(0, PageLimits.MostAheadDays).WithMend("horizon");
        RuleFor(times => times.Window!).SetValidator(new PageWindowRules()).When(times => times.Window is not null);
        RuleFor(times => times.HoursMode).IsInEnum();
        RuleFor(times => times.LineUp)
            .Must(seats => seats.Count is > 0 and <= PageLimits.MostSeats && seats.All(seat => seat is not null))
            .WithMend(Phrase.Of("seats", ("most", PageLimits.MostSeats)));
        RuleForEach(times => times.LineUp).SetValidator(new SeatFormRules());
        RuleForEach(times => times.LineUp)
            .Must((times, seat) => seat is null || seat.Keeper == SeatKeeper.Counts || times.Places == 1)
            .WithMend("keeper-places");
        RuleFor(times => times.DailyCap).InclusiveBetween(1, PageLimits.MostCap).WithMend("day-cap");
        RuleFor(times => times.WeeklyCap).InclusiveBetween(1, PageLimits.MostCap).WithMend("week-cap");
        RuleFor(times => times.Places).InclusiveBetween(1, PageLimits.MostPlaces).WithMend("session-guests");
        RuleFor(times => times.Hours)
            .NotNull()
            .When(times => times.HoursMode != HoursMode.Hosts && times.Blocks is null)
            .WithMend("page-hours");
        RuleFor(times => times.HoursMode)
            .NotEqual(HoursMode.Hosts)
            .When(times => times.Blocks is not null)
            .WithMend("office-hours-own");
        RuleFor(times => times.StepFrom)
            .Equal(StepFrom.Open)
            .When(times => times.Blocks is not null)
            .WithMend("office-hours-step");
        RuleFor(times => times.Blocks!).SetValidator(new BlocksFormRules()).When(times => times.Blocks is not null);
        RuleFor(times => times.Blocks)
            .Must(
                (times, blocks) =>
                    times.Durations.Count == 1 && blocks!.List.All(block => block.Length == times.Durations[0])
            )
            .When(times => times.Blocks is { Whole: true })
            .WithMend("blocks-whole");
        RuleFor(times => times.Hours!).SetValidator(new HoursRules()).When(times => times.Hours is not null);
    }
}

public sealed class BlocksFormRules : AbstractValidator<BlocksForm>
{
    public const int MostBlocks = 100;

    public BlocksFormRules()
    {
        RuleFor(blocks => blocks.List)
            .Must(list => list.Count is > 0 and <= MostBlocks)
            .WithMend(Phrase.Of("blocks-count", ("most", MostBlocks)));
        RuleForEach(blocks => blocks.List)
            .ChildRules(block =>
            {
                block
                    .RuleFor(row => row.Start)
                    .Must(start => start.Year is >= 1990 and <= 2190 && start.Second == 0)
                    .WithMend("block-start");
                block.RuleFor(row => row.Length).InclusiveBetween(5, OfficeHours.MostMinutes).WithMend("block-length");
                block.RuleFor(row => row.Rule).Custom(CheckRule);
                block
                    .RuleFor(row => row.Without)
                    .Must(dates => dates.Count <= OfficeHours.MostStarts)
                    .WithMend("left-out-dates");
            });
        RuleFor(blocks => blocks.List).Custom(CheckApart);
    }

    private static void CheckRule(string? rule, ValidationContext<BlockForm> context)
    {
        if (rule is null)
            return;
        if (OfficeHours.LastDate(rule) < context.InstanceToValidate.Start.Date)
        {
            context.AddMend("block-until");
            return;
        }

        try
        {
            OfficeHours.Starts(
                Of(context.InstanceToValidate),
                context.InstanceToValidate.Start.Date,
                context.InstanceToValidate.Start.Date.PlusYears(1)
            );
        }
        catch (BlockRuleException e)
        {
            context.AddMend(Phrase.Told(e.Message));
        }
    }

    /// <summary>
    /// Blocks that overlap would not be cut from their own starts; those of the next year are looked at.
    /// </summary>
    private static void CheckApart(IReadOnlyList<BlockForm> list, ValidationContext<BlocksForm> context)
    {
        if (list.Count is 0 or > MostBlocks)
            return;
        try
        {
            var first = list.Min(block => block.Start.Date);
            var runs = list.SelectMany(
                    (block, index) =>
                        OfficeHours
                            .Starts(Of(block), block.Start.Date, first.PlusYears(1))
                            .Select(start => (Start: start, End: start.PlusMinutes(block.Length), Index: index))
                )
                .OrderBy(run => run.Start)
                .ToList();
            for (var i = 1; i < runs.Count; i++)
            {
                if (runs[i].Start >= runs[i - 1].End)
                    continue;
                context.AddMend(
                    $"{context.PropertyPath}[{runs[i].Index}].start",
                    Phrase.Of("block-overlaps", ("day", $"{runs[i].Start:d MMMM uuuu}"))
                );
                return;
            }
        }
        catch (BlockRuleException)
        {
            // Said where the rule stands.
        }
    }

    private static Block Of(BlockForm form) => new(form.Start, form.Length, form.Rule, form.Without.ToHashSet());
}

public sealed class SeatFormRules : AbstractValidator<SeatForm>
{
    public SeatFormRules()
    {
        RuleFor(seat => seat.HostIds)
            .Must(hosts => hosts.Count is > 0 and <= PageLimits.MostHostsOfASeat)
            .WithMend(Phrase.Of("seat-hosts", ("most", PageLimits.MostHostsOfASeat)));
        RuleFor(seat => seat.HostIds)
            .Must(hosts => hosts.Distinct().Count() == hosts.Count)
            .WithMend("seat-host-twice");
        RuleFor(seat => seat.Fill).IsInEnum();
        RuleFor(seat => seat.Keeper).IsInEnum();
    }
}
