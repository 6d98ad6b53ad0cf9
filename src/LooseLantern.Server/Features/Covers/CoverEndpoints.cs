using LooseLantern.Server.Features.Undo;

namespace LooseLantern.Server.Features.Covers;

public static class CoverEndpoints
{
    public static void MapCovers(this IEndpointRouteBuilder api)
    {
        var covers = api.MapGroup("/covers").WithTags("Covers");

        // Questions that change nothing; they are POST because what was decided goes along.
        covers
            .MapPost("/plan", (CoverRequest request, CoverPlanning planning, CancellationToken ct) =>
                planning.PlanAsync(request, ct)
            )
            .WithName("planCover")
            .WithDescription(
                "Who takes the sessions of hosts who can't come: as many as can be at their time, then the fewest other changes, then even work."
            )
            .ProducesValidationProblem()
            .ProducesProblem(403);

        covers
            .MapPost("/letters", (CoverForm form, CoverCommitting committing, CancellationToken ct) =>
                committing.LettersAsync(form, ct)
            )
            .WithName("previewCoverLetters")
            .ProducesValidationProblem()
            .ProducesProblem(403)
            .ProducesProblem(409);

        covers
            .MapPost("/", (CoverForm form, CoverCommitting committing, CancellationToken ct) =>
                committing.CommitAsync(form, ct)
            )
            .WithName("carryOutCover")
            .WithDescription("All of it or nothing; each guest has one letter, which waits ten minutes.")
            .CanBeUndone(UndoSpan.Several)
            .ProducesValidationProblem()
            .ProducesProblem(403)
            .ProducesProblem(409);
    }
}
