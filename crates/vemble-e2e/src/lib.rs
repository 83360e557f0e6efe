//! What a journey needs: a server with the built front end on a database of its own, and a browser in front of it.

use diesel_async::{AsyncConnection, AsyncPgConnection, SimpleAsyncConnection};
use fantoccini::wd::Capabilities;
use fantoccini::{Client, ClientBuilder, Locator, elements::Element};
use hyper_util::client::legacy::connect::HttpConnector;
use std::net::{SocketAddr, TcpListener};
use std::path::PathBuf;
use std::process::Stdio;
use std::time::Duration;
use tokio::process::{Child, Command};
use uuid::Uuid;
use vemble_server::{Config, Web};
use vemble_store::Store;
use vemble_tape::StandIn;

/// A browser on a running Vemble. Both end with it.
pub struct Journey {
    /// The browser.
    pub browser: Client,
    /// Where Vemble is.
    pub base: String,
    /// A digital tape measure in reach of the server.
    pub tape: StandIn,
    _driver: Child,
    _profile: Profile,
}

/// A new empty browser profile; the browser that uses it ends with it, also when a journey ends in a panic and nobody
/// closed it.
struct Profile(PathBuf);

impl Drop for Profile {
    fn drop(&mut self) {
        // ChromeDriver starts browsers in process groups of their own, so they do not end with it.
        let of_this_profile = format!("user-data-dir={}", self.0.display());
        let _ = std::process::Command::new("pkill").args(["-KILL", "-f", "--", &of_this_profile]).status();
        let _ = std::fs::remove_dir_all(&self.0);
    }
}

/// How long anything is waited for: a busy machine is slow, and no test is about that.
const PATIENCE: Duration = Duration::from_secs(30);
/// So often anything is looked for, a tenth of a second apart.
pub const TRIES: usize = 300;

fn free_port() -> u16 {
    let listener = TcpListener::bind("127.0.0.1:0").expect("a free port");
    listener.local_addr().expect("an address").port()
}

async fn serve(tape: SocketAddr) -> String {
    let url = std::env::var("DATABASE_URL").expect("DATABASE_URL; `cargo xtask test` sets it");
    let web =
        std::env::var("VEMBLE_WEB").expect("VEMBLE_WEB, the built front end; `cargo xtask test` sets it");
    let name = format!("journey_{}", Uuid::now_v7().simple());
    let mut connection = AsyncPgConnection::establish(&url).await.expect("PostgreSQL answers");
    connection.batch_execute(&format!("CREATE DATABASE {name}")).await.expect("a database of its own");
    let (server, _) = url.rsplit_once('/').expect("a database in the URL");
    let store = Store::open(&format!("{server}/{name}")).await.expect("the store opens");
    let listener = TcpListener::bind("127.0.0.1:0").expect("a free port");
    let config = Config {
        web: Web::Folder(web.into()),
        example: true,
        tape: Some(tape),
        ..Config::at(listener, store).expect("an address")
    };
    let (server, address) = vemble_server::serve(config).expect("the server starts");
    actix_web::rt::spawn(server);
    format!("http://{address}")
}

impl Journey {
    /// Opens Vemble in a window of this size.
    pub async fn begin(width: u32, height: u32) -> Self {
        let tape = StandIn::start(0, "VT-JOURNEY", "418207").expect("a tape");
        let base = serve(tape.address).await;
        let port = free_port();
        let mut driver = Command::new("chromedriver");
        driver.arg(format!("--port={port}")).stdout(Stdio::null()).stderr(Stdio::null()).kill_on_drop(true);
        let driver = driver.spawn().expect("chromedriver is installed");
        let profile = Profile(std::env::temp_dir().join(format!("vemble-{}", Uuid::now_v7())));
        let mut arguments: Vec<String> = [
            "--headless",
            "--no-sandbox",
            "--disable-gpu",
            "--disable-quic",
            "--no-first-run",
            "--disable-background-networking",
            "--disable-component-update",
            "--disable-sync",
            "--lang=en",
            // Nothing that is clicked moves meanwhile.
            "--force-prefers-reduced-motion",
        ]
        .map(String::from)
        .into();
        arguments.push(format!("--window-size={width},{height}"));
        arguments.push(format!("--user-data-dir={}", profile.0.display()));
        let mut wanted = Capabilities::new();
        wanted.insert("goog:chromeOptions".into(), serde_json::json!({ "args": arguments }));
        let mut builder = ClientBuilder::new(HttpConnector::new());
        builder.capabilities(wanted);
        let at = format!("http://127.0.0.1:{port}");
        let mut browser = Err(String::new());
        for _ in 0..TRIES {
            browser = builder.connect(&at).await.map_err(|e| e.to_string());
            if browser.is_ok() {
                break;
            }
            tokio::time::sleep(Duration::from_millis(100)).await;
        }
        let browser = browser.expect("the browser opens");
        browser.goto(&base).await.expect("the start page opens");
        Self { browser, base, tape, _driver: driver, _profile: profile }
    }

