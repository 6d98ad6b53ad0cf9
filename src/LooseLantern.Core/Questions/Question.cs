namespace LooseLantern.Core.Questions;

/// <summary>What kind of answer a question wants.</summary>
public enum QuestionKind
{
    /// <summary>One line of words.</summary>
    Short,

    /// <summary>Several lines of words.</summary>
    Long,
    Number,

    /// <summary>A date, ISO 8601.</summary>
    Date,
    Email,

    /// <summary>A web address, http or https.</summary>
    Web,
    Phone,

    /// <summary>One of the options.</summary>
    OneOf,

    /// <summary>Any of the options, one a line.</summary>
    SomeOf,
    YesNo,

    /// <summary>Agreement to something, with an address where it can be read.</summary>
    Consent,

    /// <summary>Who else is coming: email addresses, one a line.</summary>
    Others,
}

/// <summary>A question to guests.</summary>
/// <param name="Key">Stays the same while its words are changed; letters, digits and hyphens.</param>
/// <param name="Words">What guests read.</param>
/// <param name="Hint">A line beneath; may be empty.</param>
/// <param name="Options">Of one of and some of.</param>
/// <param name="Address">Where what is agreed to can be read, of consent; may be empty.</param>
/// <param name="Fills">The id of what its answer tells of the guest for good; null where it is about the appointment
/// alone.</param>
public sealed record Question(
    string Key,
    QuestionKind Kind,
    string Words,
    string Hint,
    bool IsNeeded,
    IReadOnlyList<string> Options,
    string Address,
    Guid? Fills = null
);
