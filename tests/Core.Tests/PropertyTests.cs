using CsCheck;

namespace Core.Tests;

/// <summary>What holds of every computation, tried on random ones.</summary>
public class PropertyTests
{
    [Fact]
    public void The_answer_is_that_of_the_slow_reference() => RandomInput.Any.Sample(
        input => Same(OpeningsComputation.Openings(input), SlowReference.Openings(input)), iter: 20_000, threads: 2);

    [Fact]
    public void Openings_come_by_start_one_for_a_start() => RandomInput.Any.Sample(input =>
    {
        var starts = OpeningsComputation.Openings(input).Select(opening => opening.Start).ToList();
        return starts.SequenceEqual(starts.Distinct().Order());
    }, iter: 5_000);

    [Fact]
    public void One_more_busy_span_never_adds_an_opening() => RandomInput.Any.Sample(input =>
    {
        var fewer = input with { Page = input.Page with { Places = 1 } };
        var host = fewer.Hosts[0];
        var busier = fewer with { Hosts = [host with { Busy = [.. host.Busy, new Span(fewer.Now, fewer.Now + Duration.FromHours(20))] }, .. fewer.Hosts.Skip(1)] };
        return Starts(busier).IsSubsetOf(Starts(fewer));
    }, iter: 5_000);

    [Fact]
    public void A_longer_notice_never_adds_an_opening() => RandomInput.Any.Sample(input =>
        Starts(input with { Page = input.Page with { Notice = input.Page.Notice + 300 } }).IsSubsetOf(Starts(input)), iter: 5_000);

    [Fact]
    public void The_order_of_the_input_never_matters() => RandomInput.Any.Sample(input =>
    {
        var turned = input with
        {
            Hosts = [.. input.Hosts.Reverse().Select(host => host with { Busy = [.. host.Busy.Reverse()], Commitments = [.. host.Commitments.Reverse()] })],
            Page = input.Page with { Sessions = [.. input.Page.Sessions.Reverse()], LineUp = [.. input.Page.LineUp.Reverse()] },
        };
        return Same(OpeningsComputation.Openings(input), OpeningsComputation.Openings(turned));
    }, iter: 5_000);

    [Fact]
    public void Hosts_can_be_named_for_every_new_opening_and_for_nothing_else() => RandomInput.Any.Sample(input =>
    {
        var single = input with { Page = input.Page with { Places = 1 } };
        var openings = Starts(single);
        return openings.All(start => OpeningsComputation.HostsFor(single, start) is { } hosts
                && hosts.Distinct().Count() == hosts.Count
                && hosts.Zip(single.Page.LineUp).All(pair => pair.Second.AnyOf.Contains(pair.First)))
            && OpeningsComputation.HostsFor(single, single.Now + Duration.FromSeconds(1)) is null;
    }, iter: 1_000);

    private static bool Same(IReadOnlyList<Opening> left, IReadOnlyList<Opening> right) =>
        left.SequenceEqual(right) ? true : throw new Xunit.Sdk.XunitException($"computed: {string.Join(' ', left.Except(right))}; expected besides: {string.Join(' ', right.Except(left))}");

    private static HashSet<Instant> Starts(OpeningsInput input) => [.. OpeningsComputation.Openings(input).Select(opening => opening.Start)];
}
