using System.Security.Cryptography;
using System.Text;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.ActingFor;
using LooseLantern.Server.Hosting;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Post;

/// <summary>Writes to everybody who comes to a session, each in a mail of their own: no guest sees another.</summary>
public sealed class SessionWords(LanternDb db, PostWords words, Tellings tellings, Actor actor, IClock clock)
{
    public const int MostOfAWord = 4_000;

    /// <param name="key">Of the press it is sent by: what was sent with it is not sent twice; null for none.</param>
    /// <returns>How many mails it comes to.</returns>
    /// <exception cref="Refusal">400 for a word that is empty or too long, 409 where no mail reaches anybody of
    /// it.</exception>
    /// <param name="only">The one booking whose guest is written to; null for all.</param>
    public async Task<int> SendAsync(Guid sessionId, string word, string? key, CancellationToken ct, Guid? only = null)
    {
        if (string.IsNullOrWhiteSpace(word))
            throw Refusal.Invalid("word", "write-something");
        if (word.Length > MostOfAWord)
            throw Refusal.Invalid("word", Phrase.Of("too-long", ("most", MostOfAWord)));
        // What was done before is told before.
        await tellings.WriteAllAsync(null, ct);
        await using var transaction = await db.Database.BeginTransactionAsync(ct);
        // One press after the other, so that what was sent by the same key is seen.
        await db.Database.ExecuteSqlAsync($"SELECT 1 FROM sessions WHERE id = {sessionId} FOR NO KEY UPDATE", ct);
        var ids = await db
            .Bookings.Where(row => row.SessionId == sessionId && (only == null || row.Id == only))
            .Select(row => row.Id)
            .ToListAsync(ct);
        var telling = new Telling(Occasion.Booked) { Word = word.Trim() };
        var (written, readers) = (0, 0);
        foreach (var about in await AboutBooking.ReadAsync(db, ids, ct))
        {
            // Guests who are mailed nothing of their bookings read all the same what somebody writes to them alone.
            foreach (
                var reader in about.Page.Post.ToGuests == GuestMail.None && only is null
                    ? []
                    : Reader.AllOf(about.Booking)
            )
            {
                readers++;
                var id = IdOf(about.Booking.Id, reader.Email, key);
                if (await db.Messages.AnyAsync(known => known.Id == id, ct))
                    continue;
                var said = words.Of(about, telling, reader);
                said["sender"] = PostInserts.Harmless(actor.Person?.Name ?? about.Page.Desk!.Name);
                var mail = PostTemplates.Write(MessageKind.WordsForGuest, reader.Language, said);
                db.Messages.Add(
                    PostDraft.Of(
                        about.Booking.WorkspaceId,
                        about.Page.Desk!.Name,
                        MessageKind.WordsForGuest,
                        reader,
                        mail,
                        clock.GetCurrentInstant(),
                        about.Booking.Id,
                        id
                    )
                );
                written++;
            }
        }

        if (readers == 0)
            throw new Refusal(StatusCodes.Status409Conflict, "nobody-to-mail");
        await db.SaveChangesAsync(ct);
        await transaction.CommitAsync(ct);
        return written;
    }

    private static Guid IdOf(Guid bookingId, string email, string? key) =>
        key is null
            ? Guid.CreateVersion7()
            : new Guid(SHA256.HashData(Encoding.UTF8.GetBytes($"{bookingId} words {key} {email}")).AsSpan(0, 16));
}
