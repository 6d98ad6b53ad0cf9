using LooseLantern.Core.LineUps;
using LooseLantern.Core.Links;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Links;
using LooseLantern.Server.Features.Pages;
using LooseLantern.Server.Tenancy;
using NodaTime;

namespace LooseLantern.Server.Demo;

/// <summary>A pattern that links start from, and letters of the team that make one.</summary>
internal static class DemoLetters
{
    public static async Task AddAsync(
        IServiceProvider services,
        IReadOnlyDictionary<string, Guid> hosts,
        IReadOnlyDictionary<string, Guid> desks,
        Instant now,
        CancellationToken ct
    )
    {
        var (db, workspace) = (
            services.GetRequiredService<LanternDb>(),
            services.GetRequiredService<Tenant>().WorkspaceId!.Value
        );
        var until = now.InZone(DateTimeZoneProviders.Tzdb[DemoPeople.Zone]).Date.PlusDays(14);
        var pattern = new LinkPattern
        {
            WorkspaceId = workspace,
            Name = "Commission talk",
            SavedAt = now,
            Form = new LinkForm(
                "Talk about your new boat",
                desks["brackwater-commissions"],
                "",
                PlaceKind.Phone,
                "",
                new LinkTimes(
                    DemoPeople.Zone,
                    [new SeatForm([hosts["odile"], hosts["ivo"]], SeatFill.Balanced, SeatKeeper.First)],
                    [30],
                    Step: 30,
                    BufferBefore: 0,
                    BufferAfter: 15,
                    Notice: 24 * 60,
                    new Offer(OfferBy.Free, [], [], [], 10 * 60, 17 * 60, until, MostShown: 6),
                    Overridden: []
                ),
                [],
                "",
                "en",
                new LinkDetails(
                    Lead: 0,
                    AlsoInvited: [],
                    HostWords: "",
                    Notes: "",
                    LeavesFree: false,
                    Takes: 1,
                    Reopens: true,
                    until,
                    Topic: "",
                    LinkText.Usual,
                    StartedFrom: "",
                    IsAmongOurselves: false,
                    HostsRing: true,
                    Questions: []
                )
            ),
        };
        db.LinkPatterns.Add(pattern);
        db.Letters.Add(
            Letter(
                "First talk about a commission",
                "A talk about your new boat",
                "Dear {{ first_name }},\n\nthank you for coming by our yard. {{ hosts }} would like to talk with you about your plans. These times are free:\n\n"
                    + "{{ times }}\n\nTake one of them here, until {{ ends }}:\n\n{{ link }}\n\n{{ sender }}\n{{ desk }}",
                pattern.Id
            )
        );
        db.Letters.Add(
            Letter(
                "Thanks after launching",
                "How does she sail?",
                "Dear {{ first_name }},\n\n{% if boat != \"\" %}{{ boat }}{% else %}your boat{% endif %} has been afloat for a while now. Tell us how she sails; we would like to hear it.\n\n{{ sender }}\n{{ workspace }}",
                null
            )
        );
        await db.SaveChangesAsync(ct);

        Letter Letter(string name, string subject, string body, Guid? patternId) =>
            new()
            {
                WorkspaceId = workspace,
                Name = name,
                Subject = subject,
                Body = body,
                PatternId = patternId,
                SavedAt = now,
            };
    }
}
