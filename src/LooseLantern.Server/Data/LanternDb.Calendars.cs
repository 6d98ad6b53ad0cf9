using LooseLantern.Server.Data.Model;
using Microsoft.EntityFrameworkCore;

namespace LooseLantern.Server.Data;

/// <summary>How calendars and events written into them are kept.</summary>
public sealed partial class LanternDb
{
    private void CalendarModel(ModelBuilder builder)
    {
        Filter<CalendarAccount>(builder).ToTable("calendar_accounts");
        Filter<Calendar>(builder);
        builder.Entity<Calendar>(calendar =>
        {
            calendar.HasOne(row => row.Host).WithMany().HasForeignKey(row => row.HostId);
            calendar.HasOne(row => row.Account).WithMany().HasForeignKey(row => row.AccountId);
            calendar.HasMany(row => row.For).WithOne().HasForeignKey(row => row.CalendarId);
            calendar.HasMany(row => row.Unread).WithOne().HasForeignKey(row => row.CalendarId);
            // Asked across workspaces by who looks at what is due.
            calendar.HasIndex(row => row.NextLookAt);
        });
        Filter<CalendarHost>(builder).ToTable("calendar_hosts").HasKey(row => new { row.CalendarId, row.HostId });
        Filter<CalendarResource>(builder).ToTable("calendar_resources");
        builder.Entity<CalendarResource>(resource =>
        {
            resource.HasOne<Calendar>().WithMany().HasForeignKey(row => row.CalendarId);
            resource
                .HasIndex(row => new
                {
                    row.WorkspaceId,
                    row.CalendarId,
                    row.Path,
                })
                .IsUnique();
            AsJson(resource.Property(row => row.Own!));
        });
        Filter<CalendarEntryRow>(builder).ToTable("calendar_entries");
        builder.Entity<CalendarEntryRow>(entry =>
        {
            entry
                .HasIndex(row => new
                {
                    row.WorkspaceId,
                    row.HostId,
                    row.Span,
                })
                .HasMethod("gist");
            entry.HasOne(row => row.Calendar).WithMany().HasForeignKey(row => row.CalendarId);
            entry.HasOne<CalendarResource>().WithMany().HasForeignKey(row => row.ResourceId);
        });
        Filter<UnreadEventRow>(builder)
            .ToTable("unread_events")
            .HasOne<CalendarResource>()
            .WithMany()
            .HasForeignKey(row => row.ResourceId);
        Filter<WrittenEvent>(builder).ToTable("written_events");
        builder.Entity<WrittenEvent>(written =>
        {
            written
                .HasIndex(row => new
                {
                    row.WorkspaceId,
                    row.Uid,
                    row.HostId,
                })
                .IsUnique();
            written.HasIndex(row => row.DueAt);
            written.HasIndex(row => row.HoldId).HasFilter("hold_id IS NOT NULL");
            written.HasOne(row => row.Session).WithMany().HasForeignKey(row => row.SessionId);
            written.HasOne(row => row.Calendar).WithMany().HasForeignKey(row => row.CalendarId);
            written.HasOne(row => row.Host).WithMany().HasForeignKey(row => row.HostId);
        });
    }
}
