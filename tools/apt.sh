#!/bin/sh
# Installs Debian packages, as root or with sudo.
set -eu
as_root=""
[ "$(id -u)" -eq 0 ] || as_root="sudo"
export DEBIAN_FRONTEND=noninteractive
$as_root apt-get update -qq
$as_root apt-get install -y -qq --no-install-recommends "$@" >/dev/null
