using System.Text;
using System.Text.Json;
using LooseLantern.Formats.Tables;
using LooseLantern.Formats.VCards;
using LooseLantern.Server.Features.SignIn;
using LooseLantern.Server.Hosting;
using Microsoft.AspNetCore.Http.HttpResults;

namespace LooseLantern.Server.Features.GuestBook.Importing;

/// <summary>Files of guests, in and out.</summary>
public static class ImportEndpoints
{
    private static readonly JsonSerializerOptions Indented = new(Json.Options) { WriteIndented = true };

    public static void MapGuestFiles(this IEndpointRouteBuilder api)
    {
        var imports = api.MapGroup("/guests/imports").WithTags("Guests").RequireAuthorization(Roles.Coordinator);

        imports
            .MapGet("/", (ImportUndoing imports, CancellationToken ct) => imports.ListAsync(ct))
            .WithName("listGuestImports");

        imports
            .MapPost("/", async (HttpRequest request, GuestImporting importing, CancellationToken ct) =>
                await importing.LookAsync(
                    await Upload.ReadAsync(request, ct, "guests-file", GuestImporting.MostBytes),
                    ct
                )
            )
            .WithName("lookAtGuestsFile")
            .WithDescription("Reads a CSV or vCard file and says what it would do. Nothing comes in yet.")
            .Accepts<IFormFile>("multipart/form-data")
            .Produces<ImportPreview>()
            .ProducesValidationProblem();

        imports
            .MapPost("/{id:guid}/preview", (Guid id, ImportForm form, GuestImporting importing, CancellationToken ct) =>
                importing.PreviewAsync(id, form, ct)
            )
            .WithName("previewGuestImport")
            .ProducesValidationProblem()
            .ProducesProblem(404)
            .ProducesProblem(409);

        imports
            .MapPost("/{id:guid}/run", (Guid id, ImportForm form, GuestImporting importing, CancellationToken ct) =>
                importing.RunAsync(id, form, ct)
            )
            .WithName("runGuestImport")
            .ProducesValidationProblem()
            .ProducesProblem(404)
            .ProducesProblem(409);

        imports
            .MapPost("/{id:guid}/undo", async Task<NoContent> (Guid id, ImportUndoing undoing, CancellationToken ct) =>
            {
                await undoing.UndoAsync(id, ct);
                return TypedResults.NoContent();
            })
            .WithName("undoGuestImport")
            .ProducesProblem(404)
            .ProducesProblem(409);

        var files = api.MapGroup("/guests").WithTags("Guests").RequireAuthorization(Roles.Coordinator);

        files
            .MapGet("/export.csv", async (string? filter, GuestExport export, CancellationToken ct) =>
                FileOf("\uFEFF" + await export.TableAsync(FilterOf(filter), ct), TableWriting.MediaType, "guests.csv")
            )
            .WithName("exportGuestTable")
            .WithDescription("The filter is that of the list, as JSON.")
            .Produces<string>(200, TableWriting.MediaType)
            .ProducesValidationProblem();

        files
            .MapGet("/export.vcf", async (string? filter, GuestExport export, CancellationToken ct) =>
                FileOf(await export.CardsAsync(FilterOf(filter), ct), VCardWriting.MediaType, "guests.vcf")
            )
            .WithName("exportGuestCards")
            .WithDescription("The filter is that of the list, as JSON.")
            .Produces<string>(200, VCardWriting.MediaType)
            .ProducesValidationProblem();
        MapData(files);
    }

    private static void MapData(RouteGroupBuilder files) =>
        files
            .MapGet("/{id:guid}/data.json", async (Guid id, GuestData data, CancellationToken ct) =>
                FileOf(JsonSerializer.Serialize(await data.OfAsync(id, ct), Indented), "application/json", "guest.json")
            )
            .WithName("exportGuestData")
            .WithDescription("All that is kept of one guest, for themselves to read.")
            .Produces<GuestDataFile>()
            .ProducesProblem(404);

    private static FileContentHttpResult FileOf(string text, string mediaType, string name) =>
        TypedResults.File(Encoding.UTF8.GetBytes(text), mediaType + "; charset=utf-8", name);

    private static GuestFilter FilterOf(string? text)
    {
        try
        {
            return text is null
                ? GuestFilter.All
                : JsonSerializer.Deserialize<GuestFilter>(text, Json.Options) ?? GuestFilter.All;
        }
        catch (JsonException)
        {
            throw Refusal.Invalid("filter", "missing-or-odd");
        }
    }
}
