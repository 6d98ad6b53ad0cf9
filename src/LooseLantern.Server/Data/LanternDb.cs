using System.Text.Json;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Live;
using LooseLantern.Server.Hosting;
using LooseLantern.Server.Tenancy;
using Microsoft.AspNetCore.DataProtection.EntityFrameworkCore;
using Microsoft.AspNetCore.Identity.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.ChangeTracking;
using Microsoft.EntityFrameworkCore.Metadata;
using Microsoft.EntityFrameworkCore.Metadata.Builders;
using Microsoft.EntityFrameworkCore.Storage;
using NodaTime;

namespace LooseLantern.Server.Data;

/// <summary>
/// The database. Every query is held to the workspace at hand by a filter, and saving a row of another workspace
/// throws.
/// </summary>
public sealed partial class LanternDb : IdentityUserContext<Person, Guid>, IDataProtectionKeyContext
{
    private readonly Tenant _tenant;

    public LanternDb(DbContextOptions<LanternDb> options, Tenant tenant)
        : base(options)
    {
        _tenant = tenant;
        // Whoever fails to save in a transaction gives it up.
        Database.AutoSavepointsEnabled = false;
    }

    public const string OneDeskAddress = "desks_one_address";
    public const string OneHostName = "desks_one_host_name";
    public const string OneEdition = "ix_page_editions_page_id_number";
    public const string OnePageAddress = "pages_one_address";
    public const string OneBookingKey = "booking_keys_one_key";

    /// <summary>
    /// The filter that leaves out what was cancelled; who asks for that too turns it off by this name.
    /// </summary>
    public const string NotCancelled = "not-cancelled";

    private const string OfWorkspace = "workspace";

    public DbSet<Workspace> Workspaces => Set<Workspace>();

    public DbSet<Host> Hosts => Set<Host>();

    public DbSet<HoursRow> Hours => Set<HoursRow>();

    public DbSet<Desk> Desks => Set<Desk>();

    public DbSet<Page> Pages => Set<Page>();

    /// <summary>The pages of desks; those of availability links are not among them.</summary>
    public IQueryable<Page> DeskPages => Pages.Where(page => page.Offer == null);

    /// <summary>Pages that offer somebody's time: those of desks, and of links that are not over.</summary>
    public IQueryable<Page> OfferingPages(Instant now) =>
        Pages.Where(page => page.Offer == null || Links.Any(link => link.Id == page.Id && link.EndsAt > now));

    public DbSet<AvailabilityLink> Links => Set<AvailabilityLink>();

    public DbSet<Wish> Wishes => Set<Wish>();

    public DbSet<LinkPattern> LinkPatterns => Set<LinkPattern>();

    public DbSet<Session> Sessions => Set<Session>();

    public DbSet<Booking> Bookings => Set<Booking>();

    public DbSet<BookingMove> BookingMoves => Set<BookingMove>();

    public DbSet<Guest> Guests => Set<Guest>();

    public DbSet<GuestEmail> GuestEmails => Set<GuestEmail>();

    public DbSet<LinkGuestRow> LinkGuests => Set<LinkGuestRow>();

    public DbSet<GuestNote> GuestNotes => Set<GuestNote>();

    public DbSet<SavedView> SavedViews => Set<SavedView>();

    public DbSet<BookingNote> BookingNotes => Set<BookingNote>();

    public DbSet<GuestImport> GuestImports => Set<GuestImport>();

    public DbSet<GuestImportRow> GuestImportRows => Set<GuestImportRow>();

    public DbSet<GuestMerge> GuestMerges => Set<GuestMerge>();

    public DbSet<Letter> Letters => Set<Letter>();

    public DbSet<Mailing> Mailings => Set<Mailing>();

    public DbSet<GuestErasure> GuestErasures => Set<GuestErasure>();

    public DbSet<BookingKey> BookingKeys => Set<BookingKey>();

    public DbSet<CommitmentRow> Commitments => Set<CommitmentRow>();

    public DbSet<Calendar> Calendars => Set<Calendar>();

