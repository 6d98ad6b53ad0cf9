using FluentValidation;
using FluentValidation.Results;
using LooseLantern.Core.Openings;
using LooseLantern.Formats.ICalendar.Blocks;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Desks;
using LooseLantern.Server.Features.Hours;
using LooseLantern.Server.Features.Openings;
using LooseLantern.Server.Hosting;

namespace LooseLantern.Server.Features.Pages;

public sealed class PageFormRules : AbstractValidator<PageForm>
{
    public const int MostDescription = 4000;

    public PageFormRules()
    {
        RuleFor(form => form.Title)
            .Must(Words.FitOneLine)
            .WithMessage("Give the page a title that guests will read, in up to 120 characters.");
        RuleFor(form => form.Address).Must(Address.IsWellFormed).WithMessage(Address.Mend);
        RuleFor(form => form.Description)
            .MaximumLength(MostDescription)
            .WithMessage("Keep the description to 4000 characters.");
        RuleFor(form => form.Place)
            .Must(place => place.Length == 0 || Words.FitOneLine(place))
            .WithMessage("Say the place in one line of up to 120 characters.");
        RuleFor(form => form.PlaceKind).IsInEnum();
        RuleFor(form => form.Times).SetValidator(new PageTimesRules());
        RuleFor(form => form.ApprovalHours)
            .InclusiveBetween(1, 24 * 14)
            .WithMessage("Let an asked booking wait for 1 hour to 14 days.");
        RuleFor(form => form.Questions!).SetValidator(new QuestionRules()).When(form => form.Questions is not null);
        RuleFor(form => form.Post!).SetValidator(new PagePostRules()).When(form => form.Post is not null);
        RuleFor(form => form.Details!).SetValidator(new PageDetailsRules()).When(form => form.Details is not null);
        RuleFor(form => form).Custom(ScreeningRules.Check).When(form => form.Details?.Screening is not null);
        RuleFor(form => form.Details!.Lead)
            .Must((form, lead) => lead >= 0 && lead < form.Times.LineUp.Count)
            .When(form => form.Details is not null)
            .WithMessage("Let the host of one of the seats lead.");
        RuleFor(form => form.Changes!).SetValidator(new ChangeRulesRules()).When(form => form.Changes is not null);
    }
}

public sealed class ChangeRulesRules : AbstractValidator<ChangeRules>
{
    public const int MostBrought = 20;
    private const int MostWords = 1000;
    private const string Until = "Let guests do that until some time from 0 minutes to 90 days before the start.";

    public ChangeRulesRules()
    {
        RuleFor(changes => changes.MoveUntil).InclusiveBetween(0, PageLimits.MostNoticeMinutes).WithMessage(Until);
        RuleFor(changes => changes.CancelUntil).InclusiveBetween(0, PageLimits.MostNoticeMinutes).WithMessage(Until);
        RuleFor(changes => changes.MostBrought)
            .InclusiveBetween(0, MostBrought)
            .WithMessage($"Let guests bring 0 to {MostBrought} people along.");
        RuleFor(changes => changes.CancelWords)
            .NotNull()
            .MaximumLength(MostWords)
            .WithMessage($"Keep it to {MostWords} characters.");
        RuleFor(changes => changes.AskWhom).NotNull().MaximumLength(200).WithMessage("Say it in up to 200 characters.");
    }
}

