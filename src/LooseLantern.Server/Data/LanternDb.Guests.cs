using System.Text.Json;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Hosting;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.ChangeTracking;

namespace LooseLantern.Server.Data;

/// <summary>
/// How guests are kept. Their rows are mostly made by the database (<see cref="Migrations.GuestTriggers"/>).
/// </summary>
public sealed partial class LanternDb
{
    private void GuestModel(ModelBuilder builder)
    {
        Filter<Guest>(builder).ToTable("guests");
        builder.Entity<Guest>(guest =>
        {
            guest.Property(row => row.Version).IsConcurrencyToken();
            guest.Property(row => row.NameKey).HasComputedColumnSql("lower(btrim(name))", stored: true);
            guest
                .Property(row => row.PhoneKey)
                .HasComputedColumnSql("regexp_replace(phone, '[^0-9]', '', 'g')", stored: true);
            guest
                .Property(row => row.Fields)
                .HasColumnType("jsonb")
                .HasConversion(
                    fields => JsonSerializer.Serialize(fields, Json.Options),
                    json => JsonSerializer.Deserialize<Dictionary<Guid, string>>(json, Json.Options)!,
                    new ValueComparer<IReadOnlyDictionary<Guid, string>>(
                        (one, other) => one!.Count == other!.Count && !one.Except(other).Any(),
                        fields => fields.Count,
                        fields => fields
                    )
                );
            guest.HasOne<Person>().WithMany().HasForeignKey(row => row.KeeperId).OnDelete(DeleteBehavior.SetNull);
            guest.HasMany(row => row.Emails).WithOne().HasForeignKey(row => row.GuestId);
            // The orders of the list.
            guest
                .HasIndex(row => new
                {
                    row.WorkspaceId,
                    row.NameKey,
                    row.Id,
                })
                .HasFilter("merged_into IS NULL");
            guest
                .HasIndex(row => new
                {
                    row.WorkspaceId,
                    row.MadeAt,
                    row.Id,
                })
                .HasFilter("merged_into IS NULL");
            guest.HasIndex(row => new { row.WorkspaceId, row.PhoneKey }).HasFilter("phone_key <> ''");
            guest
                .HasIndex(row => new
                {
                    row.WorkspaceId,
                    row.BookerKey,
                    row.NameKey,
                })
                .HasFilter("booker_key <> ''");
        });
        Filter<GuestEmail>(builder).ToTable("guest_emails").HasKey(row => new { row.WorkspaceId, row.Key });
        Filter<LinkGuestRow>(builder).ToTable("link_guests").HasKey(row => new { row.LinkId, row.Place });
        builder.Entity<LinkGuestRow>(row =>
        {
            row.HasOne<AvailabilityLink>().WithMany().HasForeignKey(guest => guest.LinkId);
            row.HasOne<Guest>().WithMany().HasForeignKey(guest => guest.GuestId);
        });
        Filter<GuestNote>(builder).ToTable("guest_notes").HasOne<Guest>().WithMany().HasForeignKey(row => row.GuestId);
        AsJsonList(builder.Entity<Workspace>().Property(row => row.GuestFields));
        AsJson(builder.Entity<Workspace>().Property(row => row.GuestRetention));
        builder.Entity<Workspace>().HasIndex(row => row.RetentionDueAt).HasFilter("retention_due_at IS NOT NULL");
        Filter<Letter>(builder).ToTable("letters");
        builder.Entity<Letter>(letter =>
        {
            letter.Property(row => row.Version).IsConcurrencyToken();
            letter.HasOne<Person>().WithMany().HasForeignKey(row => row.PersonId);
            letter
                .HasOne<LinkPattern>()
                .WithMany()
                .HasForeignKey(row => row.PatternId)
                .OnDelete(DeleteBehavior.SetNull);
        });
        Filter<Mailing>(builder)
            .ToTable("mailings")
            .HasIndex(row => new
            {
                row.WorkspaceId,
                row.SentAt,
                row.Id,
            });
        builder
            .Entity<Mailing>()
            .HasOne<Page>()
            .WithMany()
            .HasForeignKey(row => row.PageId)
            .OnDelete(DeleteBehavior.Cascade);
        builder
            .Entity<Message>()
            .HasOne<Mailing>()
            .WithMany()
            .HasForeignKey(row => row.MailingId)
            .OnDelete(DeleteBehavior.Cascade);
        builder
            .Entity<Message>()
            .HasOne<Message>()
            .WithMany()
            .HasForeignKey(row => row.AgainOf)
            .OnDelete(DeleteBehavior.SetNull);
        builder.Entity<Message>().HasIndex(row => row.AgainOf).HasFilter("again_of IS NOT NULL");
        builder.Entity<Message>().HasIndex(row => row.MailingId).HasFilter("mailing_id IS NOT NULL");
        builder
            .Entity<AvailabilityLink>()
            .HasOne<Mailing>()
            .WithMany()
            .HasForeignKey(row => row.MailingId)
            .OnDelete(DeleteBehavior.SetNull);
        Filter<GuestErasure>(builder).ToTable("guest_erasures").HasIndex(row => row.GuestId);
        Filter<SavedView>(builder).ToTable("saved_views").Property(row => row.Filter).HasColumnType("jsonb");
        AsJsonList(Filter<GuestImport>(builder).ToTable("guest_imports").Property(row => row.Columns));
        Filter<GuestImportRow>(builder).ToTable("guest_import_rows").HasKey(row => new { row.ImportId, row.GuestId });
        builder.Entity<GuestImportRow>(row =>
        {
            row.HasOne<GuestImport>().WithMany().HasForeignKey(one => one.ImportId);
            row.HasOne<Guest>().WithMany().HasForeignKey(one => one.GuestId);
            AsJson(row.Property(one => one.Before!));
        });
        AsJson(Filter<GuestMerge>(builder).ToTable("guest_merges").Property(row => row.Things));
        builder.Entity<GuestMerge>(merge =>
        {
            merge.HasOne<Guest>().WithMany().HasForeignKey(row => row.KeptId);
            merge.HasOne<Guest>().WithMany().HasForeignKey(row => row.GoneId);
        });
        builder.Entity<Booking>(booking =>
        {
            // The database finds them as the row is written.
            booking.Property(row => row.GuestId).ValueGeneratedOnAdd();
            booking.Property(row => row.BookerId).ValueGeneratedOnAdd();
            booking.HasOne<Guest>().WithMany().HasForeignKey(row => row.GuestId).OnDelete(DeleteBehavior.SetNull);
            booking.HasOne<Guest>().WithMany().HasForeignKey(row => row.BookerId).OnDelete(DeleteBehavior.SetNull);
        });
    }
}
