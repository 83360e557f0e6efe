//! The store on a real PostgreSQL, without a server in front of it: what goes in comes out, whole, apart and at one moment.

use diesel_async::{AsyncConnection, AsyncPgConnection, SimpleAsyncConnection};
use futures_util::FutureExt;
use futures_util::future::{BoxFuture, join_all, ready};
use std::collections::BTreeSet;
use std::sync::Mutex;
use std::sync::atomic::{AtomicUsize, Ordering};
use uuid::Uuid;
use vemble_core::body::Wearer;
use vemble_core::change::Change;
use vemble_core::document::{Document, Entry, Happened, State};
use vemble_core::fitting::Reading;
use vemble_core::try_on::TryOn;
use vemble_core::work::Workroom;
use vemble_store::{
    AccountStore, Entered, Limits, Moment, NewAccount, NewInvitation, NewPhoto, NewSession, Notice, Store,
    StoreError, StoredDocument, StoredGarment, StoredTryOn, Why,
};

/// What decides without waiting for anything.
fn at_once<'a>(
    decide: impl Fn(&Document, Option<&StoredTryOn>) -> Result<Option<TryOn>, StoreError> + Sync + 'a,
) -> impl Fn(Document, Option<StoredTryOn>) -> BoxFuture<'a, Result<Option<TryOn>, StoreError>> + Sync + 'a {
    move |garment, there| ready(decide(&garment, there.as_ref())).boxed()
}

/// A database of its own; `cargo xtask test` says where.
async fn database() -> String {
    let url = std::env::var("DATABASE_URL").expect("DATABASE_URL; `cargo xtask test` sets it");
    let name = format!("store_{}", Uuid::now_v7().simple());
    let mut connection = AsyncPgConnection::establish(&url).await.expect("PostgreSQL answers");
    connection.batch_execute(&format!("CREATE DATABASE {name}")).await.expect("a database of its own");
    let (server, _) = url.rsplit_once('/').expect("a database in the URL");
    format!("{server}/{name}")
}

/// Every garment of the example, as released.
fn example() -> Vec<Document> {
    let files = std::fs::read_dir("../../demo").unwrap().map(|file| file.unwrap().path());
    let read = |file| serde_json::from_slice(&std::fs::read(file).unwrap()).unwrap();
    files.filter(|file| file.extension().is_some_and(|ending| ending == "json")).map(read).collect()
}

/// A store with the example in it.
struct Filled {
    store: Store,
    database: String,
    account: Uuid,
}

impl Filled {
    async fn new() -> Self {
        let database = database().await;
        let store = Store::open(&database).await.unwrap();
        let account = store.new_example(&example(), &Workroom::default()).await.unwrap().id;
        Self { store, database, account }
    }

    fn own(&self) -> AccountStore<'_> {
        self.store.account(self.account)
    }

    /// The garment that has been pinned and has the most to lose.
    async fn pinned(&self) -> StoredDocument {
        let pins = |stored: &StoredDocument| {
            let changes = stored.document.try_ons.iter().flat_map(|t| &t.changes);
            changes.map(|change| change.readings().len()).sum::<usize>()
        };
        self.own().documents().await.unwrap().into_iter().max_by_key(pins).unwrap()
    }

    async fn execute(&self, sql: &str) {
        let mut connection = AsyncPgConnection::establish(&self.database).await.unwrap();
        connection.batch_execute(sql).await.unwrap();
    }
}

fn new_account(email: &str) -> NewAccount {
    let (name, email) = (String::from("Somebody"), email.to_owned());
    NewAccount { id: Uuid::now_v7(), name, email, password_hash: "hashed".into() }
}

/// A garment as it is, to be put again.
fn as_it_is(stored: &StoredDocument) -> StoredGarment {
    let newest = stored.document.states.last().unwrap();
    StoredGarment {
        wearer_id: stored.wearer_id,
        archived: stored.archived,
        state: newest.id,
        garment: newest.garment.clone(),
    }
}

/// A document without what the store gives it: the ids of try-ons and readings.
fn without_ids(mut document: Document) -> Document {
    for try_on in &mut document.try_ons {
        try_on.id = None;
        let changes = try_on.changes.iter_mut().flat_map(Change::readings_mut);
        changes.for_each(|reading| reading.id = None);
    }
    document
}

#[tokio::test]
async fn what_is_stored_comes_back_whole() {
    let filled = Filled::new().await;
    let stored = filled.own().documents().await.unwrap();
    let came_back: Vec<Document> = stored.iter().map(|s| without_ids(s.document.clone())).collect();
    assert_eq!(came_back, example().into_iter().map(without_ids).collect::<Vec<_>>());
    for stored in stored {
        let again = filled.own().document(stored.id).await.unwrap();
        assert_eq!(again.document, stored.document);
        assert_eq!(stored.try_on_versions, vec![1; stored.document.try_ons.len()]);
        for try_on in &stored.document.try_ons {
            assert_eq!(&filled.own().try_on(stored.id, try_on.id.unwrap()).await.unwrap().try_on, try_on);
        }
    }
}