    /// Closes the browser.
    pub async fn end(self) {
        self.browser.close().await.expect("the browser closes");
    }

    /// The element, as soon as it is there.
    pub async fn find(&self, css: &str) -> Element {
        let wait = self.browser.wait().at_most(PATIENCE);
        wait.for_element(Locator::Css(css)).await.unwrap_or_else(|e| panic!("{css}: {e}"))
    }

    /// Clicks the element, as soon as it is there.
    pub async fn click(&self, css: &str) {
        self.click_at(Locator::Css(css)).await;
    }

    /// Clicks what carries these words.
    pub async fn click_words(&self, words: &str) {
        let path =
            format!("//*[self::button or self::a or self::label or self::h2][contains(., \"{words}\")]");
        self.click_at(Locator::XPath(&path)).await;
    }

    /// A page that is just being painted anew, or a window that is opening, may take an element away between finding and clicking it.
    async fn click_at(&self, at: Locator<'_>) {
        let mut trouble = String::new();
        for _ in 0..TRIES {
            let wait = self.browser.wait().at_most(PATIENCE);
            let found = wait.for_element(at).await.unwrap_or_else(|e| panic!("{at:?}: {e}"));
            match found.click().await {
                Ok(()) => return,
                Err(error) => trouble = error.to_string(),
            }
            tokio::time::sleep(Duration::from_millis(100)).await;
        }
        panic!("{at:?}: {trouble}");
    }

    /// Types over what a field holds.
    pub async fn type_over(&self, css: &str, keys: &str) {
        self.click(css).await;
        let field = self.find(css).await;
        // Control and A.
        field.send_keys("\u{e009}a\u{e000}").await.expect("the field is selected");
        field.send_keys(keys).await.expect("the field takes keys");
    }

    /// Signs up on the start page.
    pub async fn sign_up(&self, name: &str) {
        self.click_words("I am new here").await;
        self.type_over("#name", name).await;
        self.type_over("#email", &format!("{name}@example.org")).await;
        self.type_over("#password", "seven garments on one rail\u{e007}").await;
        self.until_text(".rail_what-now", "Nothing hangs here yet").await;
    }

    /// Makes the window a telephone's.
    pub async fn on_a_phone(&self) {
        let phone = serde_json::json!({ "cmd": "Emulation.setDeviceMetricsOverride", "params": { "width": 390, "height": 844, "deviceScaleFactor": 1, "mobile": true } });
        self.chrome(phone).await;
    }

    /// Makes the window a telephone's, with a thumb instead of a mouse.
    pub async fn under_a_thumb(&self) {
        self.on_a_phone().await;
        let touch =
            serde_json::json!({ "cmd": "Emulation.setTouchEmulationEnabled", "params": { "enabled": true } });
        self.chrome(touch).await;
    }

    /// Taps the element with a thumb, as soon as it is there and stands still.
    pub async fn tap(&self, css: &str) {
        self.find(css).await;
        let script = "const e = document.querySelector(arguments[0]); e.scrollIntoView({ block: 'nearest', inline: 'nearest' }); \
                      const r = e.getBoundingClientRect(); return [r.x + r.width / 2, r.y + r.height / 2];";
        let at = self.browser.execute(script, vec![css.into()]).await.expect("the page answers");
        for (kind, points) in [
            ("touchStart", serde_json::json!([{ "x": at[0], "y": at[1] }])),
            ("touchEnd", serde_json::json!([])),
        ] {
            let touch = serde_json::json!({ "cmd": "Input.dispatchTouchEvent", "params": { "type": kind, "touchPoints": points } });
            self.chrome(touch).await;
        }
    }

    /// Takes this window's network away, or gives it back.
    pub async fn without_network(&self, gone: bool) {
        let params = serde_json::json!({ "offline": gone, "latency": 0, "downloadThroughput": -1, "uploadThroughput": -1 });
        self.chrome(serde_json::json!({ "cmd": "Network.enable", "params": {} })).await;
        self.chrome(serde_json::json!({ "cmd": "Network.emulateNetworkConditions", "params": params })).await;
    }

