using LooseLantern.Server.Data;
using LooseLantern.Server.Features.Openings;
using LooseLantern.Server.Features.Pages;
using LooseLantern.Server.Hosting;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Guests;

/// <summary>What of the day an opening lies in, as guests see it.</summary>
public enum DayPart
{
    Morning,
    Afternoon,
    Evening,
}

/// <param name="Week">Any date of the week that was looked at.</param>
/// <param name="Part">What of the day was chosen from; null where they only looked.</param>
/// <param name="Found">Whether anything was open in it.</param>
public sealed record Look(LocalDate Week, DayPart? Part, bool Found);

/// <param name="Week">Its Monday.</param>
/// <param name="Looks">How often guests looked at it.</param>
/// <param name="InVain">How often of these nothing was open.</param>
public sealed record WeekLooks(LocalDate Week, int Looks, int InVain);

/// <param name="Weeks">By date.</param>
/// <param name="Parts">How often each part of the day was chosen from.</param>
public sealed record LooksAnswer(IReadOnlyList<WeekLooks> Weeks, IReadOnlyDictionary<string, int> Parts);

/// <summary>
/// Counts what guests look for, and nothing of who they are: neither address nor time of looking is kept.
/// </summary>
public static class LookedForEndpoints
{
    // What was looked for longer ago says nothing of what to open now.
    private const int WeeksBack = 5;

    public static void MapLooks(this IEndpointRouteBuilder open) =>
        open.MapPost(
                "/desks/{desk}/pages/{page}/looks",
                async Task<NoContent> (
                    string desk,
                    string page,
                    Look look,
                    GuestPageFinding finding,
                    LanternDb db,
                    IClock clock,
                    CancellationToken ct
                ) =>
                {
                    var found = (await finding.FindAsync(desk, page, ct)).Page;
                    var (first, last) = PageRulesOf.DatesToAsk(
                        found,
                        clock.GetCurrentInstant().InZone(DateTimeZoneProviders.Tzdb[found.Zone]).Date
                    );
                    if (look.Week < first.PlusDays(-7) || look.Week > last.PlusDays(7))
                        throw Refusal.Invalid("week", "week-offered");
                    var week = look.Week.With(DateAdjusters.PreviousOrSame(IsoDayOfWeek.Monday));
                    if (look.Part is { } part && !Enum.IsDefined(part))
                        throw Refusal.Invalid("part", "day-part");
                    await db.Database.ExecuteSqlAsync(
                        $"""
                        INSERT INTO looked_for (page_id, workspace_id, week, part, found, count) VALUES ({found.Id}, {found.WorkspaceId}, {week}, {look.Part?.ToString()
                            ?? ""}, {look.Found}, 1)
                        ON CONFLICT (page_id, week, part, found) DO UPDATE SET count = looked_for.count + 1
                        """,
                        ct
                    );
                    return TypedResults.NoContent();
                }
            )
            .WithName("countLook")
            .WithTags("Guests")
            .ProducesValidationProblem()
            .ProducesProblem(404);

    public static void MapLooksOfPages(this IEndpointRouteBuilder api) =>
        api.MapGet(
                "/pages/{id:guid}/looks",
                async (Guid id, PageEditing editing, LanternDb db, IClock clock, CancellationToken ct) =>
                {
                    var page = await editing.GetAsync(id, ct);
                    var since = clock
                        .GetCurrentInstant()
                        .InZone(DateTimeZoneProviders.Tzdb[page.Zone])
                        .Date.PlusWeeks(-WeeksBack);
                    var rows = await db
                        .LookedFor.AsNoTracking()
                        .Where(row => row.PageId == page.Id && row.Week >= since)
                        .ToListAsync(ct);
                    return new LooksAnswer(
                        [
                            .. rows.Where(row => row.Part.Length == 0)
                                .GroupBy(row => row.Week)
                                .OrderBy(week => week.Key)
                                .Select(week => new WeekLooks(
                                    week.Key,
                                    week.Sum(row => row.Count),
                                    week.Where(row => !row.Found).Sum(row => row.Count)
                                )),
                        ],
                        rows.Where(row => row.Part.Length > 0)
                            .GroupBy(row => row.Part)
                            .ToDictionary(part => part.Key, part => part.Sum(row => row.Count))
                    );
                }
            )
            .WithName("getLooks")
            .WithTags("Supply")
            .ProducesProblem(404);
}
