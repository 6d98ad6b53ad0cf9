using FluentValidation;
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
        RuleFor(form => form.Title).Must(Words.FitOneLine).WithMend("link-title");
        RuleFor(form => form.Description).MaximumLength(PageFormRules.MostDescription).WithMend("link-words");
        RuleFor(form => form.Place).Must(place => place.Length == 0 || Words.FitOneLine(place)).WithMend("place");
        RuleFor(form => form.PlaceKind).IsInEnum();
        RuleFor(form => form.Guests)
            .Must(guests => guests.Count <= MostGuests)
            .WithMend(Phrase.Of("guests-too-many", ("most", MostGuests)));
        RuleForEach(form => form.Guests)
            .Must(guest => guest is not null && Words.FitOneLine(guest.Name))
            .WithMend("guest-name")
            .Must(guest =>
                guest is null || guest.Email.Trim().Length == 0 || EmailAddress.IsPlausible(guest.Email.Trim())
            )
            .WithMend("email");
        RuleFor(form => form.GuestZone).Must(zone => zone.Length == 0 || Zones.IsKnown(zone)).WithMend("zone-or-none");
        RuleFor(form => form.GuestLanguage)
            .Must(language => MeEndpoints.Languages.Contains(language))
            .WithMend("language");
        RuleFor(form => form.Times).SetValidator(new LinkTimesRules());
        RuleFor(form => form.Details).SetValidator(new LinkDetailsRules());
        RuleFor(form => form.Details.Lead)
            .Must((form, lead) => lead >= 0 && lead < form.Times.LineUp.Count)
            .WithMend("lead");
    }
}

public sealed class LinkTimesRules : AbstractValidator<LinkTimes>
{
    /// <summary>How many exact times a link offers at the most.</summary>
    public const int MostPicked = 20;

    private const int MostPainted = 60;

    public LinkTimesRules()
    {
        Include(new AsPageRules());
        RuleFor(times => times.Offer)
            .ChildRules(offer =>
            {
                offer.RuleFor(row => row.By).IsInEnum();
                offer
                    .RuleFor(row => row.Picked)
                    .Must(picked => picked.Count <= MostPicked)
                    .WithMend(Phrase.Of("picked-too-many", ("most", MostPicked)));
                offer.RuleFor(row => row.Picked).Must(picked => picked.All(IsTime)).WithMend("picked-minutes");
                offer
                    .RuleFor(row => row.Picked)
                    .Must(picked => picked.Distinct().Count() == picked.Count)
                    .WithMend("picked-twice");
                offer
                    .RuleFor(row => row.Painted)
                    .Must(painted => painted.Count <= MostPainted && painted.All(paint => paint is not null))
                    .WithMend(Phrase.Of("painted-too-many", ("most", MostPainted)));
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
                    .WithMend("painted-length");
                offer
                    .RuleFor(row => row.Days)
                    .Must(days => days.All(day => day is >= IsoDayOfWeek.Monday and <= IsoDayOfWeek.Sunday))
                    .WithMend("weekdays");
                offer
                    .RuleFor(row => row.FromMinute)
                    .InclusiveBetween(0, OpenTime.MinutesOfDay - 1)
                    .WithMend("earliest-hour");
                offer
                    .RuleFor(row => row.ToMinute)
                    .Must((row, to) => to > row.FromMinute && to <= OpenTime.MinutesOfDay)
                    .WithMend("latest-hour");
                offer
                    .RuleFor(row => row.Until.Year)
                    .InclusiveBetween(1990, 2190)
                    .OverridePropertyName("until")
                    .WithMend("offer-until");
                offer
                    .RuleFor(row => row.From)
                    .Must((row, from) => from is null || (from.Value.Year >= 1990 && from <= row.Until))
                    .WithMend("dates-swapped");
                offer.RuleFor(row => row.MostShown).InclusiveBetween(1, 200).WithMend("shown-openings");
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
                            context.AddMend(
                                context.PropertyChain.BuildPropertyPath(failure.PropertyName),
                                Validation.MendOf(failure)
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
            .WithMend(Phrase.Of("invited-too-many", ("most", 20)));
        RuleForEach(details => details.AlsoInvited)
            .Must(one =>
                one is null
                || ((one.Name.Length == 0 || Words.FitOneLine(one.Name)) && EmailAddress.IsPlausible(one.Email.Trim()))
            )
            .WithMend("email");
        RuleFor(details => details.HostWords)
            .MaximumLength(MostNotes)
            .WithMend(Phrase.Of("too-long", ("most", MostNotes)));
        RuleFor(details => details.Notes).MaximumLength(MostNotes).WithMend(Phrase.Of("too-long", ("most", MostNotes)));
        RuleFor(details => details.Takes)
            .InclusiveBetween(1, MostTaken)
            .WithMend(Phrase.Of("link-bookings", ("most", MostTaken)));
        RuleFor(details => details.EndsOn.Year)
            .InclusiveBetween(1990, 2190)
            .OverridePropertyName("endsOn")
            .WithMend("link-end");
        RuleFor(details => details.Topic)
            .Must(topic => topic.Length == 0 || Address.IsWellFormed(topic))
            .WithMend(Address.Mend);
        RuleFor(details => details.Text).Must(text => Enum.IsDefined(text.Zones)).WithMend("link-zones");
        RuleFor(details => details.Text.MostListed).InclusiveBetween(1, 200).WithMend("shown-openings");
        RuleFor(details => details.StartedFrom).MaximumLength(200).WithMend(Phrase.Of("too-long", ("most", 200)));
        RuleFor(details => details.Questions).SetValidator(new QuestionRules());
    }
}
