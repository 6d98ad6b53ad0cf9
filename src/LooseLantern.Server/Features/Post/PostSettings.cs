namespace LooseLantern.Server.Features.Post;

/// <summary>How mail goes out, as the operator set it.</summary>
/// <param name="Host">The SMTP server; null where none is set, and then mail waits.</param>
/// <param name="UserName">Null for a server that asks for none.</param>
/// <param name="From">The address that all mail comes from.</param>
/// <param name="RepliesDomain">The domain of the addresses that answers to invitations come to.</param>
/// <param name="RepliesAddress">The address of this machine on which answers are listened for.</param>
/// <param name="RepliesPort">Null where nobody listens.</param>
public sealed record PostSettings(
    string? Host,
    int Port,
    string? UserName,
    string? Password,
    bool Tls,
    string From,
    string RepliesDomain,
    string RepliesAddress,
    int? RepliesPort
)
{
    public static PostSettings Of(IConfiguration configuration)
    {
        var post = configuration.GetSection("Post");
        return new PostSettings(
            post["Host"] is { Length: > 0 } host ? host : null,
            post.GetValue("Port", 587),
            post["UserName"],
            post["Password"],
            post.GetValue("Tls", true),
            post["From"] ?? "bookings@loose-lantern.example",
            post["RepliesDomain"] ?? "replies.loose-lantern.example",
            post["RepliesAddress"] ?? "127.0.0.1",
            post.GetValue<int?>("RepliesPort")
        );
    }
}
