"""How Chromium is started for tests and pictures: Debian's own, drawing in software."""

CHROMIUM = "/usr/bin/chromium"
FLAGS = [
    "--use-angle=swiftshader",
    "--enable-unsafe-swiftshader",
    "--ignore-gpu-blocklist",
    "--disable-background-networking",
    "--disable-component-update",
    "--no-first-run",
]
