//! A PostgreSQL of one's own, to be killed, filled up and found empty. It runs as another user where we are root, as it wants to.

use std::net::TcpListener;
use std::path::PathBuf;
use std::process::{Command, Stdio};
use uuid::Uuid;

pub struct Cluster {
    programs: PathBuf,
    folder: PathBuf,
    port: u16,
    as_postgres: bool,
}

impl Cluster {
    /// An empty one that nobody ever used.
    pub fn new() -> Self {
        let versions = std::fs::read_dir("/usr/lib/postgresql").expect("PostgreSQL is installed").flatten();
        let programs = versions.map(|v| v.path().join("bin")).filter(|p| p.join("initdb").exists()).max();
        let folder = PathBuf::from(format!("/var/tmp/vemble-cluster-{}", Uuid::now_v7()));
        std::fs::create_dir(&folder).expect("a folder");
        let id = Command::new("id").arg("-u").output().expect("id").stdout;
        let listener = TcpListener::bind("127.0.0.1:0").expect("a free port");
        let port = listener.local_addr().expect("an address").port();
        let as_postgres = id == b"0\n";
        let cluster = Self { programs: programs.expect("initdb"), folder, port, as_postgres };
        if as_postgres {
            Command::new("chown").arg("postgres").arg(&cluster.folder).status().expect("chown");
        }
        cluster.run(&format!("initdb --auth=trust --username=vemble --encoding=UTF8 -D {}", cluster.data()));
        cluster
    }

    fn data(&self) -> String {
        self.folder.join("data").display().to_string()
    }

    /// Runs a line of a shell in which PostgreSQL’s programs are found.
    fn run(&self, line: &str) {
        let line = format!("PATH={}:$PATH; {line}", self.programs.display());
        let mut command = Command::new(if self.as_postgres { "runuser" } else { "sh" });
        if self.as_postgres {
            command.args(["-u", "postgres", "--", "sh"]);
        }
        let done = command.args(["-c", &line]).current_dir("/").stdin(Stdio::null()).stdout(Stdio::null());
        assert!(done.stderr(Stdio::null()).status().expect("it runs").success(), "{line}");
    }

    /// Starts it; no file of it grows beyond so many kilobytes.
    pub fn start(&self, most_kilobytes: Option<u32>) {
        // A shell counts in blocks of 512 bytes (POSIX, ulimit).
        let limit = most_kilobytes.map(|most| format!("ulimit -f {}; ", most * 2)).unwrap_or_default();
        let (data, log) = (self.data(), self.folder.join("log").display().to_string());
        let port = self.port;
        self.run(&format!(
            "{limit}pg_ctl start -w -D {data} -l {log} -o '-p {port} -c listen_addresses=127.0.0.1 -c unix_socket_directories='"
        ));
    }

    /// Ends it at once, as a power cut does.
    pub fn kill(&self) {
        self.run(&format!("pg_ctl stop -m immediate -D {}", self.data()));
    }

    /// Where to connect as somebody.
    pub fn url(&self, role: &str, database: &str) -> String {
        format!("postgres://{role}@127.0.0.1:{}/{database}", self.port)
    }
}

impl Drop for Cluster {
    fn drop(&mut self) {
        let stop = format!("pg_ctl stop -m immediate -D {}", self.data());
        if self.folder.join("data/postmaster.pid").exists() {
            self.run(&stop);
        }
        let _ = std::fs::remove_dir_all(&self.folder);
    }
}
