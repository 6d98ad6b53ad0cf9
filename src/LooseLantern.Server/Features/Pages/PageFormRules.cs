using FluentValidation;
using LooseLantern.Core.Openings;
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
        RuleFor(form => form.Title).Must(Words.FitOneLine).WithMessage("Give the page a title that guests will read, in up to 120 characters.");
        RuleFor(form => form.Address).Must(Address.IsWellFormed).WithMessage(Address.Mend);
        RuleFor(form => form.Description).MaximumLength(MostDescription).WithMessage("Keep the description to 4000 characters.");
        RuleFor(form => form.Place).Must(place => place.Length == 0 || Words.FitOneLine(place)).WithMessage("Say the place in one line of up to 120 characters.");
        RuleFor(form => form.PlaceKind).IsInEnum();
        RuleFor(form => form.Times).SetValidator(new PageTimesRules());
    }
}

public sealed class PageTimesRules : AbstractValidator<PageTimes>
{
    public PageTimesRules()
    {
        RuleFor(times => times.Zone).Must(Zones.IsKnown).WithMessage("Choose a time zone from the list.");
        RuleFor(times => times.Durations).Must(durations => durations.Count is > 0 and <= PageLimits.MostDurations)
            .WithMessage($"Give one to {PageLimits.MostDurations} durations.");
        RuleForEach(times => times.Durations).InclusiveBetween(5, PageLimits.MostDurationMinutes)
            .WithMessage("A duration is 5 minutes to 24 hours.");
        RuleFor(times => times.Durations).Must(durations => durations.Distinct().Count() == durations.Count)
            .WithMessage("The same duration stands there twice; take one away.");
        RuleFor(times => times.Step).InclusiveBetween(5, PageLimits.MostStepMinutes).WithMessage("Starts can be 5 minutes to 24 hours apart.");
        RuleFor(times => times.StepOffset).Must((times, offset) => offset >= 0 && offset < Math.Max(times.Step, 1))
            .WithMessage("The first start after midnight must come before the second one; choose fewer minutes than from start to start.");
        RuleFor(times => times.StepFrom).IsInEnum();
        RuleFor(times => times.BufferBefore).InclusiveBetween(0, PageLimits.MostBufferMinutes).WithMessage("Keep free from 0 minutes to 24 hours.");
        RuleFor(times => times.BufferAfter).InclusiveBetween(0, PageLimits.MostBufferMinutes).WithMessage("Keep free from 0 minutes to 24 hours.");
        RuleFor(times => times.Notice).InclusiveBetween(0, PageLimits.MostNoticeMinutes).WithMessage("Notice is from none to 90 days.");
        RuleFor(times => times.AheadDays).InclusiveBetween(0, PageLimits.MostAheadDays).WithMessage("Open today and up to 365 days ahead.");
        RuleFor(times => times.HoursMode).IsInEnum();
        RuleFor(times => times.LineUp).Must(seats => seats.Count is > 0 and <= PageLimits.MostSeats)
            .WithMessage($"Fill one to {PageLimits.MostSeats} seats.");
        RuleForEach(times => times.LineUp).SetValidator(new SeatFormRules());
        RuleFor(times => times.DailyCap).InclusiveBetween(1, PageLimits.MostCap).WithMessage("Cap a day at 1 to 1000 sessions, or leave it open.");
        RuleFor(times => times.WeeklyCap).InclusiveBetween(1, PageLimits.MostCap).WithMessage("Cap a week at 1 to 1000 sessions, or leave it open.");
        RuleFor(times => times.Places).InclusiveBetween(1, PageLimits.MostPlaces).WithMessage("A session takes 1 to 1000 guests.");
        RuleFor(times => times.Hours).NotNull().When(times => times.HoursMode != HoursMode.Hosts)
            .WithMessage("Say which hours this page is open.");
        RuleFor(times => times.Hours!).SetValidator(new HoursRules()).When(times => times.Hours is not null);
    }
}

public sealed class SeatFormRules : AbstractValidator<SeatForm>
{
    public SeatFormRules()
    {
        RuleFor(seat => seat.HostIds).Must(hosts => hosts.Count is > 0 and <= PageLimits.MostHostsOfASeat)
            .WithMessage($"Choose 1 to {PageLimits.MostHostsOfASeat} hosts who may fill this seat.");
        RuleFor(seat => seat.HostIds).Must(hosts => hosts.Distinct().Count() == hosts.Count)
            .WithMessage("The same host stands in this seat twice; take one away.");
        RuleFor(seat => seat.Fill).IsInEnum();
    }
}
