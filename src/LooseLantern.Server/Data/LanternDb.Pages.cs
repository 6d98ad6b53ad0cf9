using LooseLantern.Server.Data.Model;
using Microsoft.EntityFrameworkCore;

namespace LooseLantern.Server.Data;

/// <summary>How desks and pages are kept, with what belongs to them.</summary>
public sealed partial class LanternDb
{
    private void PageModel(ModelBuilder builder)
    {
        Filter<Desk>(builder).HasIndex(row => row.Address).IsUnique().HasDatabaseName(OneDeskAddress);
        builder
            .Entity<Desk>()
            .HasIndex(row => row.HostName)
            .IsUnique()
            .HasFilter("host_name_proven_at IS NOT NULL")
            .HasDatabaseName(OneHostName);
        builder
            .Entity<Desk>()
            .HasOne<Host>()
            .WithMany()
            .HasForeignKey(row => row.HostId)
            .OnDelete(DeleteBehavior.SetNull);
        Filter<EmailCode>(builder).ToTable("email_codes").HasOne<Page>().WithMany().HasForeignKey(row => row.PageId);
        builder
            .Entity<EmailCode>()
            .HasIndex(row => new
            {
                row.PageId,
                row.Email,
                row.MadeAt,
            });
        Filter<LookedFor>(builder)
            .ToTable("looked_for")
            .HasKey(row => new
            {
                row.PageId,
                row.Week,
                row.Part,
                row.Found,
            });
        builder.Entity<LookedFor>().HasOne<Page>().WithMany().HasForeignKey(row => row.PageId);
        Filter<Picture>(builder).HasKey(row => new { row.OwnerId, row.Kind });
        Filter<PersonalAddress>(builder)
            .ToTable("personal_addresses")
            .HasOne<Page>()
            .WithMany()
            .HasForeignKey(row => row.PageId);
        builder.Entity<PersonalAddress>().HasIndex(row => row.SecretHash).IsUnique();

        Filter<Page>(builder);
        builder.Entity<Page>(page =>
        {
            page.HasIndex(row => new
                {
                    row.WorkspaceId,
                    row.DeskId,
                    row.Address,
                })
                .IsUnique()
                .HasDatabaseName(OnePageAddress);
            page.HasOne(row => row.Desk).WithMany().HasForeignKey(row => row.DeskId).OnDelete(DeleteBehavior.NoAction);
            page.HasOne(row => row.Hours).WithMany().HasForeignKey(row => row.HoursId);
            page.HasMany(row => row.Seats).WithOne().HasForeignKey(row => row.PageId);
            page.HasMany(row => row.Blocks).WithOne().HasForeignKey(row => row.PageId);
            page.Property(row => row.Version).IsConcurrencyToken();
            AsJsonList(page.Property(row => row.CalendarChoices));
            AsJson(page.Property(row => row.Changes));
            AsJsonList(page.Property(row => row.Questions));
            AsJson(page.Property(row => row.Post));
            AsJson(page.Property(row => row.Window!));
            AsJson(page.Property(row => row.Details));
            AsJson(page.Property(row => row.Draft!));
            AsJson(page.Property(row => row.Offer!));
        });
        Filter<PageEdition>(builder)
            .ToTable("page_editions")
            .HasOne<Page>()
            .WithMany()
            .HasForeignKey(row => row.PageId);
        builder.Entity<PageEdition>().HasIndex(row => new { row.PageId, row.Number }).IsUnique();
        AsJson(builder.Entity<PageEdition>().Property(row => row.Form));
        Filter<FormerAddress>(builder).ToTable("former_addresses").HasKey(row => new { row.DeskId, row.Address });
        builder.Entity<FormerAddress>().HasOne<Page>().WithMany().HasForeignKey(row => row.PageId);
        Filter<BlockRow>(builder).ToTable("blocks");
        Filter<SeatRow>(builder).ToTable("seats").HasMany(row => row.Hosts).WithOne().HasForeignKey(row => row.SeatId);
        Filter<SeatHost>(builder).ToTable("seat_hosts").HasKey(row => new { row.SeatId, row.HostId });
        Filter<PageFile>(builder).ToTable("page_files").HasOne<Page>().WithMany().HasForeignKey(row => row.PageId);
    }
}
