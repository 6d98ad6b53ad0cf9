namespace Server.Tests;

/// <summary>A page form, with what a test does not care about filled in.</summary>
public sealed class PageDraft
{
    public string Title { get; set; } = "Talk";

    public Guid DeskId { get; set; }

    public Guid HostId { get; set; }

    public string Address { get; set; } = "talk";

    public string Zone { get; set; } = "Europe/Copenhagen";

    public int[] Durations { get; set; } = [30];

    public int Step { get; set; } = 30;

    public int BufferBefore { get; set; }

    public int BufferAfter { get; set; }

    public int Notice { get; set; }

    public int AheadDays { get; set; } = 28;

    public string HoursMode { get; set; } = "page";

    public object[] Day { get; set; } = [new { from = "09:00", to = "12:00" }];

    public object Form() => new
    {
        title = Title, deskId = DeskId, address = Address, description = "", placeKind = "inPerson", place = "Slip 2", times = Times(),
    };

    public object Times() => new
    {
        zone = Zone, hostId = HostId, durations = Durations, step = Step, stepOffset = 0, stepFrom = "clock", bufferBefore = BufferBefore,
        bufferAfter = BufferAfter, notice = Notice, aheadDays = AheadDays, hoursMode = HoursMode,
        hours = new
        {
            zone = Zone,
            week = new { mon = Day, tue = Day, wed = Day, thu = Day, fri = Day, sat = Array.Empty<object>(), sun = Array.Empty<object>() },
            changes = Array.Empty<object>(),
        },
    };
}
