using FluentValidation;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.ActingFor;
using LooseLantern.Server.Features.Calendars;
using LooseLantern.Server.Features.Hours;
using LooseLantern.Server.Features.Post;
using LooseLantern.Server.Hosting;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Profile;

/// <summary>Who is signed in.</summary>
/// <param name="IsCoordinator">Whether they may do what coordinators may, which owners do.</param>
/// <param name="HostId">Their own time, where they are a host.</param>
/// <param name="Zone">IANA id of the zone they read times in.</param>
/// <param name="WorkspaceZone">IANA id of the zone new pages start from.</param>
/// <param name="Now">The server's time.</param>
/// <param name="FirstRun">Whether the first run is still open.</param>
/// <param name="Kinds">What sorts of appointments pages of the workspace are, by name.</param>
/// <param name="ClosesAfterHours">For how many hours the last known state of a calendar counts while it can't be
/// reached.</param>
/// <param name="MostOpen">How many bookings to come one guest may have on all pages.</param>
/// <param name="UsesKeys">Whether single keys do something on their screens.</param>
/// <param name="UndoMinutes">For how many minutes mail of what the team does waits, and that can be taken back; 0 for
/// not at all.</param>
/// <param name="MailWaits">Whether no owner has proven a mail address, so that only owners are mailed.</param>
public sealed record Me(
    Guid Id,
    string Name,
    string Email,
    bool IsOwner,
    bool IsCoordinator,
    Guid? HostId,
    string Workspace,
    string Zone,
    string WorkspaceZone,
    Instant Now,
    ClockForm Clock,
    bool FirstRun,
    bool HasPortrait,
    int ClosesAfterHours,
    IReadOnlyList<string> Kinds,
    int MostOpen,
    bool MailWaits,
    bool UsesKeys,
    int UndoMinutes
);

/// <param name="Line">A line about them, for guests; may be empty.</param>
/// <param name="Zone">IANA id; the zone of their calendars' whole days too.</param>
/// <param name="Language">Language tag.</param>
public sealed record ProfileForm(
    string Name,
    string Line,
    string Zone,
    string Language,
    ClockForm Clock,
    bool UsesKeys = true
);

public static class MeEndpoints
{
    public static readonly string[] Languages = ["en", "de", "fr", "es", "da"];

    private static readonly Rules Checks = new();

    public static void MapMe(this IEndpointRouteBuilder api)
    {
        var me = api.MapGroup("/me").WithTags("You");

        me.MapGet("/", async (Actor actor, LanternDb db, IClock clock, CancellationToken ct) =>
            {
                var person = await db.Users.AsNoTracking().SingleAsync(row => row.Id == actor.Required.Id, ct);
                var workspace = await db.Workspaces.AsNoTracking().SingleAsync(ct);
                var hasPortrait = await db.Portraits.AnyAsync(row => row.PersonId == person.Id, ct);
                return new Me(
                    person.Id,
                    person.Name,
                    person.Email!,
                    person.IsOwner,
                    actor.Required.Coordinates,
                    actor.Required.HostId,
                    workspace.Name,
                    person.Zone,
                    workspace.Zone,
                    clock.GetCurrentInstant(),
                    person.Clock,
                    person.IsOwner && workspace.FirstRunEndedAt is null,
                    hasPortrait,
                    workspace.ClosesAfterHours,
                    workspace.Kinds,
                    workspace.MostOpen,
                    !await LettingOut.IsOpenAsync(db, ct),
                    person.UsesKeys,
                    workspace.UndoMinutes
                );
            })
            .WithName("getMe")
            .ProducesProblem(401);

        me.MapGet("/profile", async (Actor actor, LanternDb db, CancellationToken ct) =>
                Of(await db.Users.AsNoTracking().SingleAsync(row => row.Id == actor.Required.Id, ct))
            )
            .WithName("getProfile");

        me.MapPut(
                "/profile",
                async (
                    ProfileForm form,
                    Actor actor,
                    LanternDb db,
                    CalendarUnrolling unrolling,
                    CancellationToken ct
                ) =>
                {
                    Checks.Check(form);
                    var person = await db.Users.SingleAsync(row => row.Id == actor.Required.Id, ct);
                    (person.Name, person.Line, person.Zone, person.Language, person.Clock, person.UsesKeys) = (
                        form.Name.Trim(),
                        form.Line.Trim(),
                        form.Zone,
                        form.Language,
                        form.Clock,
                        form.UsesKeys
                    );
                    // The host is the same person: one name and one zone for both.
                    if (await db.Hosts.FirstOrDefaultAsync(row => row.PersonId == person.Id, ct) is { } host)
                    {
                        if (host.Zone != form.Zone)
                            await unrolling.ForgetAsync(host.Id, ct);
                        (host.Name, host.Zone) = (person.Name, person.Zone);
                    }

                    await db.SaveChangesAsync(ct);
                    return Of(person);
                }
            )
            .WithName("changeProfile")
            .ProducesValidationProblem();

        me.MapPut(
                "/portrait",
                async Task<NoContent> (HttpRequest request, Actor actor, Portraits portraits, CancellationToken ct) =>
                {
                    await portraits.SetAsync(actor.Required.Id, await Upload.ReadAsync(request, ct, "portrait"), ct);
                    return TypedResults.NoContent();
                }
            )
            .WithName("setPortrait")
            .WithDescription("A multipart/form-data form with file, a PNG, JPEG or WebP picture.")
            .ProducesValidationProblem();

        me.MapDelete("/portrait", async Task<NoContent> (Actor actor, LanternDb db, CancellationToken ct) =>
            {
                await db.Portraits.Where(row => row.PersonId == actor.Required.Id).ExecuteDeleteAsync(ct);
                return TypedResults.NoContent();
            })
            .WithName("removePortrait");

        api.MapGet("/people/{id:guid}/portrait", async (Guid id, LanternDb db, CancellationToken ct) =>
                await db.Portraits.AsNoTracking().FirstOrDefaultAsync(row => row.PersonId == id, ct) is { } portrait
                    ? Results.File(portrait.Bytes, portrait.MediaType)
                    : throw Refusal.NotFound("portrait")
            )
            .WithName("getPortrait")
            .WithTags("Team")
            .ProducesProblem(404);
    }

    private static ProfileForm Of(Person person) =>
        new(person.Name, person.Line, person.Zone, person.Language, person.Clock, person.UsesKeys);

    private sealed class Rules : AbstractValidator<ProfileForm>
    {
        public Rules()
        {
            RuleFor(form => form.Name).Must(Words.FitOneLine).WithMend("your-name");
            RuleFor(form => form.Line).Must(line => line.Length == 0 || Words.FitOneLine(line)).WithMend("one-line");
            RuleFor(form => form.Zone).Must(Zones.IsKnown).WithMend("zone");
            RuleFor(form => form.Language)
                .Must(language => Languages.Contains(language))
                .WithMend(Phrase.Of("languages", ("languages", Languages)));
            RuleFor(form => form.Clock).IsInEnum();
        }
    }
}
