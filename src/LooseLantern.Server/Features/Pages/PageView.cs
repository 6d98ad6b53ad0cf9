using LooseLantern.Server.Data.Model;

namespace LooseLantern.Server.Features.Pages;

/// <summary>A page for its editor.</summary>
/// <param name="Path">Where guests find it, from the root of the site.</param>
public sealed record PageView(Guid Id, int Version, PageState State, string Path, string HostName, PageForm Form)
{
    /// <param name="page">With everything it includes.</param>
    public static PageView Of(Page page)
    {
        var host = page.Seats.Single().Hosts.Single().Host!;
        return new PageView(page.Id, page.Version, page.State, $"/{page.Desk!.Address}/{page.Address}", host.Name, new PageForm(
            page.Title, page.DeskId, page.Address, page.Description, page.PlaceKind, page.Place, new PageTimes(
                page.Zone, host.Id, page.Durations, page.Step, page.StepOffset, page.StepFrom, page.BufferBefore, page.BufferAfter,
                page.Notice, page.AheadDays, page.HoursMode, page.Hours?.Document)));
    }
}
