"""What to do now: a short list of lines that go together, each with what it gains and costs."""
