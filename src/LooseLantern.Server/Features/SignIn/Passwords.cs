using LooseLantern.Server.Hosting;

namespace LooseLantern.Server.Features.SignIn;

/// <summary>What a password has to be.</summary>
public static class Passwords
{
    /// <summary>
    /// Length is what makes a password hard to guess; rules of composition only make it hard to remember.
    /// </summary>
    public const int Shortest = 10;

    public static readonly Phrase Mend = Phrase.Of("password", ("least", Shortest));
}
