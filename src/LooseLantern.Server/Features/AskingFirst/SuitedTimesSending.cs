using LooseLantern.Core.Questions;
using LooseLantern.Core.Suggestions;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Bookings;
using LooseLantern.Server.Features.Guests;
using LooseLantern.Server.Features.Links;
using LooseLantern.Server.Features.Post;
using LooseLantern.Server.Features.Reserving;
using LooseLantern.Server.Hosting;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.AskingFirst;

/// <summary>Takes the times that suit a guest, and books the best that fits where the link says so.</summary>
public sealed class SuitedTimesSending(
    LanternDb db,
    SuitedTimesCrossing crossing,
    TimeReserving reserving,
    LinkEditing editing,
    LinkPost post,
    PrivateLinks privateLinks,
    MailReach reach,
    IClock clock
)
{
    // Of times that go while they are being booked; whoever loses as many is told by the maker.
    private const int MostTried = 5;

    /// <param name="link">With its page, whole.</param>
    /// <param name="key">The same key again answers with the same booking; null for none.</param>
    /// <returns>What was booked; null where nothing was.</returns>
    /// <exception cref="Refusal">400 naming the field, 410 for a link of which nothing can be taken.</exception>
    public async Task<BookedBySuiting?> SendAsync(
        AvailabilityLink link,
        SuitedTimesRequest request,
        string? key,
        CancellationToken ct
    )
    {
        if (key is not null && await MadeBeforeAsync(link.Id, key, ct) is { } before)
            return before;
        if (!link.Course.MayBeTakenAt(clock.GetCurrentInstant()))
            throw new Refusal(StatusCodes.Status410Gone, "ended");
        var guest = LinkGuests.WhoAnswers(link, request.Guest, request.NotMe, request.Name, request.Email);
        SuitedTimesRules.Check(link, request, guest, clock.GetCurrentInstant());
        var duration = SuitedTimesRules.DurationOf(link, request.Duration);
        var booked = link.BooksByItself ? await BookBestAsync(link, request, duration, guest, key, ct) : null;
        await KeepAsync(link.Id, request, duration, guest, isTold: booked is null, ct);
        return booked;
    }

    /// <summary>One after the other, since one that fitted a moment ago may have gone.</summary>
    private async Task<BookedBySuiting?> BookBestAsync(
        AvailabilityLink link,
        SuitedTimesRequest request,
        int duration,
        GuestRequest guest,
        string? key,
        CancellationToken ct
    )
    {
        var answers = QuestionAnswers.Check(GuestQuestions.Of(link.Page!), request.Answers);
        var ranked = await crossing.RankedAsync(link, request.Stretches, duration, request.Zone, MostTried, ct);
        foreach (var fit in ranked)
        {
            try
            {
                var booked = await reserving.BookAsync(
                    new BookingWish(
                        link.Id,
                        fit.Opening.Start,
                        duration,
                        guest.Name.Trim(),
                        guest.Email.Trim(),
                        request.Zone,
                        link.GuestLanguage
                    )
                    {
                        Answers = [.. answers.Where(answer => answer.Kind != QuestionKind.Others)],
                        Companions = OthersComing.Of(link.Page!, answers, guest.Email, reach),
                        GuestClock = link.Text.Clock ?? request.Clock,
                        Others = LinkGuests.BookedWith(link, guest),
                    },
                    key,
                    ct
                );
                return new BookedBySuiting(PrivateLinks.Path(booked.Secret), booked.Time.Start, booked.Time.End);
            }
            catch (Refusal refusal) when (refusal.Code == "opening-gone")
            {
                // Somebody else was quicker; the next best may still be there.
            }
        }

        return null;
    }

    /// <summary>The latest of each guest counts. The same again tells nobody twice.</summary>
    private async Task KeepAsync(
        Guid id,
        SuitedTimesRequest request,
        int duration,
        GuestRequest guest,
        bool isTold,
        CancellationToken ct
    )
    {
        await using var transaction = await db.Database.BeginTransactionAsync(ct);
        await db.Database.ExecuteSqlAsync($"SELECT 1 FROM links WHERE id = {id} FOR NO KEY UPDATE", ct);
        db.ChangeTracker.Clear();
        var link = await editing.GetAsync(id, ct);
        var sent = new GuestTimes(
            guest.Name.Trim(),
            guest.Email.Trim(),
            request.Zone,
            request.Clock,
            request.Words.Trim(),
            clock.GetCurrentInstant(),
            duration,
            [.. request.Stretches.OrderBy(stretch => stretch.Start)]
        );
        var former = link.Suits.FirstOrDefault(one => IsSame(one, sent));
        var others = link.Suits.Where(one => one != former).ToList();
        if (former is null && others.Count >= SuitedTimesRules.MostGuests)
            throw new Refusal(StatusCodes.Status422UnprocessableEntity, "enough");
        link.Suits = [.. others, sent];
        var isNew =
            former is null
            || (former.Words, former.Duration) != (sent.Words, sent.Duration)
            || !former.Stretches.SequenceEqual(sent.Stretches);
        if (isTold && isNew)
        {
            var joined = SuitedTimes.Joined(SuitedTimesCrossing.SpansOf(sent.Stretches));
            await post.TellMakerAsync(
                link,
                MessageKind.SuitsForMaker,
                [.. joined.Select(span => post.InWords(span, link.Page!.Zone, sent.Zone))],
                sent.Words,
                ct,
                sent.Name
            );
        }

        await db.SaveChangesAsync(ct);
        await transaction.CommitAsync(ct);
    }

    private static bool IsSame(GuestTimes one, GuestTimes other) =>
        one.Email.Length > 0 || other.Email.Length > 0
            ? one.Email.Equals(other.Email, StringComparison.OrdinalIgnoreCase)
            : one.Name == other.Name;

    private async Task<BookedBySuiting?> MadeBeforeAsync(Guid page, string key, CancellationToken ct)
    {
        var made = await db
            .BookingKeys.Where(row => row.PageId == page && row.Key == key)
            .Join(
                db.Bookings.IgnoreQueryFilters([LanternDb.NotCancelled]),
                row => row.BookingId,
                booking => booking.Id,
                (row, booking) => new { booking.ProtectedSecret, booking.Session!.Time }
            )
            .FirstOrDefaultAsync(ct);
        return made is null
            ? null
            : new BookedBySuiting(
                PrivateLinks.Path(privateLinks.Reveal(made.ProtectedSecret)),
                made.Time.LowerBound,
                made.Time.UpperBound
            );
    }
}
