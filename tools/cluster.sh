#!/usr/bin/env bash
# A batch cluster of this one machine for tests: its programs, keys and state lie in one folder and are ended by their numbers.
#   cluster.sh start FOLDER    then export SLURM_CONF=FOLDER/slurm.conf
#   cluster.sh stop FOLDER
set -eu

verb=$1
mkdir -p "$2"
dir=$(cd "$2" && pwd)
conf=$dir/slurm.conf

start() {
  chmod 755 "$dir"
  head -c 1024 /dev/urandom > "$dir/munge.key"
  chmod 400 "$dir/munge.key"
  munged --force "--key-file=$dir/munge.key" "--socket=$dir/munge.sock" "--pid-file=$dir/munged.pid" \
    "--log-file=$dir/munged.log" "--seed-file=$dir/seed"
  # Ports that no other cluster of this machine has: two that follow each other, by the number of this program.
  local port=$((20000 + $$ % 20000 * 2))
  cat > "$conf" <<CONF
ClusterName=lane
SlurmctldHost=localhost
AuthType=auth/munge
AuthInfo=socket=$dir/munge.sock
SlurmUser=root
SlurmdUser=root
SlurmctldPort=$port
SlurmdPort=$((port + 1))
StateSaveLocation=$dir/state
SlurmdSpoolDir=$dir/spool
SlurmctldPidFile=$dir/ctld.pid
SlurmdPidFile=$dir/slurmd.pid
SlurmctldLogFile=$dir/ctld.log
SlurmdLogFile=$dir/slurmd.log
ProctrackType=proctrack/linuxproc
TaskPlugin=task/none
SelectType=select/cons_tres
SelectTypeParameters=CR_Core
ReturnToService=2
SchedulerType=sched/builtin
SchedulerParameters=sched_interval=2
JobAcctGatherType=jobacct_gather/none
AccountingStorageType=accounting_storage/none
MinJobAge=10
NodeName=localhost CPUs=$(nproc) RealMemory=$(($(sed -n 's/MemTotal: *\([0-9]*\).*/\1/p' /proc/meminfo) / 1280)) State=UNKNOWN
PartitionName=main Nodes=localhost Default=YES MaxTime=INFINITE State=UP
CONF
  mkdir -p "$dir/state" "$dir/spool"
  export SLURM_CONF=$conf
  slurmctld
  slurmd -N localhost
  local i
  for i in $(seq 1 60); do
    sinfo --noheader --format=%T 2>/dev/null | grep -q idle && return 0
    sleep 0.5
  done
  echo "cluster.sh: the node does not become idle; see $dir/ctld.log and $dir/slurmd.log" >&2
  stop
  return 1
}

# By the numbers that the programs wrote, and no others.
stop() {
  local one pid i
  for one in slurmd ctld munged; do
    [ -s "$dir/$one.pid" ] || continue
    pid=$(cat "$dir/$one.pid")
    kill "$pid" 2>/dev/null || continue
    for i in $(seq 1 50); do kill -0 "$pid" 2>/dev/null || break; sleep 0.1; done
  done
}

case $verb in
  start) start ;;
  stop) stop ;;
  *) echo "cluster.sh: start or stop, and a folder" >&2; exit 2 ;;
esac