#[tokio::test]
async fn every_unit_and_every_nanometre_comes_back() {
    let filled = Filled::new().await;
    let garment = filled.pinned().await;
    let before = garment.document.try_ons.last().unwrap().clone();
    let template = before.changes.iter().flat_map(Change::readings).next().unwrap().clone();
    let stations = ["0.000001 mm", "13.37 cm", "2 1/64 in", "3/64 in", "999.999999 mm", "40 in"];
    let amounts = ["0.000001 mm", "1 1/16 in", "0 cm", "0.85 cm", "7/8 in", "12.5 mm"];
    let all = stations.iter().flat_map(|station| amounts.iter().map(move |amount| (station, amount)));
    let readings: Vec<Reading> = all
        .map(|(station, amount)| Reading {
            id: Some(Uuid::now_v7()),
            station: station.parse().unwrap(),
            amount: amount.parse().unwrap(),
            ..template.clone()
        })
        .collect();
    let mut wanted = before.clone();
    wanted.changes.iter_mut().find(|change| !change.readings().is_empty()).unwrap().set_readings(readings);
    let id = wanted.id.unwrap();
    let put = |_: &Document, _: Option<&StoredTryOn>| Ok::<_, StoreError>(Some(wanted.clone()));
    assert_eq!(filled.own().change_try_on(garment.id, id, at_once(put)).await.unwrap().try_on, wanted);
    assert_eq!(filled.own().try_on(garment.id, id).await.unwrap().try_on, wanted);
}

#[tokio::test]
async fn of_many_who_change_the_same_version_one_does_and_the_others_are_told() {
    let filled = Filled::new().await;
    let own = filled.own();
    let garment = filled.pinned().await;
    let puts = (0..12).map(|n| {
        let mut new = as_it_is(&garment);
        new.garment.name = format!("Named by {n}");
        async move { (n, own.put_garment(garment.id, garment.version, &new).await) }
    });
    let done = join_all(puts).await;
    let (won, lost): (Vec<_>, Vec<_>) = done.into_iter().partition(|(_, put)| put.is_ok());
    let name = format!("Named by {}", won[0].0);
    assert_eq!((won.len(), lost.len()), (1, 11));
    for (_, refused) in lost {
        let Err(StoreError::StaleGarment(stored)) = refused else { panic!("{refused:?}") };
        assert_eq!((stored.version, &stored.document.states.last().unwrap().garment.name), (2, &name));
    }
    let stored = own.document(garment.id).await.unwrap();
    assert_eq!((stored.version, stored.document.states.last().unwrap().revision), (2, 2));
    // The same with somebody who wears garments.
    let wearer = own.wearer(garment.wearer_id).await.unwrap();
    let puts = (0..12).map(|n| {
        let facts = Wearer { name: format!("Named by {n}"), ..wearer.wearer.clone() };
        async move { own.put_wearer(wearer.id, wearer.version, &facts).await.map(|version| (version, facts)) }
    });
    let (won, lost): (Vec<_>, Vec<_>) = join_all(puts).await.into_iter().partition(Result::is_ok);
    let won = won.into_iter().map(Result::unwrap).collect::<Vec<_>>();
    assert_eq!((won.len(), won[0].0, lost.len()), (1, 2, 11));
    for refused in lost {
        let Err(StoreError::StaleWearer(stored)) = refused else { panic!("{refused:?}") };
        assert_eq!((stored.version, &stored.wearer), (2, &won[0].1));
    }
}

#[tokio::test]
async fn putting_away_is_no_correction() {
    let filled = Filled::new().await;
    let garment = filled.pinned().await;
    let away = StoredGarment { archived: true, ..as_it_is(&garment) };
    assert_eq!(filled.own().put_garment(garment.id, 1, &away).await.unwrap(), 2);
    let stored = filled.own().document(garment.id).await.unwrap();
    assert!(stored.archived);
    assert_eq!(stored.document, garment.document, "not a new revision");
}

#[tokio::test]
async fn what_many_add_to_a_try_on_at_once_is_all_there() {
    let filled = Filled::new().await;
    let own = filled.own();
    let garment = filled.pinned().await;
    let before = garment.document.try_ons.last().unwrap();
    let id = before.id.unwrap();
    let add = async |n: usize| {
        let decide = move |_: &Document, there: Option<&StoredTryOn>| {
            let mut try_on = there.expect("it is stored").try_on.clone();
            try_on.posture = format!("{} {n}", try_on.posture);
            Ok::<_, StoreError>(Some(try_on))
        };
        own.change_try_on(garment.id, id, at_once(decide)).await.unwrap().version
    };
    let versions: BTreeSet<i32> = join_all((0..20).map(add)).await.into_iter().collect();
    assert_eq!(versions, (2..22).collect(), "one after the other");
    let after = own.try_on(garment.id, id).await.unwrap().try_on;
    let said: BTreeSet<&str> =
        after.posture.strip_prefix(&before.posture).unwrap().split_whitespace().collect();
    assert_eq!(said.len(), 20);
    assert_eq!(TryOn { posture: before.posture.clone(), ..after }, *before, "and nothing else has changed");
}

