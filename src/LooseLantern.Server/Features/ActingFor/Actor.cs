namespace LooseLantern.Server.Features.ActingFor;

/// <summary>A signed-in person as a request's work is done by them.</summary>
/// <param name="HostId">Their own time, where they are a host.</param>
public sealed record ActingPerson(Guid Id, string Name, bool IsOwner, bool IsCoordinator, Guid? HostId)
{
    /// <summary>Owners may do whatever coordinators may.</summary>
    public bool Coordinates => IsOwner || IsCoordinator;
}

/// <summary>Who does the work of the request at hand; nobody where a guest asks or the product itself works.</summary>
public sealed class Actor
{
    public ActingPerson? Person { get; private set; }

    public void Enter(ActingPerson person) => Person = person;

    /// <exception cref="InvalidOperationException">Where nobody is signed in.</exception>
    public ActingPerson Required => Person ?? throw new InvalidOperationException("Nobody is signed in.");
}
