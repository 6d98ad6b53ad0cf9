using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Record;
using LooseLantern.Server.Features.SignIn;
using LooseLantern.Server.Hosting;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using MimeKit;

namespace LooseLantern.Server.Features.Pages;

/// <summary>A file that goes along in mail to guests.</summary>
/// <param name="Size">Bytes.</param>
public sealed record PageFileView(Guid Id, string Name, int Size);

public static class PageFileEndpoints
{
    private const int MostFiles = 5;
    private const int MostBytes = 3 * 1024 * 1024;

    public static void MapPageFiles(this IEndpointRouteBuilder api)
    {
        var files = api.MapGroup("/pages/{id:guid}/files").WithTags("Pages");

        files
            .MapGet("/", (Guid id, LanternDb db, CancellationToken ct) =>
                db
                    .PageFiles.AsNoTracking()
                    .Where(file => file.PageId == id)
                    .OrderBy(file => file.Name)
                    .Select(file => new PageFileView(file.Id, file.Name, file.Bytes.Length))
                    .ToListAsync(ct)
            )
            .WithName("listPageFiles");

        files
            .MapPost(
                "/",
                async Task<Created<PageFileView>> (
                    Guid id,
                    HttpRequest request,
                    LanternDb db,
                    PageEditing pages,
                    RecordKeeping record,
                    CancellationToken ct
                ) =>
                {
                    var page = await pages.HeldAsync(id, ct);
                    var upload = await Upload.ReadAsync(request, ct, "file-along");
                    var name = Path.GetFileName(upload.FileName).Trim();
                    if (upload.Bytes.Length is 0 or > MostBytes)
                        throw Refusal.Invalid("file", "file-too-large");
                    if (!Words.FitOneLine(name))
                        throw Refusal.Invalid("file", "file-name");
                    if (await db.PageFiles.CountAsync(file => file.PageId == id, ct) >= MostFiles)
                        throw Refusal.Invalid("file", Phrase.Of("files-too-many", ("most", MostFiles)));
                    var row = new PageFile
                    {
                        WorkspaceId = page.WorkspaceId,
                        PageId = id,
                        Name = name,
                        MediaType = MimeTypes.GetMimeType(name),
                        Bytes = upload.Bytes,
                    };
                    db.PageFiles.Add(row);
                    record.Note(id, $"Sends {name} along with “{page.Title}”");
                    await db.SaveChangesAsync(ct);
                    return TypedResults.Created(
                        $"/api/pages/{id}/files/{row.Id}",
                        new PageFileView(row.Id, row.Name, row.Bytes.Length)
                    );
                }
            )
            .WithName("addPageFile")
            .Accepts<IFormFile>("multipart/form-data")
            .RequireAuthorization(Roles.Coordinator)
            .DisableAntiforgery()
            .ProducesValidationProblem()
            .ProducesProblem(404);

        files
            .MapDelete(
                "/{fileId:guid}",
                async Task<NoContent> (Guid id, Guid fileId, LanternDb db, PageEditing pages, CancellationToken ct) =>
                {
                    await pages.HeldAsync(id, ct);
                    if (
                        await db.PageFiles.Where(file => file.Id == fileId && file.PageId == id).ExecuteDeleteAsync(ct)
                        == 0
                    )
                        throw Refusal.NotFound("file");
                    return TypedResults.NoContent();
                }
            )
            .WithName("dropPageFile")
            .RequireAuthorization(Roles.Coordinator)
            .ProducesProblem(404);
    }
}
