using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Openings;
using LooseLantern.Server.Features.Reserving;
using NodaTime;

namespace LooseLantern.Server.Demo;

/// <summary>
/// A morning of the school that several share: one alone, a party, and a child for whom a parent books.
/// </summary>
internal static class DemoGroup
{
    public const string Boots = "boots";
    private const string Page = "safety-morning";

    public static async Task FillAsync(IServiceProvider services, List<Page> published, CancellationToken ct)
    {
        var page = published.First(one => one.Address == Page);
        var inputs = services.GetRequiredService<OpeningsInputs>();
        var rules = inputs.Rules(page, party: 6);
        var from = inputs.Today(rules).PlusDays(8);
        if (await inputs.OpeningsAsync(rules, from, from.PlusDays(14), page.Durations[0], ct) is not [{ } first, ..])
            return;
        var reserving = services.GetRequiredService<TimeReserving>();
        foreach (var (at, wish) in Wishes(page, first.Start).Index())
            await reserving.BookAsync(wish, $"demo-group-{at}", ct);
    }

    private static IEnumerable<BookingWish> Wishes(Page page, Instant start)
    {
        BookingWish Of(DemoGuest guest, string boots) =>
            new(page.Id, start, page.Durations[0], guest.Name, guest.Email, guest.Zone)
            {
                Answers = GivenAnswer.Of(page.Questions, new Dictionary<string, string> { [Boots] = boots }),
                OneMore = true,
            };
        yield return Of(DemoPeople.Guests[6], "42");
        yield return Of(DemoPeople.Guests[9], "44 and 39") with
        {
            Party = 2,
        };
        yield return Of(DemoPeople.Guests[5], "36") with
        {
            GuestName = "Tilda Ferrow",
            GuestEmail = "",
            Booker = new Booker(DemoPeople.Guests[5].Name, DemoPeople.Guests[5].Email, MailGoesTo.Booker),
        };
    }
}
