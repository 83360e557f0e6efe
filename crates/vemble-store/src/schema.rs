//! The tables, as the migrations make them.

diesel::table! {
    accounts (id) {
        id -> Uuid,
        name -> Text,
        is_example -> Bool,
        email -> Nullable<Text>,
        password_hash -> Nullable<Text>,
        is_household -> Bool,
        ends_at -> Nullable<Timestamptz>,
    }
}
diesel::table! {
    wearers (account_id, id) {
        account_id -> Uuid, id -> Uuid, version -> Integer, format -> Integer, facts -> Jsonb,
    }
}
diesel::table! {
    garments (account_id, id) {
        account_id -> Uuid, id -> Uuid, wearer_id -> Uuid, version -> Integer, archived -> Bool,
    }
}
diesel::table! {
    garment_states (account_id, garment_id, id) {
        account_id -> Uuid,
        garment_id -> Uuid,
        id -> Uuid,
        position -> Integer,
        revision -> Integer,
        format -> Integer,
        facts -> Jsonb,
    }
}
diesel::table! {
    record_entries (account_id, garment_id, id) {
        account_id -> Uuid,
        garment_id -> Uuid,
        id -> Uuid,
        position -> Integer,
        format -> Integer,
        facts -> Jsonb,
    }
}
diesel::table! {
    workrooms (account_id) {
        account_id -> Uuid,
        version -> Integer,
        format -> Integer,
        facts -> Jsonb,
        calendar_hash -> Nullable<Bytea>,
    }
}
diesel::table! {
    wishes (account_id, garment_id) {
        account_id -> Uuid, garment_id -> Uuid, version -> Integer, format -> Integer, facts -> Jsonb,
    }
}
diesel::table! {
    log_entries (account_id, garment_id, id) {
        account_id -> Uuid,
        garment_id -> Uuid,
        id -> Uuid,
        position -> Integer,
        format -> Integer,
        facts -> Jsonb,
    }
}
diesel::table! {
    try_ons (account_id, id) {
        account_id -> Uuid,
        id -> Uuid,
        garment_id -> Uuid,
        state_id -> Uuid,
        version -> Integer,
        format -> Integer,
        facts -> Jsonb,
    }
}
diesel::table! {
    readings (account_id, id) {
        account_id -> Uuid,
        id -> Uuid,
        try_on_id -> Uuid,
        change -> Integer,
        position -> Integer,
        side -> Text,
        station_nm -> BigInt,
        station_unit -> Text,
        amount_nm -> BigInt,
        amount_unit -> Text,
        how -> Text,
    }
}
diesel::table! {
    photos (account_id, id) {
        account_id -> Uuid,
        id -> Uuid,
        garment_id -> Uuid,
        moment -> Text,
        pair_id -> Nullable<Uuid>,
        caption -> Text,
        width -> Integer,
        height -> Integer,
        try_on_id -> Nullable<Uuid>,
        media_type -> Text,
        image -> Bytea,
        thumbnail -> Bytea,
    }
}
diesel::table! {
    invitations (account_id, id) {
        account_id -> Uuid,
        id -> Uuid,
        garment_id -> Uuid,
        try_on_id -> Uuid,
        may_add -> Bool,
        code_hash -> Bytea,
        ends_at -> Timestamptz,
    }
}
diesel::table! {
    sessions (account_id, id) {
        account_id -> Uuid,
        id -> Uuid,
        token_hash -> Bytea,
        device -> Text,
        created_at -> Timestamptz,
        seen_at -> Timestamptz,
        invitation_id -> Nullable<Uuid>,
    }
}
diesel::table! {
    sign_up_codes (code_hash) { code_hash -> Bytea, ends_at -> Timestamptz }
}
diesel::table! {
    tapes (account_id) { account_id -> Uuid, serial -> Text }
}
diesel::joinable!(sessions -> accounts (account_id));
diesel::allow_tables_to_appear_in_same_query!(
    accounts,
    wearers,
    garments,
    garment_states,
    try_ons,
    readings,
    photos,
    sessions,
    wishes
);
