using LooseLantern.Formats.Cases;
using LooseLantern.Server.Features.Pages;
using LooseLantern.Server.Features.SignIn;
using LooseLantern.Server.Hosting;

namespace LooseLantern.Server.Features.Openings;

public static class CaseEndpoints
{
    /// <summary>
    /// The input of a page's openings as a case file (docs/case-files.md), so that a puzzling result can be reckoned
    /// again anywhere. It names hosts and sessions by their ids; titles of events and guests are not in it.
    /// </summary>
    public static void MapCases(this IEndpointRouteBuilder api) =>
        api.MapGet(
                "/pages/{id:guid}/case",
                async (
                    Guid id,
                    string? from,
                    string? to,
                    string? duration,
                    PageEditing editing,
                    OpeningsInputs inputs,
                    CancellationToken ct
                ) =>
                {
                    var page = await editing.GetAsync(id, ct);
                    var rules = inputs.Rules(page);
                    var today = inputs.Today(rules);
                    var (opens, closes) = rules.Rules.Window.Within(
                        today,
                        today.PlusDays(CaseFile.MostDays - 1),
                        today
                    );
                    var asked = OpeningsQuery.Read(from ?? Iso(opens), to ?? Iso(closes), duration, page);
                    if (await inputs.InputAsync(rules, asked.From, asked.To, asked.Duration, ct) is not { } input)
                        throw Refusal.Invalid(
                            "from",
                            Phrase.Of("case-dates", ("from", Iso(opens)), ("to", Iso(closes)))
                        );
                    return Results.File(
                        CaseWriter.Write(input, page.Durations),
                        "application/json",
                        $"{page.Address}.case.json"
                    );
                }
            )
            .WithName("getCase")
            .WithTags("Pages")
            .RequireAuthorization(Roles.Coordinator)
            .Produces(200, contentType: "application/json")
            .ProducesValidationProblem()
            .ProducesProblem(404);

    private static string Iso(NodaTime.LocalDate date) => NodaTime.Text.LocalDatePattern.Iso.Format(date);
}
