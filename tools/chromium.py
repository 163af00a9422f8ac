"""Debian's Chromium as tests, benches and pictures start it."""

from shutil import disk_usage
from typing import Any

_ARGUMENTS = [
    "--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run",
    "--disable-background-networking", "--disable-component-update", "--disable-sync",
    "--force-color-profile=srgb", "--font-render-hinting=none", "--hide-scrollbars",
]  # fmt: skip

# Memory that its processes share lies on the disk by this, and waits for it: only where a
# container has next to none.
if disk_usage("/dev/shm").total < 2**30:
    _ARGUMENTS.append("--disable-dev-shm-usage")

# Without the parts of a desktop program: a page is there in a third of the time.
LAUNCH: dict[str, Any] = {
    "executable_path": "/usr/bin/chromium-headless-shell",
    "args": _ARGUMENTS,
}
