using LooseLantern.Core.Questions;
using LooseLantern.Server.Data.Model;

namespace Server.Tests;

/// <summary>A page form, with what a test does not care about filled in.</summary>
public sealed class PageDraft
{
    public string Title { get; set; } = "Talk";

    public Guid DeskId { get; set; }

    public Guid HostId { get; set; }

    /// <summary>The hosts of each seat; one seat for the host alone unless said.</summary>
    public Guid[][]? Seats { get; set; }

    public string Fill { get; set; } = "balanced";

    public string Keeper { get; set; } = "counts";

    public bool KeepsHosts { get; set; }

    public int? DailyCap { get; set; }

    public int? WeeklyCap { get; set; }

    public int Places { get; set; } = 1;

    public string Address { get; set; } = "talk";

    public string Zone { get; set; } = "Europe/Copenhagen";

    public int[] Durations { get; set; } = [30];

    public int Step { get; set; } = 30;

    public int BufferBefore { get; set; }

    public int BufferAfter { get; set; }

    public int Notice { get; set; }

    public int AheadDays { get; set; } = 28;

    public string HoursMode { get; set; } = "page";

    /// <summary>The named set whose changes count on the page; null for none.</summary>
    public Guid? HoursOf { get; set; }

    public bool StartsApart { get; set; }

    public object[] Day { get; set; } = [new { from = "09:00", to = "12:00" }];

    public object? Blocks { get; set; }

    public object[] Calendars { get; set; } = [];

    public string PlaceKind { get; set; } = "inPerson";

    public string Place { get; set; } = "Slip 2";

    /// <summary>What guests may do; the usual unless said.</summary>
    public ChangeRules? Changes { get; set; }

    /// <summary>What it sends; the usual unless said.</summary>
    public PagePost? Post { get; set; }

    public int? ApprovalHours { get; set; }

    public Question[] Questions { get; set; } = [];

    public PageDetails Details { get; set; } = PageDetails.Usual;

    public PageWindow? Window { get; set; }

    public string Description { get; set; } = "";

    public string StepFrom { get; set; } = "clock";

    public object Form() =>
        new
        {
            title = Title,
            deskId = DeskId,
            address = Address,
            description = Description,
            placeKind = PlaceKind,
            place = Place,
            keepsHosts = KeepsHosts,
            times = Times(),
            changes = Changes,
            post = Post,
            approvalHours = ApprovalHours,
            questions = Questions,
            details = Details,
        };

    public object Times() =>
        new
        {
            zone = Zone,
            lineUp = (
                Seats
                ??
                [
                    [HostId],
                ]
            ).Select(hosts => new
            {
                hostIds = hosts,
                fill = Fill,
                keeper = Keeper,
            }),
            durations = Durations,
            step = Step,
            stepOffset = 0,
            stepFrom = StepFrom,
            bufferBefore = BufferBefore,
            bufferAfter = BufferAfter,
            notice = Notice,
            aheadDays = AheadDays,
            hoursMode = HoursMode,
            hours = new
            {
                zone = Zone,
                week = new
                {
                    mon = Day,
                    tue = Day,
                    wed = Day,
                    thu = Day,
                    fri = Day,
                    sat = Array.Empty<object>(),
                    sun = Array.Empty<object>(),
                },
                changes = Array.Empty<object>(),
            },
            dailyCap = DailyCap,
            weeklyCap = WeeklyCap,
            places = Places,
            blocks = Blocks,
            calendars = Calendars,
            window = Window,
            startsApart = StartsApart,
            hoursOf = HoursOf,
        };
}
