using CsCheck;

namespace Core.Tests;

/// <summary>What holds of every computation of openings, tried on random ones.</summary>
public class PropertyTests
{
    [Fact]
    public void The_answer_is_that_of_the_slow_reference() =>
        RandomInput.Any.Sample(
            input => Same(OpeningsComputation.Openings(input), SlowReference.Openings(input)),
            iter: Tries.Of(20_000),
            threads: 2
        );

    [Fact]
    public void Over_months_too() =>
        RandomInput.Months.Sample(
            input => Same(OpeningsComputation.Openings(input), SlowReference.Openings(input)),
            iter: Tries.Of(400),
            threads: 2
        );

    [Fact]
    public void Any_line_up_is_filled_where_trying_every_way_fills_it() =>
        RandomInput.LineUps.Sample(
            input => Same(OpeningsComputation.Openings(input), SlowReference.Openings(input)),
            iter: Tries.Of(2_000),
            threads: 2
        );

    [Fact]
    public void Openings_come_by_start_one_for_a_start() =>
        RandomInput.Any.Sample(
            input =>
            {
                var starts = OpeningsComputation.Openings(input).Select(opening => opening.Start).ToList();
                return starts.SequenceEqual(starts.Distinct().Order());
            },
            iter: Tries.Of(5_000)
        );

    [Fact]
    public void One_more_busy_span_never_adds_an_opening() =>
        Gen.Select(RandomInput.Any, Gen.Int[-30, 30], Gen.Int[1, 900], Gen.Int[0, 2])
            .Sample(
                (input, hours, minutes, which) =>
                {
                    var fewer = input with { Page = input.Page with { Places = 1 } };
                    var from = fewer.Now + Duration.FromHours(24 + hours);
                    var busier = fewer with
                    {
                        Hosts =
                        [
                            .. fewer.Hosts.Select(
                                (host, i) =>
                                    i == which
                                        ? host with
                                        {
                                            Busy = [.. host.Busy, new Span(from, from + Duration.FromMinutes(minutes))],
                                        }
                                        : host
                            ),
                        ],
                    };
                    return Starts(busier).IsSubsetOf(Starts(fewer));
                },
                iter: Tries.Of(5_000)
            );

    [Fact]
    public void A_longer_notice_never_adds_an_opening() =>
        Gen.Select(RandomInput.Any, Gen.Int[1, 3_000])
            .Sample(
                (input, more) =>
                    Starts(input with { Page = input.Page with { Notice = input.Page.Notice + more } })
                        .IsSubsetOf(Starts(input)),
                iter: Tries.Of(5_000)
            );

    [Fact]
    public void The_order_of_the_input_never_matters() =>
        RandomInput.Any.Sample(
            input =>
            {
                var turned = input with
                {
                    Hosts =
                    [
                        .. input
                            .Hosts.Reverse()
                            .Select(host =>
                                host with
                                {
                                    Busy = [.. host.Busy.Reverse()],
                                    Commitments = [.. host.Commitments.Reverse()],
                                }
                            ),
                    ],
                    Page = input.Page with
                    {
                        Sessions = [.. input.Page.Sessions.Reverse()],
                        LineUp = [.. input.Page.LineUp.Reverse()],
                    },
                };
                return Same(OpeningsComputation.Openings(input), OpeningsComputation.Openings(turned));
            },
            iter: Tries.Of(5_000)
        );

    [Fact]
    public void Everything_so_many_weeks_later_gives_the_same_openings_so_many_weeks_later() =>
        Gen.Select(RandomInput.Any, Gen.Int[-60, 60])
            .Sample(
                (any, weeks) =>
                {
                    var input = Shifting.WithoutClockChanges(any);
                    var later = OpeningsComputation.Openings(Shifting.ByWeeks(input, weeks));
                    var shifted = OpeningsComputation
                        .Openings(input)
                        .Select(opening =>
                            opening with
                            {
                                Start = opening.Start + Duration.FromDays(7 * weeks),
                                End = opening.End + Duration.FromDays(7 * weeks),
                            }
                        )
                        .ToList();
                    return Same(later, shifted);
                },
                iter: Tries.Of(5_000)
            );

    internal static bool Same(IReadOnlyList<Opening> left, IReadOnlyList<Opening> right) =>
        left.SequenceEqual(right)
            ? true
            : throw new Xunit.Sdk.XunitException(
                $"computed: {string.Join(' ', left.Except(right))}; expected besides: {string.Join(' ', right.Except(left))}"
            );

    private static HashSet<Instant> Starts(OpeningsInput input) =>
        [.. OpeningsComputation.Openings(input).Select(opening => opening.Start)];
}
