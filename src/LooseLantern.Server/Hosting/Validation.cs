using FluentValidation;
using FluentValidation.Results;

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
                .ToDictionary(field => field.Key, field => field.Select(MendOf).ToArray())
        );
    }

    /// <summary>Says what a value needs that is not as the rule asks.</summary>
    public static IRuleBuilderOptions<T, TProperty> WithMend<T, TProperty>(
        this IRuleBuilderOptions<T, TProperty> rule,
        Phrase mend
    ) => rule.WithState(_ => mend);

    /// <summary>A fault of the property at hand.</summary>
    public static void AddMend<T>(this ValidationContext<T> context, Phrase mend) =>
        context.AddMend(context.PropertyPath, mend);

    /// <summary>A fault of a field by its path.</summary>
    public static void AddMend<T>(this ValidationContext<T> context, string path, Phrase mend) =>
        context.AddFailure(new ValidationFailure(path, mend.Key) { CustomState = mend });

    /// <summary>What a fault needs. Each rule says it; one that is cut short by a value of the wrong kind does
    /// not.</summary>
    public static Phrase MendOf(ValidationFailure fault) => fault.CustomState as Phrase ?? "missing-or-odd";

    internal static string CamelCase(string path) =>
        string.Join(
            '.',
            path.Split('.').Select(part => part.Length == 0 ? part : char.ToLowerInvariant(part[0]) + part[1..])
        );
}
