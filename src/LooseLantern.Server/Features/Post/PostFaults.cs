using System.Data.Common;
using System.Net.Sockets;
using LooseLantern.Core;
using LooseLantern.Server.Data.Model;
using MailKit;
using MailKit.Security;
using Microsoft.EntityFrameworkCore;

namespace LooseLantern.Server.Features.Post;

/// <summary>What goes wrong with a message for good.</summary>
public static class PostFaults
{
    private const int Most = 400;

    /// <summary>Whether it lies in the message, and not in a database that is away.</summary>
    public static bool IsOfMessage(Exception fault) =>
        fault is not (DbException or DbUpdateException or OperationCanceledException)
        && fault.InnerException is not DbException;

    /// <summary>Whether it lies in the mail server, or the way there: then it is asked again.</summary>
    public static bool IsOfServer(Exception fault) =>
        fault
            is IOException
                or SocketException
                or CommandException
                or ProtocolException
                or ServiceNotConnectedException
                or ServiceNotAuthenticatedException
                or AuthenticationException
                or SslHandshakeException
                or TimeoutException
                or OperationCanceledException;

    public static void Fail(Message message, Exception fault) =>
        (message.State, message.Fault) = (MessageState.Failed, Short($"It can’t be written: {fault.Message}"));

    public static string Short(string text) => CutText.Kept(text, Most);
}
