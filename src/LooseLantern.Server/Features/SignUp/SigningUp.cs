using FluentValidation;
using LooseLantern.Core;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Desks;
using LooseLantern.Server.Features.Hours;
using LooseLantern.Server.Features.SignIn;
using LooseLantern.Server.Features.Team;
using LooseLantern.Server.Hosting;
using LooseLantern.Server.Tenancy;

namespace LooseLantern.Server.Features.SignUp;

/// <param name="Zone">IANA id.</param>
public sealed record SignUpRequest(
    string Workspace,
    string Zone,
    string Name,
    string Email,
    string Password,
    string DeskName,
    string DeskAddress
);

/// <summary>
/// Opens a workspace: its first person (owner, coordinator and host), that host's usual hours, and its first desk, all
/// or nothing.
/// </summary>
public sealed class SigningUp(LanternDb db, Tenant tenant, TeamBuilding team, DeskMaking desks, PasswordWork work)
{
    private static readonly Rules Checks = new();

    /// <returns>The new person, who can be signed in at once.</returns>
    public async Task<Person> SignUpAsync(SignUpRequest request, CancellationToken ct)
    {
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
        return await OpenAsync(request, ct);
    }

    /// <summary>The same for who needs no good password: the demo's is told to everybody.</summary>
    public async Task<Person> OpenAsync(SignUpRequest request, CancellationToken ct)
    {
        var workspace = new Workspace { Name = request.Workspace.Trim(), Zone = request.Zone };

        await using var transaction = await db.Database.BeginTransactionAsync(ct);
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
        await transaction.CommitAsync(ct);
        return person;
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
