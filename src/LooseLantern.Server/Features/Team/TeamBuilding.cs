using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Calendars.BuiltIn;
using LooseLantern.Server.Features.Hours;
using LooseLantern.Server.Features.SignIn;
using LooseLantern.Server.Hosting;
using LooseLantern.Server.Tenancy;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using Npgsql;

namespace LooseLantern.Server.Features.Team;

/// <param name="Zone">IANA id.</param>
public sealed record NewPerson(
    string Name,
    string Email,
    string Password,
    string Zone,
    bool IsOwner = false,
    bool IsCoordinator = false
);

/// <param name="Hours">Null for a host that is always open.</param>
public sealed record NewHost(string Name, string Zone, HoursDocument? Hours, HostKind Kind = HostKind.Person);

/// <summary>Adds people and hosts to the workspace at hand.</summary>
public sealed class TeamBuilding(LanternDb db, Tenant tenant, UserManager<Person> people, IClock clock)
{
    private const string TakenMend = "email-taken";

    private static readonly HoursRules HoursChecks = new();

    private Guid Workspace => tenant.WorkspaceId ?? throw new InvalidOperationException("No workspace is at hand.");

    /// <exception cref="Refusal">When the address has a sign-in already or the password is too weak.</exception>
    public async Task<Person> AddPersonAsync(NewPerson request, CancellationToken ct)
    {
        var person = new Person
        {
            WorkspaceId = Workspace,
            Name = request.Name.Trim(),
            Zone = request.Zone,
            UserName = request.Email,
            Email = request.Email,
            IsOwner = request.IsOwner,
            IsCoordinator = request.IsCoordinator,
        };
        IdentityResult result;
        try
        {
            result = await people.CreateAsync(person, request.Password);
        }
        catch (DbUpdateException e)
            when (e.InnerException is PostgresException { SqlState: PostgresErrorCodes.UniqueViolation })
        {
            // Somebody of another workspace, whom nothing here can see, has the address.
            throw Refusal.Invalid("email", TakenMend);
        }

        ct.ThrowIfCancellationRequested();
        if (result.Succeeded)
            return person;

        throw Refusal.Invalid(
            result
                .Errors.GroupBy(error =>
                    error.Code.StartsWith("Password", StringComparison.Ordinal) ? "password" : "email"
                )
                .ToDictionary(
                    field => field.Key,
                    field => field.Key == "password" ? [Passwords.Mend] : new Phrase[] { TakenMend }
                )
        );
    }

    public async Task<Host> AddHostAsync(NewHost request, Person? person, CancellationToken ct)
    {
        HoursRow? hours = null;
        if (request.Hours is not null)
        {
            HoursChecks.Check(request.Hours);
            hours = new HoursRow
            {
                WorkspaceId = Workspace,
                Name = $"{request.Name.Trim()}, usual hours",
                IsNamed = true,
                Document = request.Hours,
            };
        }

        var host = new Host
        {
            WorkspaceId = Workspace,
            Name = request.Name.Trim(),
            Kind = request.Kind,
            Zone = request.Zone,
            PersonId = person?.Id,
            Hours = hours,
        };
        db.Hosts.Add(host);
        db.Calendars.Add(OwnEntries.For(host, clock.GetCurrentInstant()));
        await db.SaveChangesAsync(ct);
        return host;
    }

    /// <summary>Lets a coordinator do everything for a host; saved with what comes with it.</summary>
    public void Let(Host host, Guid coordinatorId) =>
        db.ActingFor.Add(
            new Data.Model.ActingFor
            {
                WorkspaceId = Workspace,
                HostId = host.Id,
                PersonId = coordinatorId,
                MayOffer = true,
                MayBook = true,
                MayMove = true,
                SeesTitles = true,
                Since = clock.GetCurrentInstant(),
            }
        );
}
