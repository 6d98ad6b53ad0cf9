using System.Text;
using LooseLantern.Core;
using LooseLantern.Core.Openings;
using LooseLantern.Formats.Tables;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.ActingFor;
using LooseLantern.Server.Features.Guests;
using LooseLantern.Server.Features.Openings;
using LooseLantern.Server.Features.Pages;
using LooseLantern.Server.Features.Post;
using LooseLantern.Server.Features.Reserving;
using LooseLantern.Server.Features.Undo;
using LooseLantern.Server.Hosting;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Bookings;

/// <param name="Word">What everybody who comes is to read.</param>
public sealed record SessionWordsForm(string Word);

/// <param name="Mails">How many mails go out.</param>
public sealed record SessionWordsSent(int Mails);

/// <summary>A session as one thing: everybody who comes, and what is done to all of them at once.</summary>
public static class SessionEndpoints
{
    public static void MapSessions(this IEndpointRouteBuilder api)
    {
        var sessions = api.MapGroup("/sessions/{id:guid}").WithTags("Bookings");

        sessions
            .MapGet("/", (Guid id, SessionDetails details, CancellationToken ct) => details.OfAsync(id, ct))
            .WithName("getSession")
            .ProducesProblem(404);

        sessions
            .MapGet("/guests.csv", async (Guid id, SessionDetails details, CancellationToken ct) =>
            {
                // With a byte order mark, by which spreadsheets know the encoding.
                var text = "\uFEFF" + SessionTable.Write(await details.OfAsync(id, ct));
                return TypedResults.File(
                    Encoding.UTF8.GetBytes(text),
                    TableWriting.MediaType + "; charset=utf-8",
                    "guests.csv"
                );
            })
            .WithName("getSessionGuests")
            .Produces<string>(200, TableWriting.MediaType)
            .ProducesProblem(404);

        sessions
            .MapGet(
                "/openings",
                async (Guid id, string? from, string? to, SessionsToChange toChange, CancellationToken ct) =>
                {
                    var session = await toChange.FindAsync(id, ct);
                    var asked = OpeningsQuery.Read(from, to, null, session.Page!);
                    return new OpeningsAnswer(
                        session.Page!.Zone,
                        await toChange.OpeningsAsync(session, asked.From, asked.To, ct)
                    );
                }
            )
            .WithName("getSessionOpenings")
            .WithDescription("When all hosts of the session could take all of it, by the page’s rules.")
            .ProducesValidationProblem()
            .ProducesProblem(403)
            .ProducesProblem(404);

        sessions
            .MapPost(
                "/move",
                async Task<NoContent> (
                    Guid id,
                    MoveRequest request,
                    SessionsToChange toChange,
                    SessionMoving moving,
                    CancellationToken ct
                ) =>
                {
                    MoveRequest.Check(request);
                    var session = await toChange.FindAsync(id, ct);
                    var time = session.Time.ToSpan();
                    await moving.MoveAsync(id, new Span(request.Start, request.Start + time.Length), ct);
                    return TypedResults.NoContent();
                }
            )
            .WithName("moveSession")
            .CanBeUndone()
            .WithDescription("With everybody in it: each guest is told.")
            .ProducesValidationProblem()
            .ProducesProblem(403)
            .ProducesProblem(404)
            .ProducesProblem(409);

        sessions
            .MapPost(
                "/cancel",
                async Task<NoContent> (
                    Guid id,
                    CancelForm form,
                    SessionsToChange toChange,
                    Cancelling cancelling,
                    CancellationToken ct
                ) =>
                {
                    await toChange.FindAsync(id, ct);
                    await cancelling.CancelSessionAsync(id, form.Word, ct);
                    return TypedResults.NoContent();
                }
            )
            .WithName("cancelSession")
            .CanBeUndone()
            .WithDescription("With everybody in it: each guest is told.")
            .ProducesValidationProblem()
            .ProducesProblem(403)
            .ProducesProblem(404)
            .ProducesProblem(409);

        sessions
            .MapPost(
                "/words",
                async (
                    Guid id,
                    SessionWordsForm form,
                    [FromHeader(Name = "Idempotency-Key")] string? idempotencyKey,
                    SessionsToChange toChange,
                    SessionWords words,
                    CancellationToken ct
                ) =>
                {
                    IdempotencyKeys.Require(idempotencyKey);
                    await toChange.FindAsync(id, ct);
                    return new SessionWordsSent(await words.SendAsync(id, form.Word, idempotencyKey, ct));
                }
            )
            .WithName("writeToSession")
            .WithDescription("A mail of their own to each who comes.")
            .ProducesValidationProblem()
            .ProducesProblem(403)
            .ProducesProblem(404)
            .ProducesProblem(409);
    }
}

/// <summary>Finds sessions that somebody of the team wants to change, if they may, and when they could be.</summary>
public sealed class SessionsToChange(LanternDb db, PageEditing pages, OpeningsInputs inputs, Allowances allowances)
{
    /// <summary>A session that stands, with its hosts, its bookings and its page, whole.</summary>
    /// <exception cref="Refusal">404 where there is none that stands, 403 where its hosts don't let the person who
    /// asks.</exception>
    public async Task<Session> FindAsync(Guid id, CancellationToken ct)
    {
        var session = await db
            .Sessions.AsNoTracking()
            .Include(row => row.Hosts)
            .Include(row => row.Bookings)
            .AsSplitQuery()
            .FirstOrDefaultAsync(row => row.Id == id, ct)
            ?? throw Refusal.NotFound("session");
        await allowances.RequireAsync(session.Hosts.ConvertAll(host => host.HostId), Allowance.Move, ct);
        session.Page = await pages.Whole().AsNoTracking().SingleAsync(row => row.Id == session.PageId, ct);
        return session;
    }

    /// <summary>When all its hosts could take all of it, its own time left out.</summary>
    public async Task<IReadOnlyList<Opening>> OpeningsAsync(
        Session session,
        LocalDate from,
        LocalDate to,
        CancellationToken ct
    )
    {
        var time = session.Time.ToSpan();
        var asked = inputs
            .Rules(session.Page!)
            .With(rules =>
                rules with
                {
                    // Its hosts stay the same, and it joins no other.
                    Places = 1,
                    LineUp = [.. session.Hosts.Select(host => new Seat([OpeningsInputs.Id(host.HostId)]))],
                }
            );
        if (await inputs.InputAsync(asked, from, to, (int)time.Length.TotalMinutes, ct) is not { } input)
            return [];
        return
        [
            .. OpeningsComputation
                .Openings(input with { Moving = OpeningsInputs.Id(session.Id) })
                .Where(opening => opening.Start != time.Start),
        ];
    }
}