#[tokio::test]
async fn whoever_makes_a_try_on_that_somebody_just_made_looks_again() {
    let filled = Filled::new().await;
    let own = filled.own();
    let garment = filled.pinned().await;
    let new = garment.document.try_ons.last().unwrap().begun();
    let (id, looks, makers) = (Uuid::now_v7(), AtomicUsize::new(0), AtomicUsize::new(0));
    let make = async |n: usize| {
        let (looks, makers, new) = (&looks, &makers, &new);
        let decide = move |_: &Document, there: Option<&StoredTryOn>| {
            looks.fetch_add(1, Ordering::Relaxed);
            match there {
                Some(_) => Ok::<_, StoreError>(None),
                None => {
                    makers.fetch_add(1, Ordering::Relaxed);
                    Ok(Some(TryOn { posture: n.to_string(), ..new.clone() }))
                }
            }
        };
        own.change_try_on(garment.id, id, at_once(decide)).await.unwrap()
    };
    let all = join_all((0..12).map(make)).await;
    let first = &all[0].try_on;
    assert!(all.iter().all(|stored| stored.version == 1 && stored.try_on == *first), "all get the one");
    // Each that found nothing and was too late looked twice.
    let (looks, makers) = (looks.into_inner(), makers.into_inner());
    assert!(makers >= 1);
    assert_eq!(looks, 12 + makers - 1);
}

#[tokio::test]
async fn what_is_refused_leaves_no_trace() {
    let filled = Filled::new().await;
    let garment = filled.pinned().await;
    let before = garment.document.try_ons.last().unwrap().clone();
    let id = before.id.unwrap();
    let refuse = |_: &Document, _: Option<&StoredTryOn>| Err::<Option<TryOn>, _>(StoreError::IdTaken);
    let refused = filled.own().change_try_on(garment.id, id, at_once(refuse)).await;
    assert!(matches!(refused, Err(StoreError::IdTaken)));
    // A pin of another try-on: its id is taken, and nothing of the change is kept.
    let others = filled.own().documents().await.unwrap();
    let changes = others.iter().filter(|o| o.id != garment.id).flat_map(|o| &o.document.try_ons);
    let foreign = changes.flat_map(|t| &t.changes).flat_map(Change::readings).next().unwrap().clone();
    let mut wanted = TryOn { posture: "never".into(), ..before.clone() };
    let pinned = wanted.changes.iter_mut().find(|change| !change.readings().is_empty()).unwrap();
    pinned.set_readings([pinned.readings(), &[foreign]].concat());
    let put = |_: &Document, _: Option<&StoredTryOn>| Ok::<_, StoreError>(Some(wanted.clone()));
    let refused = filled.own().change_try_on(garment.id, id, at_once(put)).await;
    assert!(matches!(refused, Err(StoreError::IdTaken)), "{refused:?}");
    let stored = filled.own().try_on(garment.id, id).await.unwrap();
    assert_eq!((stored.version, stored.try_on), (1, before));
}

/// What is read is of one moment: a try-on whose pins and facts are stored together is never seen half changed.
#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn nobody_sees_half_a_change() {
    let filled = Filled::new().await;
    let own = filled.own();
    let garment = filled.pinned().await;
    let id = garment.document.try_ons.last().unwrap().id.unwrap();
    let writing = async {
        for n in 1..=150 {
            let decide = move |_: &Document, there: Option<&StoredTryOn>| {
                let mut try_on = there.unwrap().try_on.clone();
                // The number stands in the facts, and in a row of its own for each pin.
                try_on.posture = n.to_string();
                let readings = try_on.changes.iter_mut().flat_map(Change::readings_mut);
                readings.for_each(|reading| reading.amount = format!("{n} mm").parse().unwrap());
                Ok::<_, StoreError>(Some(try_on))
            };
            own.change_try_on(garment.id, id, at_once(decide)).await.unwrap();
        }
    };
    let reading = async {
        let mut seen = BTreeSet::new();
        while !seen.contains(&150) {
            let alone = own.try_on(garment.id, id).await.unwrap();
            let whole = own.document(garment.id).await.unwrap();
            let among = whole.document.try_ons.iter().position(|t| t.id == Some(id)).unwrap();
            let of_whole = (whole.try_on_versions[among], &whole.document.try_ons[among]);
            for (version, try_on) in [(alone.version, &alone.try_on), of_whole] {
                let Ok(n) = try_on.posture.parse::<i32>() else { continue };
                let amount = format!("{n} mm").parse().unwrap();
                let mut readings = try_on.changes.iter().flat_map(Change::readings);
                assert!(readings.all(|reading| reading.amount == amount), "half of {n}");
                assert_eq!(version, n + 1);
                seen.insert(n);
            }
        }
        seen.len()
    };
    let ((), seen) = futures_util::join!(writing, reading);
    assert!(seen > 1, "it was read while it was written");
}

#[tokio::test]
async fn only_what_differs_is_written() {
    let filled = Filled::new().await;
    let garment = filled.pinned().await;
    let id = garment.document.try_ons.last().unwrap().id.unwrap();
    filled.execute("CREATE TABLE written (id uuid)").await;
    filled
        .execute(
            "CREATE FUNCTION note() RETURNS trigger SECURITY DEFINER LANGUAGE plpgsql AS \
             'BEGIN INSERT INTO written VALUES (coalesce(NEW.id, OLD.id)); RETURN NEW; END'; \
             CREATE TRIGGER note AFTER INSERT OR UPDATE OR DELETE ON readings FOR EACH ROW EXECUTE FUNCTION note()",
        )
        .await;
    let touched = Mutex::new(None);
    let decide = |_: &Document, there: Option<&StoredTryOn>| {
        let mut try_on = there.unwrap().try_on.clone();
        let one = try_on.changes.iter_mut().flat_map(Change::readings_mut).next().unwrap();
        one.amount = "3.25 cm".parse().unwrap();
        *touched.lock().unwrap() = one.id;
        Ok::<_, StoreError>(Some(try_on))
    };
    filled.own().change_try_on(garment.id, id, at_once(decide)).await.unwrap();
    let touched = touched.into_inner().unwrap().unwrap();
    let check = format!(
        "DO $$ BEGIN IF (SELECT array_agg(id) FROM written) IS DISTINCT FROM ARRAY['{touched}'::uuid] THEN \
         RAISE EXCEPTION 'written: %', (SELECT array_agg(id) FROM written); END IF; END $$"
    );
    filled.execute(&check).await;
}