    /// Does something in another window of the same browser, and comes back.
    pub async fn elsewhere<T>(&self, path: &str, doing: impl AsyncFnOnce() -> T) -> T {
        let here = self.browser.window().await.expect("a window");
        let there = self.browser.new_window(true).await.expect("another window");
        self.browser.switch_to_window(there.handle).await.expect("it opens");
        self.browser.goto(&format!("{}{path}", self.base)).await.expect("the page opens");
        let done = doing().await;
        self.browser.close_window().await.expect("it closes");
        self.browser.switch_to_window(here).await.expect("back again");
        done
    }

    /// Panics if anything sticks out sideways.
    pub async fn nothing_sticks_out(&self, of: &str) {
        let too_wide = "return document.documentElement.scrollWidth - innerWidth";
        let by = self.browser.execute(too_wide, vec![]).await.expect("the page answers");
        // Less than nought is a scroll bar down the side.
        assert!(by.as_i64().is_some_and(|by| by <= 0), "{of}: {by}");
    }

    /// Chooses from a list that drops down.
    pub async fn choose(&self, list: &str, option: &str) {
        let list = format!(".ant-select:has([aria-label='{list}'])");
        self.click(&list).await;
        let shown = ".ant-select-dropdown:not(.ant-select-dropdown-hidden)";
        self.click(&format!("{shown} .ant-select-item-option[title='{option}']")).await;
    }

    /// Gives a file to a field.
    pub async fn give_file(&self, css: &str, path: &std::path::Path) {
        let wait = self.browser.wait().at_most(PATIENCE);
        let field = wait.for_element(Locator::Css(css)).await.unwrap_or_else(|e| panic!("{css}: {e}"));
        field.send_keys(&path.to_string_lossy()).await.expect("the field takes a file");
    }

    /// Waits until the element's text says so; panics with what it said instead.
    pub async fn until_text(&self, css: &str, says: &str) {
        let mut said = String::new();
        for _ in 0..TRIES {
            let script = "const e = document.querySelector(arguments[0]); return e ? (typeof e.value === 'string' ? e.value : e.textContent) : '';";
            let found = self.browser.execute(script, vec![css.into()]).await.expect("the page answers");
            said = found.as_str().unwrap_or_default().to_owned();
            if said.contains(says) {
                return;
            }
            tokio::time::sleep(Duration::from_millis(100)).await;
        }
        panic!("{css} should say “{says}” but says “{said}”");
    }

    /// Waits until the element's text is another one.
    pub async fn until_other(&self, css: &str, than: &str) {
        for _ in 0..TRIES {
            let script = "return document.querySelector(arguments[0])?.textContent ?? ''";
            let found = self.browser.execute(script, vec![css.into()]).await.expect("the page answers");
            if found.as_str().is_some_and(|text| !text.is_empty() && text != than) {
                return;
            }
            tokio::time::sleep(Duration::from_millis(100)).await;
        }
        panic!("{css} says “{than}” all the time");
    }

    /// Waits until the element with this label has the focus.
    pub async fn until_focus(&self, label: &str) {
        let mut focused = String::new();
        for _ in 0..TRIES {
            let script = "return document.activeElement?.getAttribute('aria-label') ?? ''";
            let found = self.browser.execute(script, vec![]).await.expect("the page answers");
            focused = found.as_str().unwrap_or_default().to_owned();
            if focused == label {
                return;
            }
            tokio::time::sleep(Duration::from_millis(100)).await;
        }
        panic!("the focus should be on “{label}” but is on “{focused}”");
    }

    /// Gives Chromium itself a command of its DevTools protocol.
    pub async fn chrome(&self, command: serde_json::Value) {
        self.browser.issue_cmd(DevTools(command)).await.expect("Chromium takes the command");
    }

    /// The texts of all such elements.
    pub async fn texts(&self, css: &str) -> Vec<String> {
        let script = "return [...document.querySelectorAll(arguments[0])].map((e) => typeof e.value === 'string' ? e.value : e.textContent);";
        let found = self.browser.execute(script, vec![css.into()]).await.expect("the page answers");
        serde_json::from_value(found).expect("texts")
    }
}

/// ChromeDriver's own way to the DevTools protocol.
#[derive(Debug)]
struct DevTools(serde_json::Value);

impl fantoccini::wd::WebDriverCompatibleCommand for DevTools {
    fn endpoint(&self, base: &url::Url, session: Option<&str>) -> Result<url::Url, url::ParseError> {
        base.join(&format!("session/{}/goog/cdp/execute", session.unwrap_or_default()))
    }

    fn method_and_body(&self, _: &url::Url) -> (http::Method, Option<String>) {
        (http::Method::POST, Some(self.0.to_string()))
    }
}
