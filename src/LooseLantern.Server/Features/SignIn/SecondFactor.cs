using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Hosting;
using Microsoft.AspNetCore.Identity;

namespace LooseLantern.Server.Features.SignIn;

/// <param name="Key">Base32, to type into an authenticator.</param>
/// <param name="Uri">The same as an otpauth URI, to show as a code that can be photographed.</param>
public sealed record FactorKey(string Key, string Uri);

/// <summary>
/// A second factor by time-based codes (TOTP, RFC 6238: 6 digits, 30 seconds, SHA-1) with ten recovery codes.
/// </summary>
public sealed class SecondFactor(UserManager<Person> people)
{
    private const int RecoveryCodes = 10;
    private const string Provider = "[lantern]";
    private const string UsedCodes = "used-codes";

    // Codes of a few half minutes around now are right; so many back each is remembered.
    private const int MostUsedCodes = 12;

    /// <summary>A new key, which counts only once a code of it was confirmed.</summary>
    /// <exception cref="Refusal">409 where a second factor is on already.</exception>
    public async Task<FactorKey> StartAsync(Person person)
    {
        if (person.TwoFactorEnabled)
            throw new Refusal(StatusCodes.Status409Conflict, "factor-on");
        await people.ResetAuthenticatorKeyAsync(person);
        var key = (await people.GetAuthenticatorKeyAsync(person))!;
        var label = Uri.EscapeDataString($"Loose Lantern:{person.Email}");
        return new FactorKey(
            key,
            $"otpauth://totp/{label}?secret={key}&issuer=Loose%20Lantern&algorithm=SHA1&digits=6&period=30"
        );
    }

    /// <summary>Turns it on once a code shows that the authenticator has the key.</summary>
    /// <returns>The recovery codes, which are shown this once.</returns>
    public async Task<IReadOnlyList<string>> ConfirmAsync(Person person, string code)
    {
        if (!await IsCurrentAsync(person, code))
            throw Refusal.Invalid("code", "second-factor-code");
        await people.SetTwoFactorEnabledAsync(person, true);
        return [.. await people.GenerateNewTwoFactorRecoveryCodesAsync(person, RecoveryCodes) ?? []];
    }

    public async Task EndAsync(Person person)
    {
        await people.SetTwoFactorEnabledAsync(person, false);
        await people.ResetAuthenticatorKeyAsync(person);
    }

    public Task<int> RecoveryCodesLeftAsync(Person person) => people.CountRecoveryCodesAsync(person);

    /// <summary>
    /// Whether a code lets the person in: the authenticator's, each once (RFC 6238 section 5.2), or a recovery code.
    /// </summary>
    public async Task<bool> AcceptsAsync(Person person, string code) =>
        await IsCurrentAsync(person, code)
        || (await people.RedeemTwoFactorRecoveryCodeAsync(person, code.Trim())).Succeeded;

    private async Task<bool> IsCurrentAsync(Person person, string code)
    {
        var digits = code.Replace(" ", "", StringComparison.Ordinal);
        if (!await people.VerifyTwoFactorTokenAsync(person, TokenOptions.DefaultAuthenticatorProvider, digits))
            return false;
        var used = (await people.GetAuthenticationTokenAsync(person, Provider, UsedCodes) ?? "").Split(
            ' ',
            StringSplitOptions.RemoveEmptyEntries
        );
        if (used.Contains(digits))
            return false;
        // Of two who send one code at once, the later save fails, and with it the code.
        return (
            await people.SetAuthenticationTokenAsync(
                person,
                Provider,
                UsedCodes,
                string.Join(' ', used.TakeLast(MostUsedCodes - 1).Append(digits))
            )
        ).Succeeded;
    }
}