/// Everything that was changed on a state was sewn.
fn sewn_from(from: Uuid) -> Happened {
    Happened::Sewn {
        from,
        to: Uuid::now_v7(),
        try_on: None,
        changes: vec![],
        otherwise: vec![],
        measured: vec![],
        cut: vec![],
    }
}

/// What was sewn from the newest state.
fn sewing(stored: &StoredDocument, date: &str) -> Entered {
    let newest = stored.document.states.last().unwrap();
    let what = sewn_from(newest.id);
    let entry = Entry { id: Uuid::now_v7(), date: date.parse().unwrap(), what, why: String::new() };
    Entered { entry, garment: Some(newest.garment.clone()) }
}

#[tokio::test]
async fn sewing_is_entered_once_and_from_the_newest_state_only() {
    let filled = Filled::new().await;
    let own = filled.own();
    let garment = filled.pinned().await;
    // Sent ten times: entered once, and everybody is answered alike.
    let sewn = sewing(&garment, "2026-11-20");
    let all = join_all((0..10).map(|_| own.enter(garment.id, &sewn))).await;
    let stored = own.document(garment.id).await.unwrap();
    assert_eq!((stored.version, stored.document.states.len(), stored.document.record.len()), (2, 2, 1));
    for answer in all {
        assert_eq!(answer.unwrap().document, stored.document);
    }
    // Ten sew from the same state: one of them made the next one.
    let ten: Vec<Entered> = (0..10).map(|_| sewing(&stored, "2026-11-21")).collect();
    let all = join_all(ten.iter().map(|one| own.enter(garment.id, one))).await;
    assert_eq!(all.iter().filter(|answer| answer.is_ok()).count(), 1);
    let stale = |answer: &Result<_, _>| matches!(answer, Err(StoreError::StaleGarment(_)));
    assert_eq!(all.iter().filter(|answer| stale(answer)).count(), 9);
    let stored = own.document(garment.id).await.unwrap();
    assert_eq!((stored.version, stored.document.states.len(), stored.document.record.len()), (3, 3, 2));
    assert_eq!(stored.document.faults(), vec![]);
    // Older try-ons stay with the state they were measured on, and it with them.
    assert_eq!(stored.document.try_ons, garment.document.try_ons);
    assert_eq!(stored.document.states[0], garment.document.states[0]);
    // The same id with something else in it is no repetition; a try-on of another garment was not sewn here.
    let other = Entered {
        entry: Entry { date: "2026-11-22".parse().unwrap(), ..sewn.entry.clone() },
        garment: sewn.garment.clone(),
    };
    assert!(matches!(own.enter(garment.id, &other).await, Err(StoreError::IdTaken)));
    let others = own.documents().await.unwrap();
    let elsewhere = others.iter().filter(|o| o.id != garment.id).flat_map(|o| &o.document.try_ons).next();
    let mut foreign = sewing(&stored, "2026-11-22");
    if let Happened::Sewn { try_on, .. } = &mut foreign.entry.what {
        *try_on = elsewhere.unwrap().id;
    }
    assert!(matches!(own.enter(garment.id, &foreign).await, Err(StoreError::NotFound)));
    assert_eq!(own.document(garment.id).await.unwrap().version, 3);
}

