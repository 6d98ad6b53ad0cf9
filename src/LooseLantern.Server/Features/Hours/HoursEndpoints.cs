using System.Text;
using LooseLantern.Formats.ICalendar.Availability;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.SignIn;
using LooseLantern.Server.Hosting;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Hours;

/// <summary>A host whose usual hours a set is.</summary>
/// <param name="Zone">IANA id of the host's own zone, which the hours may differ from.</param>
public sealed record HoursUser(Guid Id, string Name, string Zone);

/// <param name="Hosts">Whose usual hours they are.</param>
/// <param name="Pages">The titles of the pages on which they count.</param>
public sealed record HoursView(
    Guid Id,
    int Version,
    string Name,
    HoursDocument Document,
    IReadOnlyList<HoursUser> Hosts,
    IReadOnlyList<string> Pages
);

public sealed record ChangeHoursRequest(int Version, HoursForm Form);

public sealed record TryHoursRequest(HoursDocument Document);

/// <param name="Effects">What the change did to each page's openings in the next four weeks.</param>
public sealed record HoursSaved(HoursView Hours, IReadOnlyList<PageEffect> Effects);

public static class HoursEndpoints
{
    private static readonly HoursRules Checks = new();

    public static void MapHours(this IEndpointRouteBuilder api)
    {
        var hours = api.MapGroup("/hours").WithTags("Hours");

        hours
            .MapGet("/", async (HoursEditing editing, HoursEffects effects, LanternDb db, CancellationToken ct) =>
            {
                var rows = await editing.Named().AsNoTracking().OrderBy(row => row.Name).ToListAsync(ct);
                return await ViewsAsync(rows, effects, db, ct);
            })
            .WithName("listHours");

        hours
            .MapGet(
                "/{id:guid}",
                async (Guid id, HoursEditing editing, HoursEffects effects, LanternDb db, CancellationToken ct) =>
                    await ViewAsync(await editing.GetAsync(id, ct), effects, db, ct)
            )
            .WithName("getHours")
            .ProducesProblem(404);

        hours
            .MapPost(
                "/",
                async Task<Created<HoursView>> (
                    HoursForm form,
                    HoursEditing editing,
                    HoursEffects effects,
                    LanternDb db,
                    CancellationToken ct
                ) =>
                {
                    var row = await editing.CreateAsync(form, ct);
                    return TypedResults.Created($"/api/hours/{row.Id}", await ViewAsync(row, effects, db, ct));
                }
            )
            .WithName("createHours")
            .ProducesValidationProblem();

        hours
            .MapPut(
                "/{id:guid}",
                async (
                    Guid id,
                    ChangeHoursRequest request,
                    HoursEditing editing,
                    HoursEffects effects,
                    LanternDb db,
                    CancellationToken ct
                ) =>
                {
                    await editing.GetAsync(id, ct);
                    await editing.RequireUsersAsync(id, ct);
                    HoursEditing.Check(request.Form);
                    // Told by what was just before: afterwards there is nothing to compare with.
                    var did = await effects.OfAsync(id, request.Form.Document, ct);
                    var row = await editing.ChangeAsync(id, request.Version, request.Form, ct);
                    return new HoursSaved(await ViewAsync(row, effects, db, ct), did);
                }
            )
            .WithName("changeHours")
            .ProducesValidationProblem()
            .ProducesProblem(403)
            .ProducesProblem(404)
            .ProducesProblem(409);

        // A question that changes nothing; it is a POST because the hours it asks of are not saved yet.
        hours
            .MapPost(
                "/{id:guid}/effects",
                async (
                    Guid id,
                    TryHoursRequest request,
                    HoursEditing editing,
                    HoursEffects effects,
                    CancellationToken ct
                ) =>
                {
                    await editing.GetAsync(id, ct);
                    Checks.Check(request.Document, "document.");
                    return await effects.OfAsync(id, request.Document, ct);
                }
            )
            .WithName("tryOutHours")
            .ProducesValidationProblem()
            .ProducesProblem(404);

        hours
            .MapGet(
                "/{id:guid}/availability",
                async (Guid id, HoursEditing editing, HoursFiles files, CancellationToken ct) =>
                {
                    var row = await editing.GetAsync(id, ct);
                    return Results.File(
                        Encoding.UTF8.GetBytes(files.Write(row)),
                        AvailabilityWriter.MediaType,
                        "hours.ics"
                    );
                }
            )
            .WithName("exportHours")
            .Produces(200, contentType: AvailabilityWriter.MediaType)
            .ProducesProblem(404);

        // Reading a file saves nothing: what is in it is looked at first, and saved with the rest of the hours.
        hours
            .MapPost("/read", async (HttpRequest request, HoursFiles files, CancellationToken ct) =>
            {
                var upload = await Upload.ReadAsync(request, ct);
                return files.ReadAvailability(upload.Bytes, ZoneOf(upload), ct);
            })
            .WithName("readHours")
            .ProducesValidationProblem();

        hours
            .MapPost("/holidays", async (HttpRequest request, HoursFiles files, CancellationToken ct) =>
            {
                var upload = await Upload.ReadAsync(request, ct);
                return files.ReadHolidays(upload.Bytes, ZoneOf(upload), ct);
            })
            .WithName("readHolidays")
            .ProducesValidationProblem();

        hours
            .MapDelete("/{id:guid}", async Task<NoContent> (Guid id, HoursEditing editing, CancellationToken ct) =>
            {
                await editing.RemoveAsync(id, ct);
                return TypedResults.NoContent();
            })
            .WithName("removeHours")
            .RequireAuthorization(Roles.Coordinator)
            .ProducesProblem(404)
            .ProducesProblem(409);
    }

    private static DateTimeZone ZoneOf(Upload upload) =>
        upload.Field("zone") is { } id && Zones.IsKnown(id)
            ? DateTimeZoneProviders.Tzdb[id]
            : throw Refusal.Invalid("zone", "zone");

    private static async Task<HoursView> ViewAsync(
        HoursRow row,
        HoursEffects effects,
        LanternDb db,
        CancellationToken ct
    ) => (await ViewsAsync([row], effects, db, ct))[0];

    private static async Task<List<HoursView>> ViewsAsync(
        List<HoursRow> rows,
        HoursEffects effects,
        LanternDb db,
        CancellationToken ct
    )
    {
        var ids = rows.ConvertAll(row => row.Id);
        var hosts = (
            await db
                .Hosts.AsNoTracking()
                .Where(host => host.HoursId != null && ids.Contains(host.HoursId.Value) && host.RetiredAt == null)
                .OrderBy(host => host.Name)
                .Select(host => new { host.HoursId, User = new HoursUser(host.Id, host.Name, host.Zone) })
                .ToListAsync(ct)
        ).ToLookup(host => host.HoursId, host => host.User);
        var pages = await effects.TitlesOfAsync(ids, ct);
        return rows.ConvertAll(row => new HoursView(
            row.Id,
            row.Version,
            row.Name,
            row.Document,
            [.. hosts[row.Id]],
            [.. pages[row.Id]]
        ));
    }
}
