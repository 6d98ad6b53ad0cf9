using LooseLantern.Core;
using LooseLantern.Server.Hosting;

namespace LooseLantern.Server.Features.Post;

/// <summary>
/// Whom the mail server in use can write to: it says so when it is greeted (RFC 6531). Until it was, and where none is
/// set, only what every server takes.
/// </summary>
public sealed class MailReach
{
    private volatile bool _takesUtf8;

    public void Learn(bool takesUtf8) => _takesUtf8 = takesUtf8;

    public bool CanMail(string? text) => _takesUtf8 || EmailAddress.Read(text?.Trim()) is not { NeedsUtf8: true };
}

/// <summary>A request after which somebody is mailed, as its fields name them.</summary>
public interface IMailsTo
{
    /// <summary>Each address with the path of its field, whether or not it is one at all.</summary>
    IEnumerable<(string Field, string? Address)> MailsTo();

    /// <summary>Those of a list.</summary>
    static IEnumerable<(string Field, string? Address)> Of<T>(
        string list,
        IEnumerable<T?>? rows,
        Func<T, string?> address
    )
        where T : class => (rows ?? []).Select((row, at) => ($"{list}[{at}].email", row is null ? null : address(row)));

    /// <summary>Refuses addresses that are right, but which the mail server can't write to.</summary>
    /// <exception cref="Refusal">400 naming their fields.</exception>
    static ValueTask<object?> RefuseUnreachable(EndpointFilterInvocationContext context, EndpointFilterDelegate next)
    {
        var reach = context.HttpContext.RequestServices.GetRequiredService<MailReach>();
        var faults = context
            .Arguments.OfType<IMailsTo>()
            .SelectMany(request => request.MailsTo())
            .Where(row => !reach.CanMail(row.Address))
            .ToDictionary(row => row.Field, _ => new Phrase[] { "email-plain" });
        return faults.Count == 0 ? next(context) : throw Refusal.Invalid(faults);
    }
}
