namespace LooseLantern.Core.Questions;

/// <summary>What can be wrong with an answer.</summary>
public enum AnswerFault
{
    /// <summary>Nobody asks the question any more.</summary>
    NotAsked,
    Missing,
    NotChosen,

    /// <summary>Nothing goes on without this consent.</summary>
    NotAgreed,

    /// <summary>A consent that may stay open says something else than yes.</summary>
    NoAgreement,
    NotOneLine,
    TooLong,
    NoNumber,
    NoDate,
    NoEmail,
    NoEmails,
    NoWebPage,
    NoPhone,
    NotOffered,
    NotAllOffered,
    NoYesOrNo,
}
