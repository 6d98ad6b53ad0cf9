using Microsoft.EntityFrameworkCore;

namespace Server.Tests;

/// <summary>
/// Of every column that can hold words it is known whether guests may be in it. Whoever adds one says so here, and
/// where they may be, erasing takes them out (<see cref="LooseLantern.Server.Features.GuestBook.Erasing.ErasedRows"/>)
/// and <see cref="ErasingTests"/> puts them in.
/// </summary>
public sealed class ErasedColumnsTests(World world)
{
    private static readonly Dictionary<string, string> OfGuests = new()
    {
        ["booking_keys"] = "key request_hash",
        ["booking_notes"] = "person_name text",
        ["bookings"] =
            "answers booker_email booker_name cancel_word companions flags guest_email guest_name protected_reply_secret protected_secret reply_secret_hash secret_hash",
        ["calendar_resources"] = "body",
        ["email_codes"] = "code_hash email",
        ["guest_emails"] = "email key",
        ["guest_import_rows"] = "before emails",
        ["guest_imports"] = "bytes file_name",
        ["guest_merges"] = "person_name things",
        ["guest_notes"] = "person_name text",
        ["guests"] = "booker_key clock fields language name name_key organisation phone phone_key source zone",
        ["incoming_mail"] = "calendar fingerprint from_email from_name meaning not_understood subject text",
        ["links"] = "guests notes started_from suits topic",
        ["mailings"] = "started_from title",
        ["messages"] = "calendar html more_calendars subject text to_email to_name",
        ["pages"] = "description details place post questions title",
        ["personal_addresses"] = "email name secret_hash",
        ["record"] = "what",
        ["saved_views"] = "filter name",
        ["tellings"] = "telling",
        ["undo_rows"] = "after before",
        ["wishes"] = "by words",
        ["written_events"] = "hold_title",
    };

    private static readonly Dictionary<string, string> NeverOfGuests = new()
    {
        ["address_proofs"] = "secret_hash",
        ["blocks"] = "rule",
        ["bookings"] =
            "answer_secret_hash cancelled_by guest_clock guest_language guest_zone mail_to outcome protected_answer_secret reply",
        ["calendar_accounts"] = "protected_password url user_name",
        ["calendar_entries"] = "title",
        ["calendar_resources"] = "entity_tag own path",
        ["calendars"] = "collection_url entity_tag fault kind name protected_address source sync_token",
        ["commitments"] = "kind",
        ["data_protection_keys"] = "friendly_name xml",
        ["desks"] = "accent address framers host_name host_name_mark intro name",
        ["former_addresses"] = "address",
        ["guest_erasures"] = "email_hashes",
        ["guest_imports"] = "columns person_name state",
        ["hosts"] = "busy_secret_hash kind name protected_busy_secret zone",
        ["hours"] = "document name",
        ["invitations"] = "email name protected_secret secret_hash",
        ["letters"] = "body name subject",
        ["link_patterns"] = "form name",
        ["links"] = "guest_language guest_zone protected_secret secret_hash state state_then text",
        ["looked_for"] = "part",
        ["messages"] =
            "calendar_method fault from_name held_back kind message_id own_words_fault protected_reply_secret protected_secret reply_secret_hash state",
        ["page_editions"] = "by form",
        ["page_files"] = "bytes media_type name",
        ["pages"] =
            "address calendar_choices changes draft hours_mode mark offer place_kind state step_from window zone",
        ["password_resets"] = "secret_hash",
        ["pictures"] = "bytes kind media_type",
        ["portraits"] = "bytes media_type",
        ["record"] = "person_name",
        ["saved_views"] = "of",
        ["seats"] = "fill keeper",
        ["sessions"] = "uid",
        ["sign_in_tries"] = "key",
        ["undo_acts"] = "whole",
        ["undo_rows"] = "key of",
        ["sign_up_links"] = "email fault language protected_secret secret_hash",
        ["signed_in"] = "device network_address",
        ["unread_events"] = "fault title",
        ["video_rooms"] = "code fault link",
        ["workspaces"] = "first_steps guest_fields guest_retention kinds name usual zone",
        ["written_events"] = "entity_tag fault outside path uid",
    };

    [Fact]
    public async Task Of_every_column_with_words_it_is_known_whether_guests_are_in_it() => (
            await world.LookAsync(db =>
                db.Database.SqlQuery<string>(
                        $"""
                        SELECT table_name || '.' || column_name AS "Value" FROM information_schema.columns
                        WHERE table_schema = 'public' AND (data_type IN ('text', 'jsonb', 'bytea', 'character varying') OR udt_name IN ('_text', '_bytea'))
                            AND table_name NOT LIKE 'AspNet%' AND table_name <> '__EFMigrationsHistory'
                        """
                    )
                    .ToListAsync()
            )
        ).Order(StringComparer.Ordinal).ShouldBe(OfGuests.Concat(NeverOfGuests).SelectMany(table => table.Value.Split(' ').Select(column => $"{table.Key}.{column}")).Order(StringComparer.Ordinal));
}
