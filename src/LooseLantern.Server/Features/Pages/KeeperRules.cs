using FluentValidation;
using LooseLantern.Core.Questions;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Guests;
using LooseLantern.Server.Hosting;
using Microsoft.EntityFrameworkCore;

namespace LooseLantern.Server.Features.Pages;

/// <summary>The rules of a page by which an answer says whose guest somebody is.</summary>
internal static class KeeperRules
{
    private const int MostRules = 50;

    public static void Check(PageForm form, ValidationContext<PageForm> context)
    {
        var rules = form.Details!.Keepers;
        void Fault(string field, Phrase mend) => context.AddMend($"details.keepers{field}", mend);
        if (rules.Count > MostRules || rules.Any(rule => rule?.If is null))
        {
            Fault("", Phrase.Of("sentences", ("most", MostRules)));
            return;
        }

        foreach (var (i, rule) in rules.Index())
        {
            var question = (form.Questions ?? []).FirstOrDefault(one => one?.Key == rule.If.Key);
            if (Screening.FaultOf(question, rule.If with { Value = rule.If.Value ?? "" }) is { } unfit)
                Fault($"[{i}].if", QuestionPhrases.Of(unfit));
        }
    }

    /// <exception cref="Refusal">400 naming each host who is no person of the team.</exception>
    public static async Task RequirePeopleAsync(LanternDb db, PageDetails details, CancellationToken ct)
    {
        var people = await db
            .Hosts.Where(host => host.PersonId != null && host.RetiredAt == null)
            .Select(host => host.Id)
            .ToListAsync(ct);
        foreach (var (i, rule) in details.Keepers.Index())
        {
            if (!Guid.TryParse(rule.Host, out var host) || !people.Contains(host))
                throw Refusal.Invalid($"details.keepers[{i}].host", "guest-keeper");
        }
    }
}
