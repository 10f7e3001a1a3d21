"""What a studio keeps."""
