using FluentValidation;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.ActingFor;
using LooseLantern.Server.Hosting;
using Microsoft.EntityFrameworkCore;

namespace LooseLantern.Server.Features.Profile;

/// <summary>What a person hears of by mail, and when: each chooses for themselves.</summary>
public static class NotificationEndpoints
{
    private static readonly NotificationRules Checks = new();

    public static void MapNotifications(this IEndpointRouteBuilder api)
    {
        var notifications = api.MapGroup("/me/notifications").WithTags("Profile");

        notifications
            .MapGet("/", async (Actor actor, LanternDb db, CancellationToken ct) =>
                (await db.Users.AsNoTracking().SingleAsync(row => row.Id == actor.Required.Id, ct)).Notifications
            )
            .WithName("getNotifications");

        notifications
            .MapPut("/", async (Notifications form, Actor actor, LanternDb db, CancellationToken ct) =>
            {
                Checks.Check(form);
                (await db.Users.SingleAsync(row => row.Id == actor.Required.Id, ct)).Notifications = form;
                await db.SaveChangesAsync(ct);
                return form;
            })
            .WithName("changeNotifications")
            .WithDescription(
                "For what is written from now on; reminders that are written already stay as they are until the booking changes."
            )
            .ProducesValidationProblem();
    }

    private sealed class NotificationRules : AbstractValidator<Notifications>
    {
        public NotificationRules()
        {
            RuleFor(form => form.Own).IsInEnum();
            RuleFor(form => form.ActedFor).IsInEnum();
            RuleFor(form => form.Others).IsInEnum();
            RuleFor(form => form.Made).IsInEnum();
            RuleFor(form => form.QuietUntil).NotNull().When(form => form.QuietFrom is not null).WithMend("quiet-end");
            RuleFor(form => form.QuietFrom).NotNull().When(form => form.QuietUntil is not null).WithMend("quiet-start");
            RuleFor(form => form.QuietUntil)
                .NotEqual(form => form.QuietFrom)
                .When(form => form.QuietFrom is not null && form.QuietUntil is not null)
                .WithMend("quiet-span");
        }
    }
}
