using LooseLantern.Server.Hosting;

namespace LooseLantern.Server.Features.SignIn;

/// <summary>What a password has to be.</summary>
public static class Passwords
{
    /// <summary>
    /// Length is what makes a password hard to guess; rules of composition only make it hard to remember.
    /// </summary>
    public const int Shortest = 10;

    /// <summary>Of 0 to 4: what nobody guesses who may try for long (10^8 times and more).</summary>
    private const int LeastScore = 3;

    // What stands further behind makes no password worse, and to look at it takes ever longer.
    private const int MostLookedAt = 60;

    public static readonly Phrase Mend = Phrase.Of("password", ("least", Shortest));

    /// <summary>
    /// What is wrong with a password: too short, or soon guessed (by zxcvbn, from lists of passwords, names and words,
    /// and the person's own). Null for one that will do.
    /// </summary>
    /// <param name="own">What an attacker would try first: the person's name and address, the workspace's
    /// names.</param>
    public static Phrase? FaultOf(string password, params IEnumerable<string> own)
    {
        if (password.Length < Shortest)
            return Mend;
        var words = own.SelectMany(text => text.Split([' ', '@', '.', '-', '_'], StringSplitOptions.RemoveEmptyEntries))
            .Concat(own)
            .Where(word => word.Length > 2)
            .Select(word => word.ToLowerInvariant())
            .Distinct();
        var looked = password.Length <= MostLookedAt ? password : password[..MostLookedAt];
        return Zxcvbn.Zxcvbn.MatchPassword(looked, words).Score >= LeastScore ? null : Phrase.Of("password-guessed");
    }

    /// <exception cref="Refusal">As <see cref="FaultOf"/>.</exception>
    public static void Require(string field, string password, params IEnumerable<string> own)
    {
        if (FaultOf(password, own) is { } fault)
            throw Refusal.Invalid(field, fault);
    }
}
