using FluentValidation;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.ActingFor;
using LooseLantern.Server.Features.Record;
using LooseLantern.Server.Hosting;
using LooseLantern.Server.Tenancy;
using Microsoft.EntityFrameworkCore;

namespace LooseLantern.Server.Features.Hours;

/// <summary>Named hours as their editor sends them.</summary>
public sealed record HoursForm(string Name, HoursDocument Document);

/// <summary>Makes and changes named hours. The hours a page has for itself are changed with the page.</summary>
public sealed class HoursEditing(LanternDb db, Tenant tenant, Actor actor, Allowances allowances, RecordKeeping record)
{
    private static readonly FormRules Checks = new();

    public IQueryable<HoursRow> Named() => db.Hours.Where(row => row.IsNamed);

    public async Task<HoursRow> GetAsync(Guid id, CancellationToken ct) =>
        await Named().FirstOrDefaultAsync(row => row.Id == id, ct) ?? throw Refusal.NotFound("hours");

    /// <exception cref="Refusal">With the faults of each field.</exception>
    public static void Check(HoursForm form) => Checks.Check(form);

    /// <summary>
    /// Holds a change of hours to whose time follows them: one's own, or that of hosts who let the person.
    /// </summary>
    /// <exception cref="Refusal">403, also for a host who would change hours that are nobody's.</exception>
    public async Task RequireUsersAsync(Guid id, CancellationToken ct)
    {
        var hosts = await HostsOf(id).ToListAsync(ct);
        if (actor.Person is { Coordinates: false } && hosts.Count == 0)
            throw new Refusal(StatusCodes.Status403Forbidden, "not-yours");
        await allowances.RequireAsync(hosts, Allowance.Offer, ct);
    }

    private IQueryable<Guid> HostsOf(Guid id) =>
        db.Hosts.Where(host => host.HoursId == id && host.RetiredAt == null).Select(host => host.Id);

    public async Task<HoursRow> CreateAsync(HoursForm form, CancellationToken ct)
    {
        Check(form);
        var row = new HoursRow
        {
            WorkspaceId = tenant.WorkspaceId!.Value,
            Name = form.Name.Trim(),
            IsNamed = true,
            Document = form.Document,
        };
        db.Hours.Add(row);
        record.Note(row.Id, $"Made the hours “{row.Name}”");
        await db.SaveChangesAsync(ct);
        return row;
    }

    public async Task<HoursRow> ChangeAsync(Guid id, int version, HoursForm form, CancellationToken ct)
    {
        Check(form);
        var row = await GetAsync(id, ct);
        if (row.Version != version)
            throw ChangedMeanwhile();
        await RequireUsersAsync(id, ct);
        record.Note(id, $"Changed the hours “{form.Name.Trim()}”", await HostsOf(id).ToListAsync(ct));
        row.Name = form.Name.Trim();
        row.Document = form.Document;
        row.Version++;
        try
        {
            await db.SaveChangesAsync(ct);
        }
        catch (DbUpdateConcurrencyException)
        {
            throw ChangedMeanwhile();
        }

        return row;
    }

    /// <exception cref="Refusal">409 while somebody's time follows them.</exception>
    public async Task RemoveAsync(Guid id, CancellationToken ct)
    {
        var row = await GetAsync(id, ct);
        var users = await db
            .Hosts.Where(host => host.HoursId == id && host.RetiredAt == null)
            .OrderBy(host => host.Name)
            .Select(host => host.Name)
            .ToListAsync(ct);
        users.AddRange(
            await db
                .DeskPages.Where(page => page.HoursId == id)
                .OrderBy(page => page.Title)
                .Select(page => page.Title)
                .ToListAsync(ct)
        );
        if (users.Count > 0)
        {
            throw new Refusal(StatusCodes.Status409Conflict, "in-use", Phrase.Of("in-use", ("users", users)));
        }

        // Of those who are not on the team any more nobody asks for hours.
        await db
            .Hosts.Where(host => host.HoursId == id)
            .ExecuteUpdateAsync(host => host.SetProperty(old => old.HoursId, (Guid?)null), ct);
        db.Hours.Remove(row);
        record.Note(id, $"Took the hours “{row.Name}” away");
        await db.SaveChangesAsync(ct);
    }

    private static Refusal ChangedMeanwhile() =>
        new(StatusCodes.Status409Conflict, "changed-meanwhile", "changed-meanwhile.hours");

    private sealed class FormRules : AbstractValidator<HoursForm>
    {
        public FormRules()
        {
            RuleFor(form => form.Name).Must(Words.FitOneLine).WithMend("hours-name");
            RuleFor(form => form.Document).NotNull().WithMend("hours-missing").SetValidator(new HoursRules());
        }
    }
}
