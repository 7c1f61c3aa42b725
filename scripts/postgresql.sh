# Sourced by the demo: a PostgreSQL server of its own on loopback, real, where the programs are installed (Debian: postgresql, openssl).

# The folder of the newest server programs; empty when there are none.
postgresql_programs() {
  local found
  found=$(ls -d /usr/lib/postgresql/*/bin/initdb 2>/dev/null | sort -V | tail -1)
  [ -z "$found" ] || ! command -v openssl > /dev/null || dirname "$found"
}

# The server refuses to run as root: then it runs as the account that its package made.
as_postgresql() {
  if [ "$(id -u)" -eq 0 ]; then setpriv --reuid=postgres --regid=postgres --clear-groups "$@"; else "$@"; fi
}

# Lays a server in folder $1 and starts it with TLS on a port that $1/port then tells. Its superuser is justright, with the password
# in $1/password; the domain's accounts sign in by a ticket, each as the role of its own name.
start_postgresql() {
  local folder=$1 programs port=$((8000 + RANDOM % 900))
  programs=$(postgresql_programs)
  openssl req -x509 -newkey rsa:2048 -nodes -days 30 -subj "/CN=localhost/O=Fennmoor Dairy (demo)" -addext "subjectAltName=DNS:localhost,IP:127.0.0.1" \
    -keyout "$folder/server.key" -out "$folder/server.pem" 2> /dev/null
  openssl rand -hex 16 | tr -d '\n' > "$folder/password"
  printf %s "$port" > "$folder/port"
  chmod 700 "$folder"
  chmod 600 "$folder/server.key" "$folder/password"
  [ "$(id -u)" -ne 0 ] || chown -R postgres "$folder"
  (
    cd /
    as_postgresql "$programs/initdb" -D "$folder/data" -U justright -A scram-sha-256 --pwfile "$folder/password" -E UTF8 --locale C.UTF-8 --no-sync
    printf '%s\n' 'hostssl all justright 127.0.0.1/32 scram-sha-256' 'hostgssenc all all 0.0.0.0/0 gss include_realm=1 map=domain' | as_postgresql tee "$folder/data/pg_hba.conf"
    printf '%s\n' 'domain /^(.*)@FENNMOOR\.EXAMPLE$ \1' | as_postgresql tee "$folder/data/pg_ident.conf"
    as_postgresql "$programs/pg_ctl" -D "$folder/data" -w -t 60 -l "$folder/log" \
      -o "-p $port -c listen_addresses=127.0.0.1 -c unix_socket_directories=$folder -c ssl=on -c ssl_cert_file=$folder/server.pem -c ssl_key_file=$folder/server.key" start
  ) > /dev/null
}

# Stops it and takes its folder away.
stop_postgresql() {
  (cd / && as_postgresql "$(postgresql_programs)/pg_ctl" -D "$1/data" -w -m immediate stop > /dev/null 2>&1) || true
  rm -rf "$1"
}

# The demo's estate with that server in it.
postgresql_estate() {
  sed "s|^instances:|instances:\n  fm-pg01: { host: fm-pg01, engine: postgresql, reach: tls, address: localhost, port: $(cat "$1/port"), certificate: $1/server.pem, sign-in-as: justright, secret: fm-pg01 }|" "$top/demo-data/estates/fennmoor.yaml"
}

# Quernstone, watching it.
postgresql_install() { sed 's|quernstone-sql02|quernstone-pg01|; s|watched: fm-sql02|watched: fm-pg01|' "$top/demo-data/installs/quernstone-sql02.yaml"; }
