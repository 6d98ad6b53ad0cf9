using LooseLantern.Server.Data.Model;

namespace LooseLantern.Server.Features.Undo;

/// <param name="MinutesOfNew">For how many minutes mail of a new workspace waits, until it chooses otherwise. The
/// setting is Undo:Minutes.</param>
public sealed record UndoSettings(int MinutesOfNew)
{
    public static UndoSettings Of(IConfiguration configuration) =>
        new(configuration.GetValue("Undo:Minutes", Workspace.UsualUndoMinutes));
}