#[tokio::test]
async fn nothing_of_an_account_is_there_for_another() {
    let filled = Filled::new().await;
    let (own, garment) = (filled.own(), filled.pinned().await);
    let stranger = new_account("stranger@example.org");
    filled.store.sign_up(&stranger, None).await.unwrap();
    let other = filled.store.account(stranger.id);
    let try_on = garment.document.try_ons.last().unwrap().id.unwrap();
    let photo = |id| NewPhoto {
        id,
        moment: Moment::Before,
        try_on: None,
        size: (4, 3),
        media_type: "image/png",
        image: vec![1],
        thumbnail: vec![2],
    };
    let picture = Uuid::now_v7();
    own.add_photo(garment.id, photo(picture)).await.unwrap();
    let invited =
        NewInvitation { id: Uuid::now_v7(), garment: garment.id, try_on, may_add: true, code_hash: &[7; 32] };
    own.invite(&invited).await.unwrap();
    let keep = |_: &Document, _: Option<&StoredTryOn>| Ok::<Option<TryOn>, StoreError>(None);
    let sewn = sewing(&garment, "2026-11-20");
    let not_found = [
        ("document", other.document(garment.id).await.map(drop)),
        ("try-on", other.try_on(garment.id, try_on).await.map(drop)),
        ("change", other.change_try_on(garment.id, try_on, at_once(keep)).await.map(drop)),
        ("delete try-on", other.delete_try_on(garment.id, try_on).await),
        ("put garment", other.put_garment(garment.id, 1, &as_it_is(&garment)).await.map(drop)),
        (
            "new garment of their wearer",
            other.put_garment(Uuid::now_v7(), 0, &as_it_is(&garment)).await.map(drop),
        ),
        ("sew", other.enter(garment.id, &sewn).await.map(drop)),
        ("delete garment", other.delete_garment(garment.id).await),
        ("wearer", other.wearer(garment.wearer_id).await.map(drop)),
        ("delete wearer", other.delete_wearer(garment.wearer_id).await),
        ("add photo", other.add_photo(garment.id, photo(Uuid::now_v7())).await),
        ("picture", other.picture(picture, false).await.map(drop)),
        ("delete photo", other.delete_photo(picture).await),
        ("invite", other.invite(&NewInvitation { id: Uuid::now_v7(), ..invited }).await),
        ("end invitation", other.end_invitation(invited.id).await),
    ];
    for (what, answer) in not_found {
        assert!(matches!(answer, Err(StoreError::NotFound)), "{what}: {answer:?}");
    }
    assert!(other.documents().await.unwrap().is_empty());
    assert!(other.rail_keys().await.unwrap().is_empty());
    assert!(other.wearers().await.unwrap().is_empty());
    assert!(other.photos(garment.id).await.unwrap().is_empty());
    assert!(other.invitations(try_on).await.unwrap().is_empty());
    assert!(other.invitation(invited.id).await.unwrap().is_none());
    // The owner finds everything as it was; the code opens the one try-on.
    assert_eq!(own.document(garment.id).await.unwrap().document, garment.document);
    assert_eq!(own.picture(picture, true).await.unwrap(), ("image/jpeg".into(), vec![2]));
    assert_eq!(filled.store.joining(&[7; 32]).await.unwrap().unwrap().try_on, try_on);
    assert!(filled.store.joining(&[8; 32]).await.unwrap().is_none());
}

#[tokio::test]
async fn what_is_removed_takes_with_it_what_hangs_on_it_and_nothing_else() {
    let filled = Filled::new().await;
    let own = filled.own();
    let all = own.documents().await.unwrap();
    let garment = filled.pinned().await;
    let refused = own.delete_wearer(garment.wearer_id).await;
    let Err(StoreError::HasGarments(names)) = refused else { panic!("{refused:?}") };
    assert!(names.contains(&garment.document.states.last().unwrap().garment.name));
    own.enter(garment.id, &sewing(&garment, "2026-11-20")).await.unwrap();
    own.delete_garment(garment.id).await.unwrap();
    assert!(matches!(own.delete_garment(garment.id).await, Err(StoreError::NotFound)));
    let left: Vec<Document> = own.documents().await.unwrap().into_iter().map(|s| s.document).collect();
    let others = all.iter().filter(|stored| stored.id != garment.id).map(|stored| stored.document.clone());
    assert_eq!(left, others.collect::<Vec<_>>());
    for stored in all.iter().filter(|s| s.wearer_id == garment.wearer_id && s.id != garment.id) {
        own.delete_garment(stored.id).await.unwrap();
    }
    own.delete_wearer(garment.wearer_id).await.unwrap();
    filled.store.delete_account(filled.account).await.unwrap();
    assert!(matches!(filled.store.account_of(filled.account).await, Err(StoreError::NotFound)));
    let tables = ["wearers", "garments", "garment_states", "record_entries", "try_ons", "readings", "photos"];
    for table in tables {
        filled
            .execute(&format!(
                "DO $$ BEGIN IF EXISTS (SELECT FROM {table}) THEN RAISE EXCEPTION '{table}'; END IF; END $$"
            ))
            .await;
    }
}

#[tokio::test]
async fn an_address_has_one_account_and_a_session_ends_when_it_is_said_to() {
    let store = Store::open(&database().await).await.unwrap();
    let new = new_account("odile@example.org");
    store.sign_up(&new, None).await.unwrap();
    // Whoever signs up with it again changes nothing, and is told nothing.
    store.sign_up(&new_account("odile@example.org"), None).await.unwrap();
    assert_eq!(store.credentials("odile@example.org").await.unwrap().unwrap().id, new.id);
    assert!(store.credentials("nobody@example.org").await.unwrap().is_none());
    // A code is used up by whoever comes with it first.
    let by_code = new_account("bram@example.org");
    assert!(matches!(store.sign_up(&by_code, Some(&[1; 32])).await, Err(StoreError::NotFound)));
    store.invite_to_sign_up(&[1; 32]).await.unwrap();
    store.sign_up(&by_code, Some(&[1; 32])).await.unwrap();
    assert!(matches!(store.sign_up(&new_account("c@d.e"), Some(&[1; 32])).await, Err(StoreError::NotFound)));

    let own = store.account(new.id);
    let begin = async |token: &[u8]| {
        let id = Uuid::now_v7();
        let session = NewSession { id, token_hash: token, device: "Firefox on Linux", invitation: None };
        own.begin_session(&session).await.unwrap();
        id
    };
    let (here, there) = (begin(&[2; 32]).await, begin(&[3; 32]).await);
    assert_eq!(own.sessions().await.unwrap().len(), 2);
    let signed_in = async |token: &[u8]| store.signed_in(token).await.unwrap().map(|(a, s)| (a.id, s));
    assert_eq!(signed_in(&[2; 32]).await, Some((new.id, here)));
    assert_eq!(signed_in(&[9; 32]).await, None);
    // Another account ends none of them; a new password ends all but the one it was changed in.
    let other = store.account(by_code.id);
    assert!(matches!(other.end_session(there).await, Err(StoreError::NotFound)));
    own.change_password("other", Some(here)).await.unwrap();
    assert_eq!((signed_in(&[2; 32]).await, signed_in(&[3; 32]).await), (Some((new.id, here)), None));
    own.end_session(here).await.unwrap();
    assert_eq!(signed_in(&[2; 32]).await, None);
    // However many begin, so many are open; and what is old has ended.
    for n in 0..60 {
        begin(&[&[4; 31][..], &[n]].concat()).await;
    }
    assert_eq!(own.sessions().await.unwrap().len(), 50);
    // There is one household, and one example for each who asks, however many ask at once.
    let households = join_all((0..8).map(|_| store.household_account())).await;
    let ids: BTreeSet<Uuid> = households.into_iter().map(|account| account.unwrap().id).collect();
    assert_eq!(ids.len(), 1);
    let room = Workroom::default();
    let examples = join_all((0..4).map(|_| store.new_example(&[], &room))).await;
    let examples: BTreeSet<Uuid> = examples.into_iter().map(|account| account.unwrap().id).collect();
    assert!(examples.len() == 4 && examples.is_disjoint(&ids));
}

