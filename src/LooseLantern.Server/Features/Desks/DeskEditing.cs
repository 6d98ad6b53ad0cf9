using FluentValidation;
using LooseLantern.Core;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Pages;
using LooseLantern.Server.Hosting;
using Microsoft.EntityFrameworkCore;

namespace LooseLantern.Server.Features.Desks;

/// <summary>A desk as it is edited.</summary>
/// <param name="Intro">Markdown; may be empty.</param>
/// <param name="Accent">#rrggbb, or empty.</param>
/// <param name="HostName">A host name at which it answers as well; empty for none.</param>
/// <param name="Framers">Origins that may show its pages in a frame.</param>
/// <param name="HostId">Whose desk it is; null for a desk of its own pages.</param>
public sealed record DeskForm(
    string Name,
    string Intro,
    string Accent,
    string HostName,
    IReadOnlyList<string> Framers,
    Guid? HostId
);

/// <param name="Address">First part of its pages' paths; it stays as it is.</param>
public sealed record NewDesk(string Address, string Name, Guid? HostId = null);

public sealed class DeskFormRules : AbstractValidator<DeskForm>
{
    private const int MostIntro = 2000;
    private const int MostFramers = 20;

    public DeskFormRules()
    {
        RuleFor(form => form.Name).Must(Words.FitOneLine).WithMend("desk-name");
        RuleFor(form => form.Intro)
            .NotNull()
            .MaximumLength(MostIntro)
            .WithMend(Phrase.Of("too-long", ("most", MostIntro)));
        RuleFor(form => form.Accent).Must(accent => accent == "" || Accents.IsLegible(accent)).WithMend(Accents.Mend);
        RuleFor(form => form.HostName).Must(name => name == "" || IsHostName(name)).WithMend("host-name");
        RuleFor(form => form.Framers)
            .Must(list => list is not null && list.Count <= MostFramers)
            .WithMend(Phrase.Of("framers", ("most", MostFramers)));
        RuleForEach(form => form.Framers).Must(origin => OriginOf(origin) is not null).WithMend("origin");
    }

    /// <summary>
    /// The origin as it stands in a header (RFC 6454 section 6.2); null for what is none, or not https.
    /// </summary>
    public static string? OriginOf(string? origin)
    {
        if (WebAddress.Whole(origin, most: 200) is not { } whole)
            return null;
        var uri = new Uri(whole);
        var isOrigin =
            uri is { PathAndQuery: "/", Fragment: "", UserInfo: "" }
            && (uri.Scheme == Uri.UriSchemeHttps || (uri.Scheme == Uri.UriSchemeHttp && uri.IsLoopback));
        return isOrigin ? uri.GetLeftPart(UriPartial.Authority) : null;
    }

    private static bool IsHostName(string? name) =>
        name is { Length: <= 200 }
        && name.Contains('.', StringComparison.Ordinal)
        && Uri.CheckHostName(name) == UriHostNameType.Dns;
}

/// <summary>Changes what desks are to guests.</summary>
public sealed class DeskEditing(LanternDb db, PublicAddress site)
{
    private static readonly DeskFormRules Checks = new();

    public async Task<Desk> GetAsync(Guid id, CancellationToken ct) =>
        await db.Desks.FirstOrDefaultAsync(desk => desk.Id == id, ct) ?? throw Refusal.NotFound("desk");

    public async Task<Desk> ChangeAsync(Guid id, DeskForm form, CancellationToken ct)
    {
        Checks.Check(form);
        // Whoever had that one would have everybody's front door.
        if (string.Equals(form.HostName, new Uri(site.Value).Host, StringComparison.OrdinalIgnoreCase))
            throw Refusal.Invalid("hostName", "host-name-of-site");
        var desk = await GetAsync(id, ct);
        await RequireHostAsync(form.HostId, ct);
        (desk.Name, desk.Intro, desk.Accent) = (form.Name.Trim(), form.Intro.Trim(), form.Accent.ToLowerInvariant());
        await HostNameProving.SetAsync(db, desk, form.HostName.ToLowerInvariant(), ct);
        desk.Framers = [.. form.Framers.Select(origin => DeskFormRules.OriginOf(origin)!).Distinct()];
        desk.HostId = form.HostId;
        await db.SaveChangesAsync(ct);
        return desk;
    }

    public async Task RequireHostAsync(Guid? hostId, CancellationToken ct)
    {
        if (hostId is { } id && !await db.Hosts.AnyAsync(host => host.Id == id && host.RetiredAt == null, ct))
            throw Refusal.Invalid("hostId", "host-or-nobody");
    }
}