    public DbSet<CalendarEntryRow> CalendarEntries => Set<CalendarEntryRow>();

    public DbSet<CalendarAccount> CalendarAccounts => Set<CalendarAccount>();

    public DbSet<CalendarResource> CalendarResources => Set<CalendarResource>();

    public DbSet<CalendarHost> CalendarHosts => Set<CalendarHost>();

    public DbSet<WrittenEvent> WrittenEvents => Set<WrittenEvent>();

    public DbSet<Message> Messages => Set<Message>();

    public DbSet<TellingRow> Tellings => Set<TellingRow>();

    public DbSet<FactChange> FactChanges => Set<FactChange>();

    public DbSet<IncomingMail> Incoming => Set<IncomingMail>();

    public DbSet<VideoRoom> VideoRooms => Set<VideoRoom>();

    public DbSet<PageFile> PageFiles => Set<PageFile>();

    public DbSet<EmailCode> EmailCodes => Set<EmailCode>();

    public DbSet<LookedFor> LookedFor => Set<LookedFor>();

    public DbSet<Picture> Pictures => Set<Picture>();

    public DbSet<PersonalAddress> PersonalAddresses => Set<PersonalAddress>();

    public DbSet<PageEdition> PageEditions => Set<PageEdition>();

    public DbSet<FormerAddress> FormerAddresses => Set<FormerAddress>();

    public DbSet<SignInTriesRow> SignInTries => Set<SignInTriesRow>();

    public DbSet<PasswordReset> PasswordResets => Set<PasswordReset>();

    public DbSet<AddressProof> AddressProofs => Set<AddressProof>();

    public DbSet<SignUpLink> SignUpLinks => Set<SignUpLink>();

    public DbSet<Portrait> Portraits => Set<Portrait>();

    public DbSet<ActingFor> ActingFor => Set<ActingFor>();

    public DbSet<RecordEntry> Record => Set<RecordEntry>();

    public DbSet<Invitation> Invitations => Set<Invitation>();

    public DbSet<SignedIn> SignedIn => Set<SignedIn>();

    public DbSet<DataProtectionKey> DataProtectionKeys => Set<DataProtectionKey>();

    private static readonly string[] CalendarFields =
    [
        nameof(Calendar.LoadedAt),
        nameof(Calendar.IsAsked),
        nameof(Calendar.TentativeCounts),
        nameof(Calendar.UnreachableSince),
    ];

    private IDbContextTransaction? _toldIn;

    private Guid? AtHand => _tenant.WorkspaceId;

    public override async Task<int> SaveChangesAsync(
        bool acceptAllChangesOnSuccess,
        CancellationToken cancellationToken = default
    )
    {
        // Looked for once; each list of the entries, and saving itself, would look again.
        ChangeTracker.DetectChanges();
        ChangeTracker.AutoDetectChangesEnabled = false;
        try
        {
            RequireWorkspace();
            var isTold =
                (_toldIn is null || _toldIn != Database.CurrentTransaction)
                && ChangeTracker.Entries().Any(MovesOpenings);
            var saved = await base.SaveChangesAsync(acceptAllChangesOnSuccess, cancellationToken);
            // Within a transaction it is heard when that ends, and not at all where it is rolled back.
            if (isTold && AtHand is { } workspace)
                await Database.ExecuteSqlAsync(
                    $"SELECT pg_notify({LiveChanges.Channel}, {workspace.ToString("D")})",
                    cancellationToken
                );
            return saved;
        }
        finally
        {
            ChangeTracker.AutoDetectChangesEnabled = true;
        }
    }

    /// <summary>The transaction that is open tells whoever watches by itself.</summary>
    public void IsTold() => _toldIn = Database.CurrentTransaction;

    public override int SaveChanges(bool acceptAllChangesOnSuccess)
    {
        RequireWorkspace();
        return base.SaveChanges(acceptAllChangesOnSuccess);
    }

