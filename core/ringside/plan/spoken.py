"""Names of drums as they are spoken of within a sentence."""


def spoken(name: str) -> str:
    """A name within a sentence: its first letter is small, unless it is written in capitals.

    Parameters
    ----------
    name : str

    Returns
    -------
    str

    Examples
    --------
    >>> [spoken(n) for n in ("Floor tom", "Crash R", "FT")]
    ['floor tom', 'crash R', 'FT']
    """
    if name[1:2].isupper():
        return name
    return name[:1].lower() + name[1:]


def the(name: str) -> str:
    """A drum with its article, but for those that are counted.

    Parameters
    ----------
    name : str

    Returns
    -------
    str

    Examples
    --------
    >>> the("Snare"), the("Rack 1")
    ('the snare', 'rack 1')
    """
    said = spoken(name)
    return said if said[-1:].isdigit() else f"the {said}"


def the_first(name: str) -> str:
    """The same at the head of a sentence.

    Parameters
    ----------
    name : str

    Returns
    -------
    str

    Examples
    --------
    >>> the_first("Snare"), the_first("Rack 1")
    ('The snare', 'Rack 1')
    """
    return head(the(name))


def head(said: str) -> str:
    """Words as they begin a sentence.

    Parameters
    ----------
    said : str

    Returns
    -------
    str

    Examples
    --------
    >>> head("the snare"), head("FT")
    ('The snare', 'FT')
    """
    return said[:1].upper() + said[1:]
