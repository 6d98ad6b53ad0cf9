using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Post;

/// <summary>
/// Writes messages to people that speak of no booking, in the transaction of what they speak of. Their secret is put in
/// when they go out.
/// </summary>
public sealed class PersonPost(LanternDb db, PostWords words, IClock clock)
{
    public async Task PasswordResetAsync(Person person, string protectedSecret, Instant until, CancellationToken ct)
    {
        var reader = Reader.Of(person);
        await WriteAsync(
            person.WorkspaceId,
            MessageKind.PasswordReset,
            reader,
            $"/reset/{PostInserts.Own}",
            protectedSecret,
            until,
            inviter: "",
            ct
        );
    }

    public async Task ProveAddressAsync(Person person, string protectedSecret, Instant until, CancellationToken ct) =>
        await WriteAsync(
            person.WorkspaceId,
            MessageKind.ProveAddress,
            Reader.Of(person),
            $"/prove/{PostInserts.Own}",
            protectedSecret,
            until,
            inviter: "",
            ct
        );

    public async Task InvitationAsync(Invitation invitation, Person inviter, CancellationToken ct)
    {
        var reader = Reader.Of(inviter) with { Name = invitation.Name, Email = invitation.Email };
        await WriteAsync(
            invitation.WorkspaceId,
            MessageKind.JoinInvitation,
            reader,
            $"/join/{PostInserts.Own}",
            invitation.ProtectedSecret,
            invitation.ExpiresAt,
            inviter.Name,
            ct
        );
    }

    /// <summary>A code by which a guest proves an address. It is shown to nobody but its reader.</summary>
    public async Task CodeAsync(
        Page page,
        string email,
        string language,
        string protectedCode,
        Instant until,
        CancellationToken ct
    )
    {
        var reader = new Reader(email, email, language, LooseLantern.Core.TimeText.Clock.Usual, page.Zone);
        await WriteAsync(
            page.WorkspaceId,
            MessageKind.CodeForGuest,
            reader,
            "",
            protectedCode,
            until,
            inviter: page.Title,
            ct
        );
    }

    private async Task WriteAsync(
        Guid workspaceId,
        MessageKind kind,
        Reader reader,
        string path,
        string protectedSecret,
        Instant until,
        string inviter,
        CancellationToken ct
    )
    {
        var workspace = await db
            .Workspaces.IgnoreQueryFilters()
            .Where(row => row.Id == workspaceId)
            .Select(row => row.Name)
            .SingleAsync(ct);
        var mail = PostTemplates.Write(
            kind,
            reader.Language,
            new Dictionary<string, string>
            {
                ["first_name"] = PostInserts.Harmless(reader.Name.Split(' ')[0]),
                ["workspace"] = workspace,
                ["inviter"] = PostInserts.Harmless(inviter),
                ["deadline"] = words.Deadline(until, reader),
                ["link"] = words.Link(path),
                ["code"] = PostInserts.Own,
            }
        );
        var message = PostDraft.Of(workspaceId, workspace, kind, reader, mail, clock.GetCurrentInstant());
        message.ProtectedSecret = protectedSecret;
        db.Messages.Add(message);
    }
}