    protected override void OnModelCreating(ModelBuilder builder)
    {
        base.OnModelCreating(builder);
        builder.HasPostgresExtension("btree_gist");
        builder.HasPostgresExtension("pg_trgm");

        builder.Entity<Workspace>().HasQueryFilter(workspace => workspace.Id == AtHand);
        AsJson(builder.Entity<Workspace>().Property(row => row.Usual));
        // Signing in looks for a person before any workspace is known; from then on only one's own are seen.
        builder.Entity<Person>(person =>
        {
            person.HasQueryFilter(row => AtHand == null || row.WorkspaceId == AtHand);
            person.HasOne<Workspace>().WithMany().HasForeignKey(row => row.WorkspaceId);
            person.HasIndex(row => row.WorkspaceId);
            person.HasIndex(row => row.FeedSecretHash).IsUnique();
            AsJson(person.Property(row => row.Usual));
            AsJson(person.Property(row => row.Notifications));
        });
        Filter<Portrait>(builder).ToTable("portraits").HasKey(row => row.PersonId);
        builder.Entity<Portrait>().HasOne<Person>().WithMany().HasForeignKey(row => row.PersonId);
        Filter<SignedIn>(builder).ToTable("signed_in").HasOne<Person>().WithMany().HasForeignKey(row => row.PersonId);
        Filter<Invitation>(builder).HasIndex(row => row.SecretHash).IsUnique();
        Filter<ActingFor>(builder).ToTable("acting_for").HasKey(row => new { row.HostId, row.PersonId });
        builder.Entity<ActingFor>(acting =>
        {
            acting.HasOne<Host>().WithMany().HasForeignKey(row => row.HostId);
            acting.HasOne<Person>().WithMany().HasForeignKey(row => row.PersonId);
        });
        Filter<RecordEntry>(builder).ToTable("record");
        builder.Entity<RecordEntry>(entry =>
        {
            entry.HasIndex(row => new
            {
                row.WorkspaceId,
                row.SubjectId,
                row.At,
            });
            // The order of the list.
            entry.HasIndex(row => new
            {
                row.WorkspaceId,
                row.At,
                row.Id,
            });
            entry.HasIndex(row => row.ForHosts).HasMethod("gin");
        });

        Filter<Host>(builder);
        builder.Entity<Host>(host =>
        {
            host.HasIndex(row => row.BusySecretHash).IsUnique();
            host.HasOne<Person>().WithMany().HasForeignKey(row => row.PersonId);
            host.HasOne(row => row.Hours).WithMany().HasForeignKey(row => row.HoursId);
            host.HasOne<Calendar>()
                .WithMany()
                .HasForeignKey(row => row.WrittenCalendarId)
                .OnDelete(DeleteBehavior.SetNull);
        });

        Filter<HoursRow>(builder).ToTable("hours").Property(row => row.Version).IsConcurrencyToken();
        AsJson(builder.Entity<HoursRow>().Property(row => row.Document));

        PageModel(builder);
        LinkModel(builder);
        BookingModel(builder);
        builder.Entity<SignInTriesRow>().ToTable("sign_in_tries").HasKey(row => row.Key);
        CalendarModel(builder);
        GuestModel(builder);

        PostModel(builder);
        UndoModel(builder);
        Filter<PasswordReset>(builder).ToTable("password_resets").HasIndex(row => row.SecretHash).IsUnique();
        builder.Entity<PasswordReset>().HasOne<Person>().WithMany().HasForeignKey(row => row.PersonId);

        Filter<AddressProof>(builder).ToTable("address_proofs").HasIndex(row => row.SecretHash).IsUnique();
        builder.Entity<AddressProof>().HasOne<Person>().WithMany().HasForeignKey(row => row.PersonId);
        builder.Entity<SignUpLink>(link =>
        {
            link.ToTable("sign_up_links").HasIndex(row => row.SecretHash).IsUnique();
            link.Property(row => row.Id).ValueGeneratedNever();
            link.HasIndex(row => row.DueAt);
        });

        // Ids are made with their rows, so a row found in a graph is new where it was not loaded; EF would take it for
        // one that is there.
        foreach (
            var type in builder
                .Model.GetEntityTypes()
                .Where(type =>
                    typeof(IBelongsToWorkspace).IsAssignableFrom(type.ClrType) && type.ClrType != typeof(Person)
                )
        )
        {
            if (type.FindProperty("Id") is { } id && id.ClrType == typeof(Guid))
                id.ValueGenerated = ValueGenerated.Never;
        }

        foreach (var property in builder.Model.GetEntityTypes().SelectMany(type => type.GetProperties()))
        {
            if (property.ClrType == typeof(Guid[]))
                property.SetValueComparer(new ArrayComparer<Guid>());
            else if (property.ClrType == typeof(string[]))
                property.SetValueComparer(new ArrayComparer<string>());
            else if (property.ClrType == typeof(int[]))
                property.SetValueComparer(new ArrayComparer<int>());
        }

        foreach (
            var property in builder
                .Model.GetEntityTypes()
                .SelectMany(type => type.GetProperties())
                .Where(p =>
                    (Nullable.GetUnderlyingType(p.ClrType) ?? p.ClrType).IsEnum && p.GetProviderClrType() is null
                )
        )
            property.SetProviderClrType(typeof(string));
    }

