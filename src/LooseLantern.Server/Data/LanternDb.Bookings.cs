using LooseLantern.Server.Data.Model;
using Microsoft.EntityFrameworkCore;

namespace LooseLantern.Server.Data;

/// <summary>How sessions and bookings are kept, and the time of hosts that is given away.</summary>
public sealed partial class LanternDb
{
    private void BookingModel(ModelBuilder builder)
    {
        Filter<Session>(builder);
        builder.Entity<Session>(session =>
        {
            session.HasQueryFilter(NotCancelled, row => row.CancelledAt == null);
            session
                .HasIndex(row => new
                {
                    row.WorkspaceId,
                    row.PageId,
                    row.Time,
                })
                .HasMethod("gist");
            session
                .HasOne(row => row.Page)
                .WithMany()
                .HasForeignKey(row => row.PageId)
                .OnDelete(DeleteBehavior.NoAction);
            session.HasMany(row => row.Hosts).WithOne().HasForeignKey(row => row.SessionId);
            session.HasMany(row => row.Bookings).WithOne(row => row.Session).HasForeignKey(row => row.SessionId);
        });
        Filter<SessionHost>(builder).ToTable("session_hosts").HasKey(row => new { row.SessionId, row.HostId });
        // Whose turn it is goes by who was assigned last.
        builder.Entity<SessionHost>().HasIndex(row => new { row.HostId, row.AssignedAt });

        Filter<Booking>(builder).HasIndex(row => row.SecretHash).IsUnique();
        builder.Entity<Booking>(booking =>
        {
            booking.HasQueryFilter(NotCancelled, row => row.CancelledAt == null);
            booking.HasIndex(row => row.ReplySecretHash).IsUnique();
            AsJsonList(booking.Property(row => row.Companions));
            AsJsonList(booking.Property(row => row.Answers));
            booking.HasIndex(row => row.AnswerSecretHash).IsUnique();
            // Asked across workspaces by who looks at what has run out.
            booking.HasIndex(row => row.WaitsUntil);
        });
        Filter<BookingMove>(builder)
            .ToTable("booking_moves")
            .HasOne<Booking>()
            .WithMany()
            .HasForeignKey(row => row.BookingId);
        Filter<BookingNote>(builder)
            .ToTable("booking_notes")
            .HasOne<Booking>()
            .WithMany()
            .HasForeignKey(row => row.BookingId);
        Filter<BookingKey>(builder);
        builder.Entity<BookingKey>(key =>
        {
            key.HasKey(row => new { row.PageId, row.Key }).HasName(OneBookingKey);
            key.HasOne<Booking>().WithMany().HasForeignKey(row => row.BookingId);
        });

        // The exclusion constraint is made by the migration; EF has no words for them.
        Filter<CommitmentRow>(builder).ToTable("commitments");
        builder.Entity<CommitmentRow>(commitment =>
        {
            commitment.HasOne<Host>().WithMany().HasForeignKey(row => row.HostId);
            // By host and span it is found with the index of the exclusion constraint.
            commitment.HasIndex(row => new { row.WorkspaceId, row.HolderId });
            // Asked across workspaces by who takes away what was held too long.
            commitment.HasIndex(row => row.HeldUntil).HasFilter("held_until IS NOT NULL");
        });
        Filter<VideoRoom>(builder).ToTable("video_rooms").HasKey(row => row.SessionId);
        builder.Entity<VideoRoom>().HasOne<Session>().WithMany().HasForeignKey(row => row.SessionId);
        builder.Entity<VideoRoom>().HasIndex(row => row.DueAt);
    }
}
