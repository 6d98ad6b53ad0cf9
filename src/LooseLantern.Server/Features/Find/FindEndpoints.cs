using LooseLantern.Server.Features.ActingFor;

namespace LooseLantern.Server.Features.Find;

public static class FindEndpoints
{
    public static void MapFind(this IEndpointRouteBuilder api) =>
        api.MapGet("/find", (string? words, FindAnswers answers, Actor actor, CancellationToken ct) =>
                answers.OfAsync(words ?? "", actor.Required.Coordinates, ct)
            )
            .WithName("find")
            .WithTags("Find")
            .WithDescription("Guests, bookings, pages, links and hosts in which all these words stand, a few of each.");
}
