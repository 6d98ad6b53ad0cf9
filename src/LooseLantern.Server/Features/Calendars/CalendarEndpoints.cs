using LooseLantern.Server.Data;
using LooseLantern.Server.Features.ActingFor;
using LooseLantern.Server.Hosting;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Calendars;

/// <summary>An event of a calendar's file that could not be read.</summary>
public sealed record UnreadView(int Line, string Title, string Fault);

/// <param name="Entries">How many occurrences were read between ReadFrom and ReadUntil.</param>
public sealed record CalendarView(
    Guid Id, Guid HostId, string HostName, string Name, bool IsAsked, bool TentativeCounts, string FileName, Instant LoadedAt, int Entries, IReadOnlyList<UnreadView> Unread);

/// <param name="IsAsked">Whether its busy times are in the way of openings; else it is only shown.</param>
/// <param name="TentativeCounts">Whether what it has only tentatively is in the way too.</param>
public sealed record CalendarForm(string Name, bool IsAsked, bool TentativeCounts);

public static class CalendarEndpoints
{
    private const string Untitled = "an event";
    private const string NotRead = "It can't be read; its host sees why.";

    /// <summary>Each may see to their own calendars, and coordinators to those of hosts who let them (held to in <see cref="CalendarJoining"/>).</summary>
    public static void MapCalendars(this IEndpointRouteBuilder api)
    {
        var calendars = api.MapGroup("/calendars").WithTags("Calendars");

        calendars.MapGet("/", async (LanternDb db, Allowances allowances, CancellationToken ct) => await ViewsAsync(db, allowances, null, ct)).WithName("listCalendars");

        calendars.MapPost("/", async (HttpRequest request, CalendarJoining joining, LanternDb db, Allowances allowances, CancellationToken ct) =>
            {
                var upload = await Upload.ReadAsync(request, ct);
                if (!Guid.TryParse(upload.Field("hostId"), out var hostId)) throw Refusal.Invalid("hostId", "Choose whose calendar this is.");
                var joined = await joining.JoinAsync(hostId, upload.Field("name"), upload.FileName, upload.Bytes, ct);
                return TypedResults.Created($"/api/calendars/{joined.Id}", (await ViewsAsync(db, allowances, joined.Id, ct))[0]);
            })
            .WithName("joinCalendar").WithDescription("A multipart/form-data form with hostId, name (may be left out) and file, an iCalendar file.")
            .ProducesValidationProblem().ProducesProblem(403);

        calendars.MapPut("/{id:guid}/file", async (Guid id, HttpRequest request, CalendarJoining joining, LanternDb db, Allowances allowances, CancellationToken ct) =>
            {
                var upload = await Upload.ReadAsync(request, ct);
                var replaced = await joining.ReplaceAsync(id, upload.FileName, upload.Bytes, ct);
                return (await ViewsAsync(db, allowances, replaced.Id, ct))[0];
            })
            .WithName("replaceCalendarFile").WithDescription("A multipart/form-data form with file, an iCalendar file.")
            .ProducesValidationProblem().ProducesProblem(403).ProducesProblem(404);

        calendars.MapPut("/{id:guid}", async (Guid id, CalendarForm form, CalendarJoining joining, LanternDb db, Allowances allowances, CancellationToken ct) =>
            {
                var changed = await joining.ChangeAsync(id, form, ct);
                return (await ViewsAsync(db, allowances, changed.Id, ct))[0];
            })
            .WithName("changeCalendar").ProducesValidationProblem().ProducesProblem(403).ProducesProblem(404);

        calendars.MapDelete("/{id:guid}", async (Guid id, CalendarJoining joining, CancellationToken ct) =>
            {
                await joining.RemoveAsync(id, ct);
                return TypedResults.NoContent();
            })
            .WithName("removeCalendar").ProducesProblem(403).ProducesProblem(404);
    }

    private static async Task<List<CalendarView>> ViewsAsync(LanternDb db, Allowances allowances, Guid? only, CancellationToken ct)
    {
        // What an event is called is for those who may read it, also where it could not be read in.
        var titled = await allowances.HostsAsync(Allowance.SeeTitles, ct);
        var views = await ViewsAsync(db, only, ct);
        return views.ConvertAll(view => titled.Contains(view.HostId) ? view : view with { Unread = [.. view.Unread.Select(unread => new UnreadView(unread.Line, Untitled, NotRead))] });
    }

    private static async Task<List<CalendarView>> ViewsAsync(LanternDb db, Guid? only, CancellationToken ct) => await db.Calendars
        .AsNoTracking()
        .Where(row => only == null || row.Id == only)
        .OrderBy(row => row.Host!.Name).ThenBy(row => row.Name)
        .Select(row => new CalendarView(
            row.Id, row.HostId, row.Host!.Name, row.Name, row.IsAsked, row.TentativeCounts, row.FileName, row.LoadedAt,
            db.CalendarEntries.Count(entry => entry.CalendarId == row.Id),
            row.Unread.OrderBy(unread => unread.Line).Select(unread => new UnreadView(unread.Line, unread.Title, unread.Fault)).ToList()))
        .ToListAsync(ct);
}
