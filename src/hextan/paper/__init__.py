"""Paper: where everything of a sheet stands on its pages; the screen and the file draw the same marks."""