#[tokio::test]
async fn what_is_old_has_ended_and_examples_are_forgotten_after_a_day() {
    let filled = Filled::new().await;
    let new = NewSession { id: Uuid::now_v7(), token_hash: &[5; 32], device: "", invitation: None };
    filled.own().begin_session(&new).await.unwrap();
    let is_in = async || filled.store.signed_in(&[5; 32]).await.unwrap().is_some();
    for (column, days, stays) in [("seen_at", 29, true), ("seen_at", 31, false), ("created_at", 181, false)] {
        filled.execute("UPDATE sessions SET created_at = now(), seen_at = now()").await;
        filled.execute(&format!("UPDATE sessions SET {column} = now() - interval '{days} days'")).await;
        assert_eq!(is_in().await, stays, "{column} {days} days ago");
    }
    filled.execute("UPDATE sessions SET created_at = now(), seen_at = now() - interval '6 minutes'").await;
    assert!(is_in().await);
    let seen = filled.own().sessions().await.unwrap().remove(0);
    assert!(
        seen.seen.to_jiff() > seen.created.to_jiff() - jiff::Span::new().seconds(5),
        "it was seen just now"
    );

    let account = new_account("odile@example.org");
    filled.store.sign_up(&account, None).await.unwrap();
    assert_eq!(filled.store.forget_examples().await.unwrap(), 0);
    filled.execute("UPDATE accounts SET ends_at = now() - interval '1 minute' WHERE is_example").await;
    assert!(!is_in().await, "it has ended before it is forgotten");
    let forgotten = join_all((0..3).map(|_| filled.store.forget_examples())).await;
    assert!(forgotten.iter().all(Result::is_ok), "{forgotten:?}");
    assert!(filled.own().documents().await.unwrap().is_empty());
    assert!(filled.store.account_of(account.id).await.is_ok(), "and nobody else");
}

#[tokio::test]
async fn an_account_holds_so_much_and_no_more_however_many_come_at_once() {
    let limits = Limits { garments: 3, wearers: 2, photos: 2, photo_bytes: 1_000 };
    let store = Store::open(&database().await).await.unwrap().limited(limits);
    let account = new_account("odile@example.org");
    store.sign_up(&account, None).await.unwrap();
    let own = store.account(account.id);
    let done = |all: &[Result<i32, StoreError>]| all.iter().filter(|one| one.is_ok()).count();
    let ids: Vec<Uuid> = (0..4).map(|_| Uuid::now_v7()).collect();
    let wearers =
        join_all(ids.iter().map(|id| async { own.put_wearer(*id, 0, &Wearer::default()).await })).await;
    assert_eq!(done(&wearers), 2, "{wearers:?}");
    let wearer_id = own.wearers().await.unwrap()[0].id;
    let garment = example().remove(0).states.remove(0).garment;
    let put = async |id: &Uuid| {
        let new =
            StoredGarment { wearer_id, archived: false, state: Uuid::now_v7(), garment: garment.clone() };
        own.put_garment(*id, 0, &new).await
    };
    let ids: Vec<Uuid> = (0..6).map(|_| Uuid::now_v7()).collect();
    let garments = join_all(ids.iter().map(put)).await;
    assert_eq!(done(&garments), 3, "{garments:?}");
    assert!(garments.iter().all(|one| matches!(one, Ok(1) | Err(StoreError::Full("garments")))));
    let garment = own.documents().await.unwrap()[0].id;
    let photo = |bytes: usize| {
        let (id, moment, size) = (Uuid::now_v7(), Moment::Before, (1, 1));
        NewPhoto {
            id,
            moment,
            try_on: None,
            size,
            media_type: "image/png",
            image: vec![0; bytes],
            thumbnail: vec![],
        }
    };
    let full = |stored: Result<(), StoreError>| matches!(stored, Err(StoreError::Full("photos")));
    assert!(full(own.add_photo(garment, photo(1_001)).await));
    own.add_photo(garment, photo(600)).await.unwrap();
    assert!(full(own.add_photo(garment, photo(401)).await));
    own.add_photo(garment, photo(400)).await.unwrap();
    assert!(full(own.add_photo(garment, photo(0)).await), "nor a third");
}

