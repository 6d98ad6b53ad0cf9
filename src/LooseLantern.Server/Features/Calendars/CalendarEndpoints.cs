using LooseLantern.Server.Features.Calendars.BuiltIn;
using LooseLantern.Server.Features.Calendars.Joining;
using LooseLantern.Server.Hosting;
using Microsoft.AspNetCore.Http.HttpResults;

namespace LooseLantern.Server.Features.Calendars;

/// <param name="CalendarId">One of the host's own that can be written to; null for the one that is kept here.</param>
public sealed record WriteToForm(Guid? CalendarId);

public static class CalendarEndpoints
{
    /// <summary>
    /// Each may see to their own calendars, and coordinators to those of hosts who let them (held to where it is done).
    /// </summary>
    public static void MapCalendars(this IEndpointRouteBuilder api)
    {
        var calendars = api.MapGroup("/calendars").WithTags("Calendars");

        calendars
            .MapGet("/", async (CalendarViews views, CancellationToken ct) => await views.ListAsync(null, ct))
            .WithName("listCalendars");
        MapJoining(calendars);

        calendars
            .MapPut(
                "/{id:guid}",
                async (
                    Guid id,
                    CalendarForm form,
                    CalendarEditing editing,
                    CalendarViews views,
                    CancellationToken ct
                ) =>
                {
                    await editing.ChangeAsync(id, form, ct);
                    return await views.OneAsync(id, ct);
                }
            )
            .WithName("changeCalendar")
            .ProducesValidationProblem()
            .ProducesProblem(403)
            .ProducesProblem(404);

        calendars
            .MapPut(
                "/{id:guid}/password",
                async (
                    Guid id,
                    PasswordForm form,
                    CalendarEditing editing,
                    CalendarViews views,
                    CancellationToken ct
                ) =>
                {
                    await editing.ChangePasswordAsync(id, form.Password, ct);
                    return await views.OneAsync(id, ct);
                }
            )
            .WithName("changeCalendarPassword")
            .ProducesValidationProblem()
            .ProducesProblem(403)
            .ProducesProblem(404)
            .ProducesProblem(409);

        calendars
            .MapPost(
                "/{id:guid}/look",
                async (Guid id, CalendarEditing editing, CalendarViews views, CancellationToken ct) =>
                {
                    await editing.LookAgainAsync(id, ct);
                    return await views.OneAsync(id, ct);
                }
            )
            .WithName("lookAtCalendar")
            .ProducesProblem(403)
            .ProducesProblem(404);

        calendars
            .MapDelete("/{id:guid}", async (Guid id, CalendarEditing editing, CancellationToken ct) =>
            {
                await editing.RemoveAsync(id, ct);
                return TypedResults.NoContent();
            })
            .WithName("removeCalendar")
            .ProducesProblem(403)
            .ProducesProblem(404)
            .ProducesProblem(409);

        api.MapPut(
                "/hosts/{id:guid}/written-calendar",
                async Task<NoContent> (Guid id, WriteToForm form, CalendarEditing editing, CancellationToken ct) =>
                {
                    await editing.WriteToAsync(id, form.CalendarId, ct);
                    return TypedResults.NoContent();
                }
            )
            .WithName("chooseWrittenCalendar")
            .WithTags("Calendars")
            .ProducesValidationProblem()
            .ProducesProblem(403)
            .ProducesProblem(404);

        MapEntries(calendars.MapGroup("/{id:guid}/entries"));
    }

