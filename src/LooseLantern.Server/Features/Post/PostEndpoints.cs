using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Record;
using LooseLantern.Server.Hosting;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Post;

/// <param name="At">When it was sent; of one that is not, when it is due.</param>
/// <param name="HeldBack">Why it is not sent though it is due; null where nothing keeps it.</param>
/// <param name="Fault">What stood in the way of the last try, in words.</param>
public sealed record PostRow(
    Guid Id,
    MessageKind Kind,
    MessageState State,
    string ToName,
    string ToEmail,
    string Subject,
    Instant WrittenAt,
    Instant At,
    int Attempts,
    string? Fault,
    MessageHold? HeldBack
);

/// <summary>A message as its reader sees it, but for what only they may know.</summary>
/// <param name="Calendar">The iCalendar part; null for a plain mail.</param>
/// <param name="Files">Names of what goes along.</param>
public sealed record PostView(
    PostRow Row,
    string From,
    string Text,
    string? Calendar,
    string? CalendarMethod,
    IReadOnlyList<string> Files
);

public static class PostEndpoints
{
    public static void MapPost(this IEndpointRouteBuilder api)
    {
        var post = api.MapGroup("/post").WithTags("Post");

        post.MapGet(
                "/",
                async (
                    string? state,
                    string? search,
                    string? after,
                    string? before,
                    int? take,
                    Tellings tellings,
                    PostLists lists,
                    CancellationToken ct
                ) =>
                {
                    await tellings.WriteAllAsync(null, ct);
                    MessageState? asked =
                        state is null ? null
                        : Enum.TryParse<MessageState>(state, ignoreCase: true, out var one) && Enum.IsDefined(one) ? one
                        : throw Refusal.Invalid("state", "post-state");
                    return await lists.ReadAsync(asked, search, ListPlace.Of(after, before, take), ct);
                }
            )
            .WithName("listPost")
            .WithDescription(
                "What failed before all else, then the latest first, what is held back too; what waits for its hour comes last, and by itself it is listed as it falls due."
            )
            .ProducesValidationProblem();

        post.MapGet("/{id:guid}", async (Guid id, LanternDb db, InsertsInPost values, CancellationToken ct) =>
            {
                var message = await db.Messages.AsNoTracking().FirstOrDefaultAsync(row => row.Id == id, ct)
                    ?? throw Refusal.NotFound("message");
                var marks = (await values.OfAsync(message, ct)).Hidden();
                return new PostView(
                    RowOf(message),
                    message.FromName,
                    PostInserts.PutIn(message.Text, marks),
                    message.Calendar is { } calendar ? PostInserts.PutIn(calendar, marks) : null,
                    message.CalendarMethod,
                    await db
                        .PageFiles.Where(file => message.FileIds.Contains(file.Id))
                        .OrderBy(file => file.Name)
                        .Select(file => file.Name)
                        .ToListAsync(ct)
                );
            })
            .WithName("getPost")
            .ProducesProblem(404);

        post.MapPost(
                "/{id:guid}/again",
                async Task<NoContent> (
                    Guid id,
                    LanternDb db,
                    RecordKeeping record,
                    IClock clock,
                    CancellationToken ct
                ) =>
                {
                    var message = await db.Messages.FirstOrDefaultAsync(row => row.Id == id, ct)
                        ?? throw Refusal.NotFound("message");
                    if (message.State == MessageState.Due && message.Attempts == 0)
                        throw new Refusal(StatusCodes.Status409Conflict, "not-sent-yet");
                    // What could not be written has no words to send.
                    if (message.Text.Length == 0)
                        throw new Refusal(StatusCodes.Status409Conflict, "never-written");
                    (message.State, message.DueAt, message.Attempts, message.Fault, message.LetOutAt) = (
                        MessageState.Due,
                        clock.GetCurrentInstant(),
                        0,
                        null,
                        null
                    );
                    record.Note(
                        message.BookingId ?? message.Id,
                        $"Sent a mail again to {(message.PersonId is null ? RecordWords.Guest : message.ToName)}"
                    );
                    await db.SaveChangesAsync(ct);
                    return TypedResults.NoContent();
                }
            )
            .WithName("sendAgain")
            .ProducesProblem(404)
            .ProducesProblem(409);
    }

    internal static PostRow RowOf(Message row) =>
        new(
            row.Id,
            row.Kind,
            row.State,
            row.ToName,
            row.ToEmail,
            row.Subject,
            row.WrittenAt,
            row.SentAt ?? row.DueAt,
            row.Attempts,
            row.Fault
                ?? (
                    row.OwnWordsFault is { } fault
                        ? $"The page’s own words could not be filled in, so it is in ours: {fault}"
                        : null
                ),
            row.HeldBack
        );
}
