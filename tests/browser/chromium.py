"""How Chromium is started for tests and pictures: Debian's own, drawing in software."""

CHROMIUM = "/usr/bin/chromium"
# Pages are put together by the processor: what a plain office machine without a graphics card does.
SOFTWARE = ["--disable-gpu", "--disable-background-networking", "--disable-component-update", "--no-first-run"]
FLAGS = [
    "--use-angle=swiftshader",
    "--enable-unsafe-swiftshader",
    "--ignore-gpu-blocklist",
    "--disable-gpu-compositing",
    "--disable-gpu-rasterization",
    "--disable-background-networking",
    "--disable-component-update",
    "--no-first-run",
]
