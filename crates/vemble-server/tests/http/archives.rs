//! An account taken out and brought in again, and archives that are none.

use super::*;
use std::io::{Cursor, Read, Write};
use zip::write::SimpleFileOptions;
use zip::{ZipArchive, ZipWriter};

impl Running {
    pub async fn archive(&self, path: &str) -> Vec<u8> {
        let answer = self.client.get(format!("{}{path}", self.base)).send().await.unwrap();
        assert_eq!(answer.status(), StatusCode::OK);
        assert_eq!(answer.headers()["content-type"], "application/zip");
        answer.bytes().await.unwrap().to_vec()
    }

    async fn bring_in(&self, archive: Vec<u8>) -> (StatusCode, Value) {
        let request =
            self.client.post(format!("{}/archives", self.base)).header("content-type", "application/zip");
        read(request.body(archive).send().await.unwrap()).await
    }
}

type Files = Vec<(String, Vec<u8>)>;

fn unpacked(archive: &[u8]) -> Files {
    let mut zip = ZipArchive::new(Cursor::new(archive)).unwrap();
    let one = |n: usize, zip: &mut ZipArchive<Cursor<&[u8]>>| {
        let mut file = zip.by_index(n).unwrap();
        let mut bytes = Vec::new();
        file.read_to_end(&mut bytes).unwrap();
        (file.name().unwrap().into_owned(), bytes)
    };
    (0..zip.len()).map(|n| one(n, &mut zip)).collect()
}

fn packed(files: &[(String, Vec<u8>)]) -> Vec<u8> {
    let mut zip = ZipWriter::new(Cursor::new(Vec::new()));
    for (name, bytes) in files {
        zip.start_file(name.as_str(), SimpleFileOptions::default()).unwrap();
        zip.write_all(bytes).unwrap();
    }
    zip.finish().unwrap().into_inner()
}

#[actix_web::test]
async fn an_account_comes_back_as_it_was_wherever_it_is_brought_in() {
    let (example, garment) = Running::signed_in().await;
    let (path, _) = example.try_on(&garment).await;
    let try_on = path.rsplit('/').next().unwrap().to_owned();
    let (before, after) = (Uuid::now_v7(), Uuid::now_v7());
    assert_eq!(example.photo(&garment, before, png()).await.0, StatusCode::CREATED);
    let mut jpeg = Cursor::new(Vec::new());
    image::RgbImage::new(30, 20).write_to(&mut jpeg, image::ImageFormat::Jpeg).unwrap();
    let to = format!("{}/garments/{garment}/photos/{after}?moment=after&try_on={try_on}", example.base);
    let sent = example.client.put(to).header("content-type", "image/jpeg").body(jpeg.into_inner());
    assert_eq!(sent.send().await.unwrap().status(), StatusCode::CREATED);
    let about = json!({ "moment": "after", "pair": before, "caption": "Let out" });
    assert_eq!(example.put(&format!("/photos/{after}"), &about).await.0, StatusCode::NO_CONTENT);
    let whole = example.archive("/account/archive").await;

    let other = example.somebody_else();
    other.sign_up("odile").await;
    let (status, brought) = other.bring_in(whole.clone()).await;
    assert_eq!(
        (status, &brought["garments"], &brought["photos"]),
        (StatusCode::OK, &json!(vemble_server::example_documents().len()), &json!(2)),
        "{brought}"
    );
    // What it gives out is what it took in, to the byte but for the order of what was made at one moment.
    assert_eq!(unpacked(&other.archive("/account/archive").await), unpacked(&whole));
    let (a, b) = (
        example.get(&format!("/garments/{garment}")).await.1,
        other.get(&format!("/garments/{garment}")).await.1,
    );
    assert_eq!(a["document"], b["document"]);
    assert_eq!(
        example.get(&format!("/garments/{garment}/photos")).await,
        other.get(&format!("/garments/{garment}/photos")).await
    );
    // Nothing is brought in a second time, nor half of it.
    let (status, problem) = other.bring_in(whole).await;
    assert_eq!((status, &problem["type"]), (StatusCode::CONFLICT, &json!("already-there")));
    // One garment, removed and brought back with its photos, on the wearer that is there.
    let one = other.archive(&format!("/garments/{garment}/archive")).await;
    assert_eq!(other.delete(&format!("/garments/{garment}"), &json!({})).await.0, StatusCode::NO_CONTENT);
    let (_, brought) = other.bring_in(one).await;
    assert_eq!(brought, json!({ "garments": 1, "wearers": 0, "photos": 2 }));
    assert_eq!(other.get(&format!("/garments/{garment}")).await.1["document"], a["document"]);
}

