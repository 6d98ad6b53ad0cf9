using System.Reflection;
using Microsoft.EntityFrameworkCore;

namespace LooseLantern.Server.Hosting;

/// <summary>
/// Tells a run that only describes the program (its OpenAPI document, a migration) from one that serves.
/// </summary>
public static class DesignTime
{
    public static bool IsBuilding =>
        EF.IsDesignTime || Assembly.GetEntryAssembly()?.GetName().Name == "GetDocument.Insider";
}
