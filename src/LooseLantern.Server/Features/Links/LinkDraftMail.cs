using LooseLantern.Server.Features.ActingFor;
using LooseLantern.Server.Features.Post;

namespace LooseLantern.Server.Features.Links;

/// <summary>A link's offer as a mail that somebody sends from their own mail program.</summary>
public sealed class LinkDraftMail(LinkEditing editing, LinkAddresses addresses, LinkPost post, Actor actor)
{
    /// <summary>
    /// A message (RFC 5322) with text and HTML, addressed to the link's guests, that mail programs open as a draft.
    /// </summary>
    /// <exception cref="Hosting.Refusal">404 where there is no such link; else as <see cref="LinkPost.DraftAsync"/>.
    /// </exception>
    public async Task<byte[]> WriteAsync(Guid id, string word, CancellationToken ct)
    {
        var link = await editing.GetAsync(id, ct);
        var mail = await post.DraftAsync(
            link,
            LinkAddresses.Path(link.Topic, addresses.Reveal(link.ProtectedSecret)),
            word,
            actor.Person?.Name ?? link.Page!.Desk!.Name,
            ct
        );
        return await DraftMail.WriteAsync(mail, link.Guests, ct);
    }
}

public static class LinkDraftMailEndpoints
{
    public static void MapLinkDraftMail(this IEndpointRouteBuilder links) =>
        links
            .MapGet("/{id:guid}/draft.eml", async (Guid id, string? word, LinkDraftMail draft, CancellationToken ct) =>
                TypedResults.File(await draft.WriteAsync(id, word ?? "", ct), "message/rfc822", "times.eml")
            )
            .WithName("getLinkDraftMail")
            .WithDescription("The offer as a mail to send from a program of one's own; nothing is sent by it.")
            .Produces<string>(200, "message/rfc822")
            .ProducesValidationProblem()
            .ProducesProblem(404)
            .ProducesProblem(409);
}
