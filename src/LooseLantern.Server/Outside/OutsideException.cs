namespace LooseLantern.Server.Outside;

public enum OutsideFault
{
    /// <summary>No connection, or one that broke off.</summary>
    Unreachable,

    TooSlow,
    TooLarge,

    /// <summary>The address lies inside our own network.</summary>
    Inside,

    /// <summary>A redirection that is not followed.</summary>
    SentOn,

    /// <summary>Name or password were not accepted.</summary>
    NotLetIn,

    /// <summary>What was asked for is not there.</summary>
    Gone,

    /// <summary>An answer that makes no sense.</summary>
    Odd,
}

/// <summary>What kept us from something on another server, in words for the person whose calendar it is.</summary>
public sealed class OutsideException(OutsideFault fault, string words, int? status = null) : Exception(words)
{
    public OutsideFault Fault { get; } = fault;

    /// <summary>The HTTP status that was answered, where there was one.</summary>
    public int? Status { get; } = status;
}
