using FluentValidation;
using FluentValidation.Results;
using LooseLantern.Core;
using LooseLantern.Core.Hours;
using LooseLantern.Server.Features.Desks;
using LooseLantern.Server.Features.Hours;
using LooseLantern.Server.Features.Pages;
using LooseLantern.Server.Features.Profile;
using LooseLantern.Server.Hosting;
using NodaTime;

namespace LooseLantern.Server.Features.Links;

public sealed class LinkFormRules : AbstractValidator<LinkForm>
{
    /// <summary>How many guests a link names at the most.</summary>
    public const int MostGuests = 10;

    public LinkFormRules()
    {
        RuleFor(form => form.Title)
            .Must(Words.FitOneLine)
            .WithMessage("Give it a title that the guest will read, in up to 120 characters.");
        RuleFor(form => form.Description)
            .MaximumLength(PageFormRules.MostDescription)
            .WithMessage("Keep the words for the guest to 4000 characters.");
        RuleFor(form => form.Place)
            .Must(place => place.Length == 0 || Words.FitOneLine(place))
            .WithMessage("Say the place in one line of up to 120 characters.");
        RuleFor(form => form.PlaceKind).IsInEnum();
        RuleFor(form => form.Guests)
            .Must(guests => guests.Count <= MostGuests)
            .WithMessage($"Name {MostGuests} guests at the most.");
        RuleForEach(form => form.Guests)
            .Must(guest => guest is not null && Words.FitOneLine(guest.Name))
            .WithMessage("Give the guest’s name, in up to 120 characters.")
            .Must(guest =>
                guest is null || guest.Email.Trim().Length == 0 || EmailAddress.IsPlausible(guest.Email.Trim())
            )
            .WithMessage(EmailAddress.Mend);
        RuleFor(form => form.GuestZone)
            .Must(zone => zone.Length == 0 || Zones.IsKnown(zone))
            .WithMessage("Choose a time zone from the list, or none.");
        RuleFor(form => form.GuestLanguage)
            .Must(language => MeEndpoints.Languages.Contains(language))
            .WithMessage("Choose one of the languages.");
        RuleFor(form => form.Times).SetValidator(new LinkTimesRules());
        RuleFor(form => form.Details).SetValidator(new LinkDetailsRules());
        RuleFor(form => form.Details.Lead)
            .Must((form, lead) => lead >= 0 && lead < form.Times.LineUp.Count)
            .WithMessage("Let the host of one of the seats lead.");
    }
}

public sealed class LinkTimesRules : AbstractValidator<LinkTimes>
{
    /// <summary>How many exact times a link offers at the most.</summary>
    public const int MostMarked = 20;

    private const int MostPainted = 60;

    public LinkTimesRules()
    {
        Include(new AsPageRules());
        RuleFor(times => times.Offer)
            .ChildRules(offer =>
            {
                offer.RuleFor(row => row.By).IsInEnum();
                offer
                    .RuleFor(row => row.Marked)
                    .Must(marked => marked.Count <= MostMarked)
                    .WithMessage($"Mark {MostMarked} times at the most; erase some.");
                offer
                    .RuleFor(row => row.Marked)
                    .Must(marked => marked.All(IsTime))
                    .WithMessage("Mark full minutes from 1990 to 2190.");
                offer
                    .RuleFor(row => row.Marked)
                    .Must(marked => marked.Distinct().Count() == marked.Count)
                    .WithMessage("The same time is marked twice; erase one.");
                offer
                    .RuleFor(row => row.Painted)
                    .Must(painted => painted.Count <= MostPainted && painted.All(paint => paint is not null))
                    .WithMessage($"Paint {MostPainted} stretches at the most; erase some.");
                offer
                    .RuleForEach(row => row.Painted)
                    .Must(paint =>
                        paint is null
                        || (
                            paint.Start.Year is >= 1990 and <= 2190
                            && paint.Start is { Second: 0, NanosecondOfSecond: 0 }
                            && paint.Minutes is >= 5 and <= OpenTime.MinutesOfDay
                        )
                    )
                    .WithMessage("A painted stretch begins at a full minute and is 5 minutes to 24 hours long.");
                offer
                    .RuleFor(row => row.Days)
                    .Must(days => days.All(day => day is >= IsoDayOfWeek.Monday and <= IsoDayOfWeek.Sunday))
                    .WithMessage("Choose days from Monday to Sunday.");
                offer
                    .RuleFor(row => row.FromMinute)
                    .InclusiveBetween(0, OpenTime.MinutesOfDay - 1)
                    .WithMessage("The earliest hour is from 0:00 to 23:59.");
                offer
                    .RuleFor(row => row.ToMinute)
                    .Must((row, to) => to > row.FromMinute && to <= OpenTime.MinutesOfDay)
                    .WithMessage("The latest hour comes after the earliest and by 24:00.");
                offer
                    .RuleFor(row => row.Until.Year)
                    .InclusiveBetween(1990, 2190)
                    .OverridePropertyName("until")
                    .WithMessage("Offer until a date from 1990 to 2190.");
                offer
                    .RuleFor(row => row.MostShown)
                    .InclusiveBetween(1, 200)
                    .WithMessage("Show 1 to 200 openings, or all.");
            });
    }

