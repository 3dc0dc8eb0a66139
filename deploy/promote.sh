#!/bin/sh
# Makes the standby the primary, once the primary is gone for good. Run it as postgres on the standby.
# The old primary must not come back by itself: make it a standby of this one, by make-standby.sh with an empty folder.
# Usage: promote.sh DATA-FOLDER
set -eu
data=$1
# there is no standby any more that could confirm anything
psql --quiet --no-psqlrc --dbname postgres --command "alter system set synchronous_standby_names = ''"
pg_ctl promote --pgdata "$data" --wait
pg_ctl reload --pgdata "$data"
echo "This is the primary now."
