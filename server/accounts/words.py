"""Words that let somebody or something in: told once, of which only a digest is kept."""

import hashlib
import secrets

WORD_BYTES = 24


def fresh_word() -> str:
    """A word that nobody guesses."""
    return secrets.token_urlsafe(WORD_BYTES)


def digest_of(word: str) -> str:
    """What is kept of a word, to know it again."""
    return hashlib.sha256(word.encode()).hexdigest()
