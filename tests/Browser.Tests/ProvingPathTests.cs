namespace Browser.Tests;

/// <summary>A workspace whose owner has not shown yet that their mail address is theirs.</summary>
public sealed class ProvingPathTests : IAsyncLifetime
{
    private readonly Site _site = new();

    public ValueTask InitializeAsync() => _site.InitializeAsync();

    public ValueTask DisposeAsync() => _site.DisposeAsync();

    [Fact]
    public async Task Everybody_is_told_that_mail_waits_and_an_owner_ends_that_by_a_link()
    {
        // As one that was made before its site had a mail server.
        await _site.ForgetProofsAsync();
        using var owner = new Chromium(_site.Address);
        owner.SignInToDemo();
        owner.AwaitText("Mail to guests waits until you show that marit@brackwater.example is your address.");

        using var guest = new Chromium(_site.Address, 390, 844);
        guest.Open("/brackwater/hull-survey");
        guest.Click(guest.Await(b => b.All("button[data-start]").FirstOrDefault(), "an opening"));
        guest.Type("Your name", "Barnaby Quill");
        guest.Type("Your email", "barnaby@quill-and-daughter.example");
        guest.Click(guest.Await(b => b.All("form button[type=submit]").FirstOrDefault(), "the button"));
        guest.AwaitText("You’re booked");
        guest.AwaitText("Mail about this booking waits");

        owner.Press("Post");
        owner.AwaitText("waits until an owner shows that their address is theirs");
        owner.Press("Send me a link");
        owner.AwaitText("A mail is on its way to marit@brackwater.example.");
        using var mail = new Chromium(_site.Calendars);
        owner.Open(mail.AwaitLink("marit@brackwater.example", "Is this your address?", "/prove/"));
        owner.Press("Yes, it is mine");
        owner.AwaitText("Your address is proven");
        mail.AwaitMail("barnaby@quill-and-daughter.example", "Hull survey");
        owner.Press("Go to your workspace");
        owner.AwaitText("in two weeks");
        owner.AwaitNone("Mail to guests waits");
        guest.Open(guest.Path);
        guest.AwaitText("You’re booked");
        guest.AwaitNone("Mail about this booking waits");
    }
}
