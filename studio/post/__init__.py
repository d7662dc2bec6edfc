"""Letters by mail. Without a mail server they go into a folder, and the studio shows what would have been sent."""
