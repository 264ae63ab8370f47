# Sourced by bin/backup and bin/restore: bases, the archive, and what is restored from them.

# Sets cluster_home, pg_bin, db_port, backup and archive.
find_backup() {
  find_cluster pg
  pg_bin=$(newest_pg_bin)
  [ ! -s "$cluster_home/data/PG_VERSION" ] || pg_bin=/usr/lib/postgresql/$(tr -dc '0-9.' <"$cluster_home/data/PG_VERSION")/bin
  db_port=$(tr -dc '0-9' 2>/dev/null <"$port_file" || true)
  backup=${SPILLWAY_BACKUP:-$cluster_home/backup}
  archive=${SPILLWAY_ARCHIVE:-$cluster_home/archive}
  mkdir -p "$backup"
  [ "$(id -u)" != 0 ] || chown postgres "$backup"
  chmod 700 "$backup"
}

bases() { find "$backup" -maxdepth 1 -name 'base-*' -type d -printf '%f\n' | sort; }

# Whether no base was made since last night's hour, by the clock of this machine.
is_night_due() {
  local last newest
  last=$(date -d 'today 03:20' +%s)
  [ "$last" -le "$(date +%s)" ] || last=$(date -d 'yesterday 03:20' +%s)
  newest=$(bases | tail -n 1 | sed -E 's/^base-(....)(..)(..)T(..)(..)(..)Z$/\1-\2-\3 \4:\5:\6Z/')
  [ -z "$newest" ] || [ "$(date -d "$newest" +%s)" -lt "$last" ]
}

# The newest base that was whole by a time, or of all.
base_for() { # [TIME]
  local stamp=99999999T999999Z
  [ -z "$1" ] || stamp=$(date -u -d "$1" +%Y%m%dT%H%M%SZ)
  bases | awk -v most="base-$stamp" '$0 <= most' | tail -n 1
}

# A base while the database serves: made aside and looked through before it bears a name, so that one cut in the middle is none.
take_base() {
  local coming=$backup/coming name
  rm -rf "$coming"
  PGPASSWORD=$(cat "$password_file") as_postgres env PGPASSWORD="$(cat "$password_file")" "$pg_bin/pg_basebackup" -w -h 127.0.0.1 \
    -p "$db_port" -U spillway -D "$coming" -Fp -X stream -c fast >"$state/backup.log" 2>&1 ||
    die "no base could be made: $(tail -n 2 "$state/backup.log" | tr '\n' ' ')"
  as_postgres "$pg_bin/pg_verifybackup" -q "$coming" >>"$state/backup.log" 2>&1 ||
    die "the base that was made is not what it says: $(tail -n 2 "$state/backup.log" | tr '\n' ' ')"
  # sessions and second steps open by it: without it everybody signs in anew, and second steps are lost
  (umask 077; cp "$state/secret" "$backup/secret.coming" && mv "$backup/secret.coming" "$backup/secret")
  # by when it was whole: no earlier time can be restored from it
  name=base-$(date -u +%Y%m%dT%H%M%SZ)
  mv "$coming" "$backup/$name"
  sync "$backup"
  say "backed up: $name, $(du -sh "$backup/$name" | cut -f1)"
}

# Of the bases the last are kept; of the archive what the oldest of them needs.
prune_backup() { # HOW-MANY
  local old oldest wal
  bases | head -n -"$1" | while read -r old; do rm -rf "${backup:?}/$old"; done
  oldest=$(bases | head -n 1)
  wal=$(sed -n 's/^START WAL LOCATION: .*(file \([0-9A-F]*\)).*/\1/p' "$backup/$oldest/backup_label")
  [ -z "$wal" ] || as_postgres "$pg_bin/pg_archivecleanup" "$archive" "$wal" >>"$state/backup.log" 2>&1 || true
}

