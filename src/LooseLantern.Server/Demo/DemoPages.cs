using LooseLantern.Core.Openings;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Hours;
using LooseLantern.Server.Features.Pages;

namespace LooseLantern.Server.Demo;

/// <param name="Published">One page is left a draft, to show what that looks like.</param>
internal sealed record DemoPage(string Desk, string Host, bool Published, Func<Guid, Guid, PageForm> Form);

internal static class DemoPages
{
    private static readonly OpenTimeDocument[] Closed = [];

    public static readonly DemoPage[] All =
    [
        new("brackwater", "sunniva", true, (desk, host) => new PageForm(
            "Hull survey on the slip", desk, "hull-survey",
            "We look over the hull below the waterline, sound the planking and write down what we find.\n\n"
            + "Bring her afloat or on a trailer, with the boards up and the bilge dry. A ladder and lights are at the slip.",
            PlaceKind.InPerson, "Slip 2, Brackwater Quay",
            Times(host, [45, 90]) with { Step = 30, BufferBefore = 10, BufferAfter = 20, Notice = 24 * 60, AheadDays = 42 })),
        new("brackwater", "piet", true, (desk, host) => new PageForm(
            "Sail fitting in the loft", desk, "sail-fitting",
            "Half an hour on the loft floor to check cut and hardware before the last seam is sewn.",
            PlaceKind.InPerson, "Sail loft, second floor",
            Times(host, [30]) with
            {
                Step = 15, BufferAfter = 10, Notice = 4 * 60, AheadDays = 28, HoursMode = HoursMode.Both,
                Hours = Hours([new("08:00", "11:00"), new("13:00", "15:00")], [new("08:00", "11:00")]),
            })),
        new("brackwater-commissions", "odile", true, (desk, host) => new PageForm(
            "A first talk about a new boat", desk, "first-talk",
            "Twenty minutes to hear what you have in mind. Sketches are welcome and nothing is decided yet.",
            PlaceKind.Video, "You get the room's address with your booking",
            Times(host, [20]) with { Step = 20, StepFrom = StepFrom.Open, BufferAfter = 10, Notice = 12 * 60, AheadDays = 30 })),
        new("brackwater", "anselm", true, (desk, host) => new PageForm(
            "Launch day with the shipwright", desk, "launch-day",
            "An hour at the crane with the master shipwright.",
            PlaceKind.InPerson, "Crane pad, Brackwater Quay",
            Times(host, [60]) with { Step = 30, Notice = 48 * 60, AheadDays = 14 })),
        new("brackwater", "tomasz", false, (desk, host) => new PageForm(
            "Mast and rigging inspection", desk, "mast-inspection", "",
            PlaceKind.InPerson, "Mast shed",
            Times(host, [60, 120]) with { Step = 30, BufferBefore = 15, BufferAfter = 15, Notice = 24 * 60, AheadDays = 42 })),
    ];

    private static PageTimes Times(Guid host, int[] durations) => new(
        DemoPeople.Zone, host, durations, Step: 30, StepOffset: 0, StepFrom.Clock, BufferBefore: 0, BufferAfter: 0, Notice: 0, AheadDays: 28,
        HoursMode.Hosts, Hours: null);

    private static HoursDocument Hours(OpenTimeDocument[] weekdays, OpenTimeDocument[] friday) =>
        new(DemoPeople.Zone, new WeekDocument(weekdays, weekdays, weekdays, weekdays, friday, Closed, Closed), []);
}
