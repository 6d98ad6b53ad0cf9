using LooseLantern.Core.Reasons;
using NodaTime;

namespace LooseLantern.Core.Openings.HostRules;

/// <summary>Rule 9: distinct sessions of the host on a date, and in a week, by the host's zone, are fewer than its
/// caps.</summary>
internal sealed class HostCapRule : IHostRule
{
    public void Remove(StartSet starts, HostFacts host, StartsAsked asked)
    {
        if (host.DailyCap is null && host.WeeklyCap is null)
            return;
        var caps = Counted(asked.Input, host);
        var kept = new List<int>();
        foreach (var time in Promises.Of(asked.Input, host))
        {
            var position = asked.Axis.Find(time.Start.ToUnixTimeTicks());
            if (time.Length == Duration.FromMinutes(asked.Input.Duration) && position >= 0 && starts.Contains(position))
                kept.Add(position);
        }

        foreach (var run in DateRun.Of(asked.Axis, host.Zone))
        {
            if (!caps.HasRoom(run.Date))
                starts.Remove(run.From, run.To);
        }

        foreach (var position in kept)
            starts.Add(position);
    }

    public IEnumerable<Reason> Say(HostFacts host, AppointmentAsked asked)
    {
        if (host.DailyCap is null && host.WeeklyCap is null)
            return [];
        if (Promises.Of(asked.Input, host).Contains(asked.Time))
            return [];
        var date = asked.Time.Start.InZone(host.Zone).Date;
        return Counted(asked.Input, host)
            .Reached(date)
            .Select(cap => new Reason(Rule.HostCaps)
            {
                Host = host.Id,
                Cap = cap,
                Span = ReasonsComputation.SpanOf(cap.Period, date, host.Zone),
            });
    }

    private static CapCount Counted(OpeningsInput input, HostFacts host) =>
        new(
            host.Zone,
            host.DailyCap,
            host.WeeklyCap,
            CommitmentRule
                .Blocking(input, host)
                .Where(commitment => commitment.Kind == CommitmentKind.Booking)
                .Select(booking => (booking.Holder, booking.Start))
        );
}
