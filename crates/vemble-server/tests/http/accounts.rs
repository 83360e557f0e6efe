//! Accounts: made, entered, left, and apart from each other.

use super::*;

#[derive(diesel::QueryableByName)]
struct Count {
    #[diesel(sql_type = diesel::sql_types::BigInt)]
    rows: i64,
}

#[actix_web::test]
async fn the_database_itself_keeps_accounts_apart() {
    use diesel_async::RunQueryDsl;
    let server = running().await;
    server.sign_up("odile").await;
    let (_, garment) = server.wearer_with_skirt().await;
    let on = server.state_of(&garment).await;
    let try_on = json!({ "version": 0, "try_on": { "date": "2026-10-03", "state": on, "changes": [{ "seam": { "seam": "side_seam", "readings": [
        { "side": "left", "station": "10 cm", "amount": "1 cm", "how": "fold" },
    ] } }] } });
    server.put(&format!("/garments/{garment}/try-ons/{}", Uuid::now_v7()), &try_on).await;
    server.photo(&garment, Uuid::now_v7(), png()).await;
    let bram = server.somebody_else();
    bram.sign_up("bram").await;
    let who = server.store.credentials("bram@example.org").await.unwrap().unwrap().id;

    let mut connection = AsyncPgConnection::establish(&server.database).await.unwrap();
    let count = async |connection: &mut AsyncPgConnection, table: &str| {
        let query = diesel::sql_query(format!("SELECT count(*) AS rows FROM {table}"));
        query.get_result::<Count>(connection).await.unwrap().rows
    };
    let tables = ["wearers", "garments", "try_ons", "readings", "photos"];
    assert_eq!(count(&mut connection, "garment_states").await, 1);
    for table in tables {
        assert_eq!(count(&mut connection, table).await, 1, "{table}, as its owner");
    }
    // As the role that serves requests, speaking for the other account, without naming any account in the query.
    connection.batch_execute("SET ROLE vemble_app").await.unwrap();
    for speaks_for in [String::new(), who.to_string()] {
        let speak = format!("SELECT set_config('vemble.account', '{speaks_for}', false)");
        connection.batch_execute(&speak).await.unwrap();
        for table in tables {
            assert_eq!(count(&mut connection, table).await, 0, "{table} read");
            let column = if table == "readings" { "how = how" } else { "id = id" };
            let changed =
                diesel::sql_query(format!("UPDATE {table} SET {column}")).execute(&mut connection).await;
            assert_eq!(changed.unwrap(), 0, "{table} changed");
            let removed = diesel::sql_query(format!("DELETE FROM {table}")).execute(&mut connection).await;
            assert_eq!(removed.unwrap(), 0, "{table} removed");
        }
        let accounts = i64::from(!speaks_for.is_empty());
        assert_eq!(count(&mut connection, "accounts").await, accounts, "and no account but one's own");
        let smuggled = "INSERT INTO wearers (account_id, id, format, facts) SELECT gen_random_uuid(), gen_random_uuid(), 2, '{}'";
        assert!(connection.batch_execute(smuggled).await.is_err(), "nothing is put into another account");
    }
    let lifted = "ALTER TABLE wearers DISABLE ROW LEVEL SECURITY";
    assert!(connection.batch_execute(lifted).await.is_err(), "nor is the lock lifted");
}

