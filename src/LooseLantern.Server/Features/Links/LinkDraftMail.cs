using LooseLantern.Server.Features.ActingFor;
using MimeKit;

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
        var message = new MimeMessage { Subject = mail.Subject };
        message.To.AddRange(
            link.Guests.Where(guest => guest.Email.Length > 0)
                .Select(guest => new MailboxAddress(guest.Name, guest.Email))
        );
        // By this programs tell a draft from a message that was received; it is as common as it is unwritten.
        message.Headers.Add("X-Unsent", "1");
        message.Body = new MultipartAlternative
        {
            new TextPart("plain") { Text = mail.Text },
            new TextPart("html") { Text = mail.Html },
        };
        using var stream = new MemoryStream();
        await message.WriteToAsync(stream, ct);
        return stream.ToArray();
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
