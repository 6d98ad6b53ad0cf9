using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.ActingFor;
using LooseLantern.Server.Features.Record;
using LooseLantern.Server.Hosting;
using LooseLantern.Server.Tenancy;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Letters;

/// <param name="IsTeams">Whether the whole team has it; else it is the own of who saves it.</param>
/// <param name="PatternId">The pattern its link starts from; null where that is chosen each time.</param>
public sealed record LetterForm(string Name, string Subject, string Body, bool IsTeams, Guid? PatternId);

public sealed record LetterView(Guid Id, int Version, LetterForm Form, Instant SavedAt);

/// <param name="Name">As it is written between {{ and }}.</param>
public sealed record BlankView(string Name, string Means);

/// <param name="Patterns">That links can start from.</param>
public sealed record LettersAnswer(
    IReadOnlyList<LetterView> Letters,
    IReadOnlyList<BlankView> Blanks,
    IReadOnlyList<NamedPattern> Patterns
);

public sealed record NamedPattern(Guid Id, string Name);

/// <summary>Saves letters: everybody's own, and the team's.</summary>
public sealed class LetterEditing(LanternDb db, Tenant tenant, Actor actor, RecordKeeping record, IClock clock)
{
    public const int MostSubject = 300;
    public const int MostBody = 8_000;

    private const int MostLetters = 200;

    private IQueryable<Letter> Readable =>
        db.Letters.Where(row => row.PersonId == null || row.PersonId == actor.Required.Id);

    public async Task<LettersAnswer> ListAsync(CancellationToken ct)
    {
        var letters = await Readable
            .AsNoTracking()
            .OrderBy(row => row.PersonId == null)
            .ThenBy(row => row.Name)
            .ToListAsync(ct);
        return new LettersAnswer(
            letters.ConvertAll(ViewOf),
            [.. (await KnownAsync(ct)).Select(blank => new BlankView(blank.Key, blank.Value))],
            await LetterPatterns.ListAsync(db, ct)
        );
    }

    /// <exception cref="Refusal">400 naming each fault.</exception>
    public async Task<LetterView> AddAsync(LetterForm form, CancellationToken ct)
    {
        await RequireAsync(form, ct);
        if (await Readable.CountAsync(ct) >= MostLetters)
            throw Refusal.Invalid("name", Phrase.Of("letters-full", ("most", MostLetters)));
        var letter = new Letter
        {
            WorkspaceId = tenant.WorkspaceId!.Value,
            Name = "",
            Subject = "",
            Body = "",
            SavedAt = default,
        };
        db.Letters.Add(letter);
        Fill(letter, form);
        await db.SaveChangesAsync(ct);
        return ViewOf(letter);
    }

    /// <exception cref="Refusal">400 naming each fault; 404; 409 where somebody changed it meanwhile.</exception>
    public async Task<LetterView> ChangeAsync(Guid id, int version, LetterForm form, CancellationToken ct)
    {
        await RequireAsync(form, ct);
        var letter = await FindAsync(id, ct);
        if (letter.Version != version)
            throw ChangedMeanwhile();
        letter.Version++;
        Fill(letter, form);
        try
        {
            await db.SaveChangesAsync(ct);
        }
        catch (DbUpdateConcurrencyException)
        {
            throw ChangedMeanwhile();
        }

        return ViewOf(letter);
    }

    /// <exception cref="Refusal">404.</exception>
    public async Task RemoveAsync(Guid id, CancellationToken ct)
    {
        var letter = await FindAsync(id, ct);
        db.Letters.Remove(letter);
        if (letter.PersonId is null)
            record.Note(id, $"Deleted the letter “{letter.Name}”");
        await db.SaveChangesAsync(ct);
    }

    /// <summary>The blanks that letters of the workspace may have.</summary>
    public async Task<IReadOnlyDictionary<string, string>> KnownAsync(CancellationToken ct) =>
        LetterBlanks.Of(await db.Workspaces.AsNoTracking().Select(row => row.GuestFields).SingleAsync(ct));

    /// <exception cref="Refusal">400 naming what of the words is wrong.</exception>
    public async Task RequireWordsAsync(string subject, string body, CancellationToken ct)
    {
        var faults = WordFaults(subject, body, await KnownAsync(ct));
        if (faults.Count > 0)
            throw Refusal.Invalid(faults);
    }

    private async Task RequireAsync(LetterForm form, CancellationToken ct)
    {
        var faults = WordFaults(form.Subject, form.Body, await KnownAsync(ct));
        if (!Words.FitOneLine(form.Name))
            faults["name"] = ["letter-name"];
        if (faults.Count > 0)
            throw Refusal.Invalid(faults);
        if (form.PatternId is { } pattern)
            await LetterPatterns.RequireAsync(db, pattern, "patternId", ct);
    }

    /// <summary>What is wrong with a letter's words, by field; empty where nothing is.</summary>
    /// <param name="known">From <see cref="KnownAsync"/>.</param>
    public static Dictionary<string, Phrase[]> WordFaults(
        string subject,
        string body,
        IReadOnlyDictionary<string, string> known
    )
    {
        var faults = new Dictionary<string, Phrase[]>();
        foreach (var (field, words, most) in new[] { ("subject", subject, MostSubject), ("body", body, MostBody) })
        {
            if (words.Trim().Length == 0 || words.Length > most)
                faults[field] = [Phrase.Of("letter-words", ("most", most))];
            else if (LetterBlanks.FaultOf(words, field == "subject" ? OfOneLine(known) : known) is { } fault)
                faults[field] = [fault];
        }

        if (!faults.ContainsKey("subject") && subject.Trim().Contains('\n', StringComparison.Ordinal))
            faults["subject"] = ["letter-subject-line"];
        // Nobody can have us send their headline: a name may be whatever a stranger typed.
        else if (!faults.ContainsKey("subject") && subject.Trim() is ['{', '{' or '%', ..])
            faults["subject"] = ["letter-subject-begins"];
        return faults;
    }

    /// <summary>Times are several lines, and an address in a subject leads nowhere.</summary>
    private static Dictionary<string, string> OfOneLine(IReadOnlyDictionary<string, string> known) =>
        known.Where(blank => blank.Key is not ("times" or "link")).ToDictionary();

    private void Fill(Letter letter, LetterForm form)
    {
        (letter.Name, letter.Subject, letter.Body) = (form.Name.Trim(), form.Subject.Trim(), form.Body.Trim());
        (letter.PersonId, letter.PatternId) = (form.IsTeams ? null : actor.Required.Id, form.PatternId);
        letter.SavedAt = clock.GetCurrentInstant();
        if (form.IsTeams)
            record.Note(letter.Id, $"Saved the letter “{letter.Name}”");
    }

    private async Task<Letter> FindAsync(Guid id, CancellationToken ct) =>
        await Readable.FirstOrDefaultAsync(row => row.Id == id, ct) ?? throw Refusal.NotFound("letter");

    private static LetterView ViewOf(Letter letter) =>
        new(
            letter.Id,
            letter.Version,
            new LetterForm(letter.Name, letter.Subject, letter.Body, letter.PersonId is null, letter.PatternId),
            letter.SavedAt
        );

    private static Refusal ChangedMeanwhile() =>
        new(StatusCodes.Status409Conflict, "changed-meanwhile", "changed-meanwhile.letter");
}
