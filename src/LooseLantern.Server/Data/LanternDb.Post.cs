using LooseLantern.Server.Data.Model;
using Microsoft.EntityFrameworkCore;

namespace LooseLantern.Server.Data;

/// <summary>How what is mailed and what comes by mail is kept, and what is still to be told.</summary>
public sealed partial class LanternDb
{
    private void PostModel(ModelBuilder builder)
    {
        Filter<Message>(builder);
        builder.Entity<Message>(message =>
        {
            message.HasOne(row => row.Booking).WithMany().HasForeignKey(row => row.BookingId);
            message
                .HasOne<AvailabilityLink>()
                .WithMany()
                .HasForeignKey(row => row.LinkId)
                .OnDelete(DeleteBehavior.SetNull);
            message.HasIndex(row => row.LinkId).HasFilter("link_id IS NOT NULL");
            message.HasIndex(row => row.ReplySecretHash).IsUnique().HasFilter("reply_secret_hash IS NOT NULL");
            // Of all that was ever written little is due: what is asked of that is asked of small indexes.
            message.HasIndex(row => new { row.DueAt, row.Id }).HasFilter("state = 'Due'");
            message.HasIndex(row => new { row.BookingId, row.ToEmail }).HasFilter("state = 'Due'");
            message.HasIndex(row => row.DueAt).HasFilter("state = 'Gathered'");
            message.HasIndex(row => row.BookingId);
            message.HasIndex(row => new
            {
                row.WorkspaceId,
                row.WrittenAt,
                row.Id,
            });
            message.HasIndex(row => new { row.WorkspaceId, row.DueAt }).HasFilter("state IN ('Due', 'Failed')");
            message.HasIndex(row => row.LetOutAt).HasFilter("let_out_at IS NOT NULL");
        });
        Filter<TellingRow>(builder).ToTable("tellings").HasIndex(row => row.PageId);
        AsJson(builder.Entity<TellingRow>().Property(row => row.Telling));
        builder.Entity<FactChange>(change =>
        {
            change.ToTable("fact_changes");
            change.HasKey(row => new
            {
                row.Of,
                row.Xid,
                row.Kind,
            });
            change.Property(row => row.Kind).HasConversion<short>();
            change.Property(row => row.Xid).HasColumnType("xid8").HasDefaultValueSql("pg_current_xact_id()");
            change.Property(row => row.At).HasDefaultValueSql("now()");
            // Asked by who wants to know all that changed, and by who takes old ones away.
            change.HasIndex(row => row.Xid);
            change.HasIndex(row => row.At);
        });
        Filter<IncomingMail>(builder).ToTable("incoming_mail");
        builder.Entity<IncomingMail>(mail =>
        {
            mail.HasOne<Booking>().WithMany().HasForeignKey(row => row.BookingId);
            mail.HasOne<Message>().WithMany().HasForeignKey(row => row.MessageId).OnDelete(DeleteBehavior.Cascade);
            mail.HasIndex(row => new { row.MessageId, row.Fingerprint }).IsUnique().HasFilter("message_id IS NOT NULL");
            mail.HasIndex(row => new
            {
                row.WorkspaceId,
                row.BookingId,
                row.ReceivedAt,
            });
            mail.HasIndex(row => new { row.BookingId, row.Fingerprint }).IsUnique();
        });
    }
}
