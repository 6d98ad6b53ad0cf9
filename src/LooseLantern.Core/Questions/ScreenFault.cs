namespace LooseLantern.Core.Questions;

/// <summary>What can be wrong with a condition on an answer.</summary>
public enum ScreenFault
{
    /// <summary>Nobody asks the question any more.</summary>
    NotAsked,

    /// <summary>Such an answer can't be compared that way.</summary>
    NoSuchTest,
    NoNumber,
    NoDate,
    NotOffered,
    NoYesOrNo,

    /// <summary>There is nothing to compare with, or more than a line.</summary>
    NoValue,
}