    private EntityTypeBuilder<T> Filter<T>(ModelBuilder builder)
        where T : class, IBelongsToWorkspace
    {
        var entity = builder.Entity<T>();
        entity.HasQueryFilter(OfWorkspace, row => row.WorkspaceId == AtHand);
        entity.HasOne<Workspace>().WithMany().HasForeignKey(row => row.WorkspaceId);
        entity.HasIndex(row => row.WorkspaceId);
        return entity;
    }

    private static PropertyBuilder<T> AsJson<T>(PropertyBuilder<T> property)
        where T : class =>
        property
            .HasColumnType("jsonb")
            .HasConversion(
                value => JsonSerializer.Serialize(value, Json.Options),
                json => JsonSerializer.Deserialize<T>(json, Json.Options)!
            );

    /// <summary>Lists are told apart by what is in them.</summary>
    private static void AsJsonList<T>(PropertyBuilder<IReadOnlyList<T>> property) =>
        AsJson(property)
            .Metadata.SetValueComparer(
                new ValueComparer<IReadOnlyList<T>>(
                    (one, other) =>
                        JsonSerializer.Serialize(one, Json.Options) == JsonSerializer.Serialize(other, Json.Options),
                    list => list.Count,
                    list => list
                )
            );

    /// <summary>
    /// Whether a change may move openings, or what boards and lists show; whoever watches one asks anew then.
    /// </summary>
    private static bool MovesOpenings(EntityEntry entry) =>
        entry.State is EntityState.Added or EntityState.Modified or EntityState.Deleted
        && entry.Entity switch
        {
            // A calendar is noted at each look, whether or not it says anything new.
            Calendar => entry.State != EntityState.Modified
                || CalendarFields.Any(field => entry.Property(field).IsModified),
            WrittenEvent => entry.Property(nameof(WrittenEvent.Outside)).IsModified,
            CommitmentRow
            or Booking
            or AvailabilityLink
            or Wish
            or IncomingMail
            or Page
            or SeatHost
            or HoursRow
            or Host
            or CalendarHost => true,
            _ => false,
        };

    /// <exception cref="InvalidOperationException">The row is of another workspace than the one at hand.</exception>
    public void RequireAtHand(IBelongsToWorkspace row)
    {
        if (row.WorkspaceId != AtHand)
            throw new InvalidOperationException($"A {row.GetType().Name} of another workspace can't be saved here.");
    }

    private void RequireWorkspace()
    {
        foreach (var entry in ChangeTracker.Entries<IBelongsToWorkspace>())
        {
            if (entry.State is EntityState.Unchanged or EntityState.Detached)
                continue;
            // Identity notes failed attempts while nobody is signed in.
            if (entry is { Entity: Person, State: EntityState.Modified } && AtHand is null)
                continue;
            RequireAtHand(entry.Entity);
        }
    }
}