#[actix_web::test]
async fn an_account_is_made_entered_left_and_removed() {
    let odile = running().await;
    let new = |name: &str, email: &str, password: &str| json!({ "name": name, "email": email, "password": password });
    for (body, path) in [
        (new("", "odile@example.org", PASSWORD), "name"),
        (new("Odile", "no address", PASSWORD), "email"),
        (new("Odile", "odile@example.org", "too short"), "password"),
    ] {
        let (status, problem) = odile.post("/accounts", &body).await;
        assert_eq!((status, &problem["errors"][0]["path"]), (StatusCode::UNPROCESSABLE_ENTITY, &json!(path)));
    }
    odile.sign_up("odile").await;
    let (_, who) = odile.get("/session").await;
    assert_eq!(
        who,
        json!({ "name": "odile", "email": "odile@example.org", "example": false, "household": false })
    );
    // Whoever signs up with her address is told no more than anybody, and gets nowhere with it.
    let other = odile.somebody_else();
    let twice = other.post("/accounts", &new("Other", " ODILE@example.org", "guess what I am called")).await;
    assert_eq!(twice, (StatusCode::ACCEPTED, Value::Null));
    let guess = json!({ "email": "odile@example.org", "password": "guess what I am called" });
    assert_eq!(other.post("/session", &guess).await.0, StatusCode::UNAUTHORIZED);

    // Elsewhere, with the right password and with wrong ones.
    let elsewhere = odile.somebody_else();
    let enter = |email: &str, password: &str| json!({ "email": email, "password": password });
    for body in [enter("odile@example.org", "not this one"), enter("nobody@example.org", PASSWORD)] {
        let (status, problem) = elsewhere.post("/session", &body).await;
        assert_eq!((status, &problem["type"]), (StatusCode::UNAUTHORIZED, &json!("wrong-password")));
    }
    assert_eq!(elsewhere.post("/session", &enter("Odile@Example.org", PASSWORD)).await.0, StatusCode::OK);
    let cookie = elsewhere.client.post(format!("{}/session", odile.base));
    let cookie = cookie.json(&enter("odile@example.org", PASSWORD)).send().await.unwrap();
    let cookie = cookie.headers()["set-cookie"].to_str().unwrap().to_owned();
    assert!(cookie.contains("HttpOnly") && cookie.contains("SameSite=Strict"), "{cookie}");

    // A changed password ends every other session.
    let next = "another seven garments";
    let wrong = odile.put("/account/password", &json!({ "old": "guessed", "new": next })).await;
    assert_eq!((wrong.0, &wrong.1["errors"][0]["path"]), (StatusCode::UNPROCESSABLE_ENTITY, &json!("old")));
    let changed = odile.put("/account/password", &json!({ "old": PASSWORD, "new": next })).await;
    assert_eq!(changed.0, StatusCode::NO_CONTENT);
    assert_eq!(odile.get("/rail").await.0, StatusCode::OK);
    assert_eq!(elsewhere.get("/rail").await.0, StatusCode::UNAUTHORIZED);

    // Leaving takes everything along.
    odile.wearer_with_skirt().await;
    assert_eq!(
        odile.delete("/account", &json!({ "password": PASSWORD })).await.0,
        StatusCode::UNPROCESSABLE_ENTITY
    );
    assert_eq!(odile.delete("/account", &json!({ "password": next })).await.0, StatusCode::NO_CONTENT);
    assert_eq!(odile.get("/session").await.0, StatusCode::UNAUTHORIZED);
    assert!(odile.store.credentials("odile@example.org").await.unwrap().is_none());
    let (status, _) = elsewhere.post("/session", &enter("odile@example.org", next)).await;
    assert_eq!(status, StatusCode::UNAUTHORIZED);
    // The example has no password: nobody can change or remove it.
    let visitor = odile.somebody_else();
    assert_eq!(visitor.post("/example/session", &json!({})).await.0, StatusCode::OK);
    assert_eq!(
        visitor.delete("/account", &json!({ "password": "" })).await.0,
        StatusCode::UNPROCESSABLE_ENTITY
    );
}

#[actix_web::test]
async fn passwords_cannot_be_guessed_at_will_nor_sent_from_another_site() {
    let server = running().await;
    server.sign_up("odile").await;
    let guess = json!({ "email": "odile@example.org", "password": "is it this?" });
    let mut last = (StatusCode::OK, Value::Null);
    for _ in 0..12 {
        last = server.somebody_else().post("/session", &guess).await;
    }
    assert_eq!((last.0, &last.1["type"]), (StatusCode::TOO_MANY_REQUESTS, &json!("too-often")));
    assert!(last.1["detail"].as_str().unwrap().starts_with("Try again in "));
    assert_eq!(server.get("/rail").await.0, StatusCode::OK, "whoever is in stays in");

    let path = format!("{}/session", server.base);
    let forged = server.client.delete(path).header("sec-fetch-site", "cross-site").send().await.unwrap();
    assert_eq!(forged.status(), StatusCode::FORBIDDEN);
    assert_eq!(server.get("/session").await.0, StatusCode::OK);
}

#[actix_web::test]
async fn a_household_needs_no_password_and_stays_at_home() {
    let home = serving(true).await;
    let (status, who) = home.get("/session").await;
    assert_eq!((status, &who["household"]), (StatusCode::OK, &json!(true)));
    let (_, garment) = home.wearer_with_skirt().await;
    let sister = home.somebody_else();
    assert_eq!(sister.get(&format!("/garments/{garment}")).await.0, StatusCode::OK, "one rail for all");
    let listener = TcpListener::bind("0.0.0.0:0").unwrap();
    let store = home.store.clone();
    let config = Config { household: true, ..Config::at(listener, store).unwrap() };
    assert!(vemble_server::serve(config).is_err(), "never beyond loopback");
}
