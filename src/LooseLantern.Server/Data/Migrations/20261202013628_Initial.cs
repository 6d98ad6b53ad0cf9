using System;
using Microsoft.EntityFrameworkCore.Migrations;
using NodaTime;
using Npgsql.EntityFrameworkCore.PostgreSQL.Metadata;
using NpgsqlTypes;

#nullable disable

namespace LooseLantern.Server.Data.Migrations
{
    /// <inheritdoc />
    public partial class Initial : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AlterDatabase()
                .Annotation("Npgsql:PostgresExtension:btree_gist", ",,")
                .Annotation("Npgsql:PostgresExtension:pg_trgm", ",,");

            migrationBuilder.CreateTable(
                name: "data_protection_keys",
                columns: table => new
                {
                    id = table.Column<int>(type: "integer", nullable: false)
                        .Annotation("Npgsql:ValueGenerationStrategy", NpgsqlValueGenerationStrategy.IdentityByDefaultColumn),
                    friendly_name = table.Column<string>(type: "text", nullable: true),
                    xml = table.Column<string>(type: "text", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_data_protection_keys", x => x.id);
                });

            migrationBuilder.CreateTable(
                name: "fact_changes",
                columns: table => new
                {
                    of = table.Column<Guid>(type: "uuid", nullable: false),
                    kind = table.Column<short>(type: "smallint", nullable: false),
                    xid = table.Column<ulong>(type: "xid8", nullable: false, defaultValueSql: "pg_current_xact_id()"),
                    at = table.Column<Instant>(type: "timestamp with time zone", nullable: false, defaultValueSql: "now()")
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_fact_changes", x => new { x.of, x.xid, x.kind });
                });

            migrationBuilder.CreateTable(
                name: "sign_in_tries",
                columns: table => new
                {
                    key = table.Column<byte[]>(type: "bytea", nullable: false),
                    tries = table.Column<int>(type: "integer", nullable: false),
                    last_at = table.Column<Instant>(type: "timestamp with time zone", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_sign_in_tries", x => x.key);
                });

            migrationBuilder.CreateTable(
                name: "sign_up_links",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    email = table.Column<string>(type: "text", nullable: false),
                    language = table.Column<string>(type: "text", nullable: false),
                    is_known = table.Column<bool>(type: "boolean", nullable: false),
                    secret_hash = table.Column<byte[]>(type: "bytea", nullable: false),
                    protected_secret = table.Column<string>(type: "text", nullable: false),
                    made_at = table.Column<Instant>(type: "timestamp with time zone", nullable: false),
                    expires_at = table.Column<Instant>(type: "timestamp with time zone", nullable: false),
                    used_at = table.Column<Instant>(type: "timestamp with time zone", nullable: true),
                    due_at = table.Column<Instant>(type: "timestamp with time zone", nullable: true),
                    sending_until = table.Column<Instant>(type: "timestamp with time zone", nullable: true),
                    attempts = table.Column<int>(type: "integer", nullable: false),
                    fault = table.Column<string>(type: "text", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_sign_up_links", x => x.id);
                });

            migrationBuilder.CreateTable(
                name: "workspaces",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    name = table.Column<string>(type: "text", nullable: false),
                    zone = table.Column<string>(type: "text", nullable: false),
                    closes_after_hours = table.Column<int>(type: "integer", nullable: false),
                    mail_opened_at = table.Column<Instant>(type: "timestamp with time zone", nullable: true),
                    most_open = table.Column<int>(type: "integer", nullable: false),
                    undo_minutes = table.Column<int>(type: "integer", nullable: false),
                    usual = table.Column<string>(type: "jsonb", nullable: false),
                    kinds = table.Column<string[]>(type: "text[]", nullable: false),
                    guest_fields = table.Column<string>(type: "jsonb", nullable: false),
                    guest_retention = table.Column<string>(type: "jsonb", nullable: false),
                    retention_due_at = table.Column<Instant>(type: "timestamp with time zone", nullable: true),
                    first_steps = table.Column<string[]>(type: "text[]", nullable: false),
                    first_run_ended_at = table.Column<Instant>(type: "timestamp with time zone", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_workspaces", x => x.id);
                });

            migrationBuilder.CreateTable(
                name: "AspNetUsers",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    workspace_id = table.Column<Guid>(type: "uuid", nullable: false),
                    name = table.Column<string>(type: "text", nullable: false),
                    is_owner = table.Column<bool>(type: "boolean", nullable: false),
                    is_coordinator = table.Column<bool>(type: "boolean", nullable: false),
                    line = table.Column<string>(type: "text", nullable: false),
                    zone = table.Column<string>(type: "text", nullable: false),
                    language = table.Column<string>(type: "text", nullable: false),
                    clock = table.Column<string>(type: "text", nullable: false),
                    uses_keys = table.Column<bool>(type: "boolean", nullable: false),
                    usual = table.Column<string>(type: "jsonb", nullable: false),
                    notifications = table.Column<string>(type: "jsonb", nullable: false),
                    feed_secret_hash = table.Column<byte[]>(type: "bytea", nullable: true),
                    protected_feed_secret = table.Column<string>(type: "text", nullable: true),
                    feeds_all = table.Column<bool>(type: "boolean", nullable: false),
                    email_proven_at = table.Column<Instant>(type: "timestamp with time zone", nullable: true),
                    left_at = table.Column<Instant>(type: "timestamp with time zone", nullable: true),
                    user_name = table.Column<string>(type: "character varying(256)", maxLength: 256, nullable: true),
                    normalized_user_name = table.Column<string>(type: "character varying(256)", maxLength: 256, nullable: true),
                    email = table.Column<string>(type: "character varying(256)", maxLength: 256, nullable: true),
                    normalized_email = table.Column<string>(type: "character varying(256)", maxLength: 256, nullable: true),
                    email_confirmed = table.Column<bool>(type: "boolean", nullable: false),
                    password_hash = table.Column<string>(type: "text", nullable: true),
                    security_stamp = table.Column<string>(type: "text", nullable: true),
                    concurrency_stamp = table.Column<string>(type: "text", nullable: true),
                    phone_number = table.Column<string>(type: "text", nullable: true),
                    phone_number_confirmed = table.Column<bool>(type: "boolean", nullable: false),
                    two_factor_enabled = table.Column<bool>(type: "boolean", nullable: false),
                    lockout_end = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: true),
                    lockout_enabled = table.Column<bool>(type: "boolean", nullable: false),
                    access_failed_count = table.Column<int>(type: "integer", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_asp_net_users", x => x.id);
                    table.ForeignKey(
                        name: "fk_asp_net_users_workspaces_workspace_id",
                        column: x => x.workspace_id,
                        principalTable: "workspaces",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "calendar_accounts",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    workspace_id = table.Column<Guid>(type: "uuid", nullable: false),
                    url = table.Column<string>(type: "text", nullable: false),
                    user_name = table.Column<string>(type: "text", nullable: false),
                    protected_password = table.Column<string>(type: "text", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_calendar_accounts", x => x.id);
                    table.ForeignKey(
                        name: "fk_calendar_accounts_workspaces_workspace_id",
                        column: x => x.workspace_id,
                        principalTable: "workspaces",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "guest_erasures",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    workspace_id = table.Column<Guid>(type: "uuid", nullable: false),
                    guest_id = table.Column<Guid>(type: "uuid", nullable: false),
                    email_hashes = table.Column<byte[][]>(type: "bytea[]", nullable: false),
                    at = table.Column<Instant>(type: "timestamp with time zone", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_guest_erasures", x => x.id);
                    table.ForeignKey(
                        name: "fk_guest_erasures_workspaces_workspace_id",
                        column: x => x.workspace_id,
                        principalTable: "workspaces",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "guest_imports",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    workspace_id = table.Column<Guid>(type: "uuid", nullable: false),
                    file_name = table.Column<string>(type: "text", nullable: false),
                    bytes = table.Column<byte[]>(type: "bytea", nullable: true),
                    person_name = table.Column<string>(type: "text", nullable: false),
                    made_at = table.Column<Instant>(type: "timestamp with time zone", nullable: false),
                    state = table.Column<string>(type: "text", nullable: false),
                    columns = table.Column<string>(type: "jsonb", nullable: false),
                    made = table.Column<int>(type: "integer", nullable: false),
                    changed = table.Column<int>(type: "integer", nullable: false),
                    unchanged = table.Column<int>(type: "integer", nullable: false),
                    left_out = table.Column<int>(type: "integer", nullable: false),
                    done_at = table.Column<Instant>(type: "timestamp with time zone", nullable: true),
                    undone_at = table.Column<Instant>(type: "timestamp with time zone", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_guest_imports", x => x.id);
                    table.ForeignKey(
                        name: "fk_guest_imports_workspaces_workspace_id",
                        column: x => x.workspace_id,
                        principalTable: "workspaces",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "hours",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    workspace_id = table.Column<Guid>(type: "uuid", nullable: false),
                    name = table.Column<string>(type: "text", nullable: false),
                    is_named = table.Column<bool>(type: "boolean", nullable: false),
                    version = table.Column<int>(type: "integer", nullable: false),
                    document = table.Column<string>(type: "jsonb", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_hours", x => x.id);
                    table.ForeignKey(
                        name: "fk_hours_workspaces_workspace_id",
                        column: x => x.workspace_id,
                        principalTable: "workspaces",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "invitations",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    workspace_id = table.Column<Guid>(type: "uuid", nullable: false),
                    name = table.Column<string>(type: "text", nullable: false),
                    email = table.Column<string>(type: "text", nullable: false),
                    is_owner = table.Column<bool>(type: "boolean", nullable: false),
                    is_coordinator = table.Column<bool>(type: "boolean", nullable: false),
                    is_host = table.Column<bool>(type: "boolean", nullable: false),
                    by_person_id = table.Column<Guid>(type: "uuid", nullable: false),
                    secret_hash = table.Column<byte[]>(type: "bytea", nullable: false),
                    protected_secret = table.Column<string>(type: "text", nullable: false),
                    expires_at = table.Column<Instant>(type: "timestamp with time zone", nullable: false),
                    taken_up_at = table.Column<Instant>(type: "timestamp with time zone", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_invitations", x => x.id);
                    table.ForeignKey(
                        name: "fk_invitations_workspaces_workspace_id",
                        column: x => x.workspace_id,
                        principalTable: "workspaces",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "link_patterns",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    workspace_id = table.Column<Guid>(type: "uuid", nullable: false),
                    name = table.Column<string>(type: "text", nullable: false),
                    form = table.Column<string>(type: "jsonb", nullable: false),
                    saved_at = table.Column<Instant>(type: "timestamp with time zone", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_link_patterns", x => x.id);
                    table.ForeignKey(
                        name: "fk_link_patterns_workspaces_workspace_id",
                        column: x => x.workspace_id,
                        principalTable: "workspaces",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "pictures",
                columns: table => new
                {
                    owner_id = table.Column<Guid>(type: "uuid", nullable: false),
                    kind = table.Column<string>(type: "text", nullable: false),
                    workspace_id = table.Column<Guid>(type: "uuid", nullable: false),
                    bytes = table.Column<byte[]>(type: "bytea", nullable: false),
                    media_type = table.Column<string>(type: "text", nullable: false),
                    set_at = table.Column<Instant>(type: "timestamp with time zone", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_pictures", x => new { x.owner_id, x.kind });
                    table.ForeignKey(
                        name: "fk_pictures_workspaces_workspace_id",
                        column: x => x.workspace_id,
                        principalTable: "workspaces",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "record",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    workspace_id = table.Column<Guid>(type: "uuid", nullable: false),
                    at = table.Column<Instant>(type: "timestamp with time zone", nullable: false),
                    person_id = table.Column<Guid>(type: "uuid", nullable: false),
                    person_name = table.Column<string>(type: "text", nullable: false),
                    for_hosts = table.Column<Guid[]>(type: "uuid[]", nullable: false),
                    act_id = table.Column<Guid>(type: "uuid", nullable: true),
                    subject_id = table.Column<Guid>(type: "uuid", nullable: false),
                    what = table.Column<string>(type: "text", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_record", x => x.id);
                    table.ForeignKey(
                        name: "fk_record_workspaces_workspace_id",
                        column: x => x.workspace_id,
                        principalTable: "workspaces",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "saved_views",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    workspace_id = table.Column<Guid>(type: "uuid", nullable: false),
                    of = table.Column<string>(type: "text", nullable: false),
                    name = table.Column<string>(type: "text", nullable: false),
                    filter = table.Column<string>(type: "jsonb", nullable: false),
                    saved_at = table.Column<Instant>(type: "timestamp with time zone", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_saved_views", x => x.id);
                    table.ForeignKey(
                        name: "fk_saved_views_workspaces_workspace_id",
                        column: x => x.workspace_id,
                        principalTable: "workspaces",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "tellings",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    workspace_id = table.Column<Guid>(type: "uuid", nullable: false),
                    page_id = table.Column<Guid>(type: "uuid", nullable: false),
                    booking_ids = table.Column<Guid[]>(type: "uuid[]", nullable: false),
                    telling = table.Column<string>(type: "jsonb", nullable: false),
                    working_until = table.Column<Instant>(type: "timestamp with time zone", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_tellings", x => x.id);
                    table.ForeignKey(
                        name: "fk_tellings_workspaces_workspace_id",
                        column: x => x.workspace_id,
                        principalTable: "workspaces",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "address_proofs",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    workspace_id = table.Column<Guid>(type: "uuid", nullable: false),
                    person_id = table.Column<Guid>(type: "uuid", nullable: false),
                    secret_hash = table.Column<byte[]>(type: "bytea", nullable: false),
                    expires_at = table.Column<Instant>(type: "timestamp with time zone", nullable: false),
                    used_at = table.Column<Instant>(type: "timestamp with time zone", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_address_proofs", x => x.id);
                    table.ForeignKey(
                        name: "fk_address_proofs_asp_net_users_person_id",
                        column: x => x.person_id,
                        principalTable: "AspNetUsers",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "fk_address_proofs_workspaces_workspace_id",
                        column: x => x.workspace_id,
                        principalTable: "workspaces",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "AspNetUserClaims",
                columns: table => new
                {
                    id = table.Column<int>(type: "integer", nullable: false)
                        .Annotation("Npgsql:ValueGenerationStrategy", NpgsqlValueGenerationStrategy.IdentityByDefaultColumn),
                    user_id = table.Column<Guid>(type: "uuid", nullable: false),
                    claim_type = table.Column<string>(type: "text", nullable: true),
                    claim_value = table.Column<string>(type: "text", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_asp_net_user_claims", x => x.id);
                    table.ForeignKey(
                        name: "fk_asp_net_user_claims_asp_net_users_user_id",
                        column: x => x.user_id,
                        principalTable: "AspNetUsers",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "AspNetUserLogins",
                columns: table => new
                {
                    login_provider = table.Column<string>(type: "text", nullable: false),
                    provider_key = table.Column<string>(type: "text", nullable: false),
                    provider_display_name = table.Column<string>(type: "text", nullable: true),
                    user_id = table.Column<Guid>(type: "uuid", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_asp_net_user_logins", x => new { x.login_provider, x.provider_key });
                    table.ForeignKey(
                        name: "fk_asp_net_user_logins_asp_net_users_user_id",
                        column: x => x.user_id,
                        principalTable: "AspNetUsers",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "AspNetUserTokens",
                columns: table => new
                {
                    user_id = table.Column<Guid>(type: "uuid", nullable: false),
                    login_provider = table.Column<string>(type: "text", nullable: false),
                    name = table.Column<string>(type: "text", nullable: false),
                    value = table.Column<string>(type: "text", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_asp_net_user_tokens", x => new { x.user_id, x.login_provider, x.name });
                    table.ForeignKey(
                        name: "fk_asp_net_user_tokens_asp_net_users_user_id",
                        column: x => x.user_id,
                        principalTable: "AspNetUsers",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "guests",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    workspace_id = table.Column<Guid>(type: "uuid", nullable: false),
                    name = table.Column<string>(type: "text", nullable: false),
                    organisation = table.Column<string>(type: "text", nullable: false),
                    phone = table.Column<string>(type: "text", nullable: false),
                    zone = table.Column<string>(type: "text", nullable: true),
                    language = table.Column<string>(type: "text", nullable: true),
                    clock = table.Column<string>(type: "text", nullable: true),
                    keeper_id = table.Column<Guid>(type: "uuid", nullable: true),
                    fields = table.Column<string>(type: "jsonb", nullable: false),
                    source = table.Column<string>(type: "text", nullable: false),
                    made_at = table.Column<Instant>(type: "timestamp with time zone", nullable: false),
                    version = table.Column<int>(type: "integer", nullable: false),
                    booker_key = table.Column<string>(type: "text", nullable: false),
                    merged_into = table.Column<Guid>(type: "uuid", nullable: true),
                    not_same = table.Column<Guid[]>(type: "uuid[]", nullable: false),
                    name_key = table.Column<string>(type: "text", nullable: false, computedColumnSql: "lower(btrim(name))", stored: true),
                    phone_key = table.Column<string>(type: "text", nullable: false, computedColumnSql: "regexp_replace(phone, '[^0-9]', '', 'g')", stored: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_guests", x => x.id);
                    table.ForeignKey(
                        name: "fk_guests_asp_net_users_keeper_id",
                        column: x => x.keeper_id,
                        principalTable: "AspNetUsers",
                        principalColumn: "id",
                        onDelete: ReferentialAction.SetNull);
                    table.ForeignKey(
                        name: "fk_guests_workspaces_workspace_id",
                        column: x => x.workspace_id,
                        principalTable: "workspaces",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "password_resets",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    workspace_id = table.Column<Guid>(type: "uuid", nullable: false),
                    person_id = table.Column<Guid>(type: "uuid", nullable: false),
                    secret_hash = table.Column<byte[]>(type: "bytea", nullable: false),
                    expires_at = table.Column<Instant>(type: "timestamp with time zone", nullable: false),
                    used_at = table.Column<Instant>(type: "timestamp with time zone", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_password_resets", x => x.id);
                    table.ForeignKey(
                        name: "fk_password_resets_asp_net_users_person_id",
                        column: x => x.person_id,
                        principalTable: "AspNetUsers",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "fk_password_resets_workspaces_workspace_id",
                        column: x => x.workspace_id,
                        principalTable: "workspaces",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "portraits",
                columns: table => new
                {
                    person_id = table.Column<Guid>(type: "uuid", nullable: false),
                    workspace_id = table.Column<Guid>(type: "uuid", nullable: false),
                    media_type = table.Column<string>(type: "text", nullable: false),
                    bytes = table.Column<byte[]>(type: "bytea", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_portraits", x => x.person_id);
                    table.ForeignKey(
                        name: "fk_portraits_asp_net_users_person_id",
                        column: x => x.person_id,
                        principalTable: "AspNetUsers",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "fk_portraits_workspaces_workspace_id",
                        column: x => x.workspace_id,
                        principalTable: "workspaces",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "signed_in",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    workspace_id = table.Column<Guid>(type: "uuid", nullable: false),
                    person_id = table.Column<Guid>(type: "uuid", nullable: false),
                    since = table.Column<Instant>(type: "timestamp with time zone", nullable: false),
                    seen_at = table.Column<Instant>(type: "timestamp with time zone", nullable: false),
                    device = table.Column<string>(type: "text", nullable: false),
                    network_address = table.Column<string>(type: "text", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_signed_in", x => x.id);
                    table.ForeignKey(
                        name: "fk_signed_in_asp_net_users_person_id",
                        column: x => x.person_id,
                        principalTable: "AspNetUsers",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "fk_signed_in_workspaces_workspace_id",
                        column: x => x.workspace_id,
                        principalTable: "workspaces",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "undo_acts",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    workspace_id = table.Column<Guid>(type: "uuid", nullable: false),
                    person_id = table.Column<Guid>(type: "uuid", nullable: false),
                    at = table.Column<Instant>(type: "timestamp with time zone", nullable: false),
                    until = table.Column<Instant>(type: "timestamp with time zone", nullable: false),
                    whole = table.Column<string>(type: "text", nullable: false),
                    undone_at = table.Column<Instant>(type: "timestamp with time zone", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_undo_acts", x => x.id);
                    table.ForeignKey(
                        name: "fk_undo_acts_asp_net_users_person_id",
                        column: x => x.person_id,
                        principalTable: "AspNetUsers",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "fk_undo_acts_workspaces_workspace_id",
                        column: x => x.workspace_id,
                        principalTable: "workspaces",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "letters",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    workspace_id = table.Column<Guid>(type: "uuid", nullable: false),
                    person_id = table.Column<Guid>(type: "uuid", nullable: true),
                    name = table.Column<string>(type: "text", nullable: false),
                    subject = table.Column<string>(type: "text", nullable: false),
                    body = table.Column<string>(type: "text", nullable: false),
                    pattern_id = table.Column<Guid>(type: "uuid", nullable: true),
                    version = table.Column<int>(type: "integer", nullable: false),
                    saved_at = table.Column<Instant>(type: "timestamp with time zone", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_letters", x => x.id);
                    table.ForeignKey(
                        name: "fk_letters_asp_net_users_person_id",
                        column: x => x.person_id,
                        principalTable: "AspNetUsers",
                        principalColumn: "id");
                    table.ForeignKey(
                        name: "fk_letters_link_patterns_pattern_id",
                        column: x => x.pattern_id,
                        principalTable: "link_patterns",
                        principalColumn: "id",
                        onDelete: ReferentialAction.SetNull);
                    table.ForeignKey(
                        name: "fk_letters_workspaces_workspace_id",
                        column: x => x.workspace_id,
                        principalTable: "workspaces",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "guest_emails",
                columns: table => new
                {
                    workspace_id = table.Column<Guid>(type: "uuid", nullable: false),
                    key = table.Column<string>(type: "text", nullable: false),
                    guest_id = table.Column<Guid>(type: "uuid", nullable: false),
                    email = table.Column<string>(type: "text", nullable: false),
                    place = table.Column<int>(type: "integer", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_guest_emails", x => new { x.workspace_id, x.key });
                    table.ForeignKey(
                        name: "fk_guest_emails_guests_guest_id",
                        column: x => x.guest_id,
                        principalTable: "guests",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "fk_guest_emails_workspaces_workspace_id",
                        column: x => x.workspace_id,
                        principalTable: "workspaces",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "guest_import_rows",
                columns: table => new
                {
                    import_id = table.Column<Guid>(type: "uuid", nullable: false),
                    guest_id = table.Column<Guid>(type: "uuid", nullable: false),
                    workspace_id = table.Column<Guid>(type: "uuid", nullable: false),
                    version = table.Column<int>(type: "integer", nullable: false),
                    before = table.Column<string>(type: "jsonb", nullable: true),
                    emails = table.Column<string[]>(type: "text[]", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_guest_import_rows", x => new { x.import_id, x.guest_id });
                    table.ForeignKey(
                        name: "fk_guest_import_rows_guest_imports_import_id",
                        column: x => x.import_id,
                        principalTable: "guest_imports",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "fk_guest_import_rows_guests_guest_id",
                        column: x => x.guest_id,
                        principalTable: "guests",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "fk_guest_import_rows_workspaces_workspace_id",
                        column: x => x.workspace_id,
                        principalTable: "workspaces",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "guest_merges",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    workspace_id = table.Column<Guid>(type: "uuid", nullable: false),
                    kept_id = table.Column<Guid>(type: "uuid", nullable: false),
                    gone_id = table.Column<Guid>(type: "uuid", nullable: false),
                    at = table.Column<Instant>(type: "timestamp with time zone", nullable: false),
                    person_name = table.Column<string>(type: "text", nullable: false),
                    things = table.Column<string>(type: "jsonb", nullable: false),
                    undone_at = table.Column<Instant>(type: "timestamp with time zone", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_guest_merges", x => x.id);
                    table.ForeignKey(
                        name: "fk_guest_merges_guests_gone_id",
                        column: x => x.gone_id,
                        principalTable: "guests",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "fk_guest_merges_guests_kept_id",
                        column: x => x.kept_id,
                        principalTable: "guests",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "fk_guest_merges_workspaces_workspace_id",
                        column: x => x.workspace_id,
                        principalTable: "workspaces",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "guest_notes",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    workspace_id = table.Column<Guid>(type: "uuid", nullable: false),
                    guest_id = table.Column<Guid>(type: "uuid", nullable: false),
                    person_id = table.Column<Guid>(type: "uuid", nullable: false),
                    person_name = table.Column<string>(type: "text", nullable: false),
                    at = table.Column<Instant>(type: "timestamp with time zone", nullable: false),
                    changed_at = table.Column<Instant>(type: "timestamp with time zone", nullable: true),
                    text = table.Column<string>(type: "text", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_guest_notes", x => x.id);
                    table.ForeignKey(
                        name: "fk_guest_notes_guests_guest_id",
                        column: x => x.guest_id,
                        principalTable: "guests",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "fk_guest_notes_workspaces_workspace_id",
                        column: x => x.workspace_id,
                        principalTable: "workspaces",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "undo_rows",
                columns: table => new
                {
                    id = table.Column<long>(type: "bigint", nullable: false)
                        .Annotation("Npgsql:ValueGenerationStrategy", NpgsqlValueGenerationStrategy.IdentityAlwaysColumn),
                    workspace_id = table.Column<Guid>(type: "uuid", nullable: false),
                    act_id = table.Column<Guid>(type: "uuid", nullable: false),
                    of = table.Column<string>(type: "text", nullable: false),
                    key = table.Column<string>(type: "jsonb", nullable: false),
                    before = table.Column<string>(type: "jsonb", nullable: true),
                    after = table.Column<string>(type: "jsonb", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_undo_rows", x => x.id);
                    table.ForeignKey(
                        name: "fk_undo_rows_undo_acts_act_id",
                        column: x => x.act_id,
                        principalTable: "undo_acts",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "fk_undo_rows_workspaces_workspace_id",
                        column: x => x.workspace_id,
                        principalTable: "workspaces",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "acting_for",
                columns: table => new
                {
                    host_id = table.Column<Guid>(type: "uuid", nullable: false),
                    person_id = table.Column<Guid>(type: "uuid", nullable: false),
                    workspace_id = table.Column<Guid>(type: "uuid", nullable: false),
                    may_offer = table.Column<bool>(type: "boolean", nullable: false),
                    may_book = table.Column<bool>(type: "boolean", nullable: false),
                    may_move = table.Column<bool>(type: "boolean", nullable: false),
                    sees_titles = table.Column<bool>(type: "boolean", nullable: false),
                    since = table.Column<Instant>(type: "timestamp with time zone", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_acting_for", x => new { x.host_id, x.person_id });
                    table.ForeignKey(
                        name: "fk_acting_for_asp_net_users_person_id",
                        column: x => x.person_id,
                        principalTable: "AspNetUsers",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "fk_acting_for_workspaces_workspace_id",
                        column: x => x.workspace_id,
                        principalTable: "workspaces",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "blocks",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    workspace_id = table.Column<Guid>(type: "uuid", nullable: false),
                    page_id = table.Column<Guid>(type: "uuid", nullable: false),
                    start = table.Column<LocalDateTime>(type: "timestamp without time zone", nullable: false),
                    length = table.Column<int>(type: "integer", nullable: false),
                    rule = table.Column<string>(type: "text", nullable: true),
                    without = table.Column<LocalDate[]>(type: "date[]", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_blocks", x => x.id);
                    table.ForeignKey(
                        name: "fk_blocks_workspaces_workspace_id",
                        column: x => x.workspace_id,
                        principalTable: "workspaces",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "booking_keys",
                columns: table => new
                {
                    page_id = table.Column<Guid>(type: "uuid", nullable: false),
                    key = table.Column<string>(type: "text", nullable: false),
                    workspace_id = table.Column<Guid>(type: "uuid", nullable: false),
                    request_hash = table.Column<byte[]>(type: "bytea", nullable: false),
                    booking_id = table.Column<Guid>(type: "uuid", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("booking_keys_one_key", x => new { x.page_id, x.key });
                    table.ForeignKey(
                        name: "fk_booking_keys_workspaces_workspace_id",
                        column: x => x.workspace_id,
                        principalTable: "workspaces",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "booking_moves",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    workspace_id = table.Column<Guid>(type: "uuid", nullable: false),
                    booking_id = table.Column<Guid>(type: "uuid", nullable: false),
                    at = table.Column<Instant>(type: "timestamp with time zone", nullable: false),
                    was = table.Column<Instant>(type: "timestamp with time zone", nullable: false),
                    now = table.Column<Instant>(type: "timestamp with time zone", nullable: false),
                    by_guest = table.Column<bool>(type: "boolean", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_booking_moves", x => x.id);
                    table.ForeignKey(
                        name: "fk_booking_moves_workspaces_workspace_id",
                        column: x => x.workspace_id,
                        principalTable: "workspaces",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "booking_notes",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    workspace_id = table.Column<Guid>(type: "uuid", nullable: false),
                    booking_id = table.Column<Guid>(type: "uuid", nullable: false),
                    person_id = table.Column<Guid>(type: "uuid", nullable: false),
                    person_name = table.Column<string>(type: "text", nullable: false),
                    at = table.Column<Instant>(type: "timestamp with time zone", nullable: false),
                    changed_at = table.Column<Instant>(type: "timestamp with time zone", nullable: true),
                    text = table.Column<string>(type: "text", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_booking_notes", x => x.id);
                    table.ForeignKey(
                        name: "fk_booking_notes_workspaces_workspace_id",
                        column: x => x.workspace_id,
                        principalTable: "workspaces",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "bookings",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    workspace_id = table.Column<Guid>(type: "uuid", nullable: false),
                    session_id = table.Column<Guid>(type: "uuid", nullable: false),
                    counts_keeper = table.Column<bool>(type: "boolean", nullable: false),
                    guest_id = table.Column<Guid>(type: "uuid", nullable: true),
                    booker_id = table.Column<Guid>(type: "uuid", nullable: true),
                    guest_name = table.Column<string>(type: "text", nullable: false),
                    guest_email = table.Column<string>(type: "text", nullable: false),
                    party = table.Column<int>(type: "integer", nullable: false),
                    booker_name = table.Column<string>(type: "text", nullable: false),
                    booker_email = table.Column<string>(type: "text", nullable: false),
                    mail_to = table.Column<string>(type: "text", nullable: false),
                    is_among_ourselves = table.Column<bool>(type: "boolean", nullable: false),
                    guest_zone = table.Column<string>(type: "text", nullable: false),
                    guest_language = table.Column<string>(type: "text", nullable: false),
                    guest_clock = table.Column<string>(type: "text", nullable: true),
                    booked_at = table.Column<Instant>(type: "timestamp with time zone", nullable: false),
                    booked_by = table.Column<Guid>(type: "uuid", nullable: true),
                    sequence = table.Column<int>(type: "integer", nullable: false),
                    cancelled_at = table.Column<Instant>(type: "timestamp with time zone", nullable: true),
                    cancelled_by = table.Column<string>(type: "text", nullable: true),
                    cancel_word = table.Column<string>(type: "text", nullable: false),
                    outcome = table.Column<string>(type: "text", nullable: false),
                    answers = table.Column<string>(type: "jsonb", nullable: false),
                    flags = table.Column<string[]>(type: "text[]", nullable: false),
                    companions = table.Column<string>(type: "jsonb", nullable: false),
                    reply = table.Column<string>(type: "text", nullable: false),
                    replied_at = table.Column<Instant>(type: "timestamp with time zone", nullable: true),
                    answer_stamp = table.Column<Instant>(type: "timestamp with time zone", nullable: true),
                    wish_start = table.Column<Instant>(type: "timestamp with time zone", nullable: true),
                    wish_end = table.Column<Instant>(type: "timestamp with time zone", nullable: true),
                    waits_until = table.Column<Instant>(type: "timestamp with time zone", nullable: true),
                    answer_secret_hash = table.Column<byte[]>(type: "bytea", nullable: true),
                    protected_answer_secret = table.Column<string>(type: "text", nullable: true),
                    reply_secret_hash = table.Column<byte[]>(type: "bytea", nullable: false),
                    protected_reply_secret = table.Column<string>(type: "text", nullable: false),
                    secret_hash = table.Column<byte[]>(type: "bytea", nullable: false),
                    protected_secret = table.Column<string>(type: "text", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_bookings", x => x.id);
                    table.ForeignKey(
                        name: "fk_bookings_guests_booker_id",
                        column: x => x.booker_id,
                        principalTable: "guests",
                        principalColumn: "id",
                        onDelete: ReferentialAction.SetNull);
                    table.ForeignKey(
                        name: "fk_bookings_guests_guest_id",
                        column: x => x.guest_id,
                        principalTable: "guests",
                        principalColumn: "id",
                        onDelete: ReferentialAction.SetNull);
                    table.ForeignKey(
                        name: "fk_bookings_workspaces_workspace_id",
                        column: x => x.workspace_id,
                        principalTable: "workspaces",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "calendar_entries",
                columns: table => new
                {
                    id = table.Column<long>(type: "bigint", nullable: false)
                        .Annotation("Npgsql:ValueGenerationStrategy", NpgsqlValueGenerationStrategy.IdentityByDefaultColumn),
                    workspace_id = table.Column<Guid>(type: "uuid", nullable: false),
                    calendar_id = table.Column<Guid>(type: "uuid", nullable: false),
                    resource_id = table.Column<long>(type: "bigint", nullable: false),
                    host_id = table.Column<Guid>(type: "uuid", nullable: false),
                    span = table.Column<NpgsqlRange<Instant>>(type: "tstzrange", nullable: false),
                    title = table.Column<string>(type: "text", nullable: false),
                    whole_day = table.Column<bool>(type: "boolean", nullable: false),
                    free = table.Column<bool>(type: "boolean", nullable: false),
                    tentative = table.Column<bool>(type: "boolean", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_calendar_entries", x => x.id);
                    table.ForeignKey(
                        name: "fk_calendar_entries_workspaces_workspace_id",
                        column: x => x.workspace_id,
                        principalTable: "workspaces",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "calendar_hosts",
                columns: table => new
                {
                    calendar_id = table.Column<Guid>(type: "uuid", nullable: false),
                    host_id = table.Column<Guid>(type: "uuid", nullable: false),
                    workspace_id = table.Column<Guid>(type: "uuid", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_calendar_hosts", x => new { x.calendar_id, x.host_id });
                    table.ForeignKey(
                        name: "fk_calendar_hosts_workspaces_workspace_id",
                        column: x => x.workspace_id,
                        principalTable: "workspaces",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "calendar_resources",
                columns: table => new
                {
                    id = table.Column<long>(type: "bigint", nullable: false)
                        .Annotation("Npgsql:ValueGenerationStrategy", NpgsqlValueGenerationStrategy.IdentityByDefaultColumn),
                    workspace_id = table.Column<Guid>(type: "uuid", nullable: false),
                    calendar_id = table.Column<Guid>(type: "uuid", nullable: false),
                    path = table.Column<string>(type: "text", nullable: false),
                    entity_tag = table.Column<string>(type: "text", nullable: true),
                    body = table.Column<byte[]>(type: "bytea", nullable: false),
                    own = table.Column<string>(type: "jsonb", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_calendar_resources", x => x.id);
                    table.ForeignKey(
                        name: "fk_calendar_resources_workspaces_workspace_id",
                        column: x => x.workspace_id,
                        principalTable: "workspaces",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "calendars",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    workspace_id = table.Column<Guid>(type: "uuid", nullable: false),
                    kind = table.Column<string>(type: "text", nullable: false),
                    host_id = table.Column<Guid>(type: "uuid", nullable: true),
                    name = table.Column<string>(type: "text", nullable: false),
                    is_asked = table.Column<bool>(type: "boolean", nullable: false),
                    tentative_counts = table.Column<bool>(type: "boolean", nullable: false),
                    source = table.Column<string>(type: "text", nullable: false),
                    loaded_at = table.Column<Instant>(type: "timestamp with time zone", nullable: false),
                    read_range = table.Column<NpgsqlRange<Instant>>(type: "tstzrange", nullable: false),
                    account_id = table.Column<Guid>(type: "uuid", nullable: true),
                    collection_url = table.Column<string>(type: "text", nullable: true),
                    protected_address = table.Column<string>(type: "text", nullable: true),
                    may_write = table.Column<bool>(type: "boolean", nullable: false),
                    tells_changes = table.Column<bool>(type: "boolean", nullable: false),
                    sync_token = table.Column<string>(type: "text", nullable: true),
                    entity_tag = table.Column<string>(type: "text", nullable: true),
                    refresh_seconds = table.Column<int>(type: "integer", nullable: true),
                    looked_at = table.Column<Instant>(type: "timestamp with time zone", nullable: false),
                    read_whole_at = table.Column<Instant>(type: "timestamp with time zone", nullable: false),
                    next_look_at = table.Column<Instant>(type: "timestamp with time zone", nullable: true),
                    looking_until = table.Column<Instant>(type: "timestamp with time zone", nullable: true),
                    looks = table.Column<int>(type: "integer", nullable: false),
                    unreachable_since = table.Column<Instant>(type: "timestamp with time zone", nullable: true),
                    attempts = table.Column<int>(type: "integer", nullable: false),
                    fault = table.Column<string>(type: "text", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_calendars", x => x.id);
                    table.ForeignKey(
                        name: "fk_calendars_calendar_accounts_account_id",
                        column: x => x.account_id,
                        principalTable: "calendar_accounts",
                        principalColumn: "id");
                    table.ForeignKey(
                        name: "fk_calendars_workspaces_workspace_id",
                        column: x => x.workspace_id,
                        principalTable: "workspaces",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "hosts",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    workspace_id = table.Column<Guid>(type: "uuid", nullable: false),
                    person_id = table.Column<Guid>(type: "uuid", nullable: true),
                    retired_at = table.Column<Instant>(type: "timestamp with time zone", nullable: true),
                    kind = table.Column<string>(type: "text", nullable: false),
                    name = table.Column<string>(type: "text", nullable: false),
                    zone = table.Column<string>(type: "text", nullable: false),
                    hours_id = table.Column<Guid>(type: "uuid", nullable: true),
                    busy_secret_hash = table.Column<byte[]>(type: "bytea", nullable: true),
                    protected_busy_secret = table.Column<string>(type: "text", nullable: true),
                    written_calendar_id = table.Column<Guid>(type: "uuid", nullable: true),
                    weight = table.Column<int>(type: "integer", nullable: false),
                    daily_cap = table.Column<int>(type: "integer", nullable: true),
                    weekly_cap = table.Column<int>(type: "integer", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_hosts", x => x.id);
                    table.ForeignKey(
                        name: "fk_hosts_asp_net_users_person_id",
                        column: x => x.person_id,
                        principalTable: "AspNetUsers",
                        principalColumn: "id");
                    table.ForeignKey(
                        name: "fk_hosts_calendars_written_calendar_id",
                        column: x => x.written_calendar_id,
                        principalTable: "calendars",
                        principalColumn: "id",
                        onDelete: ReferentialAction.SetNull);
                    table.ForeignKey(
                        name: "fk_hosts_hours_hours_id",
                        column: x => x.hours_id,
                        principalTable: "hours",
                        principalColumn: "id");
                    table.ForeignKey(
                        name: "fk_hosts_workspaces_workspace_id",
                        column: x => x.workspace_id,
                        principalTable: "workspaces",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "unread_events",
                columns: table => new
                {
                    id = table.Column<long>(type: "bigint", nullable: false)
                        .Annotation("Npgsql:ValueGenerationStrategy", NpgsqlValueGenerationStrategy.IdentityByDefaultColumn),
                    workspace_id = table.Column<Guid>(type: "uuid", nullable: false),
                    calendar_id = table.Column<Guid>(type: "uuid", nullable: false),
                    resource_id = table.Column<long>(type: "bigint", nullable: false),
                    line = table.Column<int>(type: "integer", nullable: false),
                    title = table.Column<string>(type: "text", nullable: false),
                    fault = table.Column<string>(type: "text", nullable: false),
                    is_partly = table.Column<bool>(type: "boolean", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_unread_events", x => x.id);
                    table.ForeignKey(
                        name: "fk_unread_events_calendar_resources_resource_id",
                        column: x => x.resource_id,
                        principalTable: "calendar_resources",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "fk_unread_events_calendars_calendar_id",
                        column: x => x.calendar_id,
                        principalTable: "calendars",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "fk_unread_events_workspaces_workspace_id",
                        column: x => x.workspace_id,
                        principalTable: "workspaces",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "commitments",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    workspace_id = table.Column<Guid>(type: "uuid", nullable: false),
                    host_id = table.Column<Guid>(type: "uuid", nullable: false),
                    holder_id = table.Column<Guid>(type: "uuid", nullable: false),
                    kind = table.Column<string>(type: "text", nullable: false),
                    page_id = table.Column<Guid>(type: "uuid", nullable: true),
                    span = table.Column<NpgsqlRange<Instant>>(type: "tstzrange", nullable: false),
                    buffer_before = table.Column<int>(type: "integer", nullable: false),
                    buffer_after = table.Column<int>(type: "integer", nullable: false),
                    held_until = table.Column<Instant>(type: "timestamp with time zone", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_commitments", x => x.id);
                    table.ForeignKey(
                        name: "fk_commitments_hosts_host_id",
                        column: x => x.host_id,
                        principalTable: "hosts",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "fk_commitments_workspaces_workspace_id",
                        column: x => x.workspace_id,
                        principalTable: "workspaces",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "desks",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    workspace_id = table.Column<Guid>(type: "uuid", nullable: false),
                    address = table.Column<string>(type: "text", nullable: false),
                    name = table.Column<string>(type: "text", nullable: false),
                    intro = table.Column<string>(type: "text", nullable: false),
                    accent = table.Column<string>(type: "text", nullable: false),
                    host_name = table.Column<string>(type: "text", nullable: true),
                    host_name_mark = table.Column<string>(type: "text", nullable: false),
                    host_name_proven_at = table.Column<Instant>(type: "timestamp with time zone", nullable: true),
                    framers = table.Column<string[]>(type: "text[]", nullable: false),
                    host_id = table.Column<Guid>(type: "uuid", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_desks", x => x.id);
                    table.ForeignKey(
                        name: "fk_desks_hosts_host_id",
                        column: x => x.host_id,
                        principalTable: "hosts",
                        principalColumn: "id",
                        onDelete: ReferentialAction.SetNull);
                    table.ForeignKey(
                        name: "fk_desks_workspaces_workspace_id",
                        column: x => x.workspace_id,
                        principalTable: "workspaces",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "pages",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    workspace_id = table.Column<Guid>(type: "uuid", nullable: false),
                    desk_id = table.Column<Guid>(type: "uuid", nullable: false),
                    address = table.Column<string>(type: "text", nullable: false),
                    title = table.Column<string>(type: "text", nullable: false),
                    description = table.Column<string>(type: "text", nullable: false),
                    place_kind = table.Column<string>(type: "text", nullable: false),
                    place = table.Column<string>(type: "text", nullable: false),
                    zone = table.Column<string>(type: "text", nullable: false),
                    durations = table.Column<int[]>(type: "integer[]", nullable: false),
                    step = table.Column<int>(type: "integer", nullable: false),
                    step_offset = table.Column<int>(type: "integer", nullable: false),
                    step_from = table.Column<string>(type: "text", nullable: false),
                    starts_apart = table.Column<bool>(type: "boolean", nullable: false),
                    buffer_before = table.Column<int>(type: "integer", nullable: false),
                    buffer_after = table.Column<int>(type: "integer", nullable: false),
                    notice = table.Column<int>(type: "integer", nullable: false),
                    ahead_days = table.Column<int>(type: "integer", nullable: false),
                    window = table.Column<string>(type: "jsonb", nullable: true),
                    hours_mode = table.Column<string>(type: "text", nullable: false),
                    hours_id = table.Column<Guid>(type: "uuid", nullable: true),
                    daily_cap = table.Column<int>(type: "integer", nullable: true),
                    weekly_cap = table.Column<int>(type: "integer", nullable: true),
                    places = table.Column<int>(type: "integer", nullable: false),
                    keeps_hosts = table.Column<bool>(type: "boolean", nullable: false),
                    mark = table.Column<string>(type: "text", nullable: false),
                    offers_whole_blocks = table.Column<bool>(type: "boolean", nullable: false),
                    calendar_choices = table.Column<string>(type: "jsonb", nullable: false),
                    changes = table.Column<string>(type: "jsonb", nullable: false),
                    questions = table.Column<string>(type: "jsonb", nullable: false),
                    post = table.Column<string>(type: "jsonb", nullable: false),
                    approval_hours = table.Column<int>(type: "integer", nullable: true),
                    details = table.Column<string>(type: "jsonb", nullable: false),
                    draft = table.Column<string>(type: "jsonb", nullable: true),
                    offer = table.Column<string>(type: "jsonb", nullable: true),
                    state = table.Column<string>(type: "text", nullable: false),
                    version = table.Column<int>(type: "integer", nullable: false),
                    created_at = table.Column<Instant>(type: "timestamp with time zone", nullable: false),
                    made_by = table.Column<Guid>(type: "uuid", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_pages", x => x.id);
                    table.ForeignKey(
                        name: "fk_pages_desks_desk_id",
                        column: x => x.desk_id,
                        principalTable: "desks",
                        principalColumn: "id");
                    table.ForeignKey(
                        name: "fk_pages_hours_hours_id",
                        column: x => x.hours_id,
                        principalTable: "hours",
                        principalColumn: "id");
                    table.ForeignKey(
                        name: "fk_pages_workspaces_workspace_id",
                        column: x => x.workspace_id,
                        principalTable: "workspaces",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "email_codes",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    workspace_id = table.Column<Guid>(type: "uuid", nullable: false),
                    page_id = table.Column<Guid>(type: "uuid", nullable: false),
                    email = table.Column<string>(type: "text", nullable: false),
                    code_hash = table.Column<byte[]>(type: "bytea", nullable: false),
                    made_at = table.Column<Instant>(type: "timestamp with time zone", nullable: false),
                    wrong_tries = table.Column<int>(type: "integer", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_email_codes", x => x.id);
                    table.ForeignKey(
                        name: "fk_email_codes_pages_page_id",
                        column: x => x.page_id,
                        principalTable: "pages",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "fk_email_codes_workspaces_workspace_id",
                        column: x => x.workspace_id,
                        principalTable: "workspaces",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "former_addresses",
                columns: table => new
                {
                    desk_id = table.Column<Guid>(type: "uuid", nullable: false),
                    address = table.Column<string>(type: "text", nullable: false),
                    workspace_id = table.Column<Guid>(type: "uuid", nullable: false),
                    page_id = table.Column<Guid>(type: "uuid", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_former_addresses", x => new { x.desk_id, x.address });
                    table.ForeignKey(
                        name: "fk_former_addresses_pages_page_id",
                        column: x => x.page_id,
                        principalTable: "pages",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "fk_former_addresses_workspaces_workspace_id",
                        column: x => x.workspace_id,
                        principalTable: "workspaces",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "looked_for",
                columns: table => new
                {
                    page_id = table.Column<Guid>(type: "uuid", nullable: false),
                    week = table.Column<LocalDate>(type: "date", nullable: false),
                    part = table.Column<string>(type: "text", nullable: false),
                    found = table.Column<bool>(type: "boolean", nullable: false),
                    workspace_id = table.Column<Guid>(type: "uuid", nullable: false),
                    count = table.Column<int>(type: "integer", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_looked_for", x => new { x.page_id, x.week, x.part, x.found });
                    table.ForeignKey(
                        name: "fk_looked_for_pages_page_id",
                        column: x => x.page_id,
                        principalTable: "pages",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "fk_looked_for_workspaces_workspace_id",
                        column: x => x.workspace_id,
                        principalTable: "workspaces",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "mailings",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    workspace_id = table.Column<Guid>(type: "uuid", nullable: false),
                    title = table.Column<string>(type: "text", nullable: false),
                    started_from = table.Column<string>(type: "text", nullable: false),
                    page_id = table.Column<Guid>(type: "uuid", nullable: true),
                    sent = table.Column<int>(type: "integer", nullable: false),
                    made_by = table.Column<Guid>(type: "uuid", nullable: true),
                    sent_at = table.Column<Instant>(type: "timestamp with time zone", nullable: false),
                    asked_again_at = table.Column<Instant>(type: "timestamp with time zone", nullable: true),
                    presses = table.Column<Guid[]>(type: "uuid[]", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_mailings", x => x.id);
                    table.ForeignKey(
                        name: "fk_mailings_pages_page_id",
                        column: x => x.page_id,
                        principalTable: "pages",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "fk_mailings_workspaces_workspace_id",
                        column: x => x.workspace_id,
                        principalTable: "workspaces",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "page_editions",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    workspace_id = table.Column<Guid>(type: "uuid", nullable: false),
                    page_id = table.Column<Guid>(type: "uuid", nullable: false),
                    number = table.Column<int>(type: "integer", nullable: false),
                    at = table.Column<Instant>(type: "timestamp with time zone", nullable: false),
                    by = table.Column<string>(type: "text", nullable: false),
                    form = table.Column<string>(type: "jsonb", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_page_editions", x => x.id);
                    table.ForeignKey(
                        name: "fk_page_editions_pages_page_id",
                        column: x => x.page_id,
                        principalTable: "pages",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "fk_page_editions_workspaces_workspace_id",
                        column: x => x.workspace_id,
                        principalTable: "workspaces",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "page_files",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    workspace_id = table.Column<Guid>(type: "uuid", nullable: false),
                    page_id = table.Column<Guid>(type: "uuid", nullable: false),
                    name = table.Column<string>(type: "text", nullable: false),
                    media_type = table.Column<string>(type: "text", nullable: false),
                    bytes = table.Column<byte[]>(type: "bytea", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_page_files", x => x.id);
                    table.ForeignKey(
                        name: "fk_page_files_pages_page_id",
                        column: x => x.page_id,
                        principalTable: "pages",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "fk_page_files_workspaces_workspace_id",
                        column: x => x.workspace_id,
                        principalTable: "workspaces",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "personal_addresses",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    workspace_id = table.Column<Guid>(type: "uuid", nullable: false),
                    page_id = table.Column<Guid>(type: "uuid", nullable: false),
                    name = table.Column<string>(type: "text", nullable: false),
                    email = table.Column<string>(type: "text", nullable: false),
                    made_at = table.Column<Instant>(type: "timestamp with time zone", nullable: false),
                    secret_hash = table.Column<byte[]>(type: "bytea", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_personal_addresses", x => x.id);
                    table.ForeignKey(
                        name: "fk_personal_addresses_pages_page_id",
                        column: x => x.page_id,
                        principalTable: "pages",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "fk_personal_addresses_workspaces_workspace_id",
                        column: x => x.workspace_id,
                        principalTable: "workspaces",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "seats",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    workspace_id = table.Column<Guid>(type: "uuid", nullable: false),
                    page_id = table.Column<Guid>(type: "uuid", nullable: false),
                    position = table.Column<int>(type: "integer", nullable: false),
                    fill = table.Column<string>(type: "text", nullable: false),
                    keeper = table.Column<string>(type: "text", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_seats", x => x.id);
                    table.ForeignKey(
                        name: "fk_seats_pages_page_id",
                        column: x => x.page_id,
                        principalTable: "pages",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "fk_seats_workspaces_workspace_id",
                        column: x => x.workspace_id,
                        principalTable: "workspaces",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "sessions",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    workspace_id = table.Column<Guid>(type: "uuid", nullable: false),
                    page_id = table.Column<Guid>(type: "uuid", nullable: false),
                    time = table.Column<NpgsqlRange<Instant>>(type: "tstzrange", nullable: false),
                    uid = table.Column<string>(type: "text", nullable: false),
                    sequence = table.Column<int>(type: "integer", nullable: false),
                    cancelled_at = table.Column<Instant>(type: "timestamp with time zone", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_sessions", x => x.id);
                    table.ForeignKey(
                        name: "fk_sessions_pages_page_id",
                        column: x => x.page_id,
                        principalTable: "pages",
                        principalColumn: "id");
                    table.ForeignKey(
                        name: "fk_sessions_workspaces_workspace_id",
                        column: x => x.workspace_id,
                        principalTable: "workspaces",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "links",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    workspace_id = table.Column<Guid>(type: "uuid", nullable: false),
                    guests = table.Column<string>(type: "jsonb", nullable: false),
                    guest_zone = table.Column<string>(type: "text", nullable: false),
                    guest_language = table.Column<string>(type: "text", nullable: false),
                    topic = table.Column<string>(type: "text", nullable: false),
                    secret_hash = table.Column<byte[]>(type: "bytea", nullable: false),
                    protected_secret = table.Column<string>(type: "text", nullable: false),
                    made_by = table.Column<Guid>(type: "uuid", nullable: true),
                    mailing_id = table.Column<Guid>(type: "uuid", nullable: true),
                    sent_by = table.Column<Guid>(type: "uuid", nullable: true),
                    made_at = table.Column<Instant>(type: "timestamp with time zone", nullable: false),
                    out_at = table.Column<Instant>(type: "timestamp with time zone", nullable: true),
                    given_at = table.Column<Instant>(type: "timestamp with time zone", nullable: true),
                    revoked_at = table.Column<Instant>(type: "timestamp with time zone", nullable: true),
                    ends_on = table.Column<LocalDate>(type: "date", nullable: false),
                    takes = table.Column<int>(type: "integer", nullable: false),
                    together = table.Column<bool>(type: "boolean", nullable: false),
                    reopens = table.Column<bool>(type: "boolean", nullable: false),
                    first_opened_at = table.Column<Instant>(type: "timestamp with time zone", nullable: true),
                    last_opened_at = table.Column<Instant>(type: "timestamp with time zone", nullable: true),
                    opened = table.Column<int>(type: "integer", nullable: false),
                    hold_until = table.Column<Instant>(type: "timestamp with time zone", nullable: true),
                    notes = table.Column<string>(type: "text", nullable: false),
                    started_from = table.Column<string>(type: "text", nullable: false),
                    is_among_ourselves = table.Column<bool>(type: "boolean", nullable: false),
                    text = table.Column<string>(type: "jsonb", nullable: false),
                    asked_again_at = table.Column<Instant>(type: "timestamp with time zone", nullable: true),
                    asked_again = table.Column<int>(type: "integer", nullable: false),
                    none_left_at = table.Column<Instant>(type: "timestamp with time zone", nullable: true),
                    check_due_at = table.Column<Instant>(type: "timestamp with time zone", nullable: false),
                    state = table.Column<string>(type: "text", nullable: false),
                    takes_more = table.Column<bool>(type: "boolean", nullable: false),
                    ends_at = table.Column<Instant>(type: "timestamp with time zone", nullable: true),
                    state_then = table.Column<string>(type: "text", nullable: false),
                    suits = table.Column<string>(type: "jsonb", nullable: false),
                    books_by_itself = table.Column<bool>(type: "boolean", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_links", x => x.id);
                    table.ForeignKey(
                        name: "fk_links_mailings_mailing_id",
                        column: x => x.mailing_id,
                        principalTable: "mailings",
                        principalColumn: "id",
                        onDelete: ReferentialAction.SetNull);
                    table.ForeignKey(
                        name: "fk_links_pages_id",
                        column: x => x.id,
                        principalTable: "pages",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "fk_links_workspaces_workspace_id",
                        column: x => x.workspace_id,
                        principalTable: "workspaces",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "seat_hosts",
                columns: table => new
                {
                    seat_id = table.Column<Guid>(type: "uuid", nullable: false),
                    host_id = table.Column<Guid>(type: "uuid", nullable: false),
                    workspace_id = table.Column<Guid>(type: "uuid", nullable: false),
                    position = table.Column<int>(type: "integer", nullable: false),
                    since = table.Column<Instant>(type: "timestamp with time zone", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_seat_hosts", x => new { x.seat_id, x.host_id });
                    table.ForeignKey(
                        name: "fk_seat_hosts_hosts_host_id",
                        column: x => x.host_id,
                        principalTable: "hosts",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "fk_seat_hosts_seats_seat_id",
                        column: x => x.seat_id,
                        principalTable: "seats",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "fk_seat_hosts_workspaces_workspace_id",
                        column: x => x.workspace_id,
                        principalTable: "workspaces",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "session_hosts",
                columns: table => new
                {
                    session_id = table.Column<Guid>(type: "uuid", nullable: false),
                    host_id = table.Column<Guid>(type: "uuid", nullable: false),
                    workspace_id = table.Column<Guid>(type: "uuid", nullable: false),
                    seat = table.Column<int>(type: "integer", nullable: false),
                    assigned_at = table.Column<Instant>(type: "timestamp with time zone", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_session_hosts", x => new { x.session_id, x.host_id });
                    table.ForeignKey(
                        name: "fk_session_hosts_hosts_host_id",
                        column: x => x.host_id,
                        principalTable: "hosts",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "fk_session_hosts_sessions_session_id",
                        column: x => x.session_id,
                        principalTable: "sessions",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "fk_session_hosts_workspaces_workspace_id",
                        column: x => x.workspace_id,
                        principalTable: "workspaces",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "video_rooms",
                columns: table => new
                {
                    session_id = table.Column<Guid>(type: "uuid", nullable: false),
                    workspace_id = table.Column<Guid>(type: "uuid", nullable: false),
                    link = table.Column<string>(type: "text", nullable: true),
                    code = table.Column<string>(type: "text", nullable: false),
                    is_wanted = table.Column<bool>(type: "boolean", nullable: false),
                    wish = table.Column<int>(type: "integer", nullable: false),
                    due_at = table.Column<Instant>(type: "timestamp with time zone", nullable: true),
                    working_until = table.Column<Instant>(type: "timestamp with time zone", nullable: true),
                    attempts = table.Column<int>(type: "integer", nullable: false),
                    fault = table.Column<string>(type: "text", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_video_rooms", x => x.session_id);
                    table.ForeignKey(
                        name: "fk_video_rooms_sessions_session_id",
                        column: x => x.session_id,
                        principalTable: "sessions",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "fk_video_rooms_workspaces_workspace_id",
                        column: x => x.workspace_id,
                        principalTable: "workspaces",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "written_events",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    workspace_id = table.Column<Guid>(type: "uuid", nullable: false),
                    host_id = table.Column<Guid>(type: "uuid", nullable: false),
                    calendar_id = table.Column<Guid>(type: "uuid", nullable: false),
                    uid = table.Column<string>(type: "text", nullable: false),
                    session_id = table.Column<Guid>(type: "uuid", nullable: true),
                    hold_id = table.Column<Guid>(type: "uuid", nullable: true),
                    hold_title = table.Column<string>(type: "text", nullable: false),
                    is_wanted = table.Column<bool>(type: "boolean", nullable: false),
                    is_left_off = table.Column<bool>(type: "boolean", nullable: false),
                    wish = table.Column<int>(type: "integer", nullable: false),
                    due_at = table.Column<Instant>(type: "timestamp with time zone", nullable: true),
                    writing_until = table.Column<Instant>(type: "timestamp with time zone", nullable: true),
                    attempts = table.Column<int>(type: "integer", nullable: false),
                    fault = table.Column<string>(type: "text", nullable: true),
                    path = table.Column<string>(type: "text", nullable: true),
                    entity_tag = table.Column<string>(type: "text", nullable: true),
                    written_start = table.Column<Instant>(type: "timestamp with time zone", nullable: true),
                    written_end = table.Column<Instant>(type: "timestamp with time zone", nullable: true),
                    tried_start = table.Column<Instant>(type: "timestamp with time zone", nullable: true),
                    tried_end = table.Column<Instant>(type: "timestamp with time zone", nullable: true),
                    outside = table.Column<string>(type: "text", nullable: false),
                    outside_start = table.Column<Instant>(type: "timestamp with time zone", nullable: true),
                    outside_end = table.Column<Instant>(type: "timestamp with time zone", nullable: true),
                    noticed_at = table.Column<Instant>(type: "timestamp with time zone", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_written_events", x => x.id);
                    table.ForeignKey(
                        name: "fk_written_events_calendars_calendar_id",
                        column: x => x.calendar_id,
                        principalTable: "calendars",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "fk_written_events_hosts_host_id",
                        column: x => x.host_id,
                        principalTable: "hosts",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "fk_written_events_sessions_session_id",
                        column: x => x.session_id,
                        principalTable: "sessions",
                        principalColumn: "id");
                    table.ForeignKey(
                        name: "fk_written_events_workspaces_workspace_id",
                        column: x => x.workspace_id,
                        principalTable: "workspaces",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "link_guests",
                columns: table => new
                {
                    link_id = table.Column<Guid>(type: "uuid", nullable: false),
                    place = table.Column<int>(type: "integer", nullable: false),
                    workspace_id = table.Column<Guid>(type: "uuid", nullable: false),
                    guest_id = table.Column<Guid>(type: "uuid", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_link_guests", x => new { x.link_id, x.place });
                    table.ForeignKey(
                        name: "fk_link_guests_guests_guest_id",
                        column: x => x.guest_id,
                        principalTable: "guests",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "fk_link_guests_links_link_id",
                        column: x => x.link_id,
                        principalTable: "links",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "fk_link_guests_workspaces_workspace_id",
                        column: x => x.workspace_id,
                        principalTable: "workspaces",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "messages",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    workspace_id = table.Column<Guid>(type: "uuid", nullable: false),
                    kind = table.Column<string>(type: "text", nullable: false),
                    booking_id = table.Column<Guid>(type: "uuid", nullable: true),
                    person_id = table.Column<Guid>(type: "uuid", nullable: true),
                    protected_secret = table.Column<string>(type: "text", nullable: true),
                    link_id = table.Column<Guid>(type: "uuid", nullable: true),
                    mailing_id = table.Column<Guid>(type: "uuid", nullable: true),
                    again_of = table.Column<Guid>(type: "uuid", nullable: true),
                    written_by = table.Column<Guid>(type: "uuid", nullable: true),
                    reply_secret_hash = table.Column<byte[]>(type: "bytea", nullable: true),
                    protected_reply_secret = table.Column<string>(type: "text", nullable: true),
                    file_ids = table.Column<Guid[]>(type: "uuid[]", nullable: false),
                    to_name = table.Column<string>(type: "text", nullable: false),
                    to_email = table.Column<string>(type: "text", nullable: false),
                    message_id = table.Column<string>(type: "text", nullable: false),
                    written_at = table.Column<Instant>(type: "timestamp with time zone", nullable: false),
                    due_at = table.Column<Instant>(type: "timestamp with time zone", nullable: false),
                    state = table.Column<string>(type: "text", nullable: false),
                    from_name = table.Column<string>(type: "text", nullable: false),
                    subject = table.Column<string>(type: "text", nullable: false),
                    text = table.Column<string>(type: "text", nullable: false),
                    html = table.Column<string>(type: "text", nullable: false),
                    calendar = table.Column<string>(type: "text", nullable: true),
                    more_calendars = table.Column<string[]>(type: "text[]", nullable: false),
                    calendar_method = table.Column<string>(type: "text", nullable: true),
                    held_back = table.Column<string>(type: "text", nullable: true),
                    let_out_at = table.Column<Instant>(type: "timestamp with time zone", nullable: true),
                    attempts = table.Column<int>(type: "integer", nullable: false),
                    fault = table.Column<string>(type: "text", nullable: true),
                    own_words_fault = table.Column<string>(type: "text", nullable: true),
                    sent_at = table.Column<Instant>(type: "timestamp with time zone", nullable: true),
                    act_id = table.Column<Guid>(type: "uuid", nullable: true),
                    sending_until = table.Column<Instant>(type: "timestamp with time zone", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_messages", x => x.id);
                    table.ForeignKey(
                        name: "fk_messages_bookings_booking_id",
                        column: x => x.booking_id,
                        principalTable: "bookings",
                        principalColumn: "id");
                    table.ForeignKey(
                        name: "fk_messages_links_link_id",
                        column: x => x.link_id,
                        principalTable: "links",
                        principalColumn: "id",
                        onDelete: ReferentialAction.SetNull);
                    table.ForeignKey(
                        name: "fk_messages_mailings_mailing_id",
                        column: x => x.mailing_id,
                        principalTable: "mailings",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "fk_messages_messages_again_of",
                        column: x => x.again_of,
                        principalTable: "messages",
                        principalColumn: "id",
                        onDelete: ReferentialAction.SetNull);
                    table.ForeignKey(
                        name: "fk_messages_workspaces_workspace_id",
                        column: x => x.workspace_id,
                        principalTable: "workspaces",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "wishes",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    workspace_id = table.Column<Guid>(type: "uuid", nullable: false),
                    link_id = table.Column<Guid>(type: "uuid", nullable: false),
                    start = table.Column<Instant>(type: "timestamp with time zone", nullable: false),
                    end = table.Column<Instant>(type: "timestamp with time zone", nullable: false),
                    words = table.Column<string>(type: "text", nullable: false),
                    by = table.Column<string>(type: "text", nullable: false),
                    at = table.Column<Instant>(type: "timestamp with time zone", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_wishes", x => x.id);
                    table.ForeignKey(
                        name: "fk_wishes_links_link_id",
                        column: x => x.link_id,
                        principalTable: "links",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "fk_wishes_workspaces_workspace_id",
                        column: x => x.workspace_id,
                        principalTable: "workspaces",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "incoming_mail",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    workspace_id = table.Column<Guid>(type: "uuid", nullable: false),
                    booking_id = table.Column<Guid>(type: "uuid", nullable: true),
                    message_id = table.Column<Guid>(type: "uuid", nullable: true),
                    received_at = table.Column<Instant>(type: "timestamp with time zone", nullable: false),
                    from_name = table.Column<string>(type: "text", nullable: false),
                    from_email = table.Column<string>(type: "text", nullable: false),
                    subject = table.Column<string>(type: "text", nullable: false),
                    text = table.Column<string>(type: "text", nullable: false),
                    calendar = table.Column<string>(type: "text", nullable: true),
                    meaning = table.Column<string>(type: "text", nullable: false),
                    not_understood = table.Column<string>(type: "text", nullable: true),
                    wish_start = table.Column<Instant>(type: "timestamp with time zone", nullable: true),
                    wish_end = table.Column<Instant>(type: "timestamp with time zone", nullable: true),
                    fingerprint = table.Column<byte[]>(type: "bytea", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_incoming_mail", x => x.id);
                    table.ForeignKey(
                        name: "fk_incoming_mail_bookings_booking_id",
                        column: x => x.booking_id,
                        principalTable: "bookings",
                        principalColumn: "id");
                    table.ForeignKey(
                        name: "fk_incoming_mail_messages_message_id",
                        column: x => x.message_id,
                        principalTable: "messages",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "fk_incoming_mail_workspaces_workspace_id",
                        column: x => x.workspace_id,
                        principalTable: "workspaces",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateIndex(
                name: "ix_acting_for_person_id",
                table: "acting_for",
                column: "person_id");

            migrationBuilder.CreateIndex(
                name: "ix_acting_for_workspace_id",
                table: "acting_for",
                column: "workspace_id");

            migrationBuilder.CreateIndex(
                name: "ix_address_proofs_person_id",
                table: "address_proofs",
                column: "person_id");

            migrationBuilder.CreateIndex(
                name: "ix_address_proofs_secret_hash",
                table: "address_proofs",
                column: "secret_hash",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "ix_address_proofs_workspace_id",
                table: "address_proofs",
                column: "workspace_id");

            migrationBuilder.CreateIndex(
                name: "ix_asp_net_user_claims_user_id",
                table: "AspNetUserClaims",
                column: "user_id");

            migrationBuilder.CreateIndex(
                name: "ix_asp_net_user_logins_user_id",
                table: "AspNetUserLogins",
                column: "user_id");

            migrationBuilder.CreateIndex(
                name: "EmailIndex",
                table: "AspNetUsers",
                column: "normalized_email");

            migrationBuilder.CreateIndex(
                name: "ix_asp_net_users_feed_secret_hash",
                table: "AspNetUsers",
                column: "feed_secret_hash",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "ix_asp_net_users_workspace_id",
                table: "AspNetUsers",
                column: "workspace_id");

            migrationBuilder.CreateIndex(
                name: "UserNameIndex",
                table: "AspNetUsers",
                column: "normalized_user_name",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "ix_blocks_page_id",
                table: "blocks",
                column: "page_id");

            migrationBuilder.CreateIndex(
                name: "ix_blocks_workspace_id",
                table: "blocks",
                column: "workspace_id");

            migrationBuilder.CreateIndex(
                name: "ix_booking_keys_booking_id",
                table: "booking_keys",
                column: "booking_id");

            migrationBuilder.CreateIndex(
                name: "ix_booking_keys_workspace_id",
                table: "booking_keys",
                column: "workspace_id");

            migrationBuilder.CreateIndex(
                name: "ix_booking_moves_booking_id",
                table: "booking_moves",
                column: "booking_id");

            migrationBuilder.CreateIndex(
                name: "ix_booking_moves_workspace_id",
                table: "booking_moves",
                column: "workspace_id");

            migrationBuilder.CreateIndex(
                name: "ix_booking_notes_booking_id",
                table: "booking_notes",
                column: "booking_id");

            migrationBuilder.CreateIndex(
                name: "ix_booking_notes_workspace_id",
                table: "booking_notes",
                column: "workspace_id");

            migrationBuilder.CreateIndex(
                name: "ix_bookings_answer_secret_hash",
                table: "bookings",
                column: "answer_secret_hash",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "ix_bookings_booker_id",
                table: "bookings",
                column: "booker_id");

            migrationBuilder.CreateIndex(
                name: "ix_bookings_guest_id",
                table: "bookings",
                column: "guest_id");

            migrationBuilder.CreateIndex(
                name: "ix_bookings_reply_secret_hash",
                table: "bookings",
                column: "reply_secret_hash",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "ix_bookings_secret_hash",
                table: "bookings",
                column: "secret_hash",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "ix_bookings_session_id",
                table: "bookings",
                column: "session_id");

            migrationBuilder.CreateIndex(
                name: "ix_bookings_waits_until",
                table: "bookings",
                column: "waits_until");

            migrationBuilder.CreateIndex(
                name: "ix_bookings_workspace_id",
                table: "bookings",
                column: "workspace_id");

            migrationBuilder.CreateIndex(
                name: "ix_calendar_accounts_workspace_id",
                table: "calendar_accounts",
                column: "workspace_id");

            migrationBuilder.CreateIndex(
                name: "ix_calendar_entries_calendar_id",
                table: "calendar_entries",
                column: "calendar_id");

            migrationBuilder.CreateIndex(
                name: "ix_calendar_entries_resource_id",
                table: "calendar_entries",
                column: "resource_id");

            migrationBuilder.CreateIndex(
                name: "ix_calendar_entries_workspace_id",
                table: "calendar_entries",
                column: "workspace_id");

            migrationBuilder.CreateIndex(
                name: "ix_calendar_entries_workspace_id_host_id_span",
                table: "calendar_entries",
                columns: new[] { "workspace_id", "host_id", "span" })
                .Annotation("Npgsql:IndexMethod", "gist");

            migrationBuilder.CreateIndex(
                name: "ix_calendar_hosts_host_id",
                table: "calendar_hosts",
                column: "host_id");

            migrationBuilder.CreateIndex(
                name: "ix_calendar_hosts_workspace_id",
                table: "calendar_hosts",
                column: "workspace_id");

            migrationBuilder.CreateIndex(
                name: "ix_calendar_resources_calendar_id",
                table: "calendar_resources",
                column: "calendar_id");

            migrationBuilder.CreateIndex(
                name: "ix_calendar_resources_workspace_id",
                table: "calendar_resources",
                column: "workspace_id");

            migrationBuilder.CreateIndex(
                name: "ix_calendar_resources_workspace_id_calendar_id_path",
                table: "calendar_resources",
                columns: new[] { "workspace_id", "calendar_id", "path" },
                unique: true);

            migrationBuilder.CreateIndex(
                name: "ix_calendars_account_id",
                table: "calendars",
                column: "account_id");

            migrationBuilder.CreateIndex(
                name: "ix_calendars_host_id",
                table: "calendars",
                column: "host_id");

            migrationBuilder.CreateIndex(
                name: "ix_calendars_next_look_at",
                table: "calendars",
                column: "next_look_at");

            migrationBuilder.CreateIndex(
                name: "ix_calendars_workspace_id",
                table: "calendars",
                column: "workspace_id");

            migrationBuilder.CreateIndex(
                name: "ix_commitments_held_until",
                table: "commitments",
                column: "held_until",
                filter: "held_until IS NOT NULL");

            migrationBuilder.CreateIndex(
                name: "ix_commitments_host_id",
                table: "commitments",
                column: "host_id");

            migrationBuilder.CreateIndex(
                name: "ix_commitments_workspace_id",
                table: "commitments",
                column: "workspace_id");

            migrationBuilder.CreateIndex(
                name: "ix_commitments_workspace_id_holder_id",
                table: "commitments",
                columns: new[] { "workspace_id", "holder_id" });

            migrationBuilder.CreateIndex(
                name: "desks_one_address",
                table: "desks",
                column: "address",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "desks_one_host_name",
                table: "desks",
                column: "host_name",
                unique: true,
                filter: "host_name_proven_at IS NOT NULL");

            migrationBuilder.CreateIndex(
                name: "ix_desks_host_id",
                table: "desks",
                column: "host_id");

            migrationBuilder.CreateIndex(
                name: "ix_desks_workspace_id",
                table: "desks",
                column: "workspace_id");

            migrationBuilder.CreateIndex(
                name: "ix_email_codes_page_id_email_made_at",
                table: "email_codes",
                columns: new[] { "page_id", "email", "made_at" });

            migrationBuilder.CreateIndex(
                name: "ix_email_codes_workspace_id",
                table: "email_codes",
                column: "workspace_id");

            migrationBuilder.CreateIndex(
                name: "ix_fact_changes_at",
                table: "fact_changes",
                column: "at");

            migrationBuilder.CreateIndex(
                name: "ix_fact_changes_xid",
                table: "fact_changes",
                column: "xid");

            migrationBuilder.CreateIndex(
                name: "ix_former_addresses_page_id",
                table: "former_addresses",
                column: "page_id");

            migrationBuilder.CreateIndex(
                name: "ix_former_addresses_workspace_id",
                table: "former_addresses",
                column: "workspace_id");

            migrationBuilder.CreateIndex(
                name: "ix_guest_emails_guest_id",
                table: "guest_emails",
                column: "guest_id");

            migrationBuilder.CreateIndex(
                name: "ix_guest_emails_workspace_id",
                table: "guest_emails",
                column: "workspace_id");

            migrationBuilder.CreateIndex(
                name: "ix_guest_erasures_guest_id",
                table: "guest_erasures",
                column: "guest_id");

            migrationBuilder.CreateIndex(
                name: "ix_guest_erasures_workspace_id",
                table: "guest_erasures",
                column: "workspace_id");

            migrationBuilder.CreateIndex(
                name: "ix_guest_import_rows_guest_id",
                table: "guest_import_rows",
                column: "guest_id");

            migrationBuilder.CreateIndex(
                name: "ix_guest_import_rows_workspace_id",
                table: "guest_import_rows",
                column: "workspace_id");

            migrationBuilder.CreateIndex(
                name: "ix_guest_imports_workspace_id",
                table: "guest_imports",
                column: "workspace_id");

            migrationBuilder.CreateIndex(
                name: "ix_guest_merges_gone_id",
                table: "guest_merges",
                column: "gone_id");

            migrationBuilder.CreateIndex(
                name: "ix_guest_merges_kept_id",
                table: "guest_merges",
                column: "kept_id");

            migrationBuilder.CreateIndex(
                name: "ix_guest_merges_workspace_id",
                table: "guest_merges",
                column: "workspace_id");

            migrationBuilder.CreateIndex(
                name: "ix_guest_notes_guest_id",
                table: "guest_notes",
                column: "guest_id");

            migrationBuilder.CreateIndex(
                name: "ix_guest_notes_workspace_id",
                table: "guest_notes",
                column: "workspace_id");

            migrationBuilder.CreateIndex(
                name: "ix_guests_keeper_id",
                table: "guests",
                column: "keeper_id");

            migrationBuilder.CreateIndex(
                name: "ix_guests_workspace_id",
                table: "guests",
                column: "workspace_id");

            migrationBuilder.CreateIndex(
                name: "ix_guests_workspace_id_booker_key_name_key",
                table: "guests",
                columns: new[] { "workspace_id", "booker_key", "name_key" },
                filter: "booker_key <> ''");

            migrationBuilder.CreateIndex(
                name: "ix_guests_workspace_id_made_at_id",
                table: "guests",
                columns: new[] { "workspace_id", "made_at", "id" },
                filter: "merged_into IS NULL");

            migrationBuilder.CreateIndex(
                name: "ix_guests_workspace_id_name_key_id",
                table: "guests",
                columns: new[] { "workspace_id", "name_key", "id" },
                filter: "merged_into IS NULL");

            migrationBuilder.CreateIndex(
                name: "ix_guests_workspace_id_phone_key",
                table: "guests",
                columns: new[] { "workspace_id", "phone_key" },
                filter: "phone_key <> ''");

            migrationBuilder.CreateIndex(
                name: "ix_hosts_busy_secret_hash",
                table: "hosts",
                column: "busy_secret_hash",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "ix_hosts_hours_id",
                table: "hosts",
                column: "hours_id");

            migrationBuilder.CreateIndex(
                name: "ix_hosts_person_id",
                table: "hosts",
                column: "person_id");

            migrationBuilder.CreateIndex(
                name: "ix_hosts_workspace_id",
                table: "hosts",
                column: "workspace_id");

            migrationBuilder.CreateIndex(
                name: "ix_hosts_written_calendar_id",
                table: "hosts",
                column: "written_calendar_id");

            migrationBuilder.CreateIndex(
                name: "ix_hours_workspace_id",
                table: "hours",
                column: "workspace_id");

            migrationBuilder.CreateIndex(
                name: "ix_incoming_mail_booking_id_fingerprint",
                table: "incoming_mail",
                columns: new[] { "booking_id", "fingerprint" },
                unique: true);

            migrationBuilder.CreateIndex(
                name: "ix_incoming_mail_message_id_fingerprint",
                table: "incoming_mail",
                columns: new[] { "message_id", "fingerprint" },
                unique: true,
                filter: "message_id IS NOT NULL");

            migrationBuilder.CreateIndex(
                name: "ix_incoming_mail_workspace_id",
                table: "incoming_mail",
                column: "workspace_id");

            migrationBuilder.CreateIndex(
                name: "ix_incoming_mail_workspace_id_booking_id_received_at",
                table: "incoming_mail",
                columns: new[] { "workspace_id", "booking_id", "received_at" });

            migrationBuilder.CreateIndex(
                name: "ix_invitations_secret_hash",
                table: "invitations",
                column: "secret_hash",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "ix_invitations_workspace_id",
                table: "invitations",
                column: "workspace_id");

            migrationBuilder.CreateIndex(
                name: "ix_letters_pattern_id",
                table: "letters",
                column: "pattern_id");

            migrationBuilder.CreateIndex(
                name: "ix_letters_person_id",
                table: "letters",
                column: "person_id");

            migrationBuilder.CreateIndex(
                name: "ix_letters_workspace_id",
                table: "letters",
                column: "workspace_id");

            migrationBuilder.CreateIndex(
                name: "ix_link_guests_guest_id",
                table: "link_guests",
                column: "guest_id");

            migrationBuilder.CreateIndex(
                name: "ix_link_guests_workspace_id",
                table: "link_guests",
                column: "workspace_id");

            migrationBuilder.CreateIndex(
                name: "ix_link_patterns_workspace_id",
                table: "link_patterns",
                column: "workspace_id");

            migrationBuilder.CreateIndex(
                name: "ix_links_check_due_at",
                table: "links",
                column: "check_due_at");

            migrationBuilder.CreateIndex(
                name: "ix_links_mailing_id",
                table: "links",
                column: "mailing_id");

            migrationBuilder.CreateIndex(
                name: "ix_links_secret_hash",
                table: "links",
                column: "secret_hash",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "ix_links_workspace_id",
                table: "links",
                column: "workspace_id");

            migrationBuilder.CreateIndex(
                name: "ix_links_workspace_id_ends_at",
                table: "links",
                columns: new[] { "workspace_id", "ends_at" });

            migrationBuilder.CreateIndex(
                name: "ix_links_workspace_id_made_at_id",
                table: "links",
                columns: new[] { "workspace_id", "made_at", "id" });

            migrationBuilder.CreateIndex(
                name: "ix_links_workspace_id_state",
                table: "links",
                columns: new[] { "workspace_id", "state" });

            migrationBuilder.CreateIndex(
                name: "ix_links_workspace_id_state_then",
                table: "links",
                columns: new[] { "workspace_id", "state_then" });

            migrationBuilder.CreateIndex(
                name: "ix_looked_for_workspace_id",
                table: "looked_for",
                column: "workspace_id");

            migrationBuilder.CreateIndex(
                name: "ix_mailings_page_id",
                table: "mailings",
                column: "page_id");

            migrationBuilder.CreateIndex(
                name: "ix_mailings_workspace_id",
                table: "mailings",
                column: "workspace_id");

            migrationBuilder.CreateIndex(
                name: "ix_mailings_workspace_id_sent_at_id",
                table: "mailings",
                columns: new[] { "workspace_id", "sent_at", "id" });

            migrationBuilder.CreateIndex(
                name: "ix_messages_again_of",
                table: "messages",
                column: "again_of",
                filter: "again_of IS NOT NULL");

            migrationBuilder.CreateIndex(
                name: "ix_messages_booking_id",
                table: "messages",
                column: "booking_id");

            migrationBuilder.CreateIndex(
                name: "ix_messages_booking_id_to_email",
                table: "messages",
                columns: new[] { "booking_id", "to_email" },
                filter: "state = 'Due'");

            migrationBuilder.CreateIndex(
                name: "ix_messages_due_at",
                table: "messages",
                column: "due_at",
                filter: "state = 'Gathered'");

            migrationBuilder.CreateIndex(
                name: "ix_messages_due_at_id",
                table: "messages",
                columns: new[] { "due_at", "id" },
                filter: "state = 'Due'");

            migrationBuilder.CreateIndex(
                name: "ix_messages_let_out_at",
                table: "messages",
                column: "let_out_at",
                filter: "let_out_at IS NOT NULL");

            migrationBuilder.CreateIndex(
                name: "ix_messages_link_id",
                table: "messages",
                column: "link_id",
                filter: "link_id IS NOT NULL");

            migrationBuilder.CreateIndex(
                name: "ix_messages_mailing_id",
                table: "messages",
                column: "mailing_id",
                filter: "mailing_id IS NOT NULL");

            migrationBuilder.CreateIndex(
                name: "ix_messages_reply_secret_hash",
                table: "messages",
                column: "reply_secret_hash",
                unique: true,
                filter: "reply_secret_hash IS NOT NULL");

            migrationBuilder.CreateIndex(
                name: "ix_messages_workspace_id",
                table: "messages",
                column: "workspace_id");

            migrationBuilder.CreateIndex(
                name: "ix_messages_workspace_id_due_at",
                table: "messages",
                columns: new[] { "workspace_id", "due_at" },
                filter: "state IN ('Due', 'Failed')");

            migrationBuilder.CreateIndex(
                name: "ix_messages_workspace_id_written_at_id",
                table: "messages",
                columns: new[] { "workspace_id", "written_at", "id" });

            migrationBuilder.CreateIndex(
                name: "ix_page_editions_page_id_number",
                table: "page_editions",
                columns: new[] { "page_id", "number" },
                unique: true);

            migrationBuilder.CreateIndex(
                name: "ix_page_editions_workspace_id",
                table: "page_editions",
                column: "workspace_id");

            migrationBuilder.CreateIndex(
                name: "ix_page_files_page_id",
                table: "page_files",
                column: "page_id");

            migrationBuilder.CreateIndex(
                name: "ix_page_files_workspace_id",
                table: "page_files",
                column: "workspace_id");

            migrationBuilder.CreateIndex(
                name: "ix_pages_desk_id",
                table: "pages",
                column: "desk_id");

            migrationBuilder.CreateIndex(
                name: "ix_pages_hours_id",
                table: "pages",
                column: "hours_id");

            migrationBuilder.CreateIndex(
                name: "ix_pages_workspace_id",
                table: "pages",
                column: "workspace_id");

            migrationBuilder.CreateIndex(
                name: "pages_one_address",
                table: "pages",
                columns: new[] { "workspace_id", "desk_id", "address" },
                unique: true);

            migrationBuilder.CreateIndex(
                name: "ix_password_resets_person_id",
                table: "password_resets",
                column: "person_id");

            migrationBuilder.CreateIndex(
                name: "ix_password_resets_secret_hash",
                table: "password_resets",
                column: "secret_hash",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "ix_password_resets_workspace_id",
                table: "password_resets",
                column: "workspace_id");

            migrationBuilder.CreateIndex(
                name: "ix_personal_addresses_page_id",
                table: "personal_addresses",
                column: "page_id");

            migrationBuilder.CreateIndex(
                name: "ix_personal_addresses_secret_hash",
                table: "personal_addresses",
                column: "secret_hash",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "ix_personal_addresses_workspace_id",
                table: "personal_addresses",
                column: "workspace_id");

            migrationBuilder.CreateIndex(
                name: "ix_pictures_workspace_id",
                table: "pictures",
                column: "workspace_id");

            migrationBuilder.CreateIndex(
                name: "ix_portraits_workspace_id",
                table: "portraits",
                column: "workspace_id");

            migrationBuilder.CreateIndex(
                name: "ix_record_for_hosts",
                table: "record",
                column: "for_hosts")
                .Annotation("Npgsql:IndexMethod", "gin");

            migrationBuilder.CreateIndex(
                name: "ix_record_workspace_id",
                table: "record",
                column: "workspace_id");

            migrationBuilder.CreateIndex(
                name: "ix_record_workspace_id_at_id",
                table: "record",
                columns: new[] { "workspace_id", "at", "id" });

            migrationBuilder.CreateIndex(
                name: "ix_record_workspace_id_subject_id_at",
                table: "record",
                columns: new[] { "workspace_id", "subject_id", "at" });

            migrationBuilder.CreateIndex(
                name: "ix_saved_views_workspace_id",
                table: "saved_views",
                column: "workspace_id");

            migrationBuilder.CreateIndex(
                name: "ix_seat_hosts_host_id",
                table: "seat_hosts",
                column: "host_id");

            migrationBuilder.CreateIndex(
                name: "ix_seat_hosts_workspace_id",
                table: "seat_hosts",
                column: "workspace_id");

            migrationBuilder.CreateIndex(
                name: "ix_seats_page_id",
                table: "seats",
                column: "page_id");

            migrationBuilder.CreateIndex(
                name: "ix_seats_workspace_id",
                table: "seats",
                column: "workspace_id");

            migrationBuilder.CreateIndex(
                name: "ix_session_hosts_host_id_assigned_at",
                table: "session_hosts",
                columns: new[] { "host_id", "assigned_at" });

            migrationBuilder.CreateIndex(
                name: "ix_session_hosts_workspace_id",
                table: "session_hosts",
                column: "workspace_id");

            migrationBuilder.CreateIndex(
                name: "ix_sessions_page_id",
                table: "sessions",
                column: "page_id");

            migrationBuilder.CreateIndex(
                name: "ix_sessions_workspace_id",
                table: "sessions",
                column: "workspace_id");

            migrationBuilder.CreateIndex(
                name: "ix_sessions_workspace_id_page_id_time",
                table: "sessions",
                columns: new[] { "workspace_id", "page_id", "time" })
                .Annotation("Npgsql:IndexMethod", "gist");

            migrationBuilder.CreateIndex(
                name: "ix_sign_up_links_due_at",
                table: "sign_up_links",
                column: "due_at");

            migrationBuilder.CreateIndex(
                name: "ix_sign_up_links_secret_hash",
                table: "sign_up_links",
                column: "secret_hash",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "ix_signed_in_person_id",
                table: "signed_in",
                column: "person_id");

            migrationBuilder.CreateIndex(
                name: "ix_signed_in_workspace_id",
                table: "signed_in",
                column: "workspace_id");

            migrationBuilder.CreateIndex(
                name: "ix_tellings_page_id",
                table: "tellings",
                column: "page_id");

            migrationBuilder.CreateIndex(
                name: "ix_tellings_workspace_id",
                table: "tellings",
                column: "workspace_id");

            migrationBuilder.CreateIndex(
                name: "ix_undo_acts_person_id_until",
                table: "undo_acts",
                columns: new[] { "person_id", "until" });

            migrationBuilder.CreateIndex(
                name: "ix_undo_acts_workspace_id",
                table: "undo_acts",
                column: "workspace_id");

            migrationBuilder.CreateIndex(
                name: "ix_undo_rows_act_id",
                table: "undo_rows",
                column: "act_id");

            migrationBuilder.CreateIndex(
                name: "ix_undo_rows_workspace_id",
                table: "undo_rows",
                column: "workspace_id");

            migrationBuilder.CreateIndex(
                name: "ix_unread_events_calendar_id",
                table: "unread_events",
                column: "calendar_id");

            migrationBuilder.CreateIndex(
                name: "ix_unread_events_resource_id",
                table: "unread_events",
                column: "resource_id");

            migrationBuilder.CreateIndex(
                name: "ix_unread_events_workspace_id",
                table: "unread_events",
                column: "workspace_id");

            migrationBuilder.CreateIndex(
                name: "ix_video_rooms_due_at",
                table: "video_rooms",
                column: "due_at");

            migrationBuilder.CreateIndex(
                name: "ix_video_rooms_workspace_id",
                table: "video_rooms",
                column: "workspace_id");

            migrationBuilder.CreateIndex(
                name: "ix_wishes_link_id",
                table: "wishes",
                column: "link_id");

            migrationBuilder.CreateIndex(
                name: "ix_wishes_workspace_id",
                table: "wishes",
                column: "workspace_id");

            migrationBuilder.CreateIndex(
                name: "ix_workspaces_retention_due_at",
                table: "workspaces",
                column: "retention_due_at",
                filter: "retention_due_at IS NOT NULL");

            migrationBuilder.CreateIndex(
                name: "ix_written_events_calendar_id",
                table: "written_events",
                column: "calendar_id");

            migrationBuilder.CreateIndex(
                name: "ix_written_events_due_at",
                table: "written_events",
                column: "due_at");

            migrationBuilder.CreateIndex(
                name: "ix_written_events_hold_id",
                table: "written_events",
                column: "hold_id",
                filter: "hold_id IS NOT NULL");

            migrationBuilder.CreateIndex(
                name: "ix_written_events_host_id",
                table: "written_events",
                column: "host_id");

            migrationBuilder.CreateIndex(
                name: "ix_written_events_session_id",
                table: "written_events",
                column: "session_id");

            migrationBuilder.CreateIndex(
                name: "ix_written_events_workspace_id",
                table: "written_events",
                column: "workspace_id");

            migrationBuilder.CreateIndex(
                name: "ix_written_events_workspace_id_uid_host_id",
                table: "written_events",
                columns: new[] { "workspace_id", "uid", "host_id" },
                unique: true);

            migrationBuilder.AddForeignKey(
                name: "fk_acting_for_hosts_host_id",
                table: "acting_for",
                column: "host_id",
                principalTable: "hosts",
                principalColumn: "id",
                onDelete: ReferentialAction.Cascade);

            migrationBuilder.AddForeignKey(
                name: "fk_blocks_pages_page_id",
                table: "blocks",
                column: "page_id",
                principalTable: "pages",
                principalColumn: "id",
                onDelete: ReferentialAction.Cascade);

            migrationBuilder.AddForeignKey(
                name: "fk_booking_keys_bookings_booking_id",
                table: "booking_keys",
                column: "booking_id",
                principalTable: "bookings",
                principalColumn: "id",
                onDelete: ReferentialAction.Cascade);

            migrationBuilder.AddForeignKey(
                name: "fk_booking_moves_bookings_booking_id",
                table: "booking_moves",
                column: "booking_id",
                principalTable: "bookings",
                principalColumn: "id",
                onDelete: ReferentialAction.Cascade);

            migrationBuilder.AddForeignKey(
                name: "fk_booking_notes_bookings_booking_id",
                table: "booking_notes",
                column: "booking_id",
                principalTable: "bookings",
                principalColumn: "id",
                onDelete: ReferentialAction.Cascade);

            migrationBuilder.AddForeignKey(
                name: "fk_bookings_sessions_session_id",
                table: "bookings",
                column: "session_id",
                principalTable: "sessions",
                principalColumn: "id",
                onDelete: ReferentialAction.Cascade);

            migrationBuilder.AddForeignKey(
                name: "fk_calendar_entries_calendar_resources_resource_id",
                table: "calendar_entries",
                column: "resource_id",
                principalTable: "calendar_resources",
                principalColumn: "id",
                onDelete: ReferentialAction.Cascade);

            migrationBuilder.AddForeignKey(
                name: "fk_calendar_entries_calendars_calendar_id",
                table: "calendar_entries",
                column: "calendar_id",
                principalTable: "calendars",
                principalColumn: "id",
                onDelete: ReferentialAction.Cascade);

            migrationBuilder.AddForeignKey(
                name: "fk_calendar_hosts_calendars_calendar_id",
                table: "calendar_hosts",
                column: "calendar_id",
                principalTable: "calendars",
                principalColumn: "id",
                onDelete: ReferentialAction.Cascade);

            migrationBuilder.AddForeignKey(
                name: "fk_calendar_hosts_hosts_host_id",
                table: "calendar_hosts",
                column: "host_id",
                principalTable: "hosts",
                principalColumn: "id",
                onDelete: ReferentialAction.Cascade);

            migrationBuilder.AddForeignKey(
                name: "fk_calendar_resources_calendars_calendar_id",
                table: "calendar_resources",
                column: "calendar_id",
                principalTable: "calendars",
                principalColumn: "id",
                onDelete: ReferentialAction.Cascade);

            migrationBuilder.AddForeignKey(
                name: "fk_calendars_hosts_host_id",
                table: "calendars",
                column: "host_id",
                principalTable: "hosts",
                principalColumn: "id");

            // What EF has no words for: two holders never have one host at one time, while all that one holder keeps may
            // overlap itself, as times that one link holds do.
            migrationBuilder.Sql("""
                ALTER TABLE commitments ADD CONSTRAINT commitments_no_double_booking
                EXCLUDE USING gist (host_id WITH =, holder_id WITH <>, span WITH &&);
                CREATE INDEX ix_bookings_guest ON bookings (workspace_id, upper(guest_email));
                CREATE INDEX ix_bookings_booker ON bookings (workspace_id, upper(booker_email)) WHERE booker_email <> '';
                """);
            migrationBuilder.Sql(ListIndexes.Sql);
            migrationBuilder.Sql(FactChangeTriggers.Sql);
            migrationBuilder.Sql(GuestTriggers.Sql);
            migrationBuilder.Sql(UndoTriggers.Sql);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropForeignKey(
                name: "fk_hosts_asp_net_users_person_id",
                table: "hosts");

            migrationBuilder.DropForeignKey(
                name: "fk_calendars_hosts_host_id",
                table: "calendars");

            migrationBuilder.DropTable(
                name: "acting_for");

            migrationBuilder.DropTable(
                name: "address_proofs");

            migrationBuilder.DropTable(
                name: "AspNetUserClaims");

            migrationBuilder.DropTable(
                name: "AspNetUserLogins");

            migrationBuilder.DropTable(
                name: "AspNetUserTokens");

            migrationBuilder.DropTable(
                name: "blocks");

            migrationBuilder.DropTable(
                name: "booking_keys");

            migrationBuilder.DropTable(
                name: "booking_moves");

            migrationBuilder.DropTable(
                name: "booking_notes");

            migrationBuilder.DropTable(
                name: "calendar_entries");

            migrationBuilder.DropTable(
                name: "calendar_hosts");

            migrationBuilder.DropTable(
                name: "commitments");

            migrationBuilder.DropTable(
                name: "data_protection_keys");

            migrationBuilder.DropTable(
                name: "email_codes");

            migrationBuilder.DropTable(
                name: "fact_changes");

            migrationBuilder.DropTable(
                name: "former_addresses");

            migrationBuilder.DropTable(
                name: "guest_emails");

            migrationBuilder.DropTable(
                name: "guest_erasures");

            migrationBuilder.DropTable(
                name: "guest_import_rows");

            migrationBuilder.DropTable(
                name: "guest_merges");

            migrationBuilder.DropTable(
                name: "guest_notes");

            migrationBuilder.DropTable(
                name: "incoming_mail");

            migrationBuilder.DropTable(
                name: "invitations");

            migrationBuilder.DropTable(
                name: "letters");

            migrationBuilder.DropTable(
                name: "link_guests");

            migrationBuilder.DropTable(
                name: "looked_for");

            migrationBuilder.DropTable(
                name: "page_editions");

            migrationBuilder.DropTable(
                name: "page_files");

            migrationBuilder.DropTable(
                name: "password_resets");

            migrationBuilder.DropTable(
                name: "personal_addresses");

            migrationBuilder.DropTable(
                name: "pictures");

            migrationBuilder.DropTable(
                name: "portraits");

            migrationBuilder.DropTable(
                name: "record");

            migrationBuilder.DropTable(
                name: "saved_views");

            migrationBuilder.DropTable(
                name: "seat_hosts");

            migrationBuilder.DropTable(
                name: "session_hosts");

            migrationBuilder.DropTable(
                name: "sign_in_tries");

            migrationBuilder.DropTable(
                name: "sign_up_links");

            migrationBuilder.DropTable(
                name: "signed_in");

            migrationBuilder.DropTable(
                name: "tellings");

            migrationBuilder.DropTable(
                name: "undo_rows");

            migrationBuilder.DropTable(
                name: "unread_events");

            migrationBuilder.DropTable(
                name: "video_rooms");

            migrationBuilder.DropTable(
                name: "wishes");

            migrationBuilder.DropTable(
                name: "written_events");

            migrationBuilder.DropTable(
                name: "guest_imports");

            migrationBuilder.DropTable(
                name: "messages");

            migrationBuilder.DropTable(
                name: "link_patterns");

            migrationBuilder.DropTable(
                name: "seats");

            migrationBuilder.DropTable(
                name: "undo_acts");

            migrationBuilder.DropTable(
                name: "calendar_resources");

            migrationBuilder.DropTable(
                name: "bookings");

            migrationBuilder.DropTable(
                name: "links");

            migrationBuilder.DropTable(
                name: "guests");

            migrationBuilder.DropTable(
                name: "sessions");

            migrationBuilder.DropTable(
                name: "mailings");

            migrationBuilder.DropTable(
                name: "pages");

            migrationBuilder.DropTable(
                name: "desks");

            migrationBuilder.DropTable(
                name: "AspNetUsers");

            migrationBuilder.DropTable(
                name: "hosts");

            migrationBuilder.DropTable(
                name: "calendars");

            migrationBuilder.DropTable(
                name: "hours");

            migrationBuilder.DropTable(
                name: "calendar_accounts");

            migrationBuilder.DropTable(
                name: "workspaces");
        }
    }
}
