using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Record;
using LooseLantern.Server.Hosting;
using LooseLantern.Server.Tenancy;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using Npgsql;

namespace LooseLantern.Server.Features.GuestBook;

/// <summary>Writes guests down and changes what is known of them.</summary>
public sealed class GuestEditing(LanternDb db, Tenant tenant, RecordKeeping record, IClock clock)
{
    private static readonly GuestFormRules Checks = new();

    /// <exception cref="Refusal">400 naming each fault; 409 where another guest has one of the emails.</exception>
    public async Task<Guid> AddAsync(GuestForm form, CancellationToken ct)
    {
        var tidy = await CheckAsync(form, ct);
        var guest = new Guest
        {
            WorkspaceId = tenant.WorkspaceId!.Value,
            Name = tidy.Name,
            Source = GuestSource.Hand,
            MadeAt = clock.GetCurrentInstant(),
        };
        db.Guests.Add(guest);
        await FillAsync(guest, tidy, ct);
        record.Note(guest.Id, $"Added {RecordWords.Guest} to the guests");
        await SaveAsync(tidy, ct);
        return guest.Id;
    }

    /// <exception cref="Refusal">400 naming each fault; 404; 409 where somebody changed the guest meanwhile, or another
    /// guest has one of the emails.</exception>
    public async Task ChangeAsync(Guid id, int version, GuestForm form, CancellationToken ct)
    {
        var tidy = await CheckAsync(form, ct);
        var guest = await FindAsync(id, ct);
        if (guest.Version != version)
            throw ChangedMeanwhile();
        await FillAsync(guest, tidy, ct);
        guest.Version++;
        record.Note(id, $"Changed what is known of {RecordWords.Guest}");
        await SaveAsync(tidy, ct);
    }

    /// <summary>Notes that two who look alike are two.</summary>
    /// <exception cref="Refusal">404 where one of them is not there, 409 where one was changed meanwhile.</exception>
    public async Task KeepApartAsync(Guid id, Guid otherId, CancellationToken ct)
    {
        var (one, other) = (await FindAsync(id, ct), await FindAsync(otherId, ct));
        one.NotSame = [.. one.NotSame.Append(other.Id).Distinct()];
        other.NotSame = [.. other.NotSame.Append(one.Id).Distinct()];
        try
        {
            await db.SaveChangesAsync(ct);
        }
        catch (DbUpdateConcurrencyException)
        {
            throw ChangedMeanwhile();
        }
    }

    /// <exception cref="Refusal">404 where there is none, or they were merged into another.</exception>
    public async Task<Guest> FindAsync(Guid id, CancellationToken ct) =>
        await db
            .Guests.Include(row => row.Emails)
            .FirstOrDefaultAsync(row => row.Id == id && row.MergedInto == null, ct)
        ?? throw Refusal.NotFound("guest");

    public static Refusal ChangedMeanwhile() =>
        new(StatusCodes.Status409Conflict, "changed-meanwhile", "changed-meanwhile.guest");

    private async Task<GuestForm> CheckAsync(GuestForm form, CancellationToken ct)
    {
        Checks.Check(form);
        if (
            form.KeeperId is { } keeper
            && !await db.Users.AnyAsync(person => person.Id == keeper && person.LeftAt == null, ct)
        )
            throw Refusal.Invalid("keeperId", "guest-keeper");
        var fields = await db.Workspaces.AsNoTracking().Select(row => row.GuestFields).SingleAsync(ct);
        var (values, faults) = (new Dictionary<Guid, string>(), new Dictionary<string, Phrase[]>());
        foreach (var (id, typed) in form.Fields)
        {
            if (fields.FirstOrDefault(one => one.Id == id) is not { } field)
                continue;
            if (GuestFieldValues.Tidy(field, typed ?? "") is not { } value)
                faults[$"fields.{id}"] = [GuestFieldValues.MendOf(field)];
            else if (value.Length > 0)
                values[id] = value;
        }

        if (faults.Count > 0)
            throw Refusal.Invalid(faults);
        return form with
        {
            Name = form.Name.Trim(),
            Emails = [.. form.Emails.Select(email => email.Trim())],
            Organisation = form.Organisation.Trim(),
            Phone = form.Phone.Trim(),
            Fields = values,
        };
    }

    private async Task FillAsync(Guest guest, GuestForm form, CancellationToken ct)
    {
        await RequireOwnAsync(guest.Id, form, ct);
        (guest.Name, guest.Organisation, guest.Phone) = (form.Name, form.Organisation, form.Phone);
        (guest.Zone, guest.Language, guest.Clock) = (form.Zone, form.Language, form.Clock);
        (guest.KeeperId, guest.Fields) = (form.KeeperId, form.Fields);
        var keys = form.Emails.Select(GuestEmail.KeyOf).ToList();
        foreach (var gone in guest.Emails.Where(email => !keys.Contains(email.Key)).ToList())
            db.GuestEmails.Remove(gone);
        foreach (var (place, email) in form.Emails.Index())
        {
            if (guest.Emails.Find(row => row.Key == keys[place]) is { } known)
                known.Place = place;
            else
                guest.Emails.Add(
                    new GuestEmail
                    {
                        WorkspaceId = guest.WorkspaceId,
                        Key = keys[place],
                        GuestId = guest.Id,
                        Email = email,
                        Place = place,
                    }
                );
        }
    }

    private async Task RequireOwnAsync(Guid id, GuestForm form, CancellationToken ct)
    {
        var keys = form.Emails.Select(GuestEmail.KeyOf).ToList();
        var taken = await db
            .GuestEmails.AsNoTracking()
            .Where(row => keys.Contains(row.Key) && row.GuestId != id)
            .Join(
                db.Guests,
                email => email.GuestId,
                guest => guest.Id,
                (email, guest) =>
                    new
                    {
                        email.Email,
                        guest.Id,
                        guest.Name,
                    }
            )
            .FirstOrDefaultAsync(ct);
        if (taken is not null)
            throw EmailTaken(taken.Email, taken.Name, taken.Id);
    }

    private static Refusal EmailTaken(string email, string name, Guid? guest) =>
        new(
            StatusCodes.Status409Conflict,
            "guest-email-taken",
            Phrase.Of("guest-email-taken", ("email", email), ("name", name))
        )
        {
            More = { ["guest"] = guest },
        };

    private async Task SaveAsync(GuestForm form, CancellationToken ct)
    {
        try
        {
            await db.SaveChangesAsync(ct);
        }
        catch (DbUpdateConcurrencyException)
        {
            throw ChangedMeanwhile();
        }
        catch (DbUpdateException e)
            when (e.InnerException is PostgresException { SqlState: PostgresErrorCodes.UniqueViolation })
        {
            // Somebody booked with it just now.
            throw EmailTaken(form.Emails[0], form.Name, null);
        }
    }
}
