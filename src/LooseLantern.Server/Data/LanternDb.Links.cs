using LooseLantern.Server.Data.Model;
using Microsoft.EntityFrameworkCore;

namespace LooseLantern.Server.Data;

/// <summary>How availability links are kept.</summary>
public sealed partial class LanternDb
{
    private void LinkModel(ModelBuilder builder)
    {
        Filter<AvailabilityLink>(builder).ToTable("links");
        builder.Entity<AvailabilityLink>(link =>
        {
            link.HasOne(row => row.Page).WithOne().HasForeignKey<AvailabilityLink>(row => row.Id);
            link.HasMany(row => row.Wishes).WithOne().HasForeignKey(row => row.LinkId);
            link.HasIndex(row => row.SecretHash).IsUnique();
            link.Ignore(row => row.Course);
            // Asked across workspaces by who looks whether anything is left.
            link.HasIndex(row => row.CheckDueAt);
            // What waits, and what stands otherwise than most, which are over.
            link.HasIndex(row => new { row.WorkspaceId, row.EndsAt });
            link.HasIndex(row => new { row.WorkspaceId, row.State });
            link.HasIndex(row => new { row.WorkspaceId, row.StateThen });
            link.HasIndex(row => new
            {
                row.WorkspaceId,
                row.MadeAt,
                row.Id,
            });
            AsJsonList(link.Property(row => row.Guests));
            AsJsonList(link.Property(row => row.Suits));
            AsJson(link.Property(row => row.Text));
        });
        Filter<Wish>(builder).ToTable("wishes");
        Filter<LinkPattern>(builder).ToTable("link_patterns");
        AsJson(builder.Entity<LinkPattern>().Property(row => row.Form));
    }
}
