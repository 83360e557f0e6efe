//! Numbers for whoever runs this: how much is asked and how long it takes, what waits, how many connections are in use. In the text format
//! of Prometheus, on a port of its own.

use crate::queue::Queue;
use actix_web::{App, HttpServer, dev::Server, rt, web};
use metrics_exporter_prometheus::{BuildError, PrometheusBuilder};
use std::net::TcpListener;
use std::time::Duration;
use vemble_store::Store;

/// How often what stands at a level is read.
const LOOK: Duration = Duration::from_secs(5);
/// Where times are counted: from what nobody notices to what nobody waits for, in seconds.
const TIMES: [f64; 10] = [0.002, 0.005, 0.01, 0.025, 0.05, 0.1, 0.25, 1.0, 5.0, 20.0];

/// Counts from now on, for all servers of this process, and gives the server that tells it at `/metrics` of `listener`; loopback only.
///
/// # Errors
/// When somebody counts already, or the listener is not one of loopback or cannot be used.
pub fn install(listener: TcpListener) -> std::io::Result<Server> {
    if !listener.local_addr()?.ip().is_loopback() {
        return Err(std::io::Error::other("metrics are told on loopback only"));
    }
    let failed = |error: BuildError| std::io::Error::other(error.to_string());
    let builder = PrometheusBuilder::new().set_buckets(&TIMES).map_err(failed)?;
    let handle = builder.install_recorder().map_err(failed)?;
    let server = HttpServer::new(move || {
        let handle = handle.clone();
        let told = move || {
            let text = handle.render();
            async move { text }
        };
        App::new().route("/metrics", web::get().to(told))
    });
    Ok(server.workers(1).listen(listener)?.run())
}

/// Reads levels from time to time.
pub fn watch(store: &Store, queue: &web::Data<Queue>) {
    let (store, queue) = (store.clone(), queue.clone());
    rt::spawn(async move {
        loop {
            let (used, most) = store.pool();
            metrics::gauge!("vemble_queue_waiting").set(queue.waits() as f64);
            metrics::gauge!("vemble_database_connections_used").set(used as f64);
            metrics::gauge!("vemble_database_connections_most").set(most as f64);
            tokio::time::sleep(LOOK).await;
        }
    });
}
