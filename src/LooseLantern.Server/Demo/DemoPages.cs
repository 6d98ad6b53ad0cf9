using LooseLantern.Core.Openings;
using LooseLantern.Core.Questions;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Desks;
using LooseLantern.Server.Features.Hours;
using LooseLantern.Server.Features.Pages;
using NodaTime;

namespace LooseLantern.Server.Demo;

/// <summary>A page of the demo.</summary>
/// <param name="Seats">The hosts of each seat by their keys.</param>
/// <param name="Published">One page is left a draft, to show what that looks like.</param>
/// <param name="Turns">How often guests of the demo try it, beside the others.</param>
internal sealed record DemoPage(
    string Desk,
    string[][] Seats,
    bool Published,
    int Turns,
    Func<Guid, IReadOnlyList<SeatForm>, LocalDate, PageForm> Form
);

internal static class DemoPages
{
    /// <summary>
    /// Published last of all, so that where guests can open it the demo is whole. It has no openings, and a good reason
    /// for that.
    /// </summary>
    public const string Last = "launch-day";

    /// <summary>The page whose bookings wait for a yes.</summary>
    public const string Asked = "school-class";

    /// <summary>What sorts of appointments the yard has.</summary>
    public static readonly string[] Kinds = ["Surveys and fittings", "Commissions", "School"];

    /// <summary>What guests read at each desk.</summary>
    public static readonly (string Address, DeskForm Form)[] Desks =
    [
        (
            "brackwater",
            new DeskForm(
                "Service desk",
                "For boats that are afloat already: **surveys**, sails and a second opinion. Not sure which? Take *Office hours at the bench*.",
                "",
                "",
                [],
                null
            )
        ),
        (
            "brackwater-commissions",
            new DeskForm(
                "Commissions desk",
                "For boats that are still an idea. The first talk costs nothing.",
                "#4a2f4f",
                "",
                [],
                null
            )
        ),
        (
            "brackwater-school",
            new DeskForm(
                "Yard hand school",
                "For whoever wants to learn the trade, and for schools that want to look.",
                "#1f4e46",
                "",
                [],
                null
            )
        ),
    ];

    private static readonly OpenTimeDocument[] Closed = [];

