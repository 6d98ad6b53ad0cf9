using CsCheck;
using LooseLantern.Core.Reasons;

namespace Core.Tests;

/// <summary>What holds of every answer to why a time is not offered.</summary>
public class ReasonPropertyTests
{
    private static readonly Gen<(OpeningsInput Input, Instant Start)> Asked =
        from input in RandomInput.Any
        from minute in Gen.Int[-60, 3_200]
        from even in Gen.Int[0, 2]
        select (
            input,
            LooseLantern.Core.Days.LocalDays.Start(input.Page.Zone, input.From)
                + Duration.FromMinutes(even > 0 ? minute / 15 * 15 : minute)
        );

    [Fact]
    public void There_are_reasons_exactly_where_there_is_no_opening() =>
        Asked.Sample(
            (input, start) =>
            {
                var openings = OpeningsComputation.Openings(input);
                var why = ReasonsComputation.For(input, start);
                why.Opening.ShouldBe(openings.FirstOrDefault(opening => opening.Start == start));
                (why.Reasons.Count == 0).ShouldBe(why.Opening is not null);
                why.Next.ShouldBe(openings.FirstOrDefault(opening => opening.Start > start));
                why.Reasons.Select(reason => reason.Rule).ShouldBeInOrder();
            },
            iter: Tries.Of(5_000)
        );

    [Fact]
    public void The_rules_that_fail_are_those_the_slow_reference_fails() =>
        Asked.Sample(
            (input, start) =>
            {
                var why = ReasonsComputation.For(input, start);
                if (why.Opening is not null)
                    return;
                // A page's own hours are cited once, for no host; the reference asks them of each. Both then come to
                // the same set of rules.
                bool Counts(Rule rule) => rule is >= Rule.Notice and <= Rule.HostCaps;
                var byPage = input.Page.HoursMode != HoursMode.Hosts;
                var named = why
                    .Reasons.Where(reason => Counts(reason.Rule))
                    .Select(reason => ((int)reason.Rule, byPage && reason.Rule == Rule.Hours ? null : reason.Host))
                    .ToHashSet();
                var expected = SlowReference
                    .Failing(input, start)
                    .Select(failing => (failing.Rule, byPage && failing.Rule == 6 ? null : failing.Host))
                    .ToHashSet();
                if (byPage && input.Page.LineUp.All(seat => seat.AnyOf.Count > 1))
                    named.RemoveWhere(pair => pair.Item1 == 6);
                named.ShouldBe(expected, ignoreOrder: true);
            },
            iter: Tries.Of(3_000),
            threads: 2
        );

    [Fact]
    public void Without_the_busy_spans_and_commitments_that_are_named_rules_7_and_8_hold() =>
        Asked.Sample(
            (input, start) =>
            {
                var cited = ReasonsComputation
                    .For(input, start)
                    .Reasons.Concat(
                        ReasonsComputation
                            .For(input, start)
                            .Reasons.SelectMany(reason => reason.Pool ?? [])
                            .SelectMany(host => host.Reasons)
                    )
                    .ToList();
                var freed = input with
                {
                    Hosts =
                    [
                        .. input.Hosts.Select(host =>
                            host with
                            {
                                Busy =
                                [
                                    .. host.Busy.Where(busy =>
                                        !cited.Any(reason =>
                                            reason.Rule == Rule.Calendars
                                            && reason.Host == host.Id
                                            && reason.Span == busy
                                        )
                                    ),
                                ],
                                Commitments =
                                [
                                    .. host.Commitments.Where(taken =>
                                        !cited.Any(reason => reason.Host == host.Id && reason.Commitment == taken)
                                    ),
                                ],
                            }
                        ),
                    ],
                };
                var after = ReasonsComputation.For(freed, start).Reasons;
                after
                    .Concat(after.SelectMany(reason => reason.Pool ?? []).SelectMany(host => host.Reasons))
                    .ShouldNotContain(reason => reason.Rule == Rule.Calendars || reason.Rule == Rule.Commitments);
            },
            iter: Tries.Of(3_000)
        );
}
