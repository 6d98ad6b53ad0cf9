using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Letters;
using LooseLantern.Server.Features.Mailings;
using LooseLantern.Server.Features.Post;
using LooseLantern.Server.Hosting;

namespace LooseLantern.Server.Features.Flagged;

/// <summary>Writes the letter by which a booking is called off.</summary>
public sealed class CallOffWriting(LanternDb db, PostWords words)
{
    /// <summary>The blanks it may have, each with what it stands for.</summary>
    public static readonly IReadOnlyDictionary<string, string> Blanks = new[]
    {
        "first_name",
        "guest",
        "page",
        "day",
        "time",
        "zones",
        "hosts",
        "desk",
        "workspace",
        "page_link",
    }.ToDictionary(name => name, name => PostWords.Tokens[name]);

    /// <exception cref="Refusal">400 naming what of the words is wrong.</exception>
    public static OwnWords Require(CallOffRequest request)
    {
        var faults = LetterEditing.WordFaults(request.Subject ?? "", request.Body ?? "", Blanks);
        if (faults.Count > 0)
            throw Refusal.Invalid(faults);
        return new OwnWords(request.Subject!.Trim(), request.Body!.Trim());
    }

    /// <summary>As the guest of this booking will read it; nothing is changed by it.</summary>
    /// <exception cref="Refusal">400 naming what of the words is wrong; 404 where there is no such booking.</exception>
    public async Task<ShownLetter> PreviewAsync(CallOffPreviewRequest request, CancellationToken ct)
    {
        var letter = Require(request.CallOff);
        if ((await AboutBooking.ReadAsync(db, [request.Show], ct)).FirstOrDefault() is not { } about)
            throw Refusal.NotFound("booking");
        var reader = Reader.Of(about.Booking);
        var mail = GuestMails.Write(
            about.Page.Post,
            MessageKind.CancelledForGuest,
            reader.Language,
            words.Of(about, new Telling(Occasion.Cancelled), reader),
            letter
        );
        return new ShownLetter(mail.Subject, PostInserts.Masked(mail.Text), PostInserts.Masked(mail.Html));
    }
}
