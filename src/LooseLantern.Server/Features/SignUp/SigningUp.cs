using FluentValidation;
using LooseLantern.Core;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Desks;
using LooseLantern.Server.Features.Hours;
using LooseLantern.Server.Features.Post;
using LooseLantern.Server.Features.SignIn;
using LooseLantern.Server.Features.Team;
using LooseLantern.Server.Features.Undo;
using LooseLantern.Server.Hosting;
using LooseLantern.Server.Tenancy;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.SignUp;

/// <param name="Zone">IANA id.</param>
/// <param name="Email">Empty where a link says it.</param>
/// <param name="Link">The secret of a mailed link; needed where a mail server is set.</param>
public sealed record SignUpRequest(
    string Workspace,
    string Zone,
    string Name,
    string Email,
    string Password,
    string DeskName,
    string DeskAddress,
    string? Link = null
);

/// <summary>
/// Opens a workspace: its first person (owner, coordinator and host), that host's usual hours, and its first desk, all
/// or nothing.
/// </summary>
public sealed class SigningUp(
    LanternDb db,
    Tenant tenant,
    TeamBuilding team,
    DeskMaking desks,
    SignUpLinks links,
    PostSettings post,
    UndoSettings settings,
    PasswordWork work,
    IClock clock
)
{
    private static readonly Rules Checks = new();

    /// <summary>Whether a workspace is made by a mailed link, which proves its owner's address.</summary>
    public bool IsByMail => post.Host is not null;

    /// <returns>The new person, who can be signed in at once.</returns>
    /// <exception cref="Refusal">400 naming the field; 404 or 410 for a link that does not work.</exception>
    public async Task<Person> SignUpAsync(SignUpRequest request, CancellationToken ct)
    {
        SignUpLink? link = null;
        if (IsByMail)
        {
            link = await links.FindAsync(request.Link ?? throw Refusal.Invalid("link", "sign-up-link"), ct);
            if (request.Email.Length > 0 && !request.Email.Equals(link.Email, StringComparison.OrdinalIgnoreCase))
                throw Refusal.Invalid("email", "email-of-link");
            request = request with { Email = link.Email };
        }
        else if (request.Link is not null)
        {
            throw Refusal.Invalid("link", "no-sign-up-link");
        }

        Checks.Check(request);
        using var place = await work.PlaceAsync(ct);
        Passwords.Require(
            "password",
            request.Password,
            request.Name,
            request.Email,
            request.Workspace,
            request.DeskName,
            request.DeskAddress
        );
        return await OpenAsync(request, link, ct);
    }

    /// <summary>The same for who needs no good password: the demo's is told to everybody.</summary>
    /// <param name="link">By which it was asked for, so that the address is proven; null for none.</param>
    public async Task<Person> OpenAsync(SignUpRequest request, SignUpLink? link, CancellationToken ct)
    {
        var workspace = new Workspace
        {
            Name = request.Workspace.Trim(),
            Zone = request.Zone,
            UndoMinutes = settings.MinutesOfNew,
        };

        await using var transaction = await db.Database.BeginTransactionAsync(ct);
        if (link is not null)
            await links.UseAsync(link.Id, ct);
        tenant.Enter(workspace.Id);
        db.Workspaces.Add(workspace);
        await db.SaveChangesAsync(ct);

        var person = await team.AddPersonAsync(
            new NewPerson(
                request.Name,
                request.Email,
                request.Password,
                request.Zone,
                IsOwner: true,
                IsCoordinator: true
            ),
            ct
        );
        await team.AddHostAsync(new NewHost(request.Name, request.Zone, UsualHours.Weekdays(request.Zone)), person, ct);
        await desks.MakeAsync(request.DeskAddress, request.DeskName, ct);
        if (link is not null)
            await ProveAsync(person, clock.GetCurrentInstant(), ct);
        await transaction.CommitAsync(ct);
        return person;
    }

    /// <summary>The address counts as its owner's, and so mail goes to strangers.</summary>
    public async Task ProveAsync(Person owner, Instant at, CancellationToken ct)
    {
        owner.EmailProvenAt = (await db.Workspaces.SingleAsync(ct)).MailOpenedAt = at;
        await db.SaveChangesAsync(ct);
    }

    private sealed class Rules : AbstractValidator<SignUpRequest>
    {
        public Rules()
        {
            RuleFor(request => request.Workspace).Must(Words.FitOneLine).WithMend("organisation");
            RuleFor(request => request.Zone).Must(Zones.IsKnown).WithMend("zone");
            RuleFor(request => request.Name).Must(Words.FitOneLine).WithMend("your-name");
            RuleFor(request => request.Email).Must(EmailAddress.IsPlausible).WithMend("email");
            RuleFor(request => request.DeskName).Must(Words.FitOneLine).WithMend("desk-name");
            RuleFor(request => request.DeskAddress).Must(Address.IsWellFormed).WithMend(Address.Mend);
        }
    }
}
