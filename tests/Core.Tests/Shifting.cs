namespace Core.Tests;

/// <summary>The same input at another time of history.</summary>
internal static class Shifting
{
    /// <summary>With each zone's offset of the moment for good, so that weeks are alike.</summary>
    public static OpeningsInput WithoutClockChanges(OpeningsInput input)
    {
        DateTimeZone Fixed(DateTimeZone zone) => DateTimeZone.ForOffset(zone.GetUtcOffset(input.Now));
        HoursSet? Hours(HoursSet? hours) => hours is null ? null : hours with { Zone = Fixed(hours.Zone) };
        return input with
        {
            Page = input.Page with { Zone = Fixed(input.Page.Zone), Hours = Hours(input.Page.Hours) },
            Hosts = [.. input.Hosts.Select(host => host with { Zone = Fixed(host.Zone), Hours = Hours(host.Hours) })],
        };
    }

    public static OpeningsInput ByWeeks(OpeningsInput input, int weeks)
    {
        var by = Duration.FromDays(7 * weeks);
        LocalDate Date(LocalDate date) => date.PlusWeeks(weeks);
        Span Time(Span span) => new(span.Start + by, span.End + by);
        HoursSet? Hours(HoursSet? hours) =>
            hours is null
                ? null
                : hours with
                {
                    Changes =
                    [
                        .. hours.Changes.Select(change =>
                            change with
                            {
                                From = Date(change.From),
                                To = Date(change.To),
                            }
                        ),
                    ],
                };
        return input with
        {
            Now = input.Now + by,
            From = Date(input.From),
            To = Date(input.To),
            Page = input.Page with
            {
                Window = input.Page.Window is BookingWindow.Dates dates
                    ? new BookingWindow.Dates(Date(dates.From), Date(dates.To))
                    : input.Page.Window,
                Hours = Hours(input.Page.Hours),
                Sessions =
                [
                    .. input.Page.Sessions.Select(session =>
                        session with
                        {
                            Start = session.Start + by,
                            End = session.End + by,
                        }
                    ),
                ],
                Only = input.Page.Only switch
                {
                    OnlyTimes.Painted painted => new OnlyTimes.Painted([.. painted.Spans.Select(Time)]),
                    OnlyTimes.Exact exact => new OnlyTimes.Exact([.. exact.Starts.Select(start => start + by)]),
                    _ => null,
                },
            },
            Hosts =
            [
                .. input.Hosts.Select(host =>
                    host with
                    {
                        Hours = Hours(host.Hours),
                        Busy = [.. host.Busy.Select(Time)],
                        Commitments =
                        [
                            .. host.Commitments.Select(taken =>
                                taken with
                                {
                                    Start = taken.Start + by,
                                    End = taken.End + by,
                                }
                            ),
                        ],
                    }
                ),
            ],
        };
    }
}
