using FluentValidation;

namespace LooseLantern.Server.Hosting;

/// <summary>Field checks that end in one problem with every fault, fields named as in the JSON.</summary>
public static class Validation
{
    /// <param name="path">What the faults' fields stand under in the request, such as "times.".</param>
    /// <exception cref="Refusal">With each field's faults.</exception>
    public static void Check<T>(this AbstractValidator<T> rules, T value, string path = "")
    {
        var result = rules.Validate(value);
        if (result.IsValid)
            return;
        throw Refusal.Invalid(
            result
                .Errors.GroupBy(error => path + CamelCase(error.PropertyName))
                .ToDictionary(field => field.Key, field => field.Select(error => error.ErrorMessage).ToArray())
        );
    }

    internal static string CamelCase(string path) =>
        string.Join(
            '.',
            path.Split('.').Select(part => part.Length == 0 ? part : char.ToLowerInvariant(part[0]) + part[1..])
        );
}
