"""What an archive is called, inside; docs/formats/studio.md describes it."""

FORMAT, VERSION = "ringside-studio", 1
MANIFEST = "ringside-studio.json"
TAKES = "takes.jsonl"