#[actix_web::test]
async fn archives_that_are_none_are_refused_by_name_and_nothing_of_them_is_stored() {
    let (example, garment) = Running::signed_in().await;
    example.photo(&garment, Uuid::now_v7(), png()).await;
    let whole = example.archive("/account/archive").await;
    let files = unpacked(&whole);
    let contents: Value = serde_json::from_slice(&files[0].1).unwrap();
    let with = |change: &dyn Fn(&mut Value, &mut Files)| {
        let (mut contents, mut files) = (contents.clone(), files.clone());
        change(&mut contents, &mut files);
        files[0].1 = serde_json::to_vec(&contents).unwrap();
        packed(&files)
    };
    let own = |n: usize| contents["garments"][n]["id"].as_str().unwrap().to_owned();
    let document = |n: usize| format!("garments/{}.json", own(n));
    let photo = files.iter().position(|(name, _)| name.starts_with("photos/")).unwrap();
    let zeros = |length: usize| vec![b' '; length];
    let cases: Vec<(&str, Vec<u8>, String)> = vec![
        ("nothing", Vec::new(), "archive".into()),
        ("no ZIP", b"PK what".to_vec(), "archive".into()),
        ("half of one", whole[..whole.len() / 2].to_vec(), "archive".into()),
        ("a later version", with(&|c, _| c["version"] = json!(2)), "vemble.json".into()),
        ("no list", packed(&files[1..]), "vemble.json".into()),
        (
            "a name that leads elsewhere",
            with(&|_, f| f.push(("../../etc/cron.d/x".into(), vec![]))),
            "../../etc/cron.d/x".into(),
        ),
        ("a stray file", with(&|_, f| f.push(("run.sh".into(), vec![]))), "run.sh".into()),
        ("an unknown field", with(&|c, _| c["owner"] = json!("root")), "vemble.json: owner".into()),
        (
            "the same id twice",
            with(&|c, _| {
                let one = c["garments"][0].clone();
                c["garments"].as_array_mut().unwrap().push(one);
            }),
            "vemble.json: garments".into(),
        ),
        (
            "nobody’s garment",
            with(&|c, _| c["garments"][0]["wearer"] = json!(Uuid::now_v7())),
            "vemble.json: garments".into(),
        ),
        (
            "a photo of nothing",
            with(&|c, _| c["photos"][0]["garment"] = json!(Uuid::now_v7())),
            "vemble.json: photos".into(),
        ),
        ("a document that is missing", with(&|_, f| f.retain(|(name, _)| *name != document(0))), document(0)),
        (
            "a bomb",
            with(&|_, f| {
                f.iter_mut()
                    .filter(|(name, _)| *name == document(0))
                    .for_each(|(_, b)| *b = zeros(40_000_000));
            }),
            document(0),
        ),
        ("no picture", with(&|_, f| f[photo].1 = b"GIF89a".to_vec()), files[photo].0.clone()),
        (
            "half a picture",
            with(&|_, f| {
                let half = f[photo].1.len() / 2;
                f[photo].1.truncate(half);
            }),
            files[photo].0.clone(),
        ),
    ];
    let other = example.somebody_else();
    other.sign_up("odile").await;
    for (what, archive, path) in cases {
        let (status, problem) = other.bring_in(archive).await;
        assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY, "{what}: {problem}");
        let named = problem["errors"][0]["path"].as_str().unwrap();
        assert!(named.starts_with(&path), "{what}: {named}, not {path}");
    }
    assert_eq!((other.get("/rail").await.1, other.get("/wearers").await.1), (json!([]), json!([])));
    assert_eq!(other.bring_in(whole).await.0, StatusCode::OK, "and the right one is still welcome");
}
