using FluentValidation;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.ActingFor;
using LooseLantern.Server.Features.Openings;
using LooseLantern.Server.Features.Profile;
using LooseLantern.Server.Features.SignIn;
using LooseLantern.Server.Hosting;
using Microsoft.EntityFrameworkCore;

namespace LooseLantern.Server.Features.Usual;

/// <summary>Where a usual setting comes from.</summary>
public enum UsualSource
{
    Product,
    Workspace,
    Person,
}

/// <summary>Where each usual setting comes from.</summary>
public sealed record UsualSources(
    UsualSource Duration,
    UsualSource BufferBefore,
    UsualSource BufferAfter,
    UsualSource Notice,
    UsualSource PlaceKind,
    UsualSource Place,
    UsualSource Reminders,
    UsualSource Language,
    UsualSource Clock
);

/// <param name="Product">What holds where nobody chose.</param>
/// <param name="Workspace">What the workspace chose; null where it did not.</param>
/// <param name="Person">What the person chose; null where they did not.</param>
/// <param name="Now">What new pages start from: the person's, else the workspace's, else the product's. Nothing in it
/// is null.</param>
public sealed record UsualAnswer(
    UsualSettings Product,
    UsualSettings Workspace,
    UsualSettings Person,
    UsualSettings Now,
    UsualSources Sources
);

public static class UsualEndpoints
{
    private static readonly UsualRules Checks = new();

    private static readonly UsualSettings Product = new(
        30,
        0,
        0,
        240,
        PlaceKind.InPerson,
        "",
        [24 * 60, 60],
        "en",
        ClockForm.H24
    );

    public static void MapUsual(this IEndpointRouteBuilder api)
    {
        api.MapGet("/usual", AnswerAsync).WithName("getUsual").WithTags("Usual settings");

        api.MapPut("/me/usual", async (UsualSettings form, Actor actor, LanternDb db, CancellationToken ct) =>
            {
                Checks.Check(form);
                (await db.Users.SingleAsync(row => row.Id == actor.Required.Id, ct)).Usual = form;
                await db.SaveChangesAsync(ct);
                return await AnswerAsync(actor, db, ct);
            })
            .WithName("changeUsual")
            .WithTags("Usual settings")
            .ProducesValidationProblem();

        api.MapPut("/workspace/usual", async (UsualSettings form, Actor actor, LanternDb db, CancellationToken ct) =>
            {
                Checks.Check(form);
                (await db.Workspaces.SingleAsync(ct)).Usual = form;
                await db.SaveChangesAsync(ct);
                return await AnswerAsync(actor, db, ct);
            })
            .WithName("changeWorkspaceUsual")
            .WithTags("Usual settings")
            .RequireAuthorization(Roles.Owner)
            .ProducesValidationProblem();
    }

    private static async Task<UsualAnswer> AnswerAsync(Actor actor, LanternDb db, CancellationToken ct)
    {
        var workspace = (await db.Workspaces.AsNoTracking().SingleAsync(ct)).Usual;
        var person = (await db.Users.AsNoTracking().SingleAsync(row => row.Id == actor.Required.Id, ct)).Usual;
        var now = new UsualSettings(
            Of(row => row.Duration),
            Of(row => row.BufferBefore),
            Of(row => row.BufferAfter),
            Of(row => row.Notice),
            Of(row => row.PlaceKind),
            Of(row => row.Place),
            Of(row => row.Reminders),
            Of(row => row.Language),
            Of(row => row.Clock)
        );
        return new UsualAnswer(
            Product,
            workspace,
            person,
            now,
            new UsualSources(
                From(row => row.Duration),
                From(row => row.BufferBefore),
                From(row => row.BufferAfter),
                From(row => row.Notice),
                From(row => row.PlaceKind),
                From(row => row.Place),
                From(row => row.Reminders),
                From(row => row.Language),
                From(row => row.Clock)
            )
        );

        T Of<T>(Func<UsualSettings, T> read) => read(person) ?? read(workspace) ?? read(Product);

        UsualSource From(Func<UsualSettings, object?> read) =>
            read(person) is not null ? UsualSource.Person
            : read(workspace) is not null ? UsualSource.Workspace
            : UsualSource.Product;
    }

    private sealed class UsualRules : AbstractValidator<UsualSettings>
    {
        private const int MostReminders = 5;

        public UsualRules()
        {
            RuleFor(form => form.Duration).InclusiveBetween(5, PageLimits.MostDurationMinutes).WithMend("duration");
            RuleFor(form => form.BufferBefore).InclusiveBetween(0, PageLimits.MostBufferMinutes).WithMend("buffer");
            RuleFor(form => form.BufferAfter).InclusiveBetween(0, PageLimits.MostBufferMinutes).WithMend("buffer");
            RuleFor(form => form.Notice).InclusiveBetween(0, PageLimits.MostNoticeMinutes).WithMend("notice");
            RuleFor(form => form.PlaceKind).IsInEnum();
            RuleFor(form => form.Place)
                .Must(place => string.IsNullOrEmpty(place) || Words.FitOneLine(place))
                .WithMend("place");
            RuleFor(form => form.Reminders)
                .Must(list =>
                    list is null
                    || (
                        list.Count <= MostReminders
                        && list.Distinct().Count() == list.Count
                        && list.All(minutes => minutes is >= 5 and <= 14 * 24 * 60)
                    )
                )
                .WithMend(Phrase.Of("usual-reminders", ("most", MostReminders)));
            RuleFor(form => form.Language)
                .Must(language => language is null || MeEndpoints.Languages.Contains(language))
                .WithMend(Phrase.Of("languages", ("languages", MeEndpoints.Languages)));
            RuleFor(form => form.Clock).IsInEnum();
        }
    }
}