# A cluster of its own out of a base and the archive, started where nobody else reaches it, as it stood at a time or at the end.
restore_into() { # FOLDER BASE [TIME]
  local folder=$1 base=$2 time=$3 target='' port said
  stop_restored "$folder"
  rm -rf "$folder"
  cp -a "$base" "$folder"
  [ -z "$time" ] || target="recovery_target_time = '$(date -u -d "$time" '+%Y-%m-%d %H:%M:%S.%6N+00')'
recovery_target_action = 'promote'
recovery_target_inclusive = on"
  cat >>"$folder/postgresql.auto.conf" <<END
restore_command = 'cp "$archive/%f" "%p"'
$target
END
  touch "$folder/recovery.signal"
  printf 'local all spillway trust\n' >"$folder/restoring.hba"
  [ "$(id -u)" != 0 ] || chown -R postgres "$folder"
  chmod 700 "$folder"
  port=$(free_port)
  printf '%s' "$port" >"$state/restoring.port"
  mkdir -p "$state/restoring"
  [ "$(id -u)" != 0 ] || chown postgres "$state/restoring"
  as_postgres "$pg_bin/pg_ctl" -D "$folder" -w -t 3600 -l "$state/restoring/log" \
    -o "-p $port -c listen_addresses='' -c unix_socket_directories=$state/restoring -c hba_file=$folder/restoring.hba -c archive_mode=off" \
    start >/dev/null 2>&1 ||
    die "it cannot be restored so: $(grep -E 'FATAL|ERROR' "$state/restoring/log" | tail -n 2 | tr '\n' ' ')"
  for _ in $(seq 36000); do
    said=$(ask_restored 'select pg_is_in_recovery()' 2>/dev/null || true)
    [ "$said" != f ] || break
    sleep 0.1
  done
  [ "$said" = f ] || die 'what was restored does not come to an end of its recovery'
  # what served for the way back is no setting of the cluster
  sed -i '/^restore_command\|^recovery_target/d' "$folder/postgresql.auto.conf"
  rm -f "$folder/restoring.hba"
}

ask_restored() { # SQL [DATABASE]
  as_postgres "$pg_bin/psql" -w -qtAX -v ON_ERROR_STOP=1 -h "$state/restoring" -p "$(cat "$state/restoring.port")" -U spillway -d "${2:-spillway}" -c "$1"
}

stop_restored() { as_postgres "$pg_bin/pg_ctl" -D "$1" -m fast -w stop >/dev/null 2>&1 || true; }

# A sum of every row of every table, whatever their order on disk: two databases of one sum hold the same.
sums_sql="select string_agg(format('select %L || '' '' || count(*) || '' '' || coalesce(md5(string_agg(md5(t::text), '''' order by md5(t::text))), '''') as s from %I.%I t', nspname || '.' || relname, nspname, relname), ' union all ' order by nspname, relname)
  from pg_class c join pg_namespace n on n.oid = c.relnamespace
  where relkind = 'r' and relpersistence = 'p' and nspname in ('public', 'login')"

summary() { # of what was restored
  local all
  all=$(ask_restored "$(ask_restored "$sums_sql")" | sort)
  printf '%s tables, %s jobs, %s changes, sum %s' "$(printf '%s\n' "$all" | wc -l)" \
    "$(printf '%s\n' "$all" | awk '$1 == "public.job" { print $2 }')" \
    "$(printf '%s\n' "$all" | awk '$1 == "public.job_change" { print $2 }')" "$(printf '%s' "$all" | sha256sum | cut -c1-16)"
}

# The newest base and the whole archive, brought back beside what serves and looked through by PostgreSQL's own means.
verify_newest() {
  local base beside=$cluster_home/verifying
  base=$(base_for '')
  [ -n "$base" ] || die 'there is no backup to verify'
  restore_into "$beside" "$backup/$base" ''
  as_postgres "$pg_bin/pg_amcheck" -w -h "$state/restoring" -p "$(cat "$state/restoring.port")" -U spillway --install-missing \
    --heapallindexed spillway >"$state/verify.log" 2>&1 || die "what was restored is damaged: $(tail -n 3 "$state/verify.log" | tr '\n' ' ')"
  say "verified: $base and the archive since hold $(summary "$beside")"
  stop_restored "$beside"
  rm -rf "$beside"
}