    private static void MapJoining(RouteGroupBuilder calendars)
    {
        calendars
            .MapPost(
                "/",
                async (HttpRequest request, CalendarJoining joining, CalendarViews views, CancellationToken ct) =>
                {
                    var upload = await Upload.ReadAsync(request, ct);
                    var id = await joining.JoinFileAsync(
                        OwnersIn(upload),
                        upload.Field("name"),
                        upload.FileName,
                        upload.Bytes,
                        ct
                    );
                    return TypedResults.Created($"/api/calendars/{id}", await views.OneAsync(id, ct));
                }
            )
            .WithName("joinCalendar")
            .WithDescription(
                "A multipart/form-data form with hostId (or, for a calendar of the whole team, hostIds separated by commas), name (may be left out) and file, an iCalendar file."
            )
            .ProducesValidationProblem()
            .ProducesProblem(403);

        calendars
            .MapPut(
                "/{id:guid}/file",
                async (
                    Guid id,
                    HttpRequest request,
                    CalendarJoining joining,
                    CalendarViews views,
                    CancellationToken ct
                ) =>
                {
                    var upload = await Upload.ReadAsync(request, ct);
                    await joining.ReplaceFileAsync(id, upload.FileName, upload.Bytes, ct);
                    return await views.OneAsync(id, ct);
                }
            )
            .WithName("replaceCalendarFile")
            .WithDescription("A multipart/form-data form with file, an iCalendar file.")
            .ProducesValidationProblem()
            .ProducesProblem(403)
            .ProducesProblem(404)
            .ProducesProblem(409);

        calendars
            .MapPost(
                "/address",
                async (AddressForm form, CalendarJoining joining, CalendarViews views, CancellationToken ct) =>
                {
                    var id = await joining.JoinAddressAsync(form, ct);
                    return TypedResults.Created($"/api/calendars/{id}", await views.OneAsync(id, ct));
                }
            )
            .WithName("joinCalendarAddress")
            .ProducesValidationProblem()
            .ProducesProblem(403);

        // A question that keeps nothing; it is a POST because a password goes along.
        calendars
            .MapPost(
                "/account/find",
                async (AccountForm form, Guid? hostId, CalendarJoining joining, CancellationToken ct) =>
                    await joining.FindAsync(form, hostId, ct)
            )
            .WithName("findAccountCalendars")
            .ProducesValidationProblem();

        calendars
            .MapPost(
                "/account",
                async (JoinAccountForm form, CalendarJoining joining, CalendarViews views, CancellationToken ct) =>
                {
                    var joined = await joining.JoinAccountAsync(form, ct);
                    return (await views.ListAsync(null, ct)).FindAll(view => joined.Contains(view.Id));
                }
            )
            .WithName("joinCalendarAccount")
            .ProducesValidationProblem()
            .ProducesProblem(403);
    }

    /// <summary>Entries of the calendar that is kept here.</summary>
    private static void MapEntries(RouteGroupBuilder entries)
    {
        entries
            .MapGet("/", async (Guid id, OwnEntries own, CancellationToken ct) => await own.ListAsync(id, ct))
            .WithName("listOwnEntries")
            .ProducesProblem(403)
            .ProducesProblem(404);

        entries
            .MapPost("/", async (Guid id, OwnEntryForm form, OwnEntries own, CancellationToken ct) =>
            {
                var added = await own.AddAsync(id, form, ct);
                return TypedResults.Created($"/api/calendars/{id}/entries/{added.Id}", added);
            })
            .WithName("addOwnEntry")
            .ProducesValidationProblem()
            .ProducesProblem(403)
            .ProducesProblem(404)
            .ProducesProblem(409);

        entries
            .MapPut(
                "/{entry:long}",
                async (Guid id, long entry, OwnEntryForm form, OwnEntries own, CancellationToken ct) =>
                    await own.ChangeAsync(id, entry, form, ct)
            )
            .WithName("changeOwnEntry")
            .ProducesValidationProblem()
            .ProducesProblem(403)
            .ProducesProblem(404);

        entries
            .MapDelete(
                "/{entry:long}",
                async Task<NoContent> (Guid id, long entry, OwnEntries own, CancellationToken ct) =>
                {
                    await own.RemoveAsync(id, entry, ct);
                    return TypedResults.NoContent();
                }
            )
            .WithName("removeOwnEntry")
            .ProducesProblem(403)
            .ProducesProblem(404);
    }

    private static CalendarOwners OwnersIn(Upload upload)
    {
        if (upload.Field("hostIds") is not { Length: > 0 } several)
            return new CalendarOwners(
                Guid.TryParse(upload.Field("hostId"), out var hostId)
                    ? hostId
                    : throw Refusal.Invalid("hostId", "calendar-owner")
            );
        var ids = several.Split(',', StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries);
        return new CalendarOwners(
            null,
            [
                .. ids.Select(id =>
                    Guid.TryParse(id, out var parsed) ? parsed : throw Refusal.Invalid("hostIds", "team-hosts")
                ),
            ]
        );
    }
}