#[tokio::test]
async fn every_instance_hears_what_is_stored_once_it_is() {
    let filled = Filled::new().await;
    let second = Store::open(&filled.database).await.unwrap();
    let garment = filled.pinned().await;
    let id = garment.document.try_ons.last().unwrap().id.unwrap();
    let (told, heard) = std::sync::mpsc::channel();
    let hearing = tokio::spawn(async move { second.hear(|notice| told.send(notice).unwrap()).await });
    let heard = std::sync::Arc::new(Mutex::new(heard));
    let next = async || {
        let heard = heard.clone();
        tokio::task::spawn_blocking(move || heard.lock().unwrap().recv().unwrap()).await.unwrap()
    };
    assert_eq!(next().await, Notice::Missed, "whoever begins to listen looks first");
    // What is refused is not told; what is stored is, with its version.
    let refuse = |_: &Document, _: Option<&StoredTryOn>| Err::<Option<TryOn>, _>(StoreError::IdTaken);
    filled.own().change_try_on(garment.id, id, at_once(refuse)).await.unwrap_err();
    let touch = |_: &Document, there: Option<&StoredTryOn>| {
        Ok::<_, StoreError>(Some(TryOn { closed: true, ..there.unwrap().try_on.clone() }))
    };
    filled.own().change_try_on(garment.id, id, at_once(touch)).await.unwrap();
    let wanted = Notice::TryOn { account: filled.account, garment: garment.id, try_on: id, version: Some(2) };
    assert_eq!(next().await, wanted);
    hearing.abort();
}

#[tokio::test]
async fn instances_that_start_together_bring_the_tables_up_once_and_every_step_can_be_taken_back() {
    let database = database().await;
    let opened = join_all((0..4).map(|_| Store::open(&database))).await;
    assert!(opened.iter().all(Result::is_ok), "{:?}", opened.iter().find_map(|o| o.as_ref().err()));
    let mut connection = AsyncPgConnection::establish(&database).await.unwrap();
    let folders = std::fs::read_dir("migrations").unwrap().map(|folder| folder.unwrap().path());
    let folders: BTreeSet<_> = folders.collect();
    for folder in folders.iter().rev() {
        let down = std::fs::read_to_string(folder.join("down.sql")).unwrap();
        connection.batch_execute(&down).await.unwrap_or_else(|e| panic!("{}: {e}", folder.display()));
    }
    connection.batch_execute("DELETE FROM __diesel_schema_migrations").await.unwrap();
    let store = Store::open(&database).await.unwrap();
    let account = store.new_example(&example(), &Workroom::default()).await.unwrap();
    assert_eq!(store.account(account.id).documents().await.unwrap().len(), example().len());
    // What is stored now would not be read by an older one: the step back is refused, and nothing is lost.
    let down = async |connection: &mut AsyncPgConnection, step: &str| {
        let folder = folders.iter().find(|folder| folder.ends_with(step)).unwrap();
        connection.batch_execute(&std::fs::read_to_string(folder.join("down.sql")).unwrap()).await
    };
    let refused = down(&mut connection, "2026-11-27-000000_work").await.unwrap_err();
    assert!(refused.to_string().contains("of a later format"), "{refused}");
    assert_eq!(store.account(account.id).documents().await.unwrap().len(), example().len());
}

#[tokio::test]
async fn a_database_that_is_not_there_is_said_to_be_unreachable() {
    let own = database().await;
    let mut admin = AsyncPgConnection::establish(&own).await.unwrap();
    let role = format!("plain_{}", Uuid::now_v7().simple());
    admin.batch_execute(&format!("CREATE ROLE {role} LOGIN PASSWORD 'right'")).await.unwrap();
    let at = own.rsplit_once('@').unwrap().1;
    for (url, expected) in [
        (own.replace("store_", "missing_"), Why::NoDatabase),
        ("postgres://nobody@127.0.0.1:1/none".into(), Why::Refused),
        ("no address at all".into(), Why::BadUrl),
        (format!("postgres://{role}:right@{at}"), Why::Lacking),
    ] {
        match Store::open(&url).await {
            Err(StoreError::Unreachable { why, .. }) => assert_eq!(why, expected, "{url}"),
            other => panic!("{url}: {:?}", other.err()),
        }
    }
    admin.batch_execute(&format!("DROP ROLE {role}")).await.unwrap();
    // A connection that the database ended while nobody used it is replaced unseen.
    let filled = Filled::new().await;
    filled.own().documents().await.unwrap();
    filled
        .execute(
            "SELECT pg_terminate_backend(pid) FROM pg_stat_activity \
             WHERE datname = current_database() AND pid <> pg_backend_pid()",
        )
        .await;
    filled.store.is_alive().await.unwrap();
    assert_eq!(filled.own().documents().await.unwrap().len(), example().len());
}

/// What an account holds, as it ought to be: garments with their try-ons and versions, kept in memory.
#[derive(Clone)]
struct Model {
    id: Uuid,
    version: i32,
    archived: bool,
    document: Document,
    try_on_versions: Vec<i32>,
}