public sealed class PageTimesRules : AbstractValidator<PageTimes>
{
    public PageTimesRules()
    {
        RuleFor(times => times.Zone).Must(Zones.IsKnown).WithMessage("Choose a time zone from the list.");
        RuleFor(times => times.Durations)
            .Must(durations => durations.Count is > 0 and <= PageLimits.MostDurations)
            .WithMessage($"Give one to {PageLimits.MostDurations} durations.");
        RuleForEach(times => times.Durations)
            .InclusiveBetween(5, PageLimits.MostDurationMinutes)
            .WithMessage("A duration is 5 minutes to 24 hours.");
        RuleFor(times => times.Durations)
            .Must(durations => durations.Distinct().Count() == durations.Count)
            .WithMessage("The same duration stands there twice; take one away.");
        RuleFor(times => times.Step)
            .InclusiveBetween(5, PageLimits.MostStepMinutes)
            .WithMessage("Starts can be 5 minutes to 24 hours apart.");
        RuleFor(times => times.StepOffset)
            .Must((times, offset) => offset >= 0 && offset < Math.Max(times.Step, 1))
            .WithMessage(
                "The first start after midnight must come before the second one; choose fewer minutes than from start to start."
            );
        RuleFor(times => times.StepFrom).IsInEnum();
        RuleFor(times => times.BufferBefore)
            .InclusiveBetween(0, PageLimits.MostBufferMinutes)
            .WithMessage("Keep free from 0 minutes to 24 hours.");
        RuleFor(times => times.BufferAfter)
            .InclusiveBetween(0, PageLimits.MostBufferMinutes)
            .WithMessage("Keep free from 0 minutes to 24 hours.");
        RuleFor(times => times.Notice)
            .InclusiveBetween(0, PageLimits.MostNoticeMinutes)
            .WithMessage("Notice is from none to 90 days.");
        RuleFor(times => times.AheadDays)
            .InclusiveBetween(0, PageLimits.MostAheadDays)
            .WithMessage("Open today and up to 365 days ahead.");
        RuleFor(times => times.Window!).SetValidator(new PageWindowRules()).When(times => times.Window is not null);
        RuleFor(times => times.HoursMode).IsInEnum();
        RuleFor(times => times.LineUp)
            .Must(seats => seats.Count is > 0 and <= PageLimits.MostSeats && seats.All(seat => seat is not null))
            .WithMessage($"Fill one to {PageLimits.MostSeats} seats.");
        RuleForEach(times => times.LineUp).SetValidator(new SeatFormRules());
        RuleFor(times => times.DailyCap)
            .InclusiveBetween(1, PageLimits.MostCap)
            .WithMessage("Cap a day at 1 to 1000 sessions, or leave it open.");
        RuleFor(times => times.WeeklyCap)
            .InclusiveBetween(1, PageLimits.MostCap)
            .WithMessage("Cap a week at 1 to 1000 sessions, or leave it open.");
        RuleFor(times => times.Places)
            .InclusiveBetween(1, PageLimits.MostPlaces)
            .WithMessage("A session takes 1 to 1000 guests.");
        RuleFor(times => times.Hours)
            .NotNull()
            .When(times => times.HoursMode != HoursMode.Hosts && times.Blocks is null)
            .WithMessage("Say which hours this page is open.");
        RuleFor(times => times.HoursMode)
            .NotEqual(HoursMode.Hosts)
            .When(times => times.Blocks is not null)
            .WithMessage("Office hours are the page's own; let them count, alone or with the hosts'.");
        RuleFor(times => times.StepFrom)
            .Equal(StepFrom.Open)
            .When(times => times.Blocks is not null)
            .WithMessage("Office hours are cut into openings from their own start.");
        RuleFor(times => times.Blocks!).SetValidator(new BlocksFormRules()).When(times => times.Blocks is not null);
        RuleFor(times => times.Blocks)
            .Must(
                (times, blocks) =>
                    times.Durations.Count == 1 && blocks!.List.All(block => block.Length == times.Durations[0])
            )
            .When(times => times.Blocks is { Whole: true })
            .WithMessage(
                "Blocks offered whole are as long as the page's one duration; change the duration with them, or cut them into openings."
            );
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
            .WithMessage($"Paint one to {MostBlocks} blocks.");
        RuleForEach(blocks => blocks.List)
            .ChildRules(block =>
            {
                block
                    .RuleFor(row => row.Start)
                    .Must(start => start.Year is >= 1990 and <= 2190 && start.Second == 0)
                    .WithMessage("Choose a date from 1990 to 2190 and a full minute.");
                block
                    .RuleFor(row => row.Length)
                    .InclusiveBetween(5, OfficeHours.MostMinutes)
                    .WithMessage("A block is 5 minutes to 24 hours long.");
                block.RuleFor(row => row.Rule).Custom(CheckRule);
                block
                    .RuleFor(row => row.Without)
                    .Must(dates => dates.Count <= OfficeHours.MostStarts)
                    .WithMessage("Leave out fewer dates, or end the block and start another.");
            });
        RuleFor(blocks => blocks.List).Custom(CheckApart);
    }

    private static void CheckRule(string? rule, ValidationContext<BlockForm> context)
    {
        if (rule is null)
            return;
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
            context.AddFailure(e.Message);
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
                context.AddFailure(
                    new ValidationFailure(
                        $"{context.PropertyPath}[{runs[i].Index}].start",
                        $"On {runs[i].Start:d MMMM uuuu} this overlaps another block of the page; move or shorten one."
                    )
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
            .WithMessage($"Choose 1 to {PageLimits.MostHostsOfASeat} hosts who may fill this seat.");
        RuleFor(seat => seat.HostIds)
            .Must(hosts => hosts.Distinct().Count() == hosts.Count)
            .WithMessage("The same host stands in this seat twice; take one away.");
        RuleFor(seat => seat.Fill).IsInEnum();
    }
}
