# Vemble in a container. PostgreSQL runs beside it: give its address in DATABASE_URL.
#   podman build -t vemble .
#   podman run -e DATABASE_URL=… vemble migrate
#   podman run -p 127.0.0.1:8080:8080 -e DATABASE_URL=… -e VEMBLE_PUBLIC_URL=https://… -e VEMBLE_TRUSTED_PROXIES=… vemble
FROM docker.io/library/node:20-bookworm AS web
WORKDIR /vemble/web
COPY web .
RUN npm ci --no-audit --no-fund && npm run build

FROM docker.io/library/rust:1.95-bookworm AS build
WORKDIR /vemble
COPY . .
COPY --from=web /vemble/web/dist web/dist
RUN cargo build --release --locked --package vemble-cli --features embedded

FROM docker.io/library/debian:bookworm-slim
# For backups; everything else is in the program.
RUN apt-get update && apt-get install --yes --no-install-recommends postgresql-client && rm -rf /var/lib/apt/lists/*
COPY --from=build /vemble/target/release/vemble /usr/local/bin/vemble
USER 65534:65534
ENV VEMBLE_HOST=0.0.0.0
EXPOSE 8080
ENTRYPOINT ["/usr/local/bin/vemble"]
CMD ["serve"]
