using LooseLantern.Core.Covers;
using LooseLantern.Core.Reasons;
using LooseLantern.Server.Data.Model;

namespace LooseLantern.Server.Features.Covers;

/// <summary>Why nobody can take a session, host by host.</summary>
internal static class CoverWhy
{
    public static IReadOnlyList<CoverWhyView> Of(
        Session session,
        List<SessionHost> seats,
        CoverLine line,
        IReadOnlyList<Guid> away,
        Dictionary<Guid, string> names,
        Dictionary<(Guid Session, Guid Host), CoverObstacle?> obstacles
    )
    {
        var why = new List<CoverWhyView>();
        foreach (var lack in line.Lacks)
        {
            var eligible = CoverPlanning
                .EligibleOf(session.Page!, seats[lack.Seat].Seat)
                .Where(host => !away.Contains(host) && names.ContainsKey(host))
                .ToList();
            if (eligible.Count == 0)
                why.Add(new CoverWhyView(CoverObstacleKind.Nobody));
            why.AddRange(
                lack.Needed.Select(needed => new CoverWhyView(
                    CoverObstacleKind.Needed,
                    names[Guid.Parse(needed.Host)],
                    Guid.Parse(needed.Session)
                ))
            );
            why.AddRange(
                eligible
                    .Where(host => obstacles.GetValueOrDefault((session.Id, host)) is not null)
                    .Select(host => new CoverWhyView(KindOf(obstacles[(session.Id, host)]!.Rule), names[host]))
            );
        }

        return why.Count > 0 ? [.. why.Distinct()] : [new CoverWhyView(CoverObstacleKind.Few)];
    }

    private static CoverObstacleKind KindOf(Rule rule) =>
        rule switch
        {
            Rule.Calendars => CoverObstacleKind.Busy,
            Rule.Commitments => CoverObstacleKind.Booked,
            _ => CoverObstacleKind.Hours,
        };
}