    public static readonly DemoPage[] All =
    [
        new(
            "brackwater",
            [
                ["sunniva", "tomasz", "keziah"],
            ],
            true,
            4,
            (desk, lineUp, _) =>
                new PageForm(
                    "Hull survey on the slip",
                    desk,
                    "hull-survey",
                    "We look over the hull below the waterline, sound the planking and write down what we find.\n\n"
                        + "Bring her afloat or on a trailer, with the boards up and the bilge dry. A ladder and lights are at the slip.",
                    PlaceKind.InPerson,
                    "Slip 2, Brackwater Quay",
                    KeepsHosts: true,
                    Times(lineUp, [45, 90]) with
                    {
                        Step = 30,
                        BufferBefore = 10,
                        BufferAfter = 20,
                        Notice = 24 * 60,
                        AheadDays = 42,
                    },
                    Details: Of("Surveys and fittings") with
                    {
                        Place = new PlaceDetail(
                            "From the harbour road through the green gate, then along the quay to the second slip.",
                            HostsRing: true
                        ),
                        After = new Afterwards(
                            "The green gate’s code is **4711**. Ring the bell at the slip.",
                            "",
                            OffersAnother: false
                        ),
                    }
                )
        ),
        new(
            "brackwater",
            [
                ["piet"],
            ],
            true,
            2,
            (desk, lineUp, _) =>
                new PageForm(
                    "Sail fitting in the loft",
                    desk,
                    "sail-fitting",
                    "Half an hour on the loft floor to check cut and hardware before the last seam is sewn.",
                    PlaceKind.InPerson,
                    "Sail loft, second floor",
                    KeepsHosts: false,
                    Times(lineUp, [30]) with
                    {
                        Step = 15,
                        BufferAfter = 10,
                        Notice = 4 * 60,
                        AheadDays = 28,
                        HoursMode = HoursMode.Both,
                        Hours = Hours([new("08:00", "11:00"), new("13:00", "15:00")], [new("08:00", "11:00")]),
                    },
                    ChangeRules.Usual with
                    {
                        MoveUntil = 60,
                        CancelUntil = 60,
                        CancelWords = "If only the day doesn’t suit, move it instead: the loft keeps your sail.",
                    },
                    PagePost.Usual with
                    {
                        HostWords = "Measure the hardware before the guest comes.",
                        Links =
                        [
                            new PostLink("How to fold a sail for the way here", "https://brackwater.example/folding"),
                        ],
                    }
                )
        ),
        new(
            "brackwater-commissions",
            [
                ["odile", "ivo"],
            ],
            true,
            3,
            (desk, lineUp, _) =>
                new PageForm(
                    "A first talk about a new boat",
                    desk,
                    "first-talk",
                    "Twenty minutes to hear what you have in mind. Sketches are welcome and nothing is decided yet.",
                    PlaceKind.Video,
                    "",
                    KeepsHosts: false,
                    Times(lineUp, [20]) with
                    {
                        Step = 20,
                        StepFrom = StepFrom.Open,
                        BufferAfter = 10,
                        Notice = 12 * 60,
                        AheadDays = 30,
                    },
                    Questions:
                    [
                        new Question(
                            "length",
                            QuestionKind.Number,
                            "How long should she be, in metres?",
                            "A guess will do.",
                            IsNeeded: false,
                            [],
                            ""
                        ),
                        new Question(
                            "for",
                            QuestionKind.OneOf,
                            "What is she for?",
                            "",
                            IsNeeded: false,
                            ["Day sailing", "Long passages", "Work"],
                            ""
                        ),
                        new Question("mind", QuestionKind.Long, "What have you in mind?", "", IsNeeded: false, [], ""),
                    ],
                    Details: Of("Commissions") with
                    {
                        Screening =
                        [
                            new ScreeningRule(
                                [new ScreenCondition("length", ScreenTest.Over, "24")],
                                All: true,
                                ScreenAct.DontBook,
                                "Over 24 metres our slip is too short. Please ring the yard, and we tell you who builds longer.",
                                ""
                            ),
                            new ScreeningRule(
                                [new ScreenCondition("for", ScreenTest.Is, "Work")],
                                All: true,
                                ScreenAct.Flag,
                                "A working boat: ask Anselm about the classification first.",
                                ""
                            ),
                        ],
                    }
                )
        ),
        new(
            "brackwater-commissions",
            [
                ["odile"],
                ["anselm"],
            ],
            true,
            2,
            (desk, lineUp, _) =>
                new PageForm(
                    "Design review",
                    desk,
                    "design-review",
                    "An hour over the drawings with the commissions desk and the master shipwright.",
                    PlaceKind.Video,
                    "",
                    KeepsHosts: false,
                    Times(lineUp, [60]) with
                    {
                        Step = 30,
                        BufferAfter = 15,
                        Notice = 24 * 60,
                        AheadDays = 42,
                    }
                )
        ),
        new(
            "brackwater-school",
            [
                ["rosalind"],
                ["anselm"],
                ["piet", "tomasz"],
            ],
            true,
            2,
            (desk, lineUp, _) =>
                new PageForm(
                    "Yard hand interview",
                    desk,
                    "yard-hand",
                    "Forty minutes with the school, the master shipwright and one of the workshop. Bring something you made.",
                    PlaceKind.InPerson,
                    "School room over the boat store",
                    KeepsHosts: false,
                    Times(lineUp, [40]) with
                    {
                        Step = 20,
                        BufferBefore = 5,
                        BufferAfter = 10,
                        Notice = 48 * 60,
                        AheadDays = 42,
                    }
                )
        ),
        new(
            "brackwater-school",
            [
                ["rosalind"],
            ],
            true,
            4,
            (desk, lineUp, _) =>
                new PageForm(
                    "Safety morning",
                    desk,
                    "safety-morning",
                    "Two hours on slips, slings and dust, for everybody who is new to a yard.",
                    PlaceKind.InPerson,
                    "School room over the boat store",
                    KeepsHosts: false,
                    Times(lineUp, [120]) with
                    {
                        Step = 120,
                        StepFrom = StepFrom.Open,
                        Notice = 24 * 60,
                        AheadDays = 42,
                        Places = 8,
                        HoursMode = HoursMode.Page,
                        Hours = new HoursDocument(
                            DemoPeople.Zone,
                            new WeekDocument(
                                Closed,
                                Closed,
                                Closed,
                                [new("09:00", "11:00")],
                                [new("09:00", "11:00")],
                                Closed,
                                Closed
                            ),
                            []
                        ),
                    },
                    Questions:
                    [
                        new Question(
                            DemoGroup.Boots,
                            QuestionKind.Short,
                            "Which size of boots?",
                            "We lend a pair to each who comes.",
                            IsNeeded: false,
                            [],
                            ""
                        ),
                    ],
                    Details: PageDetails.Usual with
                    {
                        ForOthers = true,
                    }
                )
        ),
        new(
            "brackwater",
            [
                ["piet"],
            ],
            true,
            2,
            (desk, lineUp, _) =>
                new PageForm(
                    "A word about varnish",
                    desk,
                    "varnish-word",
                    "A quarter of an hour at the bench. Two a day, so that the bench gets something done as well.",
                    PlaceKind.InPerson,
                    "Finishing shop",
                    KeepsHosts: false,
                    Times(lineUp, [15]) with
                    {
                        Step = 15,
                        Notice = 2 * 60,
                        AheadDays = 21,
                        DailyCap = 2,
                    }
                )
        ),
        new(
            "brackwater",
            [
                ["piet"],
            ],
            true,
            0,
            (desk, lineUp, today) =>
                new PageForm(
                    "Office hours at the bench",
                    desk,
                    "bench-hours",
                    "Bring a question, a plank or a photograph. Twenty minutes each.",
                    PlaceKind.InPerson,
                    "Finishing shop",
                    KeepsHosts: false,
                    Times(lineUp, [20]) with
                    {
                        Step = 20,
                        StepFrom = StepFrom.Open,
                        Notice = 60,
                        AheadDays = 90,
                        HoursMode = HoursMode.Page,
                        // Thursdays from the coming one on, and one afternoon more.
                        Blocks = new BlocksForm(
                            Whole: false,
                            [
                                new BlockForm(
                                    today.Next(IsoDayOfWeek.Thursday).At(new LocalTime(13, 0)),
                                    120,
                                    "FREQ=WEEKLY;BYDAY=TH",
                                    []
                                ),
                                new BlockForm(
                                    today.Next(IsoDayOfWeek.Tuesday).PlusWeeks(1).At(new LocalTime(14, 0)),
                                    60,
                                    null,
                                    []
                                ),
                            ]
                        ),
                    }
                )
        ),
        new(
            "brackwater-school",
            [
                ["rosalind"],
            ],
            true,
            0,
            (desk, lineUp, _) =>
                new PageForm(
                    "A visit with a school class",
                    desk,
                    Asked,
                    "An hour around the yard with up to thirty children, for schools of the harbour towns.",
                    PlaceKind.InPerson,
                    "Gate of the yard",
                    KeepsHosts: false,
                    Times(lineUp, [60]) with
                    {
                        Step = 30,
                        Notice = 72 * 60,
                        AheadDays = 42,
                    },
                    ChangeRules.Usual with
                    {
                        MoveUntil = 24 * 60,
                        CancelUntil = 24 * 60,
                        AskWhom = "Ring the school room, extension 12.",
                    },
                    ApprovalHours: 72
                )
        ),
        new(
            "brackwater",
            [
                ["anselm"],
            ],
            true,
            0,
            (desk, lineUp, _) =>
                new PageForm(
                    "Launch day with the shipwright",
                    desk,
                    "launch-day",
                    "An hour at the crane with the master shipwright.",
                    PlaceKind.InPerson,
                    "Crane pad, Brackwater Quay",
                    KeepsHosts: false,
                    // Fifteen days' notice within a window of fourteen days: a mistake that is easily made.
                    Times(lineUp, [60]) with
                    {
                        Step = 30,
                        Notice = 15 * 24 * 60,
                        AheadDays = 14,
                    }
                )
        ),
        new(
            "brackwater",
            [
                ["tomasz"],
            ],
            false,
            0,
            (desk, lineUp, _) =>
                new PageForm(
                    "Mast and rigging inspection",
                    desk,
                    "mast-inspection",
                    "",
                    PlaceKind.InPerson,
                    "Mast shed",
                    KeepsHosts: false,
                    Times(lineUp, [60, 120]) with
                    {
                        Step = 30,
                        BufferBefore = 15,
                        BufferAfter = 15,
                        Notice = 24 * 60,
                        AheadDays = 42,
                    }
                )
        ),
    ];

    private static PageDetails Of(string kind) => PageDetails.Usual with { Naming = new PageNaming("", kind, null) };

    private static PageTimes Times(IReadOnlyList<SeatForm> lineUp, int[] durations) =>
        new(
            DemoPeople.Zone,
            lineUp,
            durations,
            Step: 30,
            StepOffset: 0,
            StepFrom.Clock,
            BufferBefore: 0,
            BufferAfter: 0,
            Notice: 0,
            AheadDays: 28,
            HoursMode.Hosts,
            Hours: null,
            DailyCap: null,
            WeeklyCap: null,
            Places: 1
        );

    private static HoursDocument Hours(OpenTimeDocument[] weekdays, OpenTimeDocument[] friday) =>
        new(DemoPeople.Zone, new WeekDocument(weekdays, weekdays, weekdays, weekdays, friday, Closed, Closed), []);
}
