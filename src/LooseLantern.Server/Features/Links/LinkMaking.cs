using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.ActingFor;
using LooseLantern.Server.Features.Pages;
using LooseLantern.Server.Features.Record;
using LooseLantern.Server.Features.Reserving;
using LooseLantern.Server.Hosting;
using NodaTime;

namespace LooseLantern.Server.Features.Links;

/// <summary>Makes links.</summary>
public sealed class LinkMaking(
    LanternDb db,
    LinkEditing links,
    PageFilling pageFilling,
    LinkFilling filling,
    LinkAddresses addresses,
    LinkGoing going,
    LinkTaking taking,
    Allowances allowances,
    RecordKeeping record,
    Actor actor,
    IClock clock
)
{
    /// <param name="goes">Whether guests can open it at once, or have its times as text; else it is a draft.</param>
    /// <param name="id">That it gets; null for a new one.</param>
    /// <exception cref="Refusal">400 where it can't go out as it is. Nothing is written then.</exception>
    public async Task<AvailabilityLink> CreateAsync(
        LinkForm form,
        CancellationToken ct,
        LinkGoes goes = LinkGoes.Nowhere,
        Guid? id = null
    )
    {
        var tidy = await filling.CheckAsync(form, ct);
        await allowances.RequireAsync(LinkEditing.HostsOf(tidy), Allowance.Offer, ct);
        var link = Add(tidy, await pageFilling.MarkOfAsync(tidy.Title, ct), id);
        record.Note(link.Id, $"Made the link “{link.Page!.Title}”", LinkEditing.HostsOf(tidy));
        going.Let(link, goes);
        taking.SettleNew(link);
        await db.SaveChangesAsync(ct);
        db.ChangeTracker.Clear();
        return await links.GetAsync(link.Id, ct);
    }

    /// <summary>Makes links of a mailing, which are out at once; they differ in their guests alone.</summary>
    /// <param name="forms">As <see cref="LinkFilling.CheckAsync"/> gives them, at least one. They are not saved
    /// yet.</param>
    /// <exception cref="Refusal">400 where they can't go out as they are; 403 where a host does not let their time be
    /// offered.</exception>
    public async Task<IReadOnlyList<AvailabilityLink>> AddForMailingAsync(
        Guid mailing,
        IReadOnlyList<LinkForm> forms,
        CancellationToken ct
    )
    {
        await allowances.RequireAsync(LinkEditing.HostsOf(forms[0]), Allowance.Offer, ct);
        var (mark, made) = (await pageFilling.MarkOfAsync(forms[0].Title, ct), new List<AvailabilityLink>());
        foreach (var form in forms)
        {
            var link = Add(form, mark, id: null, mailing);
            going.RequireSomething(link);
            going.Open(link);
            taking.SettleNew(link);
            made.Add(link);
        }

        return made;
    }

    private AvailabilityLink Add(LinkForm tidy, string mark, Guid? id, Guid? mailing = null)
    {
        var now = clock.GetCurrentInstant();
        var page = pageFilling.Blank(tidy.DeskId, now, id);
        // No address that anybody could type.
        page.Address = $"~{page.Id:D}";
        var secret = addresses.Create();
        var link = new AvailabilityLink
        {
            Id = page.Id,
            WorkspaceId = page.WorkspaceId,
            Page = page,
            Topic = "",
            SecretHash = secret.Hash,
            ProtectedSecret = secret.Protected,
            MadeBy = actor.Person?.Id,
            MadeAt = now,
            MailingId = mailing,
            EndsOn = tidy.Details.EndsOn,
            CheckDueAt = now,
        };
        filling.Fill(page, link, tidy);
        page.Mark = mark;
        db.Add(page);
        db.Links.Add(link);
        return link;
    }
}
