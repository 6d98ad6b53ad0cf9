using FluentValidation;
using LooseLantern.Core;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.ActingFor;
using LooseLantern.Server.Features.Bookings;
using LooseLantern.Server.Features.Hours;
using LooseLantern.Server.Features.Post;
using LooseLantern.Server.Features.Record;
using LooseLantern.Server.Features.SignIn;
using LooseLantern.Server.Hosting;
using LooseLantern.Server.Tenancy;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Team;

/// <summary>Invites people by a secret link and lets them join by it, once.</summary>
public sealed class Inviting(
    LanternDb db,
    Tenant tenant,
    Actor actor,
    TeamBuilding team,
    PrivateLinks links,
    PersonPost post,
    RecordKeeping record,
    PasswordWork work,
    IClock clock
)
{
    public static readonly Duration Validity = Duration.FromDays(14);

    private static readonly FormRules FormChecks = new();
    private static readonly JoinRules JoinChecks = new();

    public async Task<Invitation> InviteAsync(InvitationForm form, CancellationToken ct)
    {
        FormChecks.Check(form);
        var email = form.Email.Trim();
        if (
            await db.Users.AnyAsync(
                person => person.NormalizedEmail == email.ToUpperInvariant() && person.LeftAt == null,
                ct
            )
        )
            throw Refusal.Invalid("email", "email-of-team");
        var secret = links.Create();
        var row = new Invitation
        {
            WorkspaceId = tenant.WorkspaceId!.Value,
            Name = form.Name.Trim(),
            Email = email,
            IsOwner = form.Roles.IsOwner,
            IsCoordinator = form.Roles.IsCoordinator,
            IsHost = form.Roles.IsHost,
            ByPersonId = actor.Required.Id,
            SecretHash = secret.Hash,
            ProtectedSecret = secret.Protected,
            ExpiresAt = clock.GetCurrentInstant() + Validity,
        };
        db.Invitations.Add(row);
        record.Note(row.Id, $"Invited {row.Name}");
        await post.InvitationAsync(
            row,
            await db.Users.AsNoTracking().SingleAsync(person => person.Id == row.ByPersonId, ct),
            ct
        );
        await db.SaveChangesAsync(ct);
        return row;
    }

    /// <exception cref="Refusal">404 for a link that never was or was taken back, 410 for one that was used or has run
    /// out.</exception>
    public async Task<InvitationRead> ReadAsync(string secret, CancellationToken ct)
    {
        var row = await FindAsync(secret, ct);
        var workspace = await db.Workspaces.AsNoTracking().SingleAsync(ct);
        var by = await db.Users.AsNoTracking().SingleAsync(person => person.Id == row.ByPersonId, ct);
        return new InvitationRead(
            workspace.Name,
            workspace.Zone,
            by.Name,
            row.Name,
            row.Email,
            new RolesForm(row.IsOwner, row.IsCoordinator, row.IsHost)
        );
    }

    /// <returns>The new person, who can be signed in at once.</returns>
    public async Task<Person> JoinAsync(string secret, JoinForm form, CancellationToken ct)
    {
        JoinChecks.Check(form);
        var found = await FindAsync(secret, ct);
        var workspace = await db.Workspaces.AsNoTracking().SingleAsync(ct);
        using var place = await work.PlaceAsync(ct);
        Passwords.Require("password", form.Password, form.Name, found.Email, workspace.Name);
        await using var transaction = await db.Database.BeginTransactionAsync(ct);
        // A link that is opened twice at once lets one in.
        await db.Database.ExecuteSqlAsync($"SELECT 1 FROM invitations WHERE id = {found.Id} FOR NO KEY UPDATE", ct);
        var row = await db.Invitations.SingleAsync(invitation => invitation.Id == found.Id, ct);
        await db.Entry(row).ReloadAsync(ct);
        if (row.TakenUpAt is not null)
            throw Over();
        row.TakenUpAt = clock.GetCurrentInstant();

        var person = await team.AddPersonAsync(
            new NewPerson(form.Name, row.Email, form.Password, form.Zone, row.IsOwner, row.IsCoordinator),
            ct
        );
        if (row.IsHost)
        {
            var host = await team.AddHostAsync(
                new NewHost(form.Name, form.Zone, UsualHours.Weekdays(form.Zone)),
                person,
                ct
            );
            var inviter = await db.Users.SingleAsync(other => other.Id == row.ByPersonId, ct);
            if (form.LetInviter && inviter.LeftAt is null)
                team.Let(host, inviter.Id);
        }

        await db.SaveChangesAsync(ct);
        await transaction.CommitAsync(ct);
        return person;
    }

    private async Task<Invitation> FindAsync(string secret, CancellationToken ct)
    {
        var hash = PrivateLinks.Hash(secret);
        var row = await db
            .Invitations.IgnoreQueryFilters()
            .AsNoTracking()
            .FirstOrDefaultAsync(invitation => invitation.SecretHash == hash, ct)
            ?? throw Refusal.NotFound("invitation");
        if (row.TakenUpAt is not null || row.ExpiresAt <= clock.GetCurrentInstant())
            throw Over();
        tenant.Enter(row.WorkspaceId);
        return row;
    }

    private static Refusal Over() => new(StatusCodes.Status410Gone, "invitation-over");

    private sealed class FormRules : AbstractValidator<InvitationForm>
    {
        public FormRules()
        {
            RuleFor(form => form.Name).Must(Words.FitOneLine).WithMend("their-name");
            RuleFor(form => form.Email).Must(email => EmailAddress.IsPlausible(email.Trim())).WithMend("email");
            RuleFor(form => form.Roles).Must(roles => !roles.IsEmpty).WithMend("their-role");
        }
    }

    private sealed class JoinRules : AbstractValidator<JoinForm>
    {
        public JoinRules()
        {
            RuleFor(form => form.Name).Must(Words.FitOneLine).WithMend("your-name");
            RuleFor(form => form.Zone).Must(Zones.IsKnown).WithMend("zone");
        }
    }
}
