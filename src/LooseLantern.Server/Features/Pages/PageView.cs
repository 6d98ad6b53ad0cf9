using LooseLantern.Server.Data.Model;

namespace LooseLantern.Server.Features.Pages;

/// <summary>A page for its editor.</summary>
/// <param name="Path">Where guests find it, from the root of the site.</param>
/// <param name="Mark">Two letters that tell its bookings and blocks apart.</param>
/// <param name="Seats">The names of each seat's hosts.</param>
/// <param name="Form">As its editor has it: with what is not published yet.</param>
/// <param name="Published">As guests have it; null where they can't open it.</param>
/// <param name="HasDraft">Whether something of it waits to be published.</param>
public sealed record PageView(
    Guid Id,
    int Version,
    PageState State,
    string Path,
    string Mark,
    IReadOnlyList<IReadOnlyList<string>> Seats,
    PageForm Form,
    PageForm? Published,
    bool HasDraft
)
{
    /// <param name="page">With everything it includes.</param>
    public static PageView Of(Page page)
    {
        var form = FormOf(page);
        return new PageView(
            page.Id,
            page.Version,
            page.State,
            PathOf(page),
            page.Mark,
            SeatNames(page),
            page.Draft ?? form,
            page.State == PageState.Published ? form : null,
            page.Draft is not null
        );
    }

    /// <param name="page">With its desk. One of a link, whose address is its guest's alone, leads to the desk.</param>
    public static string PathOf(Page page) =>
        page.Offer is null ? $"/{page.Desk!.Address}/{page.Address}" : $"/{page.Desk!.Address}";

    /// <summary>The page's row as a form: what guests have, or of a page that never was published all of it.</summary>
    public static PageForm FormOf(Page page) =>
        new(
            page.Title,
            page.DeskId,
            page.Address,
            page.Description,
            page.PlaceKind,
            page.Place,
            page.KeepsHosts,
            new PageTimes(
                page.Zone,
                [
                    .. InOrder(page)
                        .Select(seat => new SeatForm(
                            [.. InOrder(seat).Select(host => host.HostId)],
                            seat.Fill,
                            seat.Keeper
                        )),
                ],
                page.Durations,
                page.Step,
                page.StepOffset,
                page.StepFrom,
                page.BufferBefore,
                page.BufferAfter,
                page.Notice,
                page.AheadDays,
                page.HoursMode,
                page.Hours?.Document,
                page.DailyCap,
                page.WeeklyCap,
                page.Places,
                BlocksOf(page),
                page.CalendarChoices,
                page.Window,
                page.StartsApart,
                page.Hours is { IsNamed: true } named ? named.Id : null
            ),
            page.Changes,
            page.Post,
            page.ApprovalHours,
            page.Questions,
            page.Details
        );

    /// <summary>The names of each seat's hosts, in order.</summary>
    public static IReadOnlyList<IReadOnlyList<string>> SeatNames(Page page) =>
        [.. InOrder(page).Select(seat => (IReadOnlyList<string>)[.. InOrder(seat).Select(host => host.Host!.Name)])];

    private static BlocksForm? BlocksOf(Page page) =>
        page.Blocks.Count == 0
            ? null
            : new BlocksForm(
                page.OffersWholeBlocks,
                [
                    .. page
                        .Blocks.OrderBy(block => block.Start)
                        .ThenBy(block => block.Id)
                        .Select(block => new BlockForm(block.Start, block.Length, block.Rule, block.Without)),
                ]
            );

    private static IEnumerable<SeatRow> InOrder(Page page) => page.Seats.OrderBy(seat => seat.Position);

    private static IEnumerable<SeatHost> InOrder(SeatRow seat) => seat.Hosts.OrderBy(host => host.Position);
}