/// Whatever is done to a few garments in whatever order, and however often it is refused: the store holds what a list in memory holds.
#[tokio::test]
async fn a_long_history_ends_where_it_should() {
    let filled = Filled::new().await;
    let own = filled.own();
    let mut model: Vec<Model> = Vec::new();
    for stored in own.documents().await.unwrap() {
        let StoredDocument { id, version, archived, try_on_versions, document, .. } = stored;
        model.push(Model { id, version, archived, document, try_on_versions });
    }
    let wearer = own.wearers().await.unwrap()[0].id;
    // A linear congruential generator (Knuth, The Art of Computer Programming 2, 3.3.4): the same history each time.
    let mut state = 7_u64;
    let mut below = move |most: usize| {
        state = state.wrapping_mul(6_364_136_223_846_793_005).wrapping_add(1_442_695_040_888_963_407);
        (state >> 33) as usize % most
    };
    for step in 0..400 {
        if model.is_empty() {
            break;
        }
        let n = below(model.len());
        let is_stale = below(5) == 0;
        let one = &mut model[n];
        let newest = one.document.states.last().unwrap().clone();
        match below(20) {
            // Corrects a state, any of them, or only puts the garment away.
            0..5 => {
                let at = below(one.document.states.len());
                let state = &mut one.document.states[at];
                let mut garment = state.garment.clone();
                let is_corrected = below(3) > 0;
                if is_corrected {
                    garment.name = format!("{step}");
                }
                let archived = below(2) == 0;
                let new = StoredGarment { wearer_id: wearer, archived, state: state.id, garment };
                let put = own.put_garment(one.id, one.version - i32::from(is_stale), &new).await;
                if is_stale {
                    // What is there already is not refused to whoever sends it again.
                    let is_there = !is_corrected && archived == one.archived;
                    let is_refused = matches!(put, Err(StoreError::StaleGarment(_)));
                    assert!(
                        is_refused || is_there && put.as_ref().ok() == Some(&one.version),
                        "{step}: {put:?}"
                    );
                    continue;
                }
                one.version += 1;
                assert_eq!(put.unwrap(), one.version);
                one.archived = archived;
                if is_corrected {
                    state.garment = new.garment;
                    state.revision += 1;
                }
                one.document.wearer = own.wearer(wearer).await.unwrap().wearer;
            }
            5..8 => {
                let from = if is_stale { Uuid::now_v7() } else { newest.id };
                let entry = Entry {
                    id: Uuid::now_v7(),
                    date: "2026-11-20".parse().unwrap(),
                    what: sewn_from(from),
                    why: String::new(),
                };
                let sewn = Entered { entry: entry.clone(), garment: Some(newest.garment.clone()) };
                let answer = own.enter(one.id, &sewn).await;
                if is_stale {
                    assert!(matches!(answer, Err(StoreError::StaleGarment(_))), "{step}: {answer:?}");
                    continue;
                }
                let (_, to) = entry.made().unwrap();
                one.document.states.push(State::first(to, newest.garment));
                one.document.record.push(entry);
                one.version += 1;
                assert_eq!(answer.unwrap().version, one.version);
            }
            8..12 => {
                let id = Uuid::now_v7();
                let new = TryOn { id: Some(id), ..TryOn::on(newest.id, "2026-11-20".parse().unwrap()) };
                let make = |_: &Document, there: Option<&StoredTryOn>| {
                    assert!(there.is_none());
                    Ok::<_, StoreError>(Some(new.clone()))
                };
                own.change_try_on(one.id, id, at_once(make)).await.unwrap();
                one.document.try_ons.push(new);
                one.try_on_versions.push(1);
            }
            12..18 if !one.document.try_ons.is_empty() => {
                let at = below(one.document.try_ons.len());
                let id = one.document.try_ons[at].id.unwrap();
                let change = |_: &Document, there: Option<&StoredTryOn>| {
                    let there = there.unwrap().try_on.clone();
                    if is_stale {
                        Err(StoreError::IdTaken)
                    } else {
                        Ok(Some(TryOn { shoes: step.to_string(), ..there }))
                    }
                };
                let changed = own.change_try_on(one.id, id, at_once(change)).await;
                assert_eq!(changed.is_err(), is_stale);
                if !is_stale {
                    one.document.try_ons[at].shoes = step.to_string();
                    one.try_on_versions[at] += 1;
                }
            }
            18 if !one.document.try_ons.is_empty() => {
                let at = below(one.document.try_ons.len());
                let gone = one.document.try_ons.remove(at);
                one.try_on_versions.remove(at);
                own.delete_try_on(one.id, gone.id.unwrap()).await.unwrap();
            }
            19 if below(6) == 0 => {
                own.delete_garment(one.id).await.unwrap();
                model.remove(n);
            }
            _ => {}
        }
    }
    let stored = own.documents().await.unwrap();
    assert!(stored.len() == model.len() && model.iter().any(|one| one.document.states.len() > 3));
    for (stored, wanted) in stored.into_iter().zip(model) {
        assert_eq!(
            (stored.id, stored.version, stored.archived),
            (wanted.id, wanted.version, wanted.archived)
        );
        assert_eq!(stored.try_on_versions, wanted.try_on_versions);
        assert_eq!(stored.document, wanted.document);
        assert_eq!(stored.document.faults(), vec![]);
    }
}