    private static bool IsTime(Instant at) =>
        at >= Instant.FromUtc(1990, 1, 1, 0, 0)
        && at < Instant.FromUtc(2191, 1, 1, 0, 0)
        && at.ToUnixTimeTicks() % NodaConstants.TicksPerMinute == 0;

    /// <summary>What is checked of a page's times, under the same names.</summary>
    private sealed class AsPageRules : AbstractValidator<LinkTimes>
    {
        private static readonly PageTimesRules Rules = new();

        public AsPageRules() =>
            RuleFor(times => times)
                .Custom(
                    (times, context) =>
                    {
                        foreach (var failure in Rules.Validate(times.AsPage()).Errors)
                            context.AddFailure(
                                new ValidationFailure(
                                    context.PropertyChain.BuildPropertyPath(failure.PropertyName),
                                    failure.ErrorMessage
                                )
                            );
                    }
                );
    }
}

public sealed class LinkDetailsRules : AbstractValidator<LinkDetails>
{
    public const int MostTaken = 50;
    private const int MostNotes = 4000;

    public LinkDetailsRules()
    {
        RuleFor(details => details.AlsoInvited)
            .Must(list => list.Count <= 20 && list.All(one => one is not null))
            .WithMessage("Invite 20 others at the most.");
        RuleForEach(details => details.AlsoInvited)
            .Must(one =>
                one is null
                || ((one.Name.Length == 0 || Words.FitOneLine(one.Name)) && EmailAddress.IsPlausible(one.Email.Trim()))
            )
            .WithMessage(EmailAddress.Mend);
        RuleFor(details => details.HostWords)
            .MaximumLength(MostNotes)
            .WithMessage($"Keep it to {MostNotes} characters.");
        RuleFor(details => details.Notes).MaximumLength(MostNotes).WithMessage($"Keep it to {MostNotes} characters.");
        RuleFor(details => details.Takes)
            .InclusiveBetween(1, MostTaken)
            .WithMessage($"Let it take 1 to {MostTaken} bookings.");
        RuleFor(details => details.EndsOn.Year)
            .InclusiveBetween(1990, 2190)
            .OverridePropertyName("endsOn")
            .WithMessage("Let it end on a date from 1990 to 2190.");
        RuleFor(details => details.Topic)
            .Must(topic => topic.Length == 0 || Address.IsWellFormed(topic))
            .WithMessage(Address.Mend);
        RuleFor(details => details.Text)
            .Must(text => Enum.IsDefined(text.Zones))
            .WithMessage("Choose in whose zone the times are written.");
        RuleFor(details => details.StartedFrom).MaximumLength(200).WithMessage("Keep it to 200 characters.");
        RuleFor(details => details.Questions).SetValidator(new QuestionRules());
    }
}
