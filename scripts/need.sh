#!/usr/bin/env bash
# need.sh COMMAND|FILE PACKAGE...: installs Debian packages when COMMAND (or FILE) is missing and we may install.
set -eu
wanted=$1
shift
case $wanted in
  /*) [ -e "$wanted" ] && exit 0 ;;
  *) command -v "$wanted" >/dev/null && exit 0 ;;
esac
as_root=()
[ "$(id -u)" = 0 ] || as_root=(sudo -n)
if command -v apt-get >/dev/null && { [ "$(id -u)" = 0 ] || sudo -n true 2>/dev/null; }; then
  echo "Installing $* ..."
  "${as_root[@]}" apt-get update -qq && "${as_root[@]}" apt-get install -y -qq --no-install-recommends "$@" >/dev/null && exit 0
fi
echo "$wanted is missing: please install the Debian packages $* and run this again." >&2
exit 1
