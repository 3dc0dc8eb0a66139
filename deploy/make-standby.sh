#!/bin/sh
# Makes an empty folder the standby of a primary. Run it as postgres, with the password of the role replicator in PGPASSWORD.
# Usage: make-standby.sh PRIMARY-HOST DATA-FOLDER
set -eu
primary=$1
data=$2
pg_basebackup --pgdata "$data" --write-recovery-conf --wal-method stream --checkpoint fast \
  --create-slot --slot bibliotope_standby \
  --dbname "host=$primary port=5432 user=replicator application_name=bibliotope_standby"
chmod 700 "$data"
# the password is not in the connection that was written down unless it is put there
printf "primary_conninfo = 'host=%s port=5432 user=replicator password=%s application_name=bibliotope_standby'\n" \
  "$primary" "$PGPASSWORD" >> "$data/postgresql.auto.conf"
echo "This is a standby of $primary now. Start PostgreSQL."
