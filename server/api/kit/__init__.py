"""Kit and room: edits, the tape walk, the sound of the room."""
