"""What is told of a layout: boards, reports, sheets, depth, remedies, changes."""
